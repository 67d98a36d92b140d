import { Directive, computed, input, output } from '@angular/core';
import type { MethodMark } from '@isometra/work/methods';

/** A place on a drawing: told by name, chosen by a click, yellow when it is next and blue when it is read. */
@Directive({
  selector: '[isoMark]',
  host: {
    class: 'mark',
    role: 'button',
    tabindex: '-1',
    '[class.next]': "isoMark().state === 'next'",
    '[class.read]': '!!isoMark().text',
    '[attr.aria-label]': 'told()',
    '[attr.data-mark]': 'isoMark().index',
    '(click)': 'picked.emit(isoMark().index)',
  },
})
export class Mark {
  readonly isoMark = input.required<MethodMark>();
  readonly picked = output<number>();

  protected readonly told = computed(() => {
    const { label, text } = this.isoMark();
    return text ? `${label}, reads ${text}` : label;
  });
}
