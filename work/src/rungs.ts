import {
  CHANGE_KINDS,
  CHECKS,
  drift,
  effectOf,
  judgedBy,
  limitable,
  zoneWidth,
  type CheckDefinition,
  type LimitSheet,
  type Note,
  type PlannedChange,
} from '@isometra/core';
import type { QuantityHead, RoundHead } from '@isometra/contract';
import { defaultPlan, orderOf, type CampaignPlan } from './campaign.js';
import { overdueBy, type LadderFacts } from './overdue.js';
import { disturbs, doneMoves, type DoneMove } from './doneMoves.js';
import { reopens, type RegisterBase } from './register.js';
import { mayBeSameThing, thingOf, thingWords } from './things.js';

/** Where a rung stands: the six glyphs. */
export type RungState = 'in' | 'out' | 'unsure' | 'stale' | 'none' | 'left';

/** Why a result no longer counts. */
export type StaleReason =
  | { readonly code: 'moved' }
  | { readonly code: 'during-move' }
  | { readonly code: 'upset'; readonly check: string }
  | { readonly code: 'from-the-top'; readonly check: string }
  | { readonly code: 'rebased'; readonly register: string }
  | { readonly code: 'change-made'; readonly change: string };

/** Why a rung is left alone. */
export type LeftReason = { readonly code: 'left-out'; readonly why: string } | { readonly code: 'too-small'; readonly why: string };

/** What a call waits for: a rung it hangs on whose finding halts what follows. */
export interface Waiting {
  readonly check: string;
  readonly code: string;
}

export interface Rung {
  readonly check: CheckDefinition;
  readonly state: RungState;
  /** The latest round that says something of what decides its state. */
  readonly round: RoundHead | undefined;
  /** The latest word on each of its quantities, whichever round said it. */
  readonly found: Readonly<Record<string, QuantityHead>>;
  /** Which of several like things decides its state: "station 3"; empty where there is one only. */
  readonly thing: string;
  /** Places along the bed at which it has been read since the last move, mm. */
  readonly places: readonly number[];
  readonly stale: StaleReason | undefined;
  readonly left: LeftReason | undefined;
  readonly waits: readonly Waiting[];
  /** Days by which it is over the time after which it wants to be read again; undefined while it is not. */
  readonly overdue: number | undefined;
}

const title = (id: string): string => CHECKS.get(id)?.title ?? id;

/** Why a result no longer counts, in words. */
export function staleWords(reason: StaleReason): string {
  switch (reason.code) {
    case 'moved':
      return 'moved since: read it again';
    case 'during-move':
      return 'read while it was being moved: read it again';
    case 'upset':
      return `upset by a move on “${title(reason.check)}”`;
    case 'rebased':
      return `“${reason.register}” was changed in the control, and what this is built on with it: read it again`;
    case 'from-the-top':
      return `“${title(reason.check)}” was moved, and this survey begins again from the top after a move`;
    case 'change-made':
      return `“${CHANGE_KINDS.find((kind) => kind.id === reason.change)?.title ?? reason.change}” has been done since: read it again`;
  }
}

/** Why a rung is left alone, in words. */
export const leftWords = ({ code, why }: LeftReason): string => (code === 'left-out' ? `left out: ${why}` : `too small to matter: ${why}`);

const WAITS: Readonly<Record<string, string>> = {
  'seat-rocks': 'the casting rocks on its seat',
  'spindle-tips': 'the bar tips the spindle in its bearings',
};

/** What a call waits for, in words. */
export const waitWords = ({ check, code }: Waiting): string =>
  `it waits for “${title(check)}”: ${WAITS[code] ?? 'that has to be put right first'}`;

type Found = Rung['found'];

function verdictState(found: Found): RungState {
  const verdicts = Object.values(found).flatMap(({ verdict }) => (verdict ? [verdict] : []));
  if (verdicts.length === 0) return 'none';
  if (verdicts.includes('out')) return 'out';
  return verdicts.includes('unsure') ? 'unsure' : 'in';
}

/** Places along the bed at which a check was read after the last move, mm. */
function placesSince(rounds: readonly RoundHead[], check: string, moves: readonly DoneMove[]): number[] {
  const lastMove = moves.at(-1)?.doneAt ?? '';
  const fresh = rounds.filter((round) => round.check === check && round.at > lastMove);
  return [...new Set(fresh.flatMap(({ conditions }) => (typeof conditions['place'] === 'number' ? [conditions['place']] : [])))];
}

