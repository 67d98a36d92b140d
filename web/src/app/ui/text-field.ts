import { Directive, computed, input } from '@angular/core';
import { InputText } from 'primeng/inputtext';

/** A field of one line. What would do stands in it as long as it is empty, and begins with "e.g.": it is never taken for a value. */
@Directive({
  selector: 'input[pInputText]',
  hostDirectives: [InputText],
  host: { '[attr.placeholder]': 'shown()' },
})
export class TextField {
  /** What would be accepted: "0.05 + 0.02 mm". */
  readonly example = input('');
  /** Words that are no example: "no limit". */
  readonly placeholder = input('');
  protected readonly shown = computed(() => (this.example() ? `e.g. ${this.example()}` : this.placeholder() || null));
}
