import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { TextField } from './controls';

let fields = 0;

/** A field with its words before it, for a line of a few. What was typed is given on as it is. */
@Component({
  selector: 'iso-field',
  imports: [TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label [for]="id">{{ label() }}</label>
    <input
      pInputText
      type="text"
      autocomplete="off"
      [id]="id"
      [attr.aria-label]="name() || null"
      [attr.size]="room()"
      [example]="example()"
      [value]="value()"
      (input)="typed.emit($any($event.target).value)"
      (blur)="left.emit()"
    />
  `,
  styles: `
    :host {
      display: inline-flex;
      gap: 6px;
      align-items: baseline;
    }
  `,
})
export class Field {
  readonly label = input.required<string>();
  /** Its full name, where the words before it are part of a sentence. */
  readonly name = input('');
  readonly value = input.required<string>();
  readonly size = input(12);
  /** What would be accepted, shown while it is empty. */
  readonly example = input('');
  /** Wide enough for its example, which begins with "e.g.". */
  protected readonly room = computed(() => Math.max(this.size(), this.example() ? this.example().length + 4 : 0));
  readonly typed = output<string>();
  /** The hand has left it. */
  readonly left = output();
  protected readonly id = `field-${++fields}`;
}
