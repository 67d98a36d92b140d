import { CHECKS, FaultError, MOVE_FORMAT, planMove } from '@isometra/core';
import type { MoveWrite, RegisterUse, RoundHead } from '@isometra/contract';
import { disturbs, doneMoves } from './doneMoves.js';
import { sameThing } from './things.js';

export type RegisterMeaning =
  | 'right'
  | 'wrong-sign'
  | 'doubled'
  | 'doubled-wrong-sign'
  | 'halved'
  | 'halved-wrong-sign'
  | 'not-taken-up'
  | 'inch-as-mm'
  | 'mm-as-inch'
  | 'unclear';

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
  /** Why nothing can be told: the sign of a reading, its doubt, a round not to be trusted, something moved in between. */
  readonly why?: 'sign' | 'doubt' | 'trust' | 'moved';
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
 */
export function takenValue(use: RegisterUse, kappa: 1 | -1 | null): number | null {
  const counts = displayCounts(use);
  if (!use.old || !use.jog || !counts) return null;
  const sign = use.kind === 'reference' ? kappa : 1;
  if (sign === null) return null;
  const own = timesRadius(use.programming) / inMm(use.unit);
  return use.old.value + (sign * use.jog.by * own * inMm(counts.unit)) / timesRadius(counts.counts);
}

/** What the two readings differ by after it says of the value that was entered: always from the first old value. */
export function recheckOf(use: RegisterUse, after: number, { doubt = 0, signed = true }: RecheckFacts = {}): Recheck | undefined {
  const sheet = sheetOf({ ...use, jog: null }, null);
  const read = { recheck: inMicrons(after), recheckSigned: signed, doubt: inMicrons(doubt) };
  const plan = sheet && use.entered && tried({ ...sheet, ...read, entered: withUnit(use.entered.value, use.unit) });
  if (!plan) return undefined;
  const may = plan['may'] as readonly RegisterMeaning[] | undefined;
  return {
    meaning: plan['meaning'] as RegisterMeaning,
    ratio: plan['ratio'] === null ? null : Number(plan['ratio']),
    next: plan['next'] === null ? null : Number(plan['next']),
    // What a sign would tell is asked for first: it costs nothing.
    ...(may && { may, why: signed ? ('doubt' as const) : ('sign' as const) }),
  };
}

/** One change of a register: the card it was made on, and what the first round after it said. */
export interface RegisterEntry {
  readonly move: MoveWrite;
  readonly use: RegisterUse;
  /** The round after it; only one that was read with the axes homed tells anything. */
  readonly next?: RoundHead;
  readonly recheck?: Recheck;
}

/** A register as the machine card tells it: its axis, and what it is built on where that was said. */
export type RegisterBase = Pick<RegisterUse, 'name' | 'axis'> & {
  readonly basedOn?: string;
  /** What it shifts; left out where nobody said. */
  readonly scope?: 'station' | 'turret' | 'sub';
  /** Which station, where it shifts one. */
  readonly station?: string;
};

/** Whether a register shifts what a round was read on, as far as the machine card tells. */
function shifts(
  { scope, station }: Pick<RegisterBase, 'scope' | 'station'>,
  { check, conditions }: Pick<RoundHead, 'check' | 'conditions'>,
): boolean {
  if (scope === undefined) return true;
  if ((scope === 'sub') !== (CHECKS.get(check)?.carried === 'sub')) return false;
  const own = conditions['station'];
  return scope !== 'station' || !station || !own || station === String(own).trim();
}

/** Registers of the card that may be changed for what a round was read on: none of another station, none of another spindle. */
export const registersFor = <T extends Pick<RegisterBase, 'scope' | 'station'>>(
  registers: readonly T[],
  round: Pick<RoundHead, 'check' | 'conditions'>,
): T[] => registers.filter((register) => shifts(register, round));

/**
 * Whether a register that was changed re-opens what a round was read on: it shifts that by the card, or others are built on
 * it and the one that shifts that may be.
 *
 * @param used the register that was last changed for it, where one was.
 */
export function reopens(
  changed: Pick<RegisterUse, 'name' | 'axis' | 'kind'>,
  round: Pick<RoundHead, 'check' | 'conditions'>,
  used: string | undefined,
  registers: readonly RegisterBase[],
): boolean {
  const card = registers.find(({ name }) => name === changed.name);
  const own =
    used ?? registers.find((register) => register.scope !== undefined && register.scope !== 'turret' && shifts(register, round))?.name;
  // What is added to all of them shifts all of them; a reference those that are built on it.
  if (card?.scope && shifts(card, round) && changed.kind === 'added') return true;
  return (changed.kind === 'reference' || isBase(changed.name, registers)) && builtOn(own, changed, registers);
}

/** Whether other registers of the card are built on this one. */
export const isBase = (name: string, registers: readonly RegisterBase[]): boolean => registers.some(({ basedOn }) => basedOn === name);

