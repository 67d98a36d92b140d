import { afterNextRender, type Injector } from '@angular/core';

/**
 * Move the keyboard to what `find` returns, once the screen shows what has changed. A hand that has gone to another field by
 * then is left there: on a slow machine it may already be typing.
 */
export function leadHand(injector: Injector, find: () => HTMLElement | null | undefined): void {
  const from = document.activeElement;
  afterNextRender(
    {
      read: () => {
        const now = document.activeElement;
        if (now === from || now === null || now === document.body) find()?.focus();
      },
    },
    { injector },
  );
}
