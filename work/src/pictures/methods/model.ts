import type { Picture } from '@isometra/core';

/** A place on the drawing where the stylus goes. */
export interface MethodMark {
  readonly index: number;
  readonly keys: Readonly<Record<string, string | number | boolean>>;
  readonly label: string;
  readonly state: 'next' | 'read' | 'todo';
  /** Reading as shown beside the mark; empty when not read. */
  readonly text: string;
  /** What the reading says, µm (µm/m of a level), + the way the needle counts up; null when not read. */
  readonly deviation: number | null;
}

/** Where the thing measured was found to stand, µm or µm/m as its check bends the picture by; null when not known. */
export interface MethodResult {
  readonly h: number | null;
  readonly v: number | null;
  readonly out: boolean;
}

/** Where the thing stands that a picture is bent by, of the quantities of a finding. */
export function resultOf(
  { bends = {} }: Pick<Picture, 'bends'>,
  quantities: Readonly<Record<string, { readonly value: number; readonly verdict: string | null } | undefined>>,
): MethodResult {
  return {
    h: quantities[bends.h ?? '']?.value ?? null,
    v: quantities[bends.v ?? '']?.value ?? null,
    out: Object.values(quantities).some((quantity) => quantity?.verdict === 'out'),
  };
}

/**
 * How far off its mark each reading is drawn: the largest of a row by `pixels`, the others in proportion,
 * + the way the needle counts up. Readings of a row are told from its first, so that zeroing the dial
 * elsewhere changes nothing; `fromZero` where the reading itself is the height.
 */
export function drawnOff(
  marks: readonly MethodMark[],
  pixels: number,
  rowOf: (mark: MethodMark) => unknown = () => '',
  fromZero = false,
): ReadonlyMap<MethodMark, number> {
  const first = new Map<unknown, number>();
  const off = new Map<MethodMark, number>();
  for (const mark of marks) {
    if (mark.deviation === null) continue;
    const row = rowOf(mark);
    if (!first.has(row)) first.set(row, fromZero ? 0 : mark.deviation);
    off.set(mark, mark.deviation - (first.get(row) as number));
  }
  const largest = Math.max(...[...off.values()].map(Math.abs), 1e-9);
  return new Map([...off].map(([mark, value]) => [mark, seen((value / largest) * pixels)]));
}

/** Where marks stand along a drawing, by their `at`: the lowest at `left`, the highest at `right`; all in the middle where there is one place. */
export function alongLine(marks: readonly MethodMark[], left: number, right: number): number[] {
  const at = marks.map((mark) => Number(mark.keys['at'] ?? 0));
  const [low, high] = [Math.min(...at), Math.max(...at)];
  return at.map((place) => left + (high > low ? (place - low) / (high - low) : 0.5) * (right - left));
}

/** The line through the tips of the marks that were read, in the order of the drawing: what was read, as a shape. */
export function profileOf(places: readonly { readonly mark: MethodMark; readonly x: number; readonly y: number }[]): string {
  const read = places.filter(({ mark }) => mark.deviation !== null);
  return read.length > 1 ? read.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x} ${y}`).join(' ') : '';
}

/** On the half pixel: a mark that would move by less than can be seen is left where it is drawn. */
export const seen = (pixels: number): number => Math.round(pixels * 2) / 2;

/** A reading without the unit that all of them share: there is little room on a drawing. */
export const figure = (text: string): string => text.replace(/ ?div$/, '');

/** An exaggeration that draws the largest of some µm at about `pixels`: 50, 100, 200, 500, … */
export function exaggeration(values: readonly (number | null)[], pixels: number, pixelsPerMm: number): number {
  const largest = Math.max(0, ...values.map((value) => Math.abs(value ?? 0)));
  if (largest === 0) return 500;
  const wanted = pixels / ((largest / 1000) * pixelsPerMm);
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = [5, 2, 1].find((factor) => factor * power <= wanted) ?? 1;
  return Math.min(20_000, Math.max(5, step * power));
}
