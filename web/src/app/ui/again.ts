import { Directive, type OnDestroy } from '@angular/core';

/** How long a picture that is not there yet is waited for before it is asked for again, ms; each time twice as long. */
const FIRST = 1000;
const TRIES = 6;

/** A picture may be asked for before the server has it: it is asked for again, and not left broken. */
@Directive({
  selector: 'img[isoAgain]',
  host: { '(error)': 'failed($event)', '(load)': 'loaded()' },
})
export class Again implements OnDestroy {
  private tries = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  protected failed(event: Event): void {
    if (this.tries >= TRIES) return;
    const image = event.target as HTMLImageElement;
    const asked = image.src;
    this.timer = setTimeout(
      () => {
        // It may have been given another address meanwhile.
        if (image.src === asked) image.src = asked;
      },
      FIRST * 2 ** this.tries,
    );
    this.tries += 1;
  }

  protected loaded(): void {
    this.tries = 0;
  }

  ngOnDestroy(): void {
    clearTimeout(this.timer);
  }
}
