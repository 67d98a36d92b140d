/** mm in an inch. */
export const INCH = 25.4;

export type RecheckMeaning =
  | 'right'
  | 'wrong-sign'
  | 'doubled'
  | 'doubled-wrong-sign'
  | 'halved'
  | 'halved-wrong-sign'
  | 'fell-short'
  | 'not-taken-up'
  | 'inch-as-mm'
  | 'mm-as-inch'
  | 'mistyped'
  | 'unclear';

/** What a ratio of the reading after to the reading before tells of the value that was entered, and how near it has to be. */
const MEANINGS: readonly { readonly ratio: number; readonly meaning: RecheckMeaning; readonly room: number }[] = [
  { ratio: 0, meaning: 'right', room: 0.12 },
  { ratio: 2, meaning: 'wrong-sign', room: 0.12 },
  { ratio: -1, meaning: 'doubled', room: 0.12 },
  { ratio: 3, meaning: 'doubled-wrong-sign', room: 0.18 },
  { ratio: 0.5, meaning: 'halved', room: 0.1 },
  { ratio: 1.5, meaning: 'halved-wrong-sign', room: 0.12 },
  { ratio: 1, meaning: 'not-taken-up', room: 0.12 },
  // A twenty-fifth less than nothing done: only readings that are good enough tell it from that.
  { ratio: 1 - 1 / INCH, meaning: 'inch-as-mm', room: 0.01 },
  { ratio: 1 - INCH, meaning: 'mm-as-inch', room: 1.5 },
  // The wrong way besides: it wants to go the other.
  { ratio: 1 + INCH, meaning: 'mm-as-inch', room: 1.5 },
];
/** Between these the control took less than was meant, by no factor that a typing mistake explains. */
const SHORT = [0.15, 0.85] as const;

/** The meaning of a ratio that is nearest to it, within its room; what lies between is a value that fell short. */
function meaningOf(ratio: number): RecheckMeaning | undefined {
  const near = MEANINGS.filter((entry) => Math.abs(ratio - entry.ratio) <= entry.room);
  const [nearest] = near.sort((a, b) => Math.abs(ratio - a.ratio) - Math.abs(ratio - b.ratio));
  if (nearest) return nearest.meaning;
  return ratio >= SHORT[0] && ratio <= SHORT[1] ? 'fell-short' : undefined;
}

/** Everything that a ratio may mean within its doubt, and the same of the opposite where its sign is not known. Each once. */
function meaningsOf(ratio: number, doubt: number, signed: boolean): RecheckMeaning[] {
  const signs = signed ? [ratio] : [Math.abs(ratio), -Math.abs(ratio)];
  const found = signs.flatMap((value): RecheckMeaning[] => {
    const nearest = meaningOf(value);
    return [
      ...(nearest ? [nearest] : []),
      ...MEANINGS.filter((entry) => Math.abs(value - entry.ratio) <= doubt).map(({ meaning }) => meaning),
    ];
  });
  return [...new Set(found)];
}

export interface Recheck {
  /** Reading after over reading before, signed; undefined where it has not been read again yet. */
  readonly ratio: number | undefined;
  /** Uncertainty of the ratio. */
  readonly doubt: number;
  readonly signed: boolean;
  /** All values in the control's own unit. */
  readonly old: number;
  /** What the value was to become: both, as long as the sign is not known. */
  readonly meant: readonly number[];
  readonly entered: number | undefined;
  /** What the register shows when it is looked at again. */
  readonly shown: number | undefined;
  /** Size of the change that was wanted. */
  readonly step: number;
}

/** What tells two meanings of one ratio apart. */
const LOOK = 'Look at the register again and give what it shows: that settles it.';

/** Whether two values are the same as far as a control shows them: a fiftieth of the change, or a digit of it. */
const alike = (one: number, other: number, step: number): boolean => Math.abs(one - other) <= Math.max(0.02 * step, 1e-9);

/** Meanings after which the value that was entered is the right one. */
const AS_ENTERED: readonly RecheckMeaning[] = ['not-taken-up', 'right'];

/** The values that may be right: what was entered, where it is one of those that were meant. */
const wantedOf = ({ entered, meant, step }: Recheck): readonly number[] =>
  entered !== undefined && meant.some((value) => alike(value, entered, step)) ? [entered] : meant;

/**
 * What the reading after a change of a register tells, and the value to enter next: always from the first old value. With what the
 * register shows the change that was made is known, and nothing is guessed.
 */
