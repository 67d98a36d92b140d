import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal, untracked } from '@angular/core';
import type { PlanChange, PlanItem } from '@isometra/contract';
import { minutesTyped, minutesWords } from '@isometra/work';
import { amountTyped, isDay } from '../data/typed';
import { Button } from '../ui/controls';
import { Day } from '../ui/day';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { FirstField } from '../ui/first-field';
import { Notice } from '../ui/notice';
import { PEOPLE_ASKED, peopleTyped } from './people-typed';

/** What was settled of an item, without who and when. */
export type PlanEdited = Omit<PlanChange, 'by' | 'at'>;

/** An item of a plan, settled otherwise: its minutes, its people, its day, or that it is not done; always with a reason. */
@Component({
  selector: 'iso-plan-edit',
  imports: [Button, Day, Escape, Field, FirstField, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="keep($event)" (isoEscape)="closed.emit()" isoFirstField novalidate>
      @if (waits()) {
        <iso-field above label="Hours by the clock" example="24" [size]="6" [value]="wait()" (typed)="wait.set($event)" />
      } @else {
        <iso-field above label="Least" example="40 min" [size]="8" [value]="least()" (typed)="least.set($event)" />
        <iso-field above label="Likely" example="1 h 30" [size]="8" [value]="likely()" (typed)="likely.set($event)" />
        <iso-field above label="Most" example="3 h" [size]="8" [value]="most()" (typed)="most.set($event)" />
        <iso-field above label="People" example="2" [size]="3" [value]="people()" (typed)="people.set($event)" />
      }
      <span class="day">
        <span class="label">Not before</span>
        <iso-day label="the first day for it" placeholder="2026-12-24" [value]="notBefore()" (changed)="notBefore.set($event)" />
      </span>
      <iso-field
        above
        class="why"
        label="Reason"
        example="the square is at the grinder’s"
        [most]="200"
        [size]="34"
        [value]="why()"
        (typed)="why.set($event)"
      />
      <span class="buttons">
        <button pButton type="submit">Keep it</button>
        <button pButton type="button" (click)="leave()">It is not to be done</button>
        @if (item().told) {
          <button pButton type="button" class="plain" (click)="cleared.emit()">As it follows from what is known</button>
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
      padding: 6px 0 14px;
    }
    .day {
      display: grid;
      gap: 4px;
    }
    .buttons {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
    }
    iso-notice {
      flex-basis: 100%;
    }
  `,
})
export class PlanEdit {
  readonly item = input.required<PlanItem>();
  readonly kept = output<PlanEdited>();
  /** What was settled of it before is taken back. */
  readonly cleared = output();
  readonly closed = output();

  private readonly key = computed(() => this.item().key);
  /** As it stands when it is opened: what is typed stays, whatever is settled or shown again meanwhile. */
  private typed(of: (item: PlanItem) => string) {
    return linkedSignal({ source: this.key, computation: () => untracked(() => of(this.item())) });
  }
  private readonly of = (which: 0 | 1 | 2) => this.typed(({ minutes }) => (minutes ? minutesWords(minutes[which]) : ''));
  protected readonly waits = computed(() => this.item().wait !== null);
  protected readonly least = this.of(0);
  protected readonly likely = this.of(1);
  protected readonly most = this.of(2);
  protected readonly wait = this.typed(({ wait }) => String(wait ?? ''));
  protected readonly people = this.typed(({ people }) => String(people));
  protected readonly notBefore = this.typed(({ notBefore }) => notBefore ?? '');
  protected readonly why = this.typed(({ told }) => told?.why ?? '');
  protected readonly problem = signal('');

  private fail(words: string): undefined {
    this.problem.set(words);
    return undefined;
  }

  /** What the fields of the work say; undefined, with what is wrong, where they cannot be read. */
  private work(): Partial<PlanEdited> | undefined {
    if (this.waits()) {
      const wait = amountTyped(this.wait());
      return wait === undefined ? this.fail('Hours by the clock? Example: 24') : { wait };
    }
    const spans = [this.least(), this.likely(), this.most()].map(minutesTyped);
    if (spans.some((one) => one === undefined)) return this.fail('Least, likely and most? Example: 40 min, 1 h, 2 h 30');
    const [least, likely, most] = spans as [number, number, number];
    if (least > likely || likely > most) return this.fail('Least, likely and most must rise. Example: 40 min, 1 h, 2 h 30');
    const people = peopleTyped(this.people());
    if (people === undefined) return this.fail(PEOPLE_ASKED);
    return { minutes: [least, likely, most], people };
  }

  protected keep(event: Event): void {
    event.preventDefault();
    this.problem.set('');
    const work = this.work();
    if (!work) return;
    const day = this.notBefore().trim();
    if (day && !isDay(day)) return void this.fail('Not before which day? Example: 2026-12-24');
    if (!this.why().trim()) return void this.fail('Why? One line is enough: it stands in the logbook.');
    this.kept.emit({ key: this.item().key, ...work, ...(day && { notBefore: day }), why: this.why().trim() });
  }

  protected leave(): void {
    if (!this.why().trim()) return void this.fail('Why is it not to be done? One line is enough.');
    this.kept.emit({ key: this.item().key, left: true, why: this.why().trim() });
  }
}
