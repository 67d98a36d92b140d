import { Directive, input, output } from '@angular/core';

/** A side of a leg or a blade on which a stylus may stand: clicked on the drawing, filled where it was said. */
@Directive({
  selector: '[isoStylusSide]',
  host: {
    class: 'side',
    role: 'button',
    tabindex: '0',
    '[class.chosen]': 'chosen()',
    '[attr.aria-pressed]': 'chosen()',
    '[attr.aria-label]': "'The stylus stands on ' + isoStylusSide()",
    '(click)': 'taken.emit()',
    '(keydown.enter)': 'taken.emit()',
  },
})
export class StylusSide {
  /** Its words, after "on". */
  readonly isoStylusSide = input.required<string>();
  readonly chosen = input.required<boolean>();
  readonly taken = output<void>();
}
