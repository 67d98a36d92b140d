import { CHECKS, judgedBy, limitable, zoneWidth, type CheckDefinition, type LimitSheet, type Note } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { defaultPlan, orderOf, type CampaignPlan } from './campaign.js';
import type { DoneMove } from '../notebook/doneMoves.js';
import { groupedBy } from '../notebook/groupedBy.js';
import { curvesAlong } from '../judging/alongBed.js';
import { allDone, isBadMove, judgedAmong, type BadMove, type JudgedMove } from '../judging/moves.js';
import { overdueBy, type LadderFacts } from './overdue.js';
import { waitWords, type LeftReason, type StaleReason, type Waiting } from './reasons.js';
import { standingOf, type Found, type Part, type Standing } from './standing.js';
import { thingWords } from '../notebook/things.js';

/** Where a rung stands: the six glyphs. */
export type RungState = 'in' | 'out' | 'unsure' | 'stale' | 'none' | 'left';

export interface Rung {
  readonly check: CheckDefinition;
  readonly state: RungState;
  /** The latest round that says something of what decides its state. */
  readonly round: RoundHead | undefined;
  /** The round that said what decides its state. */
  readonly said: RoundHead | undefined;
  /** The latest word on each of its quantities, whichever round said it. */
  readonly found: Found;
  /** Which of several like things decides its state: "station 3"; empty where there is one only. */
  readonly thing: string;
  /** Places along the bed at which it has been read since the last move, mm. */
  readonly places: readonly number[];
  readonly stale: StaleReason | undefined;
  readonly left: LeftReason | undefined;
  readonly waits: readonly Waiting[];
  /** What became of the last move here, where that is news: it went the wrong way, or moved nothing. */
  readonly moveTold: BadMove | undefined;
  /** Days by which it is over the time after which it wants to be read again; undefined while it is not. */
  readonly overdue: number | undefined;
}

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

/**
 * One casting that rocks halts what rests on it, whichever other was read after it and does not. A rung that was not read on a named
 * casting halts whatever depends on it.
 */
function waitsIn({ hangsOn, rests }: CheckDefinition, { things }: Standing): Waiting[] {
  return [...things].flatMap(([other, own]) => {
    const halted = own.filter(([{ round }]) => {
      const casting = round.conditions['casting'];
      return casting === undefined || rests === undefined ? hangsOn.includes(other) : rests.includes(String(casting));
    });
    const codes = halted.flatMap(([last]) => (last.stale ? [] : haltsOf(last.round)));
    return [...new Set(codes)].map((code) => ({ check: other, code }));
  });
}

/** Rungs that may halt a check: those it depends on, and those that are read on the castings it rests on. */
export const mayHalt = ({ hangsOn, rests }: CheckDefinition): readonly string[] => [
  ...new Set([...hangsOn, ...(rests ? [...CHECKS.values()].filter(({ apart }) => apart?.includes('casting')).map(({ id }) => id) : [])]),
];

/**
 * What the finding of a check waits for, as notes for its solving: a rung it depends on that rocks or tips.
 *
 * @param rounds the rounds of at least what it depends on, oldest first.
 */
export function waitNotes(checkId: string, rounds: readonly RoundHead[], plan: Partial<CampaignPlan> = {}): Note[] {
  const check = CHECKS.get(checkId);
  if (!check) return [];
  const standing = standingOf(rounds, { school: 'cascade', order: [], skipped: [], accepted: [], planned: [], ...plan });
  return waitsIn(check, standing).map((waiting) => ({ code: waiting.code, severity: 'serious', text: waitWords(waiting) }));
}

/**
 * The rungs of a machine in the order of its survey, with their state. A move makes its own rung and, by the survey's
 * school, the rungs it upsets or all of them stale until they are read again; what depends on a rung that rocks or tips
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
  const told = badMoves(rounds, facts);
  return orderOf(kind, plan.order).map((id) => {
    const check = CHECKS.get(id) as CheckDefinition;
    const things = standing.things.get(id) ?? [];
    const skipped = plan.skipped.find((entry) => entry.check === id);
    const rung = {
      ...{ check, round: undefined, said: undefined, found: {}, thing: '', places: [] },
      ...{ stale: undefined, left: undefined, waits: [], overdue: undefined, moveTold: told.get(id) },
    };
    if (things.length === 0) return { ...rung, ...(skipped ? leftOut(skipped.why) : { state: 'none' }) };
    const places = placesSince(rounds, id, standing.moves);
    const [decides] = things
      .flatMap((thing) => thing.map((part) => ({ thing, said: part.round, ...standOf(part, check, plan, standing) })))
      .sort((one, other) => weight(one) - weight(other) || other.thing[0].round.at.localeCompare(one.thing[0].round.at));
    const [{ round }] = decides.thing;
    const found = inOrder(check, Object.assign({}, ...decides.thing.map((part) => part.found).reverse()));
    const known = { ...rung, round, said: decides.said, found, places, thing: thingWords(round), overdue: overdueBy(check, round, facts) };
    if (skipped) return { ...known, overdue: undefined, ...leftOut(skipped.why) };
    const { stale, left, waits } = decides;
    const state = decides.state === 'in' && outElsewhere(rounds, id) ? 'out' : decides.state;
    return { ...known, state, stale, left, waits, ...(stale && { overdue: undefined }) };
  });
}

/** The last place along the bed is in and another one is out, and one movement would do better for them all. */
const outElsewhere = (rounds: readonly RoundHead[], check: string): boolean =>
  curvesAlong(rounds, check).some(({ curve }) => curve.worn && curve.anyOut && curve.best !== 0);

/** Of each check the last move that was judged, where it went the wrong way or moved nothing and no later move of it is being judged. */
function badMoves(rounds: readonly RoundHead[], { scraped, events }: LadderFacts): ReadonlyMap<string, BadMove> {
  const moved = groupedBy(
    rounds.filter(({ moves }) => moves.some(({ doneAt }) => doneAt !== null)),
    ({ check }) => check,
  );
  const bad = new Map<string, BadMove>();
  if (moved.size === 0) return bad;
  const done = allDone(rounds, { scraped, events });
  const byCheck = groupedBy(
    rounds.filter(({ check }) => moved.has(check)),
    ({ check }) => check,
  );
  for (const [check, own] of byCheck) {
    const last = judgedAmong(own, done)
      .filter(({ because }) => !because)
      .reduce<JudgedMove | undefined>((latest, entry) => (latest && latest.next.at > entry.next.at ? latest : entry), undefined);
    const since = last && own.some(({ moves }) => moves.some(({ doneAt }) => doneAt !== null && doneAt > last.next.at));
    if (last && !since && isBadMove(last.result.outcome)) bad.set(check, last.result.outcome);
  }
  return bad;
}

/** Quantities in the order of their check, whichever round said them. */
function inOrder({ quantities }: CheckDefinition, found: Found): Found {
  const known = Object.keys(quantities);
  const place = (name: string): number => (known.includes(name) ? known.indexOf(name) : known.length);
  return Object.fromEntries(Object.entries(found).sort(([one], [other]) => place(one) - place(other)));
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
