import type { MoveWrite, QuantityHead, RegisterUse, RoundHead } from '@isometra/contract';
import { disturbs, doneMoves } from '../notebook/doneMoves.js';
import { recheckOf, registerPlan, stillOwed, type homingOf, type Recheck, type RegisterMeaning } from './register.js';
import { sameThing } from '../notebook/things.js';

/** One change of a register: the card it was made on, and what the first round after it said. */
export interface RegisterEntry {
  readonly move: MoveWrite;
  readonly use: RegisterUse;
  /** The round after it; only one that was read with the axes homed tells anything. */
  readonly next?: RoundHead;
  readonly recheck?: Recheck;
}

const isBack = ({ entered }: RegisterUse): boolean => entered?.how === 'back';

type Finding = NonNullable<RoundHead['finding']>;

/** What makes a round one that no register may be judged by: it did not close, something was changed within it, half of it is missing. */
const DISTRUST: readonly string[] = ['closure', 'conditions-differ', 'reversal-open', 'pegged'];
const isTrusted = ({ notes }: Finding): boolean =>
  !notes.some(({ code, severity }) => DISTRUST.includes(code) && (code !== 'closure' || severity === 'serious'));

/** Whether which way the needle counts is known: the round says so itself where it does not. */
const isSigned = ({ finding }: RoundHead): boolean => !finding?.notes.some(({ code }) => code === 'direction-assumed');

/** Whether a round after the way back still reads what the value did that stood there before: as it was read, or as it would. */
function isStuck(found: QuantityHead, use: RegisterUse, { last, tried, move }: Made): boolean {
  const before = last?.finding?.quantities[move.quantity];
  const room = Math.max(2 * Math.max(found.expanded ?? 0, before?.expanded ?? 0), 0.1 * Math.abs(use.total));
  const reads = (total: number): boolean => Math.abs(2 * found.value - total) <= room;
  const change = registerPlan(use, null)?.change;
  const by = change && tried?.entered && use.old ? Math.abs((tried.entered.value - use.old.value) / change) : 0;
  const effects = [...(before ? [2 * before.value] : []), use.total * (1 + by), use.total * (1 - by)];
  return !reads(use.total) && effects.some(reads);
}

/** µm, and part: by how much a reading may differ from the total that a value was worked out with. */
const SAME_UM = 1;
const SAME_PART = 0.05;

/** Whether the round that a value was worked out from reads another total now, µm: its readings or set-up were corrected since. */
export const readsOther = ({ total }: Pick<RegisterUse, 'total'>, now: number): boolean =>
  Math.abs(now - total) > Math.max(SAME_UM, SAME_PART * Math.abs(total));

/** The change sheet by what its round reads now, µm, as long as nothing has been entered: a jog still moved the needle by as much. */
export function byRoundNow(use: RegisterUse, total: number): RegisterUse {
  if (use.entered || use.earlier?.length || !readsOther(use, total)) return use;
  const jog = use.jog && { ...use.jog, before: total, after: total + (use.jog.after - use.jog.before) };
  return { ...use, total, jog };
}

/** The change sheet without the value that was recorded last, which nobody entered into the control. */
export function withoutLast(use: RegisterUse): RegisterUse {
  const { earlier = [], ...rest } = use;
  const before = earlier.slice(0, -1);
  return { ...rest, entered: earlier.at(-1) ?? null, homings: 0, power: 0, ...(before.length && { earlier: before }) };
}

/**
 * What a round says of the value that was entered before it. Back at the first old value it is no re-check of anything, unless
 * it reads as it did just before: then the control has not taken that up.
 */
function judged(use: RegisterUse, made: Made, next: RoundHead): Recheck | undefined {
  const { move, moved } = made;
  const found = next.finding?.quantities[move.quantity];
  if (!next.finding || !found) return undefined;
  if (isBack(use)) {
    // Moved as well, no reading tells whether it was taken up: that somebody counted a homing does.
    if (moved(next)) return use.homings + use.power > 0 ? undefined : unclear('moved');
    return isStuck(found, use, made) ? { meaning: 'not-taken-up', ratio: null, next: null } : undefined;
  }
  if (moved(next)) return unclear('moved');
  if (!isTrusted(next.finding)) return unclear('trust');
  return judgedForward(use, made, next, { found, finding: next.finding });
}

const unclear = (why: NonNullable<Recheck['why']>): Recheck => ({ meaning: 'unclear', ratio: null, next: null, why });

