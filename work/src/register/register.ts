import { FaultError, isLargeChange, MOVE_FORMAT, planMove, type RecheckMeaning } from '@isometra/core';
import type { RegisterUse } from '@isometra/contract';

/** What reading again tells of a value that was entered. */
export type RegisterMeaning = RecheckMeaning;

/** Both values that may be meant, in the register's unit, and which of them it is where that is known. */
export interface RegisterPlan {
  readonly change: number;
  readonly plus: number;
  readonly minus: number;
  readonly chosen: 'plus' | 'minus' | null;
  /** µm that the two readings will differ by if it was the wrong one. */
  readonly ifWrong: number;
  readonly asks: readonly string[];
}

/** What the next round says of a value that was entered. */
export interface Recheck {
  readonly meaning: RegisterMeaning;
  readonly ratio: number | null;
  /** From the first old value; null where nothing can be told. */
  readonly next: number | null;
  /**
   * Why nothing can be told: the sign of a reading, its doubt, a round not to be trusted, something moved in between, or a
   * value before it of which nobody knows whether the control had taken it up.
   */
  readonly why?: 'sign' | 'doubt' | 'trust' | 'moved' | 'pending' | 'corrected';
  /** What it may mean, where that is more than one thing. */
  readonly may?: readonly RegisterMeaning[];
}

/** How surely the reading after is known. */
export interface RecheckFacts {
  /** µm, of each of the two total readings. */
  readonly doubt?: number;
  /** Whether somebody tried which way the needle counts, both times; true if left out. */
  readonly signed?: boolean;
}

/** Of a card: how often a control is homed, and switched off and on, until it has taken a value up. */
export function homingOf(card: Readonly<Record<string, unknown>> | undefined): { readonly times: number; readonly power: number } {
  const { times, power } = (card?.['homing'] ?? {}) as { readonly times?: number; readonly power?: number };
  return { times: Number(times ?? 1), power: Number(power ?? 0) };
}

const withUnit = (value: number, unit: RegisterUse['unit']): string => `${value.toFixed(9)} ${unit === 'inch' ? 'in' : 'mm'}`;

const inMicrons = (um: number): string => `${um.toFixed(6)} um`;

/** The sheet of a stored offset for a register as it stands; undefined before its old value is locked. */
function sheetOf(use: RegisterUse, kappa: 1 | -1 | null): Record<string, unknown> | undefined {
  if (!use.old) return undefined;
  const { total, programming, kind, jog, unit } = use;
  return {
    format: MOVE_FORMAT,
    move: 'stored-offset',
    old: withUnit(use.old.value, unit),
    totalReading: inMicrons(total),
    programming,
    register: kind,
    ...(jog && { jog: { by: withUnit(jog.by, unit), reading: { before: inMicrons(jog.before), after: inMicrons(jog.after) } } }),
    ...(kappa !== null && { kappa }),
  };
}

const tried = (sheet: Record<string, unknown>): Readonly<Record<string, unknown>> | undefined => {
  try {
    return planMove(sheet);
  } catch (error) {
    if (error instanceof FaultError) return undefined;
    throw error;
  }
};

/**
 * The two values of a register: old + change and old − change, and which of them cures the error.
 *
 * @param kappa of a reference, once it was learned for the axis.
 * @returns undefined before the old value is locked.
 */
export function registerPlan(use: RegisterUse, kappa: 1 | -1 | null): RegisterPlan | undefined {
  const sheet = sheetOf(use, kappa);
  const plan = sheet && tried(sheet);
  if (!plan) return undefined;
  const [change, plus, minus] = [Number(plan['change']), Number(plan['plus']), Number(plan['minus'])];
  // A jog that goes with nothing the needle did tells no sign.
  const chosen =
    plan['chosen'] === null || !displayCounts(use)
      ? null
      : Math.abs(Number(plan['chosen']) - plus) < Math.abs(Number(plan['chosen']) - minus)
        ? 'plus'
        : 'minus';
  return { change, plus, minus, chosen, ifWrong: Number(plan['ifWrong']), asks: (plan['asks'] ?? []) as readonly string[] };
}

/** What a display shows of a movement: its radius or its diameter, in its own unit. */
export interface DisplayCounts {
  readonly counts: RegisterUse['programming'];
  readonly unit: RegisterUse['unit'];
}

const DISPLAYS = (['mm', 'inch'] as const).flatMap((unit) =>
  (['radius', 'diameter'] as const).map((counts): DisplayCounts => ({ counts, unit })),
);
const inMm = (unit: RegisterUse['unit']): number => (unit === 'inch' ? 25.4 : 1);
const timesRadius = (counts: RegisterUse['programming']): number => (counts === 'diameter' ? 2 : 1);

/**
 * What the display counts, by a jog: the figure that it went by against how far the part went. It has its own unit and
 * factor, whatever the register has. Null where they go together in no way.
 */
