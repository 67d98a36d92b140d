import { showSize, type Dimension, type Fineness, type Quantity, type QuantityInfo, type UnitSystem } from '@isometra/core';

/** How figures are shown just now. */
export interface Shown {
  readonly system: UnitSystem;
  readonly fineness: Fineness;
}

/** What of a quantity is spoken. */
type Spoken = Pick<Quantity, 'value' | 'direction' | 'expanded'>;

/** The core speaks of the operator; a screen speaks to them. */
export const spoken = (words: string): string => words.replace(/(?:the )?operator['’]s side/g, 'your side').replace('the operator', 'you');

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

/** "0.021 mm away from you", or "0.000 mm" when nothing can be told from zero. */
export function inWords(quantity: Spoken, info: QuantityInfo, shown: Shown): string {
  const { large } = bothUnits(quantity.value, info.dimension, shown, quantity.expanded);
  return quantity.direction && !isZero(large) ? `${large} ${spoken(quantity.direction)}` : large;
}

/** Whether a shown figure is nothing but zeros. */
export const isZero = (text: string): boolean => !/[1-9]/.test(text.split(' ')[0]);

/** Where a thing stands, in the core's words: on the + side or the − side; nothing at zero. */
export const sideOf = (value: number, info: QuantityInfo | undefined): string =>
  (value === 0 ? '' : value < 0 ? info?.words?.minus : info?.words?.plus) ?? '';

/** A value with its side: "0.021 mm away from you"; no side where nothing but zeros is shown. */
export const placedWords = (value: number, info: QuantityInfo | undefined, shown: Shown, expanded?: number | null): string => {
  const { large } = bothUnits(value, info?.dimension ?? 'deviation', shown, expanded);
  return isZero(large) ? large : `${large} ${spoken(sideOf(value, info))}`.trim();
};

/** Which way a move takes it, in the core's words. */
export const wayOfMove = (amount: number, info: QuantityInfo | undefined): string =>
  (amount < 0 ? info?.words?.moveMinus : info?.words?.movePlus) ?? '';

/** A sentence: "Tailstock is 0.021 mm away from you." */
export function callSentence(quantity: Spoken, info: QuantityInfo, shown: Shown): string {
  const words = inWords(quantity, info, shown);
  if (isZero(words)) return `${info.label}: nothing to be told from zero.`;
  return info.subject ? `${info.subject} is ${words}.` : `${info.label}: ${words}.`;
}

/** A zone in words: "up to 0.015 mm either way", "0 to 0.020 mm high". */
export function zoneInWords(zone: Quantity['limit'], info: QuantityInfo, { system, fineness }: Shown): string {
  if (!zone) return '';
  const show = (value: number) => showSize(value, info.dimension, system, fineness);
  const [low, high] = zone;
  const plus = spoken(info.words?.plus ?? '');
  const minus = spoken(info.words?.minus ?? '');
  if (low === null) return high === null ? 'no limit' : `at most ${show(high)}`;
  if (high === null) return `from ${show(low)} ${low < 0 ? minus : plus}`.trim();
  if (-low === high) return `at most ${show(high)} either way`;
  if (low === 0) return `never ${minus}, at most ${show(high)} ${plus}`;
  const word = (value: number) => (value < 0 ? minus : plus);
  return `from ${show(low)} ${word(low)} to ${show(high)} ${word(high)}`;
}