/**
 * Whether a register is built on another, by the machine card. What the card leaves open is taken for built on it: a station
 * that is read again for nothing costs less than one that is off.
 */
export function builtOn(name: string | undefined, base: Pick<RegisterUse, 'name' | 'axis'>, registers: readonly RegisterBase[]): boolean {
  const seen = new Set<string>();
  for (let next = name; ;) {
    if (next === base.name) return true;
    const known = registers.find((entry) => entry.name === next);
    if (!known || seen.has(known.name)) return true;
    seen.add(known.name);
    if (!known.basedOn) return known.name === name && known.axis === base.axis;
    next = known.basedOn;
  }
}

const isBack = ({ entered }: RegisterUse): boolean => entered?.how === 'back';

type Finding = NonNullable<RoundHead['finding']>;

/** What makes a round one that no register may be judged by: it did not close, something was changed within it, half of it is missing. */
const DISTRUST: readonly string[] = ['closure', 'conditions-differ', 'reversal-open', 'pegged'];
const isTrusted = ({ notes }: Finding): boolean =>
  !notes.some(({ code, severity }) => DISTRUST.includes(code) && (code !== 'closure' || severity === 'serious'));

/** Whether which way the needle counts is known: somebody tried, or no dial stands between what was typed and what it is. */
const isSigned = ({ instrumentName, sense }: RoundHead): boolean => instrumentName === null || sense !== null;

/** What a round says of the value that was entered before it. Back at the first old value it is no re-check of anything. */
function judged(use: RegisterUse, { round, move, moved }: Made, next: RoundHead): Recheck | undefined {
  const found = next.finding?.quantities[move.quantity];
  if (!next.finding || !found || isBack(use)) return undefined;
  if (moved(next)) return { meaning: 'unclear', ratio: null, next: null, why: 'moved' };
  if (!isTrusted(next.finding)) return { meaning: 'unclear', ratio: null, next: null, why: 'trust' };
  const before = round.finding?.quantities[move.quantity];
  const doubt = 2 * Math.max(found.expanded ?? 0, before?.expanded ?? 0);
  const recheck = recheckOf(use, 2 * found.value, { doubt, signed: isSigned(round) && isSigned(next) });
  // What is in is right, however small the rest is against its doubt.
  return recheck?.may?.includes('right') && isIn(next.finding) ? { meaning: 'right', ratio: recheck.ratio, next: null } : recheck;
}

function isIn({ quantities }: Finding): boolean {
  const verdicts = Object.values(quantities).flatMap(({ verdict }) => verdict ?? []);
  return verdicts.length > 0 && verdicts.every((verdict) => verdict === 'in');
}

/** One card of a register, and whether anything else was moved on the same thing between it and a later round. */
interface Made {
  readonly round: RoundHead;
  readonly move: MoveWrite;
  readonly moved: (next: RoundHead) => boolean;
}

/** A slip once for each value that was entered on it, oldest first. */
function entriesOf(use: RegisterUse | undefined): RegisterUse[] {
  if (!use?.entered) return [];
  const { earlier = [], ...slip } = use;
  return [...earlier, use.entered].map((entered) => ({ ...slip, entered }));
}

/** Every value that was entered into registers of a machine, oldest first. */
export function registerLog(rounds: readonly RoundHead[]): RegisterEntry[] {
  const done = doneMoves(rounds);
  return rounds
    .flatMap((round) => round.moves.flatMap((move) => entriesOf(move.made?.register).map((use) => ({ round, move, use }))))
    .sort((one, other) => ((one.use.entered?.at ?? '') < (other.use.entered?.at ?? '') ? -1 : 1))
    .map(({ round, move, use }) => {
      // From when the value was entered, whether or not anybody said that the card is done.
      const changedAt = use.entered?.at ?? '';
      const next = rounds.find(
        (later) =>
          sameThing(later, round) &&
          later.at > changedAt &&
          later.conditions['homed'] === 'yes' &&
          later.finding?.quantities[move.quantity] !== undefined,
      );
      const moved = ({ at }: RoundHead) => done.some((other) => other.doneAt > changedAt && other.doneAt <= at && disturbs(other, round));
      const recheck = next && judged(use, { round, move, moved }, next);
      return { move, use, ...(next && { next }), ...(recheck && { recheck }) };
    });
}

/** The slip with another value entered: what was entered before is kept, homings and switchings are counted anew. */
export function enteredOn(use: RegisterUse, entered: NonNullable<RegisterUse['entered']>): RegisterUse {
  const earlier = [...(use.earlier ?? []), ...(use.entered ? [use.entered] : [])];
  return { ...use, entered, homings: 0, power: 0, ...(earlier.length && { earlier }) };
}

const TURNED: Readonly<Partial<Record<RegisterMeaning, 1 | -1>>> = {
  right: 1,
  doubled: 1,
  halved: 1,
  'wrong-sign': -1,
  'doubled-wrong-sign': -1,
  'halved-wrong-sign': -1,
};

