import { Directive, computed, input } from '@angular/core';
import type { SketchInputs, SketchMark } from './model';

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
    '(click)': 'pick()(isoMark().index)',
  },
})
export class Mark {
  readonly isoMark = input.required<SketchMark>();
  readonly pick = input.required<SketchInputs['pick']>();

  protected readonly told = computed(() => {
    const { label, text } = this.isoMark();
    return text ? `${label}, reads ${text}` : label;
  });
}