export function recheckOf(recheck: Recheck) {
  const { ratio, old, entered, shown, step } = recheck;
  if (ratio !== undefined && !Number.isFinite(ratio)) return { ratio: null, meaning: 'unclear' as RecheckMeaning, next: null };
  const told = ratio === undefined ? {} : { ratio };
  const wanted = wantedOf(recheck);
  const keyed = entered ?? wanted[0];
  if (shown !== undefined && !wanted.some((value) => alike(value, shown, step)))
    return { ...told, meaning: mistakeOf({ shown, old, keyed, step, wanted }), next: nextAfter(recheck, shown - old, wanted) };
  if (ratio === undefined) return { meaning: 'unclear' as RecheckMeaning, next: null };
  const made = (shown ?? keyed) - old;
  const meanings = meaningsLeft(recheck, ratio);
  if (meanings.length !== 1) return { ...told, ...unclear(meanings) };
  const [meaning] = meanings;
  const sure = (shown ?? entered) !== undefined || wanted.length === 1;
  if (UNITS.includes(meaning)) return { ...told, ...unitMixedUp(recheck, meaning, old + made / factorOf(meaning, ratio), wanted) };
  // Nothing was taken up: the same value again, once the control has been homed. A sign that nobody knows has no next value.
  const next = old + (AS_ENTERED.includes(meaning) ? made : made / factorOf(meaning, ratio));
  return { ...told, meaning, next: sure ? next : null };
}

const UNITS: readonly RecheckMeaning[] = ['inch-as-mm', 'mm-as-inch'];

const unclear = (all: readonly RecheckMeaning[]) => ({
  meaning: 'unclear' as const,
  next: null,
  ...(all.length > 1 && { meanings: all, apart: LOOK }),
});

/** What a ratio may mean; where the register shows what was meant, no unit was mixed up on the way. */
function meaningsLeft({ doubt, signed, shown }: Recheck, ratio: number): RecheckMeaning[] {
  const may = meaningsOf(ratio, doubt, signed).flatMap((meaning): RecheckMeaning[] =>
    shown === undefined || !UNITS.includes(meaning) ? [meaning] : meaning === 'inch-as-mm' ? ['not-taken-up'] : [],
  );
  return [...new Set(may)];
}

/** @param cure the value that puts a mixed-up unit right. */
function unitMixedUp({ entered, meant, step }: Recheck, meaning: RecheckMeaning, cure: number, wanted: readonly number[]) {
  if (entered === undefined) return { meaning, next: wanted.length === 1 ? wanted[0] : null };
  if (!meant.some((value) => alike(value, entered, step))) return { meaning, next: cure };
  // The figure that was keyed in was the right one: then the unit is no explanation, and a look has to tell.
  return meaning === 'inch-as-mm' ? unclear(['not-taken-up', meaning]) : { meaning, next: null, apart: LOOK };
}

/** Which part of what was wanted a change made, by its meaning: exactly, where the meaning is exact. */
function factorOf(meaning: RecheckMeaning, ratio: number): number {
  if (meaning === 'fell-short') return 1 - ratio;
  const near = MEANINGS.filter((entry) => entry.meaning === meaning).sort((a, b) => Math.abs(ratio - a.ratio) - Math.abs(ratio - b.ratio));
  return 1 - near[0].ratio;
}

interface Shown {
  readonly shown: number;
  readonly old: number;
  readonly keyed: number;
  readonly step: number;
  readonly wanted: readonly number[];
}

/** What became of a value that the register does not show as it was meant. */
function mistakeOf({ shown, old, keyed, step, wanted }: Shown): RecheckMeaning {
  if (alike(shown, old, step)) return 'not-taken-up';
  const made = shown - old;
  for (const value of [keyed, ...wanted]) {
    if (alike(shown * INCH, value, step) || alike(made * INCH, value - old, step)) return 'inch-as-mm';
    if (alike(shown / INCH, value, step) || alike(made / INCH, value - old, step)) return 'mm-as-inch';
  }
  return 'mistyped';
}

/** The value to enter after a typing mistake: what was meant, where its sign is known; else as far as the reading tells. */
function nextAfter({ ratio, doubt, old, step }: Recheck, made: number, wanted: readonly number[]): number | null {
  if (wanted.length === 1) return wanted[0];
  // The effect is in proportion to the change that was really made.
  if (ratio === undefined || made === 0 || Math.abs(1 - ratio) <= Math.max(0.1, doubt)) return null;
  const cure = made / (1 - ratio);
  return wanted.find((value) => Math.abs(value - old - cure) <= 0.25 * step) ?? null;
}
