import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { askedBack, bareUnit, exampleFor, prettyUnit, readNumber, type Dimension, type Figures } from '@isometra/core';
import { Settings } from '../data/settings';
import { Button } from './controls';
import { Field } from './field';
import { withUnit } from './form-model';

/** Behind a bare figure that is asked back: nothing reads it before its unit is told. */
const UNTOLD = ' ?';

/**
 * A measure in a line of a few: its words, the figure, and the unit of a bare one beside it, on either screen. What it gives on has its
 * unit written out, so that a switch of the units changes nothing; a figure far from what such a thing is, is asked back.
 */
@Component({
  selector: 'iso-figure',
  imports: [Button, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-field
      [label]="label()"
      [name]="name()"
      [size]="size()"
      [example]="wouldDo()"
      [value]="shown()"
      (typed)="type($event)"
      (left)="typing.set(null)"
    />
    @if (unit()) {
      <span class="unit">{{ unit() }}</span>
    }
    @if (asked(); as choices) {
      <span class="asked" role="group" [attr.aria-label]="(name() || label()) + ': which is meant'">
        of what?
        @for (choice of choices; track choice) {
          <button pButton type="button" (click)="choose(choice)">{{ choice }}</button>
        }
      </span>
    }
  `,
  styles: `
    :host,
    .asked {
      display: inline-flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: baseline;
    }
    .unit {
      color: var(--soft);
      font-family: var(--figures);
    }
  `,
})
export class Figure {
  readonly label = input.required<string>();
  /** Its full name, where the words before it are part of a sentence. */
  readonly name = input('');
  /** What it is a measure of. */
  readonly of = input.required<Dimension>();
  /** A text that would do. */
  readonly example = input('');
  /** How else its figures are read; left out, as its dimension is. */
  readonly read = input<Omit<Figures, 'dimension' | 'example'>>({});
  readonly value = input.required<string>();
  readonly size = input(8);
  /** What was typed, with its unit. */
  readonly typed = output<string>();
  private readonly settings = inject(Settings);
  /** What the hand is typing, as it types it; null when it has left. */
  protected readonly typing = signal<string | null>(null);
  private readonly field = computed((): Figures => ({ dimension: this.of(), example: this.example(), ...this.read() }));
  protected readonly shown = computed(() => this.typing() ?? bareOf(this.value()));
  protected readonly wouldDo = computed(() => exampleFor(this.field(), this.settings.system()));
  protected readonly unit = computed(() =>
    readNumber(this.shown())?.unit ? '' : prettyUnit(bareUnit(this.field(), this.settings.system())),
  );
  /** Asked when the hand has left it: half a figure is no figure yet. */
  protected readonly asked = computed(() =>
    this.typing() === null && this.value().endsWith(UNTOLD)
      ? askedBack(bareOf(this.value()), this.field(), this.settings.system())
      : undefined,
  );

  protected type(text: string): void {
    this.typing.set(text);
    const asked = askedBack(text, this.field(), this.settings.system());
    this.typed.emit(asked ? `${text.trim()}${UNTOLD}` : withUnit(text, this.field(), this.settings.system()));
  }

  protected choose(choice: string): void {
    this.typing.set(null);
    this.typed.emit(choice);
  }
}

const bareOf = (value: string): string => (value.endsWith(UNTOLD) ? value.slice(0, -UNTOLD.length) : value);
