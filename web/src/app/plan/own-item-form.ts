import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { OwnItem, PlanItem } from '@isometra/contract';
import { everyTyped, everyWords, minutesTyped, minutesWords } from '@isometra/work';
import { Keys } from '../data/keys';
import { amountTyped, isDay } from '../data/typed';
import { Button } from '../ui/controls';
import { Day } from '../ui/day';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { FirstField } from '../ui/first-field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';
import { PEOPLE_ASKED, peopleTyped } from './people-typed';

/** What an own item is made of, without its id, who and when. */
export type OwnTyped = Omit<OwnItem, 'id' | 'by' | 'at' | 'doneAt' | 'lastAt'>;

const NOTHING = '';
/** How far from likely least and most lie, where one figure is given. */
const SPREAD = 1.8;

/** Something that nobody could know of: what, how long, after what. */
@Component({
  selector: 'iso-own-item',
  imports: [Button, Day, Escape, Field, FirstField, Notice, Pick],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="add($event)" (isoEscape)="closed.emit()" isoFirstField novalidate>
      <iso-field
        above
        label="What is to be done"
        example="Let the cement set"
        [most]="120"
        [size]="30"
        [value]="title()"
        (typed)="title.set($event)"
      />
      <iso-field above label="Minutes of work" example="1 h 30" [size]="8" [value]="minutes()" (typed)="minutes.set($event)" />
      <iso-field above label="Or hours by the clock" example="24" [size]="6" [value]="wait()" (typed)="wait.set($event)" />
      <iso-field above label="People" example="1" [size]="3" [value]="people()" (typed)="people.set($event)" />
      <span class="after">
        <span class="label">After</span>
        <iso-pick label="What it comes after" [options]="befores()" [value]="after()" (chosen)="after.set($event)" />
      </span>
      @if (!item()) {
        <span class="after">
          <span class="label">Before</span>
          <iso-pick label="What it comes before" [options]="befores()" [value]="before()" (chosen)="before.set($event)" />
        </span>
      }
      <iso-field above label="Comes round again every" example="6 months" [size]="10" [value]="every()" (typed)="every.set($event)" />
      <iso-field above label="What is bought for it costs" example="48" [size]="6" [value]="price()" (typed)="price.set($event)" />
      <span class="after">
        <span class="label">Not before</span>
        <iso-day label="the first day for it" placeholder="2026-12-24" [value]="notBefore()" (changed)="notBefore.set($event)" />
      </span>
      <span class="buttons">
        <button pButton type="submit">{{ item() ? 'Keep it' : 'Add it' }}</button>
        @if (item()) {
          <button pButton type="button" (click)="takenOff.emit()">Take it off the plan</button>
        }
        <button pButton type="button" class="plain" (click)="closed.emit()">Cancel</button>
      </span>
      <iso-notice [text]="problem()" />
    </form>
  `,
  styles: `
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 16px;
      align-items: end;
      padding: 10px 0;
    }
    .after {
      display: grid;
      gap: 4px;
      max-width: 260px;
    }
    .buttons {
      display: flex;
      gap: 10px;
    }
    iso-notice {
      flex-basis: 100%;
    }
  `,
})
export class OwnItemForm {
  readonly items = input.required<readonly PlanItem[]>();
  /** What was typed, and the key of what it comes before. */
  readonly added = output<{ readonly item: OwnTyped; readonly before: string | null }>();
  readonly closed = output();
  /** What is put otherwise; undefined where something is added. */
  readonly item = input<OwnItem>();
  readonly takenOff = output();
  private readonly id = computed(() => this.item()?.id ?? NOTHING);
  /** As it stands when it is opened: what is typed stays, whatever is settled or shown again meanwhile. */
  private typed(of: (item: OwnItem) => string, fresh = NOTHING) {
    return linkedSignal({
      source: this.id,
      computation: () => {
        const item = untracked(this.item);
        return item ? of(item) : fresh;
      },
    });
  }
  protected readonly title = this.typed(({ title }) => title);
  protected readonly minutes = this.typed(({ minutes }) => (minutes ? minutesWords(minutes[1]) : ''));
  protected readonly wait = this.typed(({ wait }) => (wait === null ? '' : String(wait)));
  protected readonly people = this.typed(({ people }) => String(people), '1');
  protected readonly after = this.typed(({ after }) => after[0] ?? NOTHING);
  protected readonly every = this.typed(({ every }) => (every === undefined ? '' : everyWords(every).replace('every ', '')));
  protected readonly price = this.typed(({ price }) => (price === undefined ? '' : String(price)));
  protected readonly notBefore = this.typed(({ notBefore }) => notBefore ?? '');
  constructor() {
    const keys = inject(Keys);
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // What was typed while the form was still on its way. At once into the field, too: the next letter comes after it.
    afterNextRender(() => {
      const early = keys.fieldIsHere();
      const field = host.querySelector('input');
      if (!early || !field) return;
      field.value = early + field.value;
      this.title.set(field.value);
    });
  }

  protected readonly before = signal(NOTHING);
  protected readonly problem = signal('');
  protected readonly befores = computed(() => [
    { value: NOTHING, label: 'nothing' },
    ...this.items().flatMap(({ key, title }) => (key === `own ${this.id()}` ? [] : [{ value: key, label: title }])),
  ]);

  /** How long it takes; undefined, with what is wrong, where that cannot be read. */
  private takes(): { readonly minutes: OwnTyped['minutes']; readonly wait: number | null } | undefined {
    const wait = this.wait().trim();
    if (wait) {
      const hours = amountTyped(wait);
      if (hours === undefined) return this.fail('Hours by the clock? Example: 24');
      return this.minutes().trim() ? this.fail('Either minutes of work, or hours by the clock.') : { minutes: null, wait: hours };
    }
    const likely = minutesTyped(this.minutes());
    if (likely === undefined || likely <= 0) return this.fail('How long does it take? Example: 1 h 30');
    // As it was told before: its own spread stands.
    const before = this.item()?.minutes;
    if (before && minutesWords(before[1]) === minutesWords(likely)) return { minutes: before, wait: null };
    return { minutes: [Math.round(likely / SPREAD), likely, Math.round(likely * SPREAD)], wait: null };
  }

  /** From which day on, how often and at what price; undefined, with what is wrong, where that cannot be read. */
  private turns(): { readonly notBefore: string | null; readonly every?: number; readonly price?: number } | undefined {
    const day = this.notBefore().trim();
    if (day && !isDay(day)) return this.fail('Not before which day? Example: 2026-12-24');
    const typed = this.every().trim();
    const every = typed ? everyTyped(typed) : undefined;
    if (typed && every === undefined) return this.fail('How often does it come round again? Example: 6 months');
    const price = amountTyped(this.price());
    if (price === undefined && this.price().trim()) return this.fail('What does it cost? Example: 48');
    return { notBefore: day || null, ...(every !== undefined && { every }), ...(price !== undefined && { price }) };
  }

  private fail(words: string): undefined {
    this.problem.set(words);
    return undefined;
  }

  protected add(event: Event): void {
    event.preventDefault();
    this.problem.set('');
    const title = this.title().trim();
    if (!title) return void this.fail('What is to be done? Example: Let the cement set');
    const takes = this.takes();
    if (!takes) return;
    const people = peopleTyped(this.people());
    if (people === undefined) return void this.fail(PEOPLE_ASKED);
    const turns = this.turns();
    if (!turns) return;
    const { who = [], things = [], after: others = [] } = this.item() ?? {};
    const after = this.after() === NOTHING ? [] : [this.after(), ...others.slice(1).filter((key) => key !== this.after())];
    this.added.emit({
      item: { title, ...takes, people, who, things, after, ...turns },
      before: this.before() === NOTHING ? null : this.before(),
    });
  }
}
