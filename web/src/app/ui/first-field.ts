import { afterNextRender, Directive, ElementRef, inject } from '@angular/core';

/** What a hand does first on a screen: the first field in it has the keyboard as soon as it is there, unless something else was chosen. */
@Directive({ selector: '[isoFirstField]' })
export class FirstField {
  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    afterNextRender(() => {
      const elsewhere = document.activeElement;
      if (elsewhere !== null && elsewhere.matches('input, textarea, [role="combobox"]')) return;
      host.querySelector<HTMLElement>('input:not([type="hidden"]):not(:disabled), textarea')?.focus({ preventScroll: true });
    });
  }
}