/** The same of a value that is not the first one again. */
function judgedForward(
  use: RegisterUse,
  { first, round, move }: Made,
  next: RoundHead,
  { found, finding }: { readonly found: Finding['quantities'][string]; readonly finding: Finding },
): Recheck | undefined {
  const [began, own] = [first, round].map((one) => one.finding?.quantities[move.quantity]);
  if (began && readsOther(use, 2 * began.value)) return unclear('corrected');
  const doubt = 2 * Math.max(found.expanded ?? 0, began?.expanded ?? 0);
  const recheck = recheckOf(use, 2 * found.value, { doubt, signed: isSigned(first) && isSigned(next) });
  // A second value after which it reads as it did before was not taken up, whatever that is beside what it read at first.
  const noticed = Math.max(doubt, 0.1 * Math.abs(use.total));
  if (own && first !== round && 2 * Math.abs(found.value - own.value) <= noticed)
    return { meaning: 'not-taken-up', ratio: recheck?.ratio ?? null, next: null };
  return recheck && rightWhereIn(recheck, finding);
}

/** What is in is right, however small the rest is against its doubt. */
const rightWhereIn = (recheck: Recheck, finding: Finding): Recheck =>
  recheck.may?.includes('right') && isIn(finding) ? { meaning: 'right', ratio: recheck.ratio, next: null } : recheck;

function isIn({ quantities }: Finding): boolean {
  const verdicts = Object.values(quantities).flatMap(({ verdict }) => verdict ?? []);
  return verdicts.length > 0 && verdicts.every((verdict) => verdict === 'in');
}

/** One card of a register, and whether anything else was moved on the same thing between it and a later round. */
interface Made {
  /** The round that its way began with: what the two readings differed by before anything was changed. */
  readonly first: RoundHead;
  readonly round: RoundHead;
  /** The last one that was read with the axes homed before the value was entered. */
  readonly last?: RoundHead;
  /** What had been entered before that on the same way. */
  readonly tried?: RegisterUse;
  readonly move: MoveWrite;
  readonly moved: (next: RoundHead) => boolean;
}

/**
 * A change sheet once for each value that was entered on it, oldest first, with when it was: never before the value that it was
 * entered over, whatever the clock said of the browser it was written in.
 */
function entriesOf(use: RegisterUse | undefined): { readonly use: RegisterUse; readonly at: string }[] {
  if (!use?.entered) return [];
  const { earlier = [], ...sheet } = use;
  let latest = '';
  return [...earlier, use.entered].map((entered) => {
    if (entered.at > latest) latest = entered.at;
    return { use: { ...sheet, entered }, at: latest };
  });
}

/** Registers whose last value has not been taken up yet: the card that it was entered on, and what the control still wants. */
export function owedAt(entries: readonly RegisterEntry[], homing: ReturnType<typeof homingOf>): readonly Owed[] {
  const last = new Map(entries.map((entry) => [entry.use.name, entry]));
  return [...last.values()].flatMap(({ move, use, recheck }) => {
    const { homings, power } = stillOwed(use, homing);
    // What a round after it has judged had been taken up, whatever was counted.
    const judged = recheck !== undefined && recheck.meaning !== 'not-taken-up' && recheck.why !== 'pending';
    return homings + power > 0 && !judged ? [{ move, use, homings, power }] : [];
  });
}

/** A value that is still to be taken up: how often the control is homed, and switched off and on, until it has. */
export interface Owed {
  readonly move: MoveWrite;
  readonly use: RegisterUse;
  readonly homings: number;
  readonly power: number;
}

/** Whether what a round says of a value is not the last word: homed again, or read better, the next one may say another. */
const isOpen = ({ meaning, why }: Recheck): boolean => meaning === 'not-taken-up' || (why !== undefined && why !== 'moved');

/** The round that says what became of a value: the first with the last word, else the last that said anything. */
function settled(after: readonly RoundHead[], judge: (next: RoundHead) => Recheck | undefined): Pick<RegisterEntry, 'next' | 'recheck'> {
  let found: Pick<RegisterEntry, 'next' | 'recheck'> = {};
  for (const next of after) {
    const recheck = judge(next);
    // What was moved after an open word leaves that word as it is.
    if (recheck?.why === 'moved' && found.next) return found;
    found = { next, ...(recheck && { recheck }) };
    if (!recheck || !isOpen(recheck)) return found;
  }
  return found;
}