/** Whether a quantity of a check goes with a change of the spindle axis. */
function follows(checkId: string, change: PlannedChange): boolean {
  const effect = effectOf(change);
  return Object.values(CHECKS.get(checkId)?.quantities ?? {}).some((info) => drift(info, effect) !== 0);
}

interface Past {
  readonly moves: readonly DoneMove[];
  readonly plan: CampaignPlan;
  readonly registers: readonly RegisterBase[];
}

/** Why the result of a round no longer counts: the first move done after it that upset it. */
function staleness(round: RoundHead, { moves, plan, registers }: Past): StaleReason | undefined {
  const { school, planned } = plan;
  const came = planned.find((entry) => entry.doneAt !== null && entry.doneAt > round.at && follows(round.check, entry.change));
  if (came) return { code: 'change-made', change: came.change.kind };
  // A move counts from when it was done: what was read since its card was begun was read in the middle of it.
  const later = moves.filter((move) => move.doneAt > round.at);
  // Of several like things only the one that was moved, where it was said which one.
  const disturbing = later.filter((move) => disturbs(move, round));
  const own = disturbing.find(({ check }) => check.id === round.check);
  if (own) return { code: own.begunAt < round.at ? 'during-move' : 'moved' };
  if (disturbing.length) return { code: 'upset', check: disturbing[0].check.id };
  const used = moves.findLast(({ from, register }) => register && from && mayBeSameThing(from, round))?.register?.name;
  const carried = CHECKS.get(round.check)?.carried !== undefined;
  const changed = later.flatMap(({ register }) => (carried && register ? [register] : []));
  const base = changed.find((register) => reopens(register, round, used, registers));
  if (base) return { code: 'rebased', register: base.name };
  return school === 'top' && later.length ? { code: 'from-the-top', check: later[0].check.id } : undefined;
}

/** Why what is not in is left alone: every such value was accepted as too small to matter. */
function acceptance({ round, found }: Part, { accepted }: CampaignPlan): LeftReason | undefined {
  const open = Object.entries(found).filter(([, { verdict }]) => verdict === 'out' || verdict === 'unsure');
  const reasons = open.map(([quantity]) => accepted.find((entry) => entry.roundId === round.id && entry.quantity === quantity)?.why);
  return open.length && reasons.every((why) => why !== undefined)
    ? { code: 'too-small', why: [...new Set(reasons)].join('; ') }
    : undefined;
}

/** What the finding of a rung halts: codes of its notes that say so. */
const haltsOf = (round: RoundHead | undefined): string[] =>
  (round?.finding?.notes ?? []).flatMap(({ code, halts }) => (halts ? [code] : []));

/** What a round is the latest word on, and why that no longer counts. */
interface Part {
  readonly round: RoundHead;
  readonly found: Found;
  readonly stale: StaleReason | undefined;
}

/** One of several like things that a check is read on, as its rounds leave it: its latest round first. */
type Thing = readonly [Part, ...Part[]];

/** What stands of a survey: finished moves, and of each check the things it was read on. */
interface Standing {
  readonly moves: readonly DoneMove[];
  readonly things: ReadonlyMap<string, readonly Thing[]>;
}

/** The latest word on each quantity: what a later round did not read again still stands as it was read. */
function thingFrom(rounds: readonly RoundHead[], past: Past): Thing | undefined {
  const known = new Set<string>();
  const parts = [...rounds].reverse().flatMap((round, i): Part[] => {
    const said = Object.entries(round.finding?.quantities ?? {});
    // Without a verdict an older word decides nothing.
    const found = Object.fromEntries(said.filter(([name, { verdict }]) => !known.has(name) && (i === 0 || verdict !== null)));
    said.forEach(([name]) => known.add(name));
    return Object.keys(found).length ? [{ round, found, stale: staleness(round, past) }] : [];
  });
  return parts.length ? (parts as unknown as Thing) : undefined;
}

function standingOf(rounds: readonly RoundHead[], plan: CampaignPlan, { registers = [], scraped = [] }: LadderFacts = {}): Standing {
  const scrapings = scraped.flatMap(({ check, at }): DoneMove[] => {
    const definition = CHECKS.get(check);
    return definition ? [{ begunAt: at, doneAt: at, check: definition }] : [];
  });
  const moves = [...doneMoves(rounds), ...scrapings].sort((a, b) => a.doneAt.localeCompare(b.doneAt));
  const past = { moves, plan, registers };
  const telling = rounds.filter(({ finding }) => Object.keys(finding?.quantities ?? {}).length > 0);
  const byThing = groupedBy(telling, (round) => `${round.check} ${thingOf(round)}`);
  const things = [...byThing.values()].map((own) => thingFrom(own, past)).filter((thing) => thing !== undefined);
  return { moves, things: groupedBy(things, ([{ round }]) => round.check) };
}