/**
 * Which way a reference of an axis works: new = old + κ·jog. Learned from a value that was entered after a jog and read
 * again; null where nobody has.
 */
export function learnedKappa(log: readonly RegisterEntry[], axis: string): 1 | -1 | null {
  for (const { use, recheck } of [...log].reverse()) {
    const turned = recheck && TURNED[recheck.meaning];
    if (use.kind !== 'reference' || use.axis !== axis || !turned || !use.jog || !use.old || !use.entered) continue;
    // What a jog would have to be taken to cure it, as the control would count it.
    const plan = registerPlan({ ...use, kind: 'added' }, null);
    if (!plan?.chosen) continue;
    const cure = Math.sign(plan.change) * (plan.chosen === 'plus' ? 1 : -1);
    const went = Math.sign(use.entered.value - use.old.value);
    return went * turned * cure > 0 ? 1 : -1;
  }
  return null;
}

const BY_WORDS: Readonly<Record<string, 1 | -1>> = { with: 1, against: -1 };

/** Which way the references of a machine go, by axis: as it was learned, else as its card tells. */
export function kappaByAxis(
  log: readonly RegisterEntry[],
  card: readonly { readonly axis?: string; readonly kappa?: string }[],
): Readonly<Record<string, 1 | -1>> {
  const told = card.flatMap(({ axis, kappa }) => (axis && kappa && BY_WORDS[kappa] ? [[axis, BY_WORDS[kappa]] as const] : []));
  const axes = [...new Set(log.map(({ use }) => use.axis))];
  const learned = axes.map((axis) => [axis, learnedKappa(log, axis)] as const).filter(([, known]) => known !== null);
  return Object.fromEntries([...told, ...learned]) as Readonly<Record<string, 1 | -1>>;
}

/** A register that was changed and is not right yet: from what it is counted, and what comes next. */
export interface Unsettled {
  readonly old: NonNullable<RegisterUse['old']>;
  /** What the two readings differed by before anything was changed, µm. */
  readonly total: number;
  /** What the last re-check said; null where it has not been read again. */
  readonly recheck: Recheck | null;
}

/** Registers that were changed and were not called right since, by name: their way goes on from the first old value. */
export function unsettledOf(log: readonly RegisterEntry[]): Readonly<Record<string, Unsettled>> {
  const names = [...new Set(log.map(({ use }) => use.name))];
  return Object.fromEntries(
    names.flatMap((name) => {
      const last = log.filter(({ use }) => use.name === name).at(-1);
      const old = firstOld(log, name);
      return last && old ? [[name, { old, total: last.use.total, recheck: last.recheck ?? null }] as const] : [];
    }),
  );
}

/** The value to go back to: the first old one, of the first entry that the rounds since have not called right; none once it is back there. */
export function firstOld(log: readonly RegisterEntry[], name: string): NonNullable<RegisterUse['old']> | null {
  const own = log.filter(({ use }) => use.name === name);
  const settled = own.findLastIndex(({ use, recheck }) => recheck?.meaning === 'right' || isBack(use));
  return own.slice(settled + 1).at(0)?.use.old ?? null;
}

/** More than this, mm of radius, is asked about: a slip of a unit is a crash. */
const LARGE = 0.5;
/** Whether a value is so far from the first old one that it is asked about, whoever worked it out. */
export const isLarge = (value: number, { old, unit, programming }: RegisterUse): boolean =>
  old !== null && (Math.abs(value - old.value) * inMm(unit)) / timesRadius(programming) > LARGE;

/** What a control still wants before it takes a value up: homings and switchings that were not counted yet. */
export const stillOwed = (
  { homings, power }: Pick<RegisterUse, 'homings' | 'power'>,
  homing: { readonly times: number; readonly power: number },
): { readonly homings: number; readonly power: number } => ({
  homings: Math.max(0, homing.times - homings),
  power: Math.max(0, homing.power - power),
});

/** A value of a register with all its digits and its unit, as it is typed into the control. */
export const registerValue = (value: number, { digits, unit }: Pick<RegisterUse, 'digits' | 'unit'>): string =>
  `${value.toFixed(digits)} ${unit === 'inch' ? 'in' : 'mm'}`;

/**
 * A plate that sits on another station than its own, in words; empty where the card does not say otherwise. What is read there
 * belongs to neither of the two.
 */
export function plateWords(stations: unknown, { station, plate }: Readonly<Record<string, unknown>>): string {
  const rows = (Array.isArray(stations) ? stations : []) as readonly { readonly station: string; readonly plate: string }[];
  const own = rows.find((row) => row.station === station)?.plate;
  if (typeof station !== 'string' || typeof plate !== 'string' || !own || own === plate) return '';
  const home = rows.find((row) => row.plate === plate)?.station;
  return `Station ${station} carries plate ${plate}; by the machine card its own is ${own}${home ? `, and plate ${plate} belongs on station ${home}` : ''}. Put each plate back on its own station before anything is moved or entered.`;
}