/** Every value that was entered into registers of a machine, oldest first. */
export function registerLog(rounds: readonly RoundHead[]): RegisterEntry[] {
  const entries = rounds
    .flatMap((round) => round.moves.flatMap((move) => entriesOf(move.made?.register).map((entry) => ({ round, move, ...entry }))))
    .sort((one, other) => Number(one.at > other.at) - Number(one.at < other.at));
  if (entries.length === 0) return [];
  const done = doneMoves(rounds);
  const log: RegisterEntry[] = [];
  // From when the value was entered, whether or not anybody said that the card is done.
  for (const [i, { round, move, use, at: changedAt }] of entries.entries()) {
    // All of one way from the same first old value: what is judged is what has become of the round that it began with.
    const onWay = (entry: { readonly use: RegisterUse }): boolean => entry.use.name === use.name && entry.use.old?.at === use.old?.at;
    const way = entries.filter(onWay);
    const [{ round: first }] = way;
    const ids = new Set(way.map((entry) => entry.move.id));
    const moved = ({ at }: RoundHead) =>
      done.some(({ id, doneAt, ...other }) => {
        const since = id !== undefined && ids.has(id) ? changedAt : first.at;
        return doneAt > since && doneAt <= at && disturbs(other, round);
      });
    // What is read after the next value was entered tells of that one.
    const until = entries.slice(i + 1).find((entry) => entry.use.name === use.name)?.at;
    const homed = rounds.filter(
      (other) => sameThing(other, round) && other.conditions['homed'] === 'yes' && other.finding?.quantities[move.quantity] !== undefined,
    );
    const after = homed.filter(({ at }) => at > changedAt && (until === undefined || at < until));
    const last = homed.findLast(({ at }) => at <= changedAt);
    const before = log.findLast(onWay);
    const made = { first, round, move, moved, ...(last && { last }), ...(before && { tried: before.use }) };
    const word = settled(after, (next) => judged(use, made, next));
    log.push({ move, use, ...word, ...(word.recheck && before && { recheck: sinceTaken(word.recheck, before) }) });
  }
  return log;
}

/**
 * What a round says of a value that was entered over one of which nobody knows whether the control had taken it up: nothing,
 * because it may be the other one that is read. What is right is right whichever it is; what has not changed has not.
 */
function sinceTaken(recheck: Recheck, { recheck: before }: RegisterEntry): Recheck {
  const known = before && before.meaning !== 'not-taken-up' && before.why === undefined;
  if (known || recheck.meaning === 'right' || recheck.meaning === 'not-taken-up') return recheck;
  return { meaning: 'unclear', ratio: recheck.ratio, next: null, why: 'pending' };
}

/** The change sheet with another value entered: what was entered before is kept, homings and switchings are counted anew. */
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

/** What was last entered into a register: in which unit, when and by whom. */
export type LeftAt = NonNullable<RegisterUse['entered']> & Pick<RegisterUse, 'unit' | 'digits'>;

/** What was last entered into each register, by its name: what it should show until somebody enters another value here. */
export const leftAt = (log: readonly RegisterEntry[]): Readonly<Record<string, LeftAt>> =>
  Object.fromEntries(
    log.flatMap(({ use: { name, unit, digits, entered } }) => (entered ? [[name, { ...entered, unit, digits }] as const] : [])),
  );

/** Whether a register shows another value than was last entered into it, to its last digit. */
export const showsOther = (value: number, unit: RegisterUse['unit'], left: LeftAt | undefined): boolean =>
  left !== undefined && (left.unit !== unit || Math.abs(value - left.value) > 0.5 * 10 ** -left.digits);

/** A register that was changed and is not right yet: from what it is counted, and what comes next. */
export interface Unsettled {
  readonly old: NonNullable<RegisterUse['old']>;
  /** What the two readings differed by before anything was changed, µm. */
  readonly total: number;
  /** What stands in it now, as far as anybody wrote down. */
  readonly stands: number;
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
      return last && old
        ? [[name, { old, total: last.use.total, stands: last.use.entered?.value ?? old.value, recheck: last.recheck ?? null }] as const]
        : [];
    }),
  );
}

/** The value to go back to: the first old one, of the first entry that the rounds since have not called right; none once it is back there. */
export function firstOld(log: readonly RegisterEntry[], name: string): NonNullable<RegisterUse['old']> | null {
  const own = log.filter(({ use }) => use.name === name);
  const settled = own.findLastIndex(({ use, recheck }) => recheck?.meaning === 'right' || (isBack(use) && recheck === undefined));
  return own.slice(settled + 1).at(0)?.use.old ?? null;
}
