import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MOST_PRICE, type Need, type NeedState, type Part } from '@isometra/contract';
import { conditionOf, conditionWords, inNeed, needOf, STATES_OF } from '@isometra/work';
import { amountTyped, isDay } from '../data/typed';
import { StripDowns } from '../data/strip-downs';
import { today } from '../data/when';
import { Choices, type Choice } from '../ui/choices';
import { Day } from '../ui/day';
import { Field } from '../ui/field';
import { overdueWords, STATE_LABELS } from './part-words';

/** A part that something has to be done to, and where it belongs. */
export interface NeededRow {
  readonly machineId: string;
  /** The machine where several are listed, and what was taken apart. */
  readonly belongs: string;
  readonly part: Part;
}

/** What must be cleaned, mended, made or ordered: each with its state, and the day on which it is expected. */
@Component({
  selector: 'iso-needs-list',
  imports: [RouterLink, Choices, Day, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (row of shown(); track row.part.id) {
      <div class="row" [class.done]="row.state === 'done'">
        <a [routerLink]="['/machines', row.machineId, 'parts', row.part.stripDownId]" [queryParams]="{ part: row.part.id }">
          <span class="number figures">{{ row.part.number }}</span>
          <b>{{ row.name }}</b>
        </a>
        <span class="what"
          ><span>{{ row.what }}</span>
          <span class="soft">{{ row.belongs }}</span>
          @if (row.late) {
            <span class="late">{{ row.late }}</span>
          }
        </span>
        <iso-choices [label]="'State of ' + row.name" [options]="row.states" [value]="row.state" (chosen)="setState(row, $event)" />
        @if (row.supplied) {
          <span class="day"
            ><span class="label">Expected</span>
            <iso-day
              [label]="'the day on which ' + row.name + ' is expected'"
              [value]="typedDay(row)"
              placeholder="2026-12-12"
              (changed)="typeDay(row, $event)"
              (focusout)="keepDay(row)"
          /></span>
          <iso-field
            above
            wide
            label="From"
            [name]="'Who supplies ' + row.name"
            [most]="60"
            [value]="row.from"
            (changed)="setFrom(row, $event)"
          />
          <iso-field
            above
            label="Price"
            [name]="'What ' + row.name + ' costs'"
            example="48"
            [size]="6"
            [wrong]="wrongPrice() === row.part.id"
            [value]="row.price"
            (changed)="setPrice(row, $event)"
          />
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
    }
    .row {
      display: grid;
      grid-template-columns: minmax(140px, 1.2fr) minmax(120px, 1fr) 264px 180px minmax(120px, 1fr) 100px;
      gap: 6px 16px;
      align-items: center;
      padding: 8px 4px;
      border-top: 1px solid var(--line);
    }
    .row.done {
      color: var(--soft);
    }
    a {
      display: flex;
      gap: 10px;
      align-items: baseline;
      color: var(--ink);
    }
    .number {
      min-width: 2.2em;
      padding: 1px 5px;
      border: 1px solid var(--edge);
      background: var(--paper);
      text-align: center;
    }
    .what {
      display: grid;
    }
    .late {
      color: var(--red);
      font-weight: 600;
    }
    .day {
      display: grid;
      gap: 4px;
    }
    @media (width < 1100px) {
      .row {
        grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      }
    }
    @media (width < 600px) {
      .row {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class NeedsList {
  private readonly store = inject(StripDowns);
  readonly rows = input.required<readonly NeededRow[]>();

  protected readonly shown = computed(() =>
    inNeed(this.rows(), today()).map((row) => {
      const [condition, need] = [conditionOf(row.part), needOf(row.part)];
      const states = condition ? STATES_OF[condition] : [];
      return {
        ...row,
        need,
        name: String(row.part.details['name']),
        what: conditionWords(row.part),
        states: states.map((value): Choice<NeedState> => ({ value, label: STATE_LABELS[value] })),
        state: need?.state ?? 'needed',
        supplied: states.includes('ordered'),
        ...{ expected: need?.expected ?? '', from: need?.from ?? '', late: overdueWords(row.part) },
        price: need?.price === undefined ? '' : String(need.price),
      };
    }),
  );

  protected setState(row: NeededRow, state: NeedState): void {
    this.set(row, { state }, STATE_LABELS[state]);
  }

  /** Days that are being typed, by the id of their part. */
  private readonly days = signal<ReadonlyMap<string, string>>(new Map());
  protected typedDay({ part }: NeededRow): string {
    return this.days().get(part.id) ?? needOf(part)?.expected ?? '';
  }
  protected typeDay(row: NeededRow, day: string): void {
    this.days.update((days) => new Map(days).set(row.part.id, day));
    // A day that is picked from a month is whole; one that is typed is whole once the hand leaves the field.
    if (!document.activeElement?.matches('input[type=text]')) this.keepDay(row);
  }
  protected keepDay(row: NeededRow): void {
    const typed = this.days().get(row.part.id);
    // What is no day stays as it was typed, and is not written down.
    if (typed === undefined || (typed && !isDay(typed))) return;
    this.days.update((days) => new Map([...days].filter(([id]) => id !== row.part.id)));
    if (typed !== (needOf(row.part)?.expected ?? '')) this.set(row, { expected: typed || undefined }, 'expected on another day');
  }

  protected setFrom(row: NeededRow, from: string): void {
    if (from.trim() !== (needOf(row.part)?.from ?? '')) this.set(row, { from: from.trim() || undefined }, 'from somewhere else');
  }

  /** The part whose price was typed so that it is none. */
  protected readonly wrongPrice = signal<string | null>(null);
  protected setPrice(row: NeededRow, typed: string): void {
    const price = amountTyped(typed);
    const wrong = typed.trim() !== '' && !(price !== undefined && price <= MOST_PRICE);
    this.wrongPrice.set(wrong ? row.part.id : null);
    if (!wrong && price !== needOf(row.part)?.price) this.set(row, { price }, 'its price');
  }

  private set({ machineId, part }: NeededRow, change: Partial<Need>, did: string): void {
    const { state, expected, from, price }: Need = { ...(needOf(part) ?? { state: 'needed' }), ...change };
    const need: Need = { state, ...(expected && { expected }), ...(from && { from }), ...(price !== undefined && { price }) };
    this.store.change(machineId, part, { need }, `Part ${part.number}: ${did}`);
  }
}
