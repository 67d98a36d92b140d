import { ChangeDetectionStrategy, Component, type ElementRef, booleanAttribute, computed, input, output, viewChild } from '@angular/core';
import { TextField } from './controls';

let fields = 0;

/** A field of one line with its words, before it in a line of a few or above it. What was typed is given on as it is. */
@Component({
  selector: 'iso-field',
  imports: [TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.above]': 'above()', '[class.wide]': 'wide()' },
  template: `
    @if (label()) {
      <label [class.label]="above()" [for]="id">{{ label() }}</label>
    }
    <input
      #box
      pInputText
      type="text"
      autocomplete="off"
      [id]="id"
      [attr.aria-label]="name() || label()"
      [attr.aria-invalid]="wrong() ? 'true' : null"
      [attr.size]="wide() ? null : room()"
      [attr.maxlength]="most()"
      [example]="example()"
      [placeholder]="placeholder()"
      [value]="value()"
      (input)="typed.emit($any($event.target).value)"
      (change)="changed.emit($any($event.target).value)"
      (blur)="left.emit()"
      (keydown.enter)="enter($event)"
    />
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 6px;
      align-items: baseline;
    }
    :host(.above) {
      display: inline-grid;
      gap: 4px;
    }
    :host(.above) input {
      justify-self: start;
    }
    :host(.wide) {
      justify-self: stretch;
    }
    :host(.wide) input {
      width: min(100%, 34em);
      font-family: var(--words);
    }
  `,
})
export class Field {
  /** '' where the head of a table says it: then it has a name. */
  readonly label = input.required<string>();
  /** Its full name, where the words beside it are part of a sentence. */
  readonly name = input('');
  readonly value = input.required<string>();
  readonly size = input(12);
  /** Most characters that are taken. */
  readonly most = input<number | null>(null);
  /** What would be accepted, shown while it is empty. */
  readonly example = input('');
  /** Words that are no example, shown while it is empty. */
  readonly placeholder = input('');
  readonly above = input(false, { transform: booleanAttribute });
  /** For a sentence: as wide as there is room. */
  readonly wide = input(false, { transform: booleanAttribute });
  readonly wrong = input(false);
  /** Enter is its own, and sends no form. */
  readonly ownEnter = input(false, { transform: booleanAttribute });
  /** Wide enough for its example, which begins with "e.g.". */
  protected readonly room = computed(() => Math.max(this.size(), this.example() ? this.example().length + 4 : 0));
  readonly typed = output<string>();
  /** Typed and left, or Enter. */
  readonly changed = output<string>();
  readonly entered = output<Event>();
  /** The hand has left it. */
  readonly left = output();
  protected readonly id = `field-${++fields}`;
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');

  /** Put the hand into it, with all that stands there marked. */
  focus(): void {
    this.box().nativeElement.select();
  }

  protected enter(event: Event): void {
    if (!this.ownEnter()) return;
    event.preventDefault();
    event.stopPropagation();
    this.entered.emit(event);
  }
}