function groupedBy<T>(entries: readonly T[], keyOf: (entry: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const entry of entries) {
    const own = groups.get(keyOf(entry));
    if (own) own.push(entry);
    else groups.set(keyOf(entry), [entry]);
  }
  return groups;
}

/** Of like things the one that was read last. */
const lastRead = (things: readonly Thing[] = []): Part | undefined =>
  things.map(([part]) => part).reduce<Part | undefined>((last, part) => (last && last.round.at > part.round.at ? last : part), undefined);

function waitsIn({ hangsOn }: CheckDefinition, { things }: Standing): Waiting[] {
  return hangsOn.flatMap((other) => {
    const last = lastRead(things.get(other));
    return last?.stale ? [] : haltsOf(last?.round).map((code) => ({ check: other, code }));
  });
}

/**
 * What the finding of a check waits for, as notes for its solving: a rung it hangs on that rocks or tips.
 *
 * @param rounds the rounds of at least what it hangs on, oldest first.
 */
export function waitNotes(checkId: string, rounds: readonly RoundHead[], plan: Partial<CampaignPlan> = {}): Note[] {
  const check = CHECKS.get(checkId);
  if (!check) return [];
  const standing = standingOf(rounds, { school: 'cascade', order: [], skipped: [], accepted: [], planned: [], ...plan });
  return waitsIn(check, standing).map((waiting) => ({ code: waiting.code, severity: 'serious', text: waitWords(waiting) }));
}

/**
 * The rungs of a machine in the order of its survey, with their state. A move makes its own rung and, by the survey's
 * school, the rungs it upsets or all of them stale until they are read again; what hangs on a rung that rocks or tips
 * waits.
 *
 * @param rounds the survey's rounds, oldest first. @param facts for what is due again, which register is built on which, and what was scraped.
 */
export function rungsOf(
  kind: string,
  rounds: readonly RoundHead[],
  plan: CampaignPlan = defaultPlan(kind),
  facts: LadderFacts = {},
): Rung[] {
  const standing = standingOf(rounds, plan, facts);
  return orderOf(kind, plan.order).map((id) => {
    const check = CHECKS.get(id) as CheckDefinition;
    const things = standing.things.get(id) ?? [];
    const skipped = plan.skipped.find((entry) => entry.check === id);
    const rung = {
      ...{ check, round: undefined, found: {}, thing: '', places: [] },
      ...{ stale: undefined, left: undefined, waits: [], overdue: undefined },
    };
    if (things.length === 0) return { ...rung, ...(skipped ? leftOut(skipped.why) : { state: 'none' }) };
    const places = placesSince(rounds, id, standing.moves);
    const [decides] = things
      .flatMap((thing) => thing.map((part) => ({ thing, ...standOf(part, check, plan, standing) })))
      .sort((one, other) => weight(one) - weight(other) || other.thing[0].round.at.localeCompare(one.thing[0].round.at));
    const [{ round }] = decides.thing;
    const found: Found = Object.assign({}, ...decides.thing.map((part) => part.found).reverse());
    const known = { ...rung, round, found, places, thing: thingWords(round), overdue: overdueBy(check, round, facts) };
    if (skipped) return { ...known, overdue: undefined, ...leftOut(skipped.why) };
    const { state, stale, left, waits } = decides;
    return { ...known, state, stale, left, waits, ...(stale && { overdue: undefined }) };
  });
}

const leftOut = (why: string) => ({ state: 'left' as const, left: { code: 'left-out' as const, why } });

type Stand = Pick<Rung, 'state' | 'stale' | 'left' | 'waits'>;

/** How what one round said of one thing stands. */
function standOf(part: Part, check: CheckDefinition, plan: CampaignPlan, standing: Standing): Stand {
  const bare = { stale: part.stale, left: undefined, waits: [] };
  if (part.stale) return { ...bare, state: 'stale' };
  const [waits, state] = [waitsIn(check, standing), verdictState(part.found)];
  if (waits.length && state !== 'none') return { ...bare, state: 'unsure', waits };
  const left = acceptance(part, plan);
  return left ? { ...bare, state: 'left', left } : { ...bare, state };
}

