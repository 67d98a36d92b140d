/** mm in an inch. */
export const INCH = 25.4;

/** What a ratio of the reading after to the reading before tells of the value that was entered. */
const MEANINGS = [
  { ratio: 0, meaning: 'right', factor: 1 },
  { ratio: 2, meaning: 'wrong-sign', factor: -1 },
  { ratio: -1, meaning: 'doubled', factor: 0.5 },
  { ratio: 3, meaning: 'doubled-wrong-sign', factor: -0.5 },
  { ratio: 0.5, meaning: 'halved', factor: 2 },
  { ratio: 1.5, meaning: 'halved-wrong-sign', factor: -2 },
  { ratio: 1, meaning: 'not-taken-up', factor: 1 },
  { ratio: 1 - 1 / INCH, meaning: 'inch-as-mm', factor: INCH },
  { ratio: 1 - INCH, meaning: 'mm-as-inch', factor: 1 / INCH },
  // The wrong way besides: it wants to go the other.
  { ratio: 1 + INCH, meaning: 'mm-as-inch', factor: -1 / INCH },
] as const;
/** How far a ratio may be from what it means: a tenth, or a twentieth of a large one. */
const near = (ratio: number, wanted: number): boolean => Math.abs(ratio - wanted) <= Math.max(0.12, 0.06 * Math.abs(wanted));

type Meaning = Pick<(typeof MEANINGS)[number], 'meaning' | 'factor'>;

function meaningOf(ratio: number): Meaning | undefined {
  const [nearest] = [...MEANINGS].sort((a, b) => Math.abs(ratio - a.ratio) - Math.abs(ratio - b.ratio));
  return near(ratio, nearest.ratio) ? nearest : undefined;
}

/**
 * Everything that a ratio may mean: the nearest, what its doubt reaches beside it, and the same of the opposite where its sign
 * is not known. Each once.
 */
function meaningsOf(ratio: number, doubt: number, signed: boolean): Meaning[] {
  const signs = signed ? [ratio] : [Math.abs(ratio), -Math.abs(ratio)];
  const found = signs.flatMap((value) => [
    ...(meaningOf(value) ? [meaningOf(value) as Meaning] : []),
    ...MEANINGS.filter((entry) => Math.abs(value - entry.ratio) <= doubt),
  ]);
  return found.filter((entry, i) => found.findIndex(({ meaning }) => meaning === entry.meaning) === i);
}

/** What the reading after tells, and the value to enter next: always from the first old value. */
export function rechecked(ratio: number, doubt: number, signed: boolean, old: number, made: number) {
  if (!Number.isFinite(ratio)) return { ratio: null, meaning: 'unclear', next: null };
  const may = meaningsOf(ratio, doubt, signed);
  if (may.length === 1) return { ratio, meaning: may[0].meaning, next: old + may[0].factor * made };
  return { ratio, meaning: 'unclear', next: null, ...(may.length > 1 && { may: may.map(({ meaning }) => meaning) }) };
}
