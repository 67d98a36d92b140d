import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import type { DueItem } from '@isometra/contract';
import { daysBetween } from '@isometra/work';
import type { ApiFailure } from '../data/api';
import { DueStore } from '../data/due';
import { dayWords } from '../data/when';
import { Choices } from '../ui/choices';
import { Notice } from '../ui/notice';
import { counted } from '../ui/say';
import { CalendarAddresses } from './calendar-addresses';
import { weeksOf } from './weeks';

const ALL = 'all';
const KINDS = [
  { value: ALL, label: 'All' },
  { value: 'check', label: 'Checks' },
  { value: 'kit', label: 'Certificates' },
  { value: 'part', label: 'Parts' },
  { value: 'own', label: 'Added by hand' },
] as const;

/** What has a day of its own across the shop, week by week: checks to read again, certificates, parts that are expected. */
@Component({
  selector: 'iso-due-page',
  imports: [RouterLink, CalendarAddresses, Choices, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1>What is due</h1>
      <iso-choices label="What is shown" [options]="kinds" [value]="kind()" (chosen)="kind.set($any($event))" />
      <a class="act" routerLink="/planner">Planner</a>
    </header>
    <iso-notice [text]="problem()" />
    <div class="parts">
      <div class="weeks">
        @for (week of weeks(); track week.name) {
          <section [class.late]="week.late">
            <h2>{{ week.name }}</h2>
            <ul [attr.aria-label]="week.name">
              @for (item of week.items; track item.path.join('/') + item.title) {
                <li>
                  <span class="figures day">{{ day(item.day) }}</span>
                  <b class="figures">{{ item.number ?? 'Shop' }}</b>
                  <a [routerLink]="item.path">{{ item.title }}</a>
                  <span class="soft">{{ late(item) }}</span>
                </li>
              }
            </ul>
          </section>
        } @empty {
          @if (due()) {
            <p>
              Nothing is due. Checks that want to be read again, certificates and parts that are expected come onto this list by themselves.
            </p>
          }
        }
      </div>
      <iso-calendar-addresses />
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      align-content: start;
      padding: 22px 28px 40px;
    }
    header {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 22px;
      align-items: center;
    }
    .parts {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 340px;
      gap: 32px;
      align-items: start;
    }
    .weeks {
      display: grid;
      gap: 16px;
    }
    h2 {
      font-size: 1.125rem;
    }
    .late h2 {
      color: var(--red);
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 112px 60px minmax(0, 1fr) auto;
      gap: 4px 14px;
      align-items: baseline;
      padding: 5px 0;
      border-top: 1px solid var(--line);
    }
    .day {
      font-size: 0.9375rem;
    }
    @media (width < 1000px) {
      .parts {
        grid-template-columns: minmax(0, 1fr);
      }
    }
    @media (width < 600px) {
      li {
        grid-template-columns: 112px minmax(0, 1fr);
      }
      li a,
      li .soft {
        grid-column: 1 / -1;
      }
    }
  `,
})
export class DuePage {
  private readonly store = inject(DueStore);
  protected readonly day = dayWords;
  protected readonly kinds = KINDS;
  protected readonly kind = signal<(typeof KINDS)[number]['value']>(ALL);
  protected readonly problem = signal('');
  protected readonly due = toSignal(this.store.due$);
  protected readonly weeks = computed(() => {
    const [due, kind] = [this.due(), this.kind()];
    return due
      ? weeksOf(
          due.items.filter(({ what }) => kind === ALL || what === kind),
          due.today,
        )
      : [];
  });

  constructor() {
    this.store.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected late({ day }: DueItem): string {
    const days = daysBetween(day, this.due()?.today ?? day);
    return days > 0 ? `overdue by ${counted(days, 'day')}` : '';
  }
}
