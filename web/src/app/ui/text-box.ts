import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { TextField } from './controls';

/**
 * A field of a table. It has a view of its own because the library's field checks the view it stands in as soon as it
 * is there: a hundred in one view would check each other all the way down.
 */
@Component({
  selector: 'iso-text-box',
  imports: [TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      pInputText
      type="text"
      autocomplete="off"
      spellcheck="false"
      [attr.aria-label]="label()"
      [attr.aria-invalid]="invalid() ? 'true' : null"
      [class.words]="words()"
      [placeholder]="placeholder()"
      [example]="example()"
      [attr.inputmode]="whole() ? 'numeric' : null"
      [value]="value()"
      (change)="entered.emit($any($event.target).value)"
    />
  `,
  styles: `
    :host {
      display: block;
    }

    input {
      width: 100%;
      min-height: 36px;
      padding-inline: 5px;
      font-size: 0.875rem;
    }

    .words {
      font-family: var(--words);
    }
  `,
})
export class TextBox {
  readonly label = input.required<string>();
  readonly value = input.required<string | number>();
  readonly invalid = input(false);
  /** Words stand in it, not figures. */
  readonly words = input(false);
  /** Words that are no example: "no limit". */
  readonly placeholder = input('');
  /** What would be accepted. */
  readonly example = input('');
  /** A whole number is wanted of it. */
  readonly whole = input(false);
  readonly entered = output<string>();
}
