import { DestroyRef, Directive, ElementRef, inject } from '@angular/core';
import { afterFrame } from '../ui/after-frame';

/** Where something lies on the screen, px. */
export interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** A label as it lies on the screen, where it was drawn. */
export interface Lying extends Box {
  /** 1 where a reading gives way down, away from its mark; −1 where it does so up; 0 for words of the drawing, which come after readings. */
  readonly gives: 1 | -1 | 0;
}

/** How a label gives way: px down and to the right; undefined where no place is free and it is left out. */
export type Cleared = { readonly down: number; readonly right: number } | undefined;

/** px that two boxes may share: the empty rim round letters. */
const RIM = 2;
/** px by which letters may stand over the edge of their drawing. */
const EDGE = 4;
/** More labels than a drawing has room for. */
const MANY = 120;
/** Lines that are tried, + away from the mark. */
const LINES = [0, 1, -1, 2, -2, 3];
/** Then the same beside it, in parts of its width. */
const BESIDE = [0, -0.5, 0.5, -1, 1];

const meet = (one: Box, other: Box): boolean =>
  one.left + RIM < other.right && other.left + RIM < one.right && one.top + RIM < other.bottom && other.top + RIM < one.bottom;

/** Height of a line, px: the next one just clears this one. */
const lineOf = ({ top, bottom }: Box): number => bottom - top - RIM;

const movedBy = (box: Box, down: number, right: number): Box => ({
  left: box.left + right,
  right: box.right + right,
  top: box.top + down,
  bottom: box.bottom + down,
});

const within = (box: Box, edge: Box): boolean =>
  box.top >= edge.top - EDGE && box.bottom <= edge.bottom + EDGE && box.left >= edge.left - EDGE && box.right <= edge.right + EDGE;

/**
 * How each label gives way so that none lies on another, on a mark or over the edge: readings first in their order, each on the nearest
 * free line, rather away from its mark; then the words of the drawing. What finds no place is left out: the table and the names of the
 * marks say it too.
 *
 * @param edge of the drawing. @param marks which no label may lie on.
 * @example two labels in one place, both below their marks: nothing, and a line down.
 */
export function cleared(labels: readonly Lying[], edge: Box, marks: readonly Box[] = []): Cleared[] {
  const laid: Box[] = [...marks];
  const found = new Map<Lying, Cleared>();
  for (const label of [...labels.filter(({ gives }) => gives !== 0), ...labels.filter(({ gives }) => gives === 0)]) {
    // Words stay by what they name.
    const [beside, lines] = label.gives === 0 ? [BESIDE.slice(0, 3), LINES.slice(0, 3)] : [BESIDE, LINES];
    const tried = beside.flatMap((part) =>
      lines.map((line) => ({ down: line * (label.gives || -1) * lineOf(label) + 0, right: part * (label.right - label.left) })),
    );
    const free = tried.find(({ down, right }) => {
      const there = movedBy(label, down, right);
      return within(there, edge) && !laid.some((other) => meet(there, other));
    });
    if (free) laid.push(movedBy(label, free.down, free.right));
    found.set(label, free);
  }
  return labels.map((label) => found.get(label));
}

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
