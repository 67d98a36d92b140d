import {
  isZero,
  showSize,
  type Dimension,
  type Fineness,
  type Quantity,
  type QuantityInfo,
  type UnitSystem,
  toYou,
  sizeParts,
} from '@isometra/core';

/** How figures are shown just now. */
export interface Shown {
  readonly system: UnitSystem;
  readonly fineness: Fineness;
}

/** A sentence begins with a capital. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What of a quantity is spoken. */
type Spoken = Pick<Quantity, 'value' | 'direction' | 'expanded'>;

/** A size in the chosen unit, and in the other one. */
export function bothUnits(
  value: number,
  dimension: Dimension,
  { system, fineness }: Shown,
  expanded?: number | null,
): { large: string; small: string } {
  const other: UnitSystem = system === 'mm' ? 'inch' : 'mm';
  return { large: showSize(value, dimension, system, fineness, expanded), small: showSize(value, dimension, other, fineness, expanded) };
}

/** Lengths that slopes are said over: the trade's own round ones in either system, mm. */
const OVER: Readonly<Record<UnitSystem, (mm: number) => { readonly mm: number; readonly words: string }>> = {
  mm: (mm) => ({ mm, words: `${mm} mm` }),
  inch: (mm) => {
    const inches = Math.max(1, Math.round(mm / 25.4));
    return { mm: inches * 25.4, words: `${inches} in` };
  },
};

/** A slope as an amount and the length it is said over, mm. */
function amountOver(
  slope: number,
  over: number,
  { system, fineness }: Shown,
  expanded?: number | null,
): Pick<Spelt, 'figure' | 'unit' | 'over'> {
  const length = OVER[system](over);
  const doubt = expanded === undefined || expanded === null ? expanded : (expanded * length.mm) / 1000;
  return { ...sizeParts((slope * length.mm) / 1000, 'deviation', system, fineness, doubt), over: `in ${length.words}` };
}

/** Lengths as they are shown, and deviations as fine as they can be. */
export const inFine =
  (shown: Shown) =>
  (value: number, dimension: 'length' | 'deviation'): string =>
    bothUnits(value, dimension, dimension === 'deviation' ? { ...shown, fineness: 'fine' } : shown).large;

/** So many of something. */
export const counted = (n: number, word: string): string => `${n} ${n === 1 ? word : word.endsWith('s') ? `${word}es` : `${word}s`}`;

/** A slope over a length: "0.02 mm in 300 mm", "0.8 thou in 12 in". */
export function slopeOver(slope: number, length: number, shown: Shown, expanded?: number | null): string {
  const { figure, unit, over } = amountOver(slope, length, shown, expanded);
  return `${figure} ${unit} ${over}`;
}

/** A quantity as people say it: a slope is an amount and the length it is said over. */
interface Spelt {
  readonly large: string;
  /** The same another way: in the other unit, or the bare slope. */
  readonly small: string;
  readonly figure: string;
  /** '' of a bare number. */
  readonly unit: string;
  /** "in 300 mm"; empty for what is no slope. */
  readonly over: string;
}

/** A quantity as people say it, whole and in its parts. */
export function sizeOf(value: number, info: QuantityInfo | undefined, shown: Shown, expanded?: number | null): Spelt {
  const dimension = info?.dimension ?? 'deviation';
  const both = bothUnits(value, dimension, shown, expanded);
  if (info?.spokenOver === undefined) return { ...both, ...sizeParts(value, dimension, shown.system, shown.fineness, expanded), over: '' };
  const said = amountOver(value, info.spokenOver, shown, expanded);
  return { large: `${said.figure} ${said.unit} ${said.over}`, small: both.large, ...said };
}

/** A size and its way; the size alone of what has none. */
export const sizeAndWay = (size: string, way: string): string => (way === '' ? size : `${size} ${way}`);

/** "0.021 mm away from you", or "0.000 mm" when nothing can be told from zero. */
export function inWords(quantity: Spoken, info: QuantityInfo, shown: Shown): string {
  const { large } = sizeOf(quantity.value, info, shown, quantity.expanded);
  return quantity.direction && !isZero(large) ? `${large} ${toYou(quantity.direction)}` : large;
}

export { isZero };

/** Where a thing stands, in the core's words: on the + side or the − side; nothing at zero. */
export const sideOf = (value: number, info: QuantityInfo | undefined): string =>
  (value === 0 ? '' : value < 0 ? info?.words?.minus : info?.words?.plus) ?? '';

/** A value with its side: "0.021 mm away from you"; no side where nothing but zeros is shown. */
export const placedWords = (value: number, info: QuantityInfo | undefined, shown: Shown, expanded?: number | null): string => {
  const { large } = sizeOf(value, info, shown, expanded);
  return isZero(large) ? large : sizeAndWay(large, toYou(sideOf(value, info)));
};

/** Which way a move takes it, in the core's words. */
export const wayOfMove = (amount: number, info: QuantityInfo | undefined): string =>
  (amount < 0 ? info?.words?.moveMinus : info?.words?.movePlus) ?? '';

/** How far and which way: "0.021 mm toward you". */
export const moveWords = (amount: number, info: QuantityInfo | undefined, shown: Shown): string =>
  sizeAndWay(sizeOf(amount, info, shown, 1).large, toYou(wayOfMove(amount, info)));

/** What a move is to do, as one sentence: "Bring it 0.021 mm toward you." */
export const moveSentence = (verb: string | undefined, size: string, way: string): string =>
  `${verb ?? 'Move it'} ${sizeAndWay(size, way)}.`;

/** A sentence: "Tailstock is 0.021 mm away from you." */
export const callSentence = (quantity: Spoken, info: QuantityInfo, shown: Shown): string => `${callClause(quantity, info, shown)}.`;

/** The same within a longer sentence, without its stop. */
export function callClause(quantity: Spoken, info: QuantityInfo, shown: Shown): string {
  const words = inWords(quantity, info, shown);
  if (isZero(words)) return `${info.label}: zero, as near as this can be read`;
  return info.subject ? `${info.subject} is ${words}` : `${info.label}: ${words}`;
}

/** A zone in words: "up to 0.015 mm either way", "0 to 0.020 mm high". */
export function zoneInWords(zone: Quantity['limit'], info: QuantityInfo, shown: Shown): string {
  if (!zone) return '';
  const show = (value: number) => sizeOf(value, info, shown).large;
  const [low, high] = zone;
  const plus = toYou(info.words?.plus ?? '');
  const minus = toYou(info.words?.minus ?? '');
  const swings = (most: number, words: string) => (info.swings ? `, ${show(info.swings * most)} ${words}` : '');
  if (low === null) return high === null ? 'no limit' : `at most ${show(high)}${swings(high, 'in all on the dial')}`;
  if (high === null) return `from ${sizeAndWay(show(low), low < 0 ? minus : plus)}`;
  if (-low === high) return `at most ${show(high)} either way${swings(high, 'between the two readings')}`;
  if (low === 0) return minus ? `never ${minus}, at most ${show(high)} ${plus}` : `at most ${show(high)}`;
  const word = (value: number) => (value < 0 ? minus : plus);
  return `from ${show(low)} ${word(low)} to ${show(high)} ${word(high)}`;
}