const WEIGHTS: readonly RungState[] = ['out', 'unsure', 'stale', 'left', 'in', 'none'];
/** Of several words on a rung the one that asks for most decides: what was moved and not read again comes first. */
const weight = ({ state, stale }: Stand): number =>
  stale?.code === 'moved' || stale?.code === 'during-move' ? -1 : WEIGHTS.indexOf(state);

/** Why a rung is the next one. */
export type NextCode = 'moved' | 'out' | 'unsure' | 'waits' | 'first' | 'upset' | 'second-place' | 'overdue' | 'open';

export const NEXT_WORDS: Readonly<Record<NextCode, string>> = {
  moved: 'It was moved: read it again.',
  out: 'It is out: do the move.',
  unsure: 'Too close to call: read it finer.',
  waits: 'What hangs on it waits: put it right first.',
  first: 'Nothing has been measured yet. What is wrong here is in every rung that follows.',
  upset: 'A move has upset it.',
  'second-place': 'In, at one place along the bed. Check a second: wear moves the answer.',
  overdue: 'It was read some time ago, and settles: read it again.',
  open: 'Not measured yet, and rungs below hang on it.',
};

export interface NextRung {
  readonly checkId: string;
  readonly code: NextCode;
  readonly why: string;
}

/** Whether a move is known for something of a rung that is out: a spindle that runs out has none. */
function hasMove({ check, found }: Rung): boolean {
  return Object.entries(found).some(([name, { verdict, aim, value }]) => {
    if (verdict !== 'out') return false;
    const correction = check.corrections[name];
    // The parts of a size have the moves of the whole.
    if (!correction) return check.partOf !== undefined;
    return ((aim ?? 0) > value ? correction.plus : correction.minus).length > 0;
  });
}

const NO_MOVE = 'It is out, and no move of a screw or a shim cures it: read it once more, then look for the cause.';

/** The one rung to do next, and why. Undefined when nothing is asked for. */
export function nextRung(rungs: readonly Rung[]): NextRung | undefined {
  const told = (rung: Rung | undefined, code: NextCode): NextRung | undefined =>
    rung && { checkId: rung.check.id, code, why: code === 'out' && !hasMove(rung) ? NO_MOVE : NEXT_WORDS[code] };
  const state = (wanted: RungState) => rungs.find((rung) => rung.state === wanted);
  const waited = rungs.find((rung) => rungs.some((other) => other.waits.some(({ check }) => check === rung.check.id)));
  return (
    told(
      rungs.find(({ stale }) => stale?.code === 'moved' || stale?.code === 'during-move'),
      'moved',
    ) ??
    told(waited, 'waits') ??
    told(state('out'), 'out') ??
    told(
      rungs.find((rung) => rung.state === 'unsure' && rung.waits.length === 0),
      'unsure',
    ) ??
    (rungs.every((rung) => rung.state === 'none') ? told(state('none'), 'first') : undefined) ??
    told(state('stale'), 'upset') ??
    told(
      rungs.find((rung) => rung.state === 'in' && rung.places.length === 1),
      'second-place',
    ) ??
    told(
      rungs.find((rung) => rung.overdue !== undefined),
      'overdue',
    ) ??
    told(state('none'), 'open')
  );
}

/** A limit that lies below what a hand moves. */
export interface BelowTheHand {
  readonly check: CheckDefinition;
  readonly quantity: string;
}

/**
 * Limits of a survey's rungs that are narrower than what a hand's push of 100 N moved, by the latest round
 * that tells it: the machine will not hold them under a cut. Only distances are compared.
 *
 * @returns what a hand moves, µm, and the limits below it; undefined when nobody has pushed yet.
 */
export function belowTheHand(
  rungs: readonly Rung[],
  judge: LimitSheet,
): { readonly moved: number; readonly below: readonly BelowTheHand[] } | undefined {
  const moved = rungs
    .flatMap(({ check, round }) =>
      Object.entries(round?.finding?.quantities ?? {}).flatMap(([name, { value }]) => (check.quantities[name]?.byHand ? [value] : [])),
    )
    .at(-1);
  if (moved === undefined) return undefined;
  const below = rungs
    .filter((rung) => rung.left === undefined)
    .flatMap(({ check }) => {
      const { limits } = judgedBy(judge, check, {}, []);
      return limitable(check).flatMap(([quantity, info]) => {
        const zone = limits[quantity] ?? info.limit;
        return info.dimension === 'deviation' && zone && zoneWidth(zone) < moved ? [{ check, quantity }] : [];
      });
    });
  return { moved, below };
}
