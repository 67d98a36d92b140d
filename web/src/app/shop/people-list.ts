import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { WEEKDAY_NAMES, WEEKDAYS, type Person, type Working } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { People } from '../data/people';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { counted } from '../ui/say';
import { WorkingForm } from './working-form';

const OWN = '';

/** When somebody works, in a line. */
function worksWords(working: Working | null | undefined): string {
  if (!working) return 'the hours of the shop';
  const hours = WEEKDAYS.flatMap((day, i) => (working.hours[day] ? [`${WEEKDAY_NAMES[i].slice(0, 3)} ${working.hours[day]} h`] : []));
  const away = working.off.length ? `, away on ${counted(working.off.length, 'day')}` : '';
  return `${hours.join(', ') || 'no hours'}${away}`;
}

/** People of the shop by their initials: names, and initials that were typing mistakes. */
@Component({
  selector: 'iso-people-list',
  imports: [RouterLink, WorkingForm, Button, Field, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>People</h2>
    @for (person of people(); track person.initials) {
      <div class="row">
        <b class="figures">{{ person.initials }}</b>
        @if (person.meant === null) {
          <iso-field
            label=""
            [name]="'Name of ' + person.initials"
            [size]="16"
            [most]="60"
            placeholder="name"
            [value]="person.name"
            (changed)="name(person, $event)"
          />
        } @else {
          <span>A typing mistake for {{ person.meant }}</span>
        }
        <a routerLink="/logbook" [queryParams]="{ by: person.meant ?? person.initials }">{{ person.told }}</a>
        <iso-pick
          [label]="'What ' + person.initials + ' stands for'"
          [options]="person.choices"
          [value]="person.meant ?? ''"
          (chosen)="meant(person, $event)"
        />
        @if (person.meant === null) {
          <span class="hours">
            <span class="soft">{{ person.works }}</span>
            <button
              pButton
              type="button"
              class="plain"
              [attr.aria-label]="'Hours of ' + person.initials"
              (click)="hoursOf.set(person.initials)"
            >
              Hours
            </button>
          </span>
        }
        @if (hoursOf() === person.initials) {
          <iso-working-form
            [who]="person.initials"
            [working]="person.working ?? null"
            (kept)="works(person, $event)"
            (closed)="hoursOf.set(null)"
          />
        }
      </div>
    } @empty {
      <p class="soft">Nobody has written anything down yet.</p>
    }
    <form (submit)="add($event)" novalidate>
      <iso-field above label="Initials" example="HB" [size]="4" [most]="8" [value]="initials()" (typed)="initials.set($event)" />
      <iso-field
        above
        label="Name"
        name="Name of the new person"
        [size]="20"
        [most]="60"
        [value]="fullName()"
        (typed)="fullName.set($event)"
      />
      <button pButton type="submit">Add a person</button>
    </form>
    <iso-notice [text]="problem()" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .row {
      display: grid;
      grid-template-columns: 3.5em minmax(0, 1fr) 6em 210px;
      gap: 6px 16px;
      align-items: center;
      padding: 5px 0;
      border-top: 1px solid var(--line);
    }
    .hours {
      display: flex;
      gap: 12px;
      align-items: baseline;
      grid-column: 2 / -1;
    }
    iso-working-form {
      grid-column: 1 / -1;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
      padding-top: 10px;
      border-top: 1px solid var(--line);
    }
    @media (width < 800px) {
      .row {
        grid-template-columns: 5em minmax(0, 1fr);
      }
    }
  `,
})
export class PeopleList {
  private readonly store = inject(People);
  protected readonly problem = signal('');
  protected readonly initials = signal('');
  protected readonly fullName = signal('');
  /** Whose hours are being told. */
  protected readonly hoursOf = signal<string | null>(null);
  private readonly all = toSignal(this.store.all$, { initialValue: null });
  protected readonly people = computed(() => {
    const all = this.all() ?? [];
    return all.map((person) => ({
      ...person,
      works: worksWords(person.working),
      told: person.entries === 1 ? '1 entry' : `${person.entries} entries`,
      choices: [
        { value: OWN, label: 'initials of their own' },
        ...all
          .filter((other) => other.initials !== person.initials && other.meant === null)
          .map((other) => ({ value: other.initials, label: `a mistake for ${other.initials}` })),
      ],
    }));
  });

  constructor() {
    this.store.load().subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  private keep({ initials, name, meant, working }: Person): void {
    this.problem.set('');
    this.store
      .keep({ initials, name, meant, ...(working !== undefined && { working }) })
      .subscribe({ error: (failure: ApiFailure) => this.problem.set(failure.message) });
  }

  protected works(person: Person, working: Working | null): void {
    this.hoursOf.set(null);
    this.keep({ ...person, working });
  }

  protected name(person: Person, name: string): void {
    this.keep({ ...person, name: name.trim() });
  }

  protected meant(person: Person, meant: string): void {
    this.keep({ ...person, meant: meant === OWN ? null : meant });
  }

  protected add(event: Event): void {
    event.preventDefault();
    const initials = this.initials().trim();
    if (!initials) return this.problem.set('Initials? Example: HB');
    this.keep({ initials, name: this.fullName().trim(), meant: null });
    this.initials.set('');
    this.fullName.set('');
  }
}
