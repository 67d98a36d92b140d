import {
  CHANGE_KINDS,
  CHECKS,
  MOVES,
  drift,
  effectOf,
  judgedBy,
  limitable,
  upsets,
  zoneWidth,
  type CheckDefinition,
  type LimitSheet,
  type Note,
  type PlannedChange,
} from '@isometra/core';
import type { RegisterUse, RoundHead } from '@isometra/contract';
import { defaultPlan, orderOf, type CampaignPlan } from './campaign.js';
import { overdueBy, type LadderFacts } from './overdue.js';
import { builtOn, isBase, type RegisterBase } from './register.js';

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
  /** Its latest round that says something. */
  readonly round: RoundHead | undefined;
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

export interface DoneMove {
  readonly begunAt: string;
  readonly doneAt: string;
  readonly check: CheckDefinition;
  /** The register of the control that was changed, back again too. */
  readonly register?: Pick<RegisterUse, 'name' | 'axis'>;
  /** Others may be built on it: a reference, or what the machine card says. */
  readonly base?: boolean;
}

/** Moves that were finished, in the order in which they were done. */
export function doneMoves(rounds: readonly RoundHead[], registers: readonly RegisterBase[] = []): DoneMove[] {
  return rounds
    .flatMap((round) => {
      const check = CHECKS.get(round.check);
      if (!check) return [];
      return round.moves.flatMap(({ begunAt, doneAt, made }): DoneMove[] => {
        const register = made?.register?.entered ? made.register : undefined;
        const base = register && (register.kind === 'reference' || isBase(register.name, registers));
        return doneAt === null ? [] : [{ begunAt, doneAt, check, ...(register && { register, base }) }];
      });
    })
    .sort((a, b) => a.doneAt.localeCompare(b.doneAt));
}

function verdictState(round: RoundHead): RungState {
  const verdicts = Object.values(round.finding?.quantities ?? {}).flatMap(({ verdict }) => (verdict ? [verdict] : []));
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

/** Whether a check reads a station that a register of the control sets. */
const isStation = (checkId: string): boolean =>
  Object.values(CHECKS.get(checkId)?.corrections ?? {}).some(({ plus }) => plus.some((kind) => MOVES.get(kind)?.curedBy === 'control'));

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
  const own = later.find((move) => move.check.id === round.check);
  if (own) return { code: own.begunAt < round.at ? 'during-move' : 'moved' };
  const upset = later.find((move) => upsets(move.check, round.check));
  if (upset) return { code: 'upset', check: upset.check.id };
  const station = moves.findLast(({ check, register }) => register && check.id === round.check)?.register?.name;
  const based = later.find(({ register, base }) => register && base && builtOn(station, register, registers));
  if (based?.register && isStation(round.check)) return { code: 'rebased', register: based.register.name };
  return school === 'top' && later.length ? { code: 'from-the-top', check: later[0].check.id } : undefined;
}

/** Why what is not in is left alone: every such value of the round was accepted as too small to matter. */
function acceptance(round: RoundHead, { accepted }: CampaignPlan): LeftReason | undefined {
  const open = Object.entries(round.finding?.quantities ?? {}).filter(([, { verdict }]) => verdict === 'out' || verdict === 'unsure');
  const reasons = open.map(([quantity]) => accepted.find((entry) => entry.roundId === round.id && entry.quantity === quantity)?.why);
  return open.length && reasons.every((why) => why !== undefined)
    ? { code: 'too-small', why: [...new Set(reasons)].join('; ') }
    : undefined;
}

/** What the finding of a rung halts: codes of its notes that say so. */
const haltsOf = (round: RoundHead | undefined): string[] =>
  (round?.finding?.notes ?? []).flatMap(({ code, halts }) => (halts ? [code] : []));

/** What stands of a survey: finished moves, the latest round of each check that says something, and why it no longer counts. */
interface Standing {
  readonly moves: readonly DoneMove[];
  readonly latest: ReadonlyMap<string, RoundHead>;
  readonly stales: ReadonlyMap<string, StaleReason | undefined>;
}

function standingOf(rounds: readonly RoundHead[], plan: CampaignPlan, { registers = [], scraped = [] }: LadderFacts = {}): Standing {
  const scrapings = scraped.flatMap(({ check, at }): DoneMove[] => {
    const definition = CHECKS.get(check);
    return definition ? [{ begunAt: at, doneAt: at, check: definition }] : [];
  });
  const moves = [...doneMoves(rounds, registers), ...scrapings].sort((a, b) => a.doneAt.localeCompare(b.doneAt));
  const latest = new Map<string, RoundHead>();
  for (const round of rounds) if (Object.keys(round.finding?.quantities ?? {}).length > 0) latest.set(round.check, round);
  return { moves, latest, stales: new Map([...latest].map(([id, round]) => [id, staleness(round, { moves, plan, registers })])) };
}

const waitsIn = ({ hangsOn }: CheckDefinition, { latest, stales }: Standing): Waiting[] =>
  hangsOn.flatMap((other) => (stales.get(other) ? [] : haltsOf(latest.get(other)).map((code) => ({ check: other, code }))));

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
  const { moves, latest, stales } = standing;
  return orderOf(kind, plan.order).map((id) => {
    const check = CHECKS.get(id) as CheckDefinition;
    const round = latest.get(id);
    const skipped = plan.skipped.find((entry) => entry.check === id);
    const rung = { check, round, places: placesSince(rounds, id, moves), stale: undefined, left: undefined, waits: [], overdue: undefined };
    if (skipped) return { ...rung, state: 'left', left: { code: 'left-out', why: skipped.why } };
    if (!round) return { ...rung, places: [], state: 'none' };
    const stale = stales.get(id);
    if (stale) return { ...rung, state: 'stale', stale };
    const overdue = overdueBy(check, round, facts);
    const waits = waitsIn(check, standing);
    if (waits.length && verdictState(round) !== 'none') return { ...rung, overdue, state: 'unsure', waits };
    const left = acceptance(round, plan);
    return left ? { ...rung, overdue, state: 'left', left } : { ...rung, overdue, state: verdictState(round) };
  });
}

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
function hasMove({ check, round }: Rung): boolean {
  return Object.entries(round?.finding?.quantities ?? {}).some(([name, { verdict, aim, value }]) => {
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
