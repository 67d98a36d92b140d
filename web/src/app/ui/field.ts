import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
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
      [attr.size]="size()"
      [attr.placeholder]="placeholder() || null"
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
  readonly placeholder = input('');
  readonly typed = output<string>();
  /** The hand has left it. */
  readonly left = output();
  protected readonly id = `field-${++fields}`;
}
