import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output, signal, untracked } from '@angular/core';
import { WEEKDAY_NAMES, WEEKDAYS, type Weekday, type Working } from '@isometra/contract';
import { isDay } from '../data/typed';
import { Button } from '../ui/controls';
import { Escape } from '../ui/escape';
import { Field } from '../ui/field';
import { FirstField } from '../ui/first-field';
import { Notice } from '../ui/notice';

/** When somebody works: hours by weekday, and days on which they are away. */
@Component({
  selector: 'iso-working-form',
  imports: [Button, Escape, Field, FirstField, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="keep($event)" (isoEscape)="closed.emit()" isoFirstField novalidate>
      @for (day of days(); track day.key) {
        <iso-field
          above
          [label]="day.name.slice(0, 3)"
          [name]="'Hours of ' + who() + ' on ' + day.name"
          [size]="3"
          [value]="day.hours"
          (typed)="type(day.key, $event)"
        />
      }
      <iso-field
        above
        label="Away on"
        [name]="'Days on which ' + who() + ' is away'"
        example="2026-12-24, 2026-12-25"
        [size]="30"
        [value]="off()"
        (typed)="off.set($event)"
      />
      <span class="buttons">
        <button pButton type="submit">Keep the hours</button>
        @if (working()) {
          <button pButton type="button" class="plain" (click)="kept.emit(null)">Hours of the shop</button>
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
      gap: 8px 12px;
      align-items: end;
      padding: 4px 0 10px;
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
export class WorkingForm {
  readonly who = input.required<string>();
  readonly working = input<Working | null>(null);
  /** The hours of a person; null for those of the shop. */
  readonly kept = output<Working | null>();
  readonly closed = output();
  protected readonly problem = signal('');
  /** As they stand when the form is opened: what is typed stays when the people are asked for again. */
  private readonly hours = linkedSignal({
    source: this.who,
    computation: (): Readonly<Partial<Record<Weekday, string>>> => {
      const working = untracked(this.working);
      return Object.fromEntries(WEEKDAYS.map((day) => [day, working?.hours[day] ? String(working.hours[day]) : '']));
    },
  });
  protected readonly off = linkedSignal({ source: this.who, computation: () => (untracked(this.working)?.off ?? []).join(', ') });
  protected readonly days = computed(() => WEEKDAYS.map((key, i) => ({ key, name: WEEKDAY_NAMES[i], hours: this.hours()[key] ?? '' })));

  protected type(day: Weekday, hours: string): void {
    this.hours.update((all) => ({ ...all, [day]: hours }));
  }

  protected keep(event: Event): void {
    event.preventDefault();
    const hours: Partial<Record<Weekday, number>> = {};
    for (const { key, name, hours: typed } of this.days()) {
      const many = Number(typed.trim().replace(',', '.') || 0);
      if (!(many >= 0 && many <= 24)) return this.problem.set(`How many hours on ${name}? Example: 2.5`);
      if (many > 0) hours[key] = many;
    }
    const off = this.off()
      .split(/[\s,;]+/)
      .filter(Boolean);
    const wrong = off.find((day) => !isDay(day) || Number.isNaN(Date.parse(day)));
    if (wrong !== undefined) return this.problem.set(`“${wrong}” is no day. Example: 2026-12-24, 2026-12-25`);
    this.kept.emit({ hours, off });
  }
}
