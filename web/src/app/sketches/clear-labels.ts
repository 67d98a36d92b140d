import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';
import { MANY, cleared, movedBy, type Lying } from '@isometra/work/methods';
import { afterFrame } from '../ui/after-frame';

/** Readings beside their marks give way to each other, whatever drawing they stand on and however small it is. */
@Directive({ selector: '[isoClearLabels]' })
export class ClearLabels {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private stop: () => void = () => undefined;

  constructor() {
    const seen = new MutationObserver(() => this.ask());
    seen.observe(this.host, { subtree: true, childList: true, characterData: true, attributeFilter: ['transform', 'y', 'x'] });
    const sized = new ResizeObserver(() => this.ask());
    sized.observe(this.host);
    // Letters are another size once their font is there.
    const lettered = (): void => this.ask();
    document.fonts.addEventListener('loadingdone', lettered);
    inject(DestroyRef).onDestroy(() => {
      document.fonts.removeEventListener('loadingdone', lettered);
      seen.disconnect();
      sized.disconnect();
      this.stop();
    });
  }

  /** Once, when the drawing has been drawn: the call is on the screen before. */
  private ask(): void {
    this.stop();
    this.stop = afterFrame(() => this.clear());
  }

  private clear(): void {
    for (const svg of this.host.querySelectorAll('svg')) clear(svg);
  }
}

function clear(svg: SVGSVGElement): void {
  const texts = [...svg.querySelectorAll('text')].filter((text) => text.textContent?.trim());
  // So many that they cannot be told apart anyway: nothing is gained by looking.
  if (texts.length > MANY) return;
  // How a label was moved stands in the drawing's own units: the drawing may have been shrunk since.
  // All is measured before anything is moved: a measurement after a move would lay the whole page out again.
  const scales = texts.map(scaleOf);
  const drawn = texts.map((text, i) =>
    movedBy(text.getBoundingClientRect(), -moved(text, 'dy') * scales[i], -moved(text, 'dx') * scales[i]),
  );
  const lying = drawn.map((box, i): Lying => ({ ...box, gives: givesWay(texts[i]) }));
  const marks = [...svg.querySelectorAll('.mark .seat')].map((seat) => seat.getBoundingClientRect());
  cleared(lying, svg.getBoundingClientRect(), marks).forEach((free, i) => {
    const text = texts[i];
    const shown = free ? '' : 'hidden';
    if (text.style.visibility !== shown) text.style.visibility = shown;
    moveTo(text, 'dy', (free?.down ?? 0) / scales[i]);
    moveTo(text, 'dx', (free?.right ?? 0) / scales[i]);
  });
}

/** px on the screen to a unit of the drawing, where this label stands. */
const scaleOf = (text: SVGTextElement): number => Math.abs(text.getScreenCTM()?.d ?? 0) || 1;

const moved = (text: SVGTextElement, way: 'dx' | 'dy'): number => Number(text.getAttribute(way) ?? 0);

function moveTo(text: SVGTextElement, way: 'dx' | 'dy', by: number): void {
  if (moved(text, way) !== by) text.setAttribute(way, String(by));
}

/** Words of the drawing come last; a reading gives way from its mark. */
function givesWay(text: SVGTextElement): Lying['gives'] {
  if (!text.closest('.mark')) return 0;
  return Number(text.getAttribute('y') ?? 0) < 0 ? -1 : 1;
}