export function displayCounts({ jog }: Pick<RegisterUse, 'jog'>): DisplayCounts | null {
  if (!jog) return null;
  const went = Math.abs(jog.after - jog.before) / 2000;
  const shown = (entry: DisplayCounts): number => (timesRadius(entry.counts) * went) / inMm(entry.unit);
  return DISPLAYS.find((entry) => Math.abs(Math.abs(jog.by) / shown(entry) - 1) < 0.25) ?? null;
}

/**
 * What a value that the control took itself should be: the old one and the whole jog until the two readings agreed, in the
 * register's own unit and factor; for a reference by κ. Null where that is not known.
 *
 * @param stands what stood in the register when it was jogged: the old value, if nothing was entered since.
 */
export function takenValue(use: RegisterUse, kappa: 1 | -1 | null, stands = use.old?.value): number | null {
  const counts = displayCounts(use);
  if (stands === undefined || !use.jog || !counts) return null;
  const sign = use.kind === 'reference' ? kappa : 1;
  if (sign === null) return null;
  const own = timesRadius(use.programming) / inMm(use.unit);
  return stands + (sign * use.jog.by * own * inMm(counts.unit)) / timesRadius(counts.counts);
}

/**
 * Whether a value that the control took itself is what it should be, within the doubt of the readings and the digits of the
 * register: by the whole jog, or, where that does not tell the sign, by its size alone.
 *
 * @param whole the change sheet with the whole jog, and what the two readings differed by before it. @param doubt µm of the part.
 */
export function takenFits(
  whole: RegisterUse,
  value: number,
  { kappa, stands, doubt }: { readonly kappa: 1 | -1 | null; readonly stands: number; readonly doubt: number },
): boolean {
  const wanted = takenValue(whole, kappa, stands);
  const change = registerPlan(whole, null)?.change ?? NaN;
  const room = Math.max(2 * 10 ** -whole.digits, (timesRadius(whole.programming) * doubt) / 1000 / inMm(whole.unit));
  return Math.abs(wanted === null ? Math.abs(value - stands) - Math.abs(change) : value - wanted) <= room;
}

/** What the two readings differ by after it says of the value that was entered: always from the first old value. */
export function recheckOf(use: RegisterUse, after: number, { doubt = 0, signed = true }: RecheckFacts = {}): Recheck | undefined {
  const sheet = sheetOf({ ...use, jog: null }, null);
  const read = { recheck: inMicrons(after), recheckSigned: signed, doubt: inMicrons(doubt) };
  const plan = sheet && use.entered && tried({ ...sheet, ...read, entered: withUnit(use.entered.value, use.unit) });
  if (!plan) return undefined;
  const may = plan['meanings'] as readonly RegisterMeaning[] | undefined;
  return {
    meaning: plan['meaning'] as RegisterMeaning,
    ratio: plan['ratio'] === null ? null : Number(plan['ratio']),
    // What was not taken up is not entered again: it is homed, and read.
    next: plan['next'] === null || plan['meaning'] === 'not-taken-up' ? null : Number(plan['next']),
    // What a sign would tell is asked for first: it costs nothing.
    ...(may && { may, why: signed ? ('doubt' as const) : ('sign' as const) }),
  };
}

/** Whether a value is so far from the first old one that it is asked about, whoever worked it out. */
export const isLarge = (value: number, { old, unit }: RegisterUse): boolean =>
  old !== null && isLargeChange((value - old.value) * inMm(unit));

/** How often a register wants the control homed, and switched off and on: only a reference does. What is added holds from the next call on. */
export const homingFor = (
  { kind }: Pick<RegisterUse, 'kind'>,
  homing: { readonly times: number; readonly power: number },
): { readonly times: number; readonly power: number } => (kind === 'reference' ? homing : { times: 0, power: 0 });

/** What a control still wants before it takes a value up: homings and switchings that were not counted yet. */
export function stillOwed(
  use: Pick<RegisterUse, 'homings' | 'power' | 'kind'>,
  homing: { readonly times: number; readonly power: number },
): { readonly homings: number; readonly power: number } {
  const { times, power } = homingFor(use, homing);
  return { homings: Math.max(0, times - use.homings), power: Math.max(0, power - use.power) };
}

/** The change sheet with one homing, or one switching off and on, counted more. */
export const withCounted = (use: RegisterUse, which: 'homings' | 'power'): RegisterUse => ({
  ...use,
  [which]: Math.min(20, use[which] + 1),
});

/** A value of a register with all its digits and its unit, as it is typed into the control. */
export const registerValue = (value: number, { digits, unit }: Pick<RegisterUse, 'digits' | 'unit'>): string =>
  `${value.toFixed(digits)} ${unit === 'inch' ? 'in' : 'mm'}`;
