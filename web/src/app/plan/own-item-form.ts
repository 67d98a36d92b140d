import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { OwnItem, PlanItem } from '@isometra/contract';
import { minutesTyped } from '@isometra/work';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { FirstField } from '../ui/first-field';
import { Notice } from '../ui/notice';
import { Pick } from '../ui/pick';

/** What an own item is made of, without its id, who and when. */
export type OwnTyped = Omit<OwnItem, 'id' | 'by' | 'at' | 'doneAt'>;

const NOTHING = '';
/** How far from likely least and most lie, where one figure is given. */
const SPREAD = 1.8;

/** Something that nobody could know of: what, how long, after what. */
@Component({
  selector: 'iso-own-item',
  imports: [Button, Escape, Field, FirstField, Notice, Pick],
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
      <span class="after">
        <span class="label">Before</span>
        <iso-pick label="What it comes before" [options]="befores()" [value]="before()" (chosen)="before.set($event)" />
      </span>
      <span class="buttons">
        <button pButton type="submit">Add it</button>
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
  protected readonly title = signal('');
  protected readonly minutes = signal('');
  protected readonly wait = signal('');
  protected readonly people = signal('1');
  protected readonly after = signal(NOTHING);
  protected readonly before = signal(NOTHING);
  protected readonly problem = signal('');
  protected readonly befores = computed(() => [
    { value: NOTHING, label: 'nothing' },
    ...this.items().map(({ key, title }) => ({ value: key, label: title })),
  ]);

  /** How long it takes; undefined, with what is wrong, where that cannot be read. */
  private takes(): { readonly minutes: OwnTyped['minutes']; readonly wait: number | null } | undefined {
    const wait = this.wait().trim();
    if (wait) {
      const hours = Number(wait.replace(',', '.'));
      if (!(hours >= 0)) return this.fail('Hours by the clock? Example: 24');
      return this.minutes().trim() ? this.fail('Either minutes of work, or hours by the clock.') : { minutes: null, wait: hours };
    }
    const likely = minutesTyped(this.minutes());
    if (likely === undefined || likely <= 0) return this.fail('How long does it take? Example: 1 h 30');
    return { minutes: [Math.round(likely / SPREAD), likely, Math.round(likely * SPREAD)], wait: null };
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
    const people = Number(this.people());
    if (!Number.isInteger(people) || people < 0 || people > 6) return void this.fail('How many people? A whole number, 0 to 6.');
    const after = this.after() === NOTHING ? [] : [this.after()];
    this.added.emit({
      item: { title, ...takes, people, who: [], things: [], after, notBefore: null },
      before: this.before() === NOTHING ? null : this.before(),
    });
  }
}
