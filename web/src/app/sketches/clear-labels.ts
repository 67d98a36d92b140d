import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';

/** A label as it lies on the screen, px; `up` where it stands above its mark. */
export interface Lying {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  /** 1 where a label that must give way goes down, −1 where it goes up, 0 where it stays. */
  readonly gives: 1 | -1 | 0;
}

/** px that two boxes may share: the empty rim round letters. */
const RIM = 2;
/** px by which letters may stand over the edge of their drawing. */
const EDGE = 6;
/** More labels than a drawing has room for. */
const MANY = 120;
/** Lines that are tried, + away from the mark. */
const TRIED = [0, 1, -1, 2, -2, 3];

const meet = (one: Lying, other: Lying): boolean =>
  one.left + RIM < other.right && other.left + RIM < one.right && one.top + RIM < other.bottom && other.top + RIM < one.bottom;

/** Height of a line, px: the next one just clears this one. */
const lineOf = ({ top, bottom }: Pick<Lying, 'top' | 'bottom'>): number => bottom - top - RIM;

/**
 * By how many lines each label gives way, + down, so that none lies on another: what stays is laid first, then the others
 * in their order, each on the nearest free line within the drawing, rather away from its mark. Where none is free it
 * stays where it is.
 *
 * @param edge top and bottom of the drawing, px.
 * @example two labels in one place, both below their marks: 0 and 1.
 */
export function cleared(labels: readonly Lying[], edge: Pick<Lying, 'top' | 'bottom'>): number[] {
  const lines = labels.map(() => 0);
  const laid = labels.filter(({ gives }) => gives === 0);
  labels.forEach((label, i) => {
    if (label.gives === 0) return;
    const onLine = (line: number): Lying => {
      const by = line * label.gives * lineOf(label);
      return { ...label, top: label.top + by, bottom: label.bottom + by };
    };
    const free = TRIED.find((line) => {
      const there = onLine(line);
      return there.top >= edge.top - EDGE && there.bottom <= edge.bottom + EDGE && !laid.some((other) => meet(there, other));
    });
    lines[i] = (free ?? 0) * label.gives + 0;
    laid.push(onLine(free ?? 0));
  });
  return lines;
}

/** Readings beside their marks give way to each other, whatever drawing they stand on and however small it is. */
@Directive({ selector: '[isoClearLabels]' })
export class ClearLabels {
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private asked = 0;

  constructor() {
    const seen = new MutationObserver(() => this.ask());
    seen.observe(this.host, { subtree: true, childList: true, characterData: true, attributeFilter: ['transform', 'y', 'x'] });
    const sized = new ResizeObserver(() => this.ask());
    sized.observe(this.host);
    inject(DestroyRef).onDestroy(() => {
      seen.disconnect();
      sized.disconnect();
      cancelAnimationFrame(this.asked);
    });
  }

  /** Once, when the drawing has been drawn: the call is on the screen before. */
  private ask(): void {
    cancelAnimationFrame(this.asked);
    this.asked = requestAnimationFrame(() => this.clear());
  }

  private clear(): void {
    for (const svg of this.host.querySelectorAll('svg')) clear(svg);
  }
}

function clear(svg: SVGSVGElement): void {
  const texts = [...svg.querySelectorAll('text')].filter((text) => text.textContent?.trim());
  // So many that they cannot be told apart anyway: nothing is gained by looking.
  if (texts.length > MANY) return;
  const before = texts.map((text) => Number(text.dataset['line'] ?? 0));
  const boxes = texts.map((text) => text.getBoundingClientRect());
  const lying = boxes.map((box, i): Lying => {
    const by = before[i] * lineOf(box);
    return { left: box.left, right: box.right, top: box.top - by, bottom: box.bottom - by, gives: givesWay(texts[i]) };
  });
  cleared(lying, svg.getBoundingClientRect()).forEach((line, i) => {
    if (line === before[i]) return;
    // In the drawing's own units: it may be shrunk.
    const scale = Math.abs(texts[i].getScreenCTM()?.d ?? 0) || 1;
    texts[i].setAttribute('dy', String((lineOf(boxes[i]) * line) / scale));
    texts[i].dataset['line'] = String(line);
  });
}

/** Words of the drawing stay; a reading gives way from its mark. */
function givesWay(text: SVGTextElement): Lying['gives'] {
  if (!text.closest('.mark')) return 0;
  return Number(text.getAttribute('y') ?? 0) < 0 ? -1 : 1;
}
