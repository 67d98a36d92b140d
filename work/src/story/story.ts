import {
  CHECKS,
  FaultError,
  fieldInfo,
  judgedBy,
  MOVES,
  parseQuantity,
  placesOf,
  pooledSpread,
  readSheet,
  reseats,
  solve,
  startingSheet,
  type CheckDefinition,
  type Fault,
  type Finding,
  type LimitSheet,
} from '@isometra/core';
import { STORY_FORMAT, usualSheet, type MachineCardText, type MoveWrite, type RoundHead } from '@isometra/contract';
import type * as z from 'zod';
import { defaultPlan } from '../ladder/campaign.js';
import { levelOf } from '../ladder/events.js';
import type { OtherWork } from '../notebook/doneMoves.js';
import { factOf } from '../sheets/facts.js';
import { onMachine } from '../judging/doable.js';
import { judgedMoves, signedGainOf, turnsScrew, usualShiftOf, type JudgedMove, type Screw } from '../judging/moves.js';
import { learnedSpread } from '../judging/spread.js';
import { nextRung } from '../ladder/nextRung.js';
import { staleWords } from '../ladder/reasons.js';
import { rungsOf, waitNotes } from '../ladder/rungs.js';
import { howRead, mountingOf } from '../sheets/senses.js';
import { findingHead, hardwareOf, hardwareOfFault, solveWhatStands } from '../sheets/sheet.js';
import { staleBy } from '../ladder/standing.js';
import { ladderFacts } from '../ladder/overdue.js';
import { readCard } from '../sheets/machines.js';
import { readHistory, type ReadEntry, type ReadHistory, type ReadMove } from './read.js';
import { nextMove, screwKnown, toldAfter, withLearned, wordOf, type NextMove, type PlannedMove, type Told } from './told.js';
import { ASK_WORDS, type Ask, type MoveWord } from './words.js';

/** What became of a move, as a file tells it. */
export interface JudgedTold {
  readonly round: string;
  readonly quantity: string;
  /** Observed over planned; null where nothing can be said. */
  readonly g: number | null;
  readonly word: MoveWord;
  readonly because?: string;
}

/** What a person would be told right after an entry. */
export interface StoryStep {
  readonly at: string;
  readonly id?: string;
  readonly kind: 'round' | 'move' | 'event';
  readonly finding?: Finding;
  readonly judged?: JudgedTold;
  /** Where a round judges more than one move. */
  readonly others?: readonly JudgedTold[];
  /** Values that an earlier round told otherwise although nothing was moved. */
  readonly differs?: readonly { readonly round: string; readonly quantity: string; readonly before: number; readonly after: number }[];
  readonly plan?: PlannedMove;
  readonly ask?: Ask;
}

export interface Story {
  readonly format: typeof STORY_FORMAT;
  readonly steps: readonly StoryStep[];
  readonly rungs: readonly {
    readonly check: string;
    readonly state: string;
    readonly stale: string | null;
    readonly reason: string | null;
  }[];
  readonly next: { readonly check: string; readonly code: string; readonly why: string; readonly round: string | null } | null;
  readonly learned: readonly Learned[];
}

export interface Learned {
  readonly kind: 'gain' | 'sense' | 'spread' | 'pivot' | 'kappa' | 'tightening';
  readonly value: number;
  readonly of: Readonly<Record<string, unknown>>;
}

/** The machine as the entries so far leave it. */
interface Machine {
  card: MachineCardText;
  readonly heads: RoundHead[];
  readonly events: { readonly what: string; readonly at: string; readonly check?: string }[];
  /** The plan that was told after a round, by round and quantity. */
  readonly plans: Map<string, PlannedMove>;
  readonly limits: LimitSheet;
}

/**
 * Tell a machine's story: for each entry what a person would be told right after it, then the ladder, the next check and what was
 * learned. The screens show the same, from the same functions.
 *
 * @param raw a history file (docs/sheets.md). @throws FaultError with every fault at once.
 */
export function tellStory(raw: unknown): Story {
  const history = readHistory(raw);
  const kind = String(history.machine.kind);
  const machine: Machine = {
    card: { number: 'machine', ...history.machine } as MachineCardText,
    heads: [],
    events: [],
    plans: new Map(),
    limits: history.limits ?? startingSheet(usualSheet(kind)),
  };
  const steps = history.entries.map((entry) => step(entry, machine, history));
  const facts = { ...ladderFacts(readCard(machine.card)), events: machine.events };
  const rungs = rungsOf(kind, machine.heads, defaultPlan(kind), facts);
  const next = nextRung(rungs);
  return {
    format: STORY_FORMAT,
    steps,
    rungs: rungs.map(({ check, state, stale, left }) => ({
      check: check.id,
      state,
      stale: stale?.code ?? null,
      reason: stale ? staleWords(stale) : (left?.why ?? null),
    })),
    next: next ? { check: next.checkId, code: next.code, why: next.why, round: next.roundId } : null,
    learned: learnedOf(machine),
  };
}

function step(entry: ReadEntry, machine: Machine, history: ReadHistory): StoryStep {
  const { at, id } = entry;
  const head = { at, ...(id !== undefined && { id }) };
  if (entry.move) {
    recordMove(entry.move, entry, machine);
    return { ...head, kind: 'move' };
  }
  if (entry.event) {
    machine.events.push({
      what: entry.event,
      at: entry.time,
      ...(entry.event === 'levelled' && { check: levelOf(String(history.machine.kind)) }),
    });
    return { ...head, kind: 'event' };
  }
  return { ...head, ...tellRound(entry, machine) };
}

const other = ({ events }: Machine): OtherWork => ({ events });

function tellRound({ round: sheet = {}, time, id = '' }: ReadEntry, machine: Machine): Omit<StoryStep, 'at' | 'id'> {
  const check = CHECKS.get(String(sheet['check'])) as CheckDefinition;
  const plan = planOf(check, sheet);
  const setup = { ...knownSetup(check, sheet, machine, time), ...(sheet['setup'] as object) };
  const remembered = withMemory(check, { ...sheet, setup }, machine, plan);
  const full = withLimits(check, remembered, machine.limits);
  const waits = waitNotes(check.id, machine.heads);
  const bare = solve(full, { waits });
  const head = headOf({ id, time, check, sheet: full, plan, finding: bare, number: machine.heads.length + 1 });
  machine.heads.push(head);
  const told = toldAfter(head, machine.heads, other(machine));
  const known = (screw: Screw) => screwKnown(screw, told, machine.heads);
  // The finding with what was learned in its moves: of each screw the size of its gain.
  const finding = withGains(check, full, sheet, machine, waits, told);
  const { move, ask } = lacking(nextMove(finding.told, told, known), finding.faults);
  const planned =
    move && withLearned(move, turnsScrew(move.kind) ? known({ check: check.id, quantity: move.quantity, kind: move.kind }) : NOTHING_KNOWN);
  if (planned) machine.plans.set(`${id}|${planned.quantity}|${planned.kind}`, planned);
  const [judged, ...others] = told.judged.map(judgedTold);
  return {
    kind: 'round',
    finding: finding.told,
    ...(judged && { judged }),
    ...(others.length && { others }),
    ...(told.differs.length && {
      differs: told.differs.map(({ from, quantity, before, after }) => ({ round: from.id, quantity, before, after })),
    }),
    ...(planned && { plan: planned }),
    ...(ask && { ask }),
  };
}

const NOTHING_KNOWN = { gain: null, preset: 0, wentWrong: undefined };

const judgedTold = (entry: JudgedMove): JudgedTold => ({
  round: entry.from.id,
  quantity: entry.move.quantity,
  g: entry.because ? null : entry.result.gain,
  word: wordOf(entry),
  ...(entry.because && { because: entry.because }),
});

/** The face that a sheet's readings were taken on, as a plan says it. */
const planOf = (check: CheckDefinition, sheet: Readonly<Record<string, unknown>>): Record<string, unknown> => {
  const [first] = (sheet['readings'] as readonly Readonly<Record<string, unknown>>[] | undefined) ?? [];
  return check.planesApart && first?.['plane'] === 'h' ? { face: 'side' } : {};
};

/** What is known of the machine that a set-up asks for and the sheet does not tell: twist, axis, height; only what nothing has upset since. */
function knownSetup(
  check: CheckDefinition,
  sheet: Readonly<Record<string, unknown>>,
  machine: Machine,
  time: string,
): Record<string, unknown> {
  const told = (sheet['setup'] ?? {}) as Readonly<Record<string, unknown>>;
  const plan = defaultPlan(String(machine.card.kind));
  return Object.fromEntries(
    Object.entries(check.setup.shape).flatMap(([key, schema]) => {
      const from = fieldInfo(schema as z.ZodType)?.from;
      if (!from || told[key] !== undefined) return [];
      const fact = factOf(machine.heads, from);
      const stale = fact && staleBy(fact.round, machine.heads, plan, { events: machine.events });
      // What a check tells of itself is no news to it.
      if (!fact || stale || fact.check.id === check.id || fact.round.at > time) return [];
      const trusted = !fact.found.because && fact.found.verdict !== null;
      return trusted || fact.found.limit === null ? [[key, fact.found.value]] : [];
    }),
  );
}

/** A sheet with what is remembered: which way the needle counts in this mounting, and how far set-ups lie apart. */
function withMemory(
  check: CheckDefinition,
  sheet: Readonly<Record<string, unknown>>,
  { heads }: Machine,
  plan: Record<string, unknown>,
): Record<string, unknown> {
  const instrument = sheet['instrument'] as Readonly<Record<string, unknown>> | undefined;
  const mounting = mountingOf(check.id, sheet['setup'] as Record<string, unknown>, plan);
  const known = heads.findLast(
    (head) => head.check === check.id && head.mounting === mounting && head.sense !== null && head.instrumentName === dialName(instrument),
  );
  const needle = instrument && (instrument['kind'] === 'lever' || instrument['kind'] === 'plunger');
  const spread = sheet['setupSpread'] === undefined && reseats(check) ? learnedSpread(check.id, heads) : undefined;
  return {
    ...sheet,
    ...(needle && instrument['sense'] === undefined && known && { instrument: { ...instrument, sense: known.sense } }),
    ...(spread && { setupSpread: spread }),
  };
}

/** One dial is told from another by what it is. */
const dialName = (instrument: Readonly<Record<string, unknown>> | undefined): string | null =>
  instrument ? `${String(instrument['kind'])} ${String(instrument['graduation'])} ${String(instrument['range'] ?? '')}`.trim() : null;

function withLimits(check: CheckDefinition, sheet: Record<string, unknown>, limits: LimitSheet): Record<string, unknown> {
  const read = readSheet(sheet);
  const judged = judgedBy(limits, check, read.setup, placesOf(read.readings.map((keys) => ({ keys }))));
  return {
    ...sheet,
    limits: { ...judged.limits, ...(sheet['limits'] as object | undefined) },
    aims: { ...aimsWithin(judged.aims, sheet), ...(sheet['aims'] as object | undefined) },
  };
}

/** An aim of the limit sheet holds as long as the sheet has no zone of its own for it. */
const aimsWithin = (aims: Readonly<Record<string, number>>, sheet: Readonly<Record<string, unknown>>): Record<string, number> =>
  Object.fromEntries(Object.entries(aims).filter(([name]) => !Object.hasOwn((sheet['limits'] as object | undefined) ?? {}, name)));

/** The finding with its moves planned by the machine's card and what its screws have taught. */
function withGains(
  check: CheckDefinition,
  full: Record<string, unknown>,
  sheet: Readonly<Record<string, unknown>>,
  machine: Machine,
  waits: ReturnType<typeof waitNotes>,
  told: Told,
): { readonly told: Finding; readonly faults: readonly Fault[] } {
  const given = (sheet['hardware'] ?? {}) as Readonly<Record<string, unknown>>;
  const hardware = { ...hardwareOf(check.id, { card: machine.card }), ...given } as Record<string, Record<string, unknown>>;
  const findings = new Map<string, Finding>();
  // What the machine's card lacks for a move takes its plan away, never the call.
  const { finding: stands, faults } = solveWhatStands({ ...full, hardware }, { waits });
  if (!stands) throw new FaultError(faults);
  const plain = onMachine(stands, String(machine.card.kind));
  const moves = plain.moves.map((move) => {
    if (!turnsScrew(move.kind)) return move;
    const gain = signedGainOf(told.past, { check: check.id, quantity: move.quantity, kind: move.kind });
    if (gain === null) return move;
    const size = String(Math.abs(gain));
    const own = hardware[move.kind];
    if (!own) return move;
    const key = `${move.kind}|${size}`;
    const solved =
      findings.get(key) ??
      solveWhatStands({ ...full, hardware: { ...hardware, [move.kind]: { ...own, gain: Math.abs(gain) } } }, { waits }).finding;
    if (!solved) return move;
    findings.set(key, solved);
    return solved.moves.find((entry) => entry.quantity === move.quantity && entry.kind === move.kind) ?? move;
  });
  return { told: { ...plain, moves }, faults };
}

/** A move that the machine's card cannot plan asks for what is missing, instead of being given without a plan. */
function lacking(next: NextMove, faults: readonly Fault[]): NextMove {
  const { move } = next;
  const own = move ? faults.filter((fault) => hardwareOfFault(fault) === move.kind) : [];
  if (!move || own.length === 0) return next;
  const named = own.map(({ path, message }) => `${path.replace(/^hardware/, 'machine')} ${message}`).join('; ');
  return { ask: { code: 'card-lacks', quantity: move.quantity, text: ASK_WORDS.cardLacks(named) } };
}

interface Headed {
  readonly id: string;
  readonly time: string;
  readonly check: CheckDefinition;
  readonly sheet: Record<string, unknown>;
  readonly plan: Record<string, unknown>;
  readonly finding: Finding;
  readonly number: number;
}

function headOf({ id, time, check, sheet, plan, finding, number }: Headed): RoundHead {
  const instrument = (sheet['instrument'] as Readonly<Record<string, unknown>> | undefined) ?? null;
  const readings = sheet['readings'] as readonly { readonly conditions?: RoundHead['conditions'] }[];
  return {
    ...{ id, machineId: 'machine', surveyId: 'history', check: check.id, number, by: '', at: time, version: 1, last: readings.length },
    instrumentName: dialName(instrument ?? undefined),
    conditions: Object.assign({}, ...readings.map(({ conditions }) => conditions ?? {})) as RoundHead['conditions'],
    ...howRead(check.id, { setup: sheet['setup'] as Record<string, unknown>, plan, instrument }),
    moves: [],
    finding: findingHead(finding, sheet),
  };
}

/** A move as the notebook keeps it, with the gain and the pre-set that were in its turns. */
function recordMove(move: ReadMove, { time, at }: ReadEntry, machine: Machine): void {
  const i = machine.heads.findIndex(({ id }) => id === move.round);
  const head = machine.heads[i];
  const planned = machine.plans.get(`${move.round}|${move.quantity}|${move.kind}`);
  const { amount, gain, reached } = setOut(move, planned, machine.card);
  const kept: MoveWrite = {
    ...{ id: `move ${at} ${move.quantity}`, roundId: move.round, kind: move.kind, quantity: move.quantity, amount },
    unit: CHECKS.get(head.check)?.quantities[move.quantity]?.unit ?? 'um',
    direction: planned?.direction ?? '',
    plan: { ...(move.turns !== undefined && { turns: move.turns }), ...(gain !== 1 && { gain }) },
    ticks: [],
    shift: null,
    made: {
      dial: null,
      preset: planned?.preset ?? 0,
      tightened: move.tightening ?? null,
      rule: null,
      ...(reached === false && { reached }),
    },
    ...{ by: '', begunAt: time, doneAt: time, version: 1 },
  };
  machine.heads[i] = { ...head, moves: [...head.moves, kept] };
  if (planned) leaveAt(machine, move.kind, planned);
}

/** Where a sleeve was left is where the next card starts. */
function leaveAt(machine: Machine, kind: string, planned: PlannedMove): void {
  const stands = MOVES.get(kind)?.standsAt?.(planned, true);
  if (!stands) return;
  const card: Record<string, unknown> = { ...machine.card };
  for (const [part, fields] of Object.entries(stands)) card[part] = { ...(card[part] as object | undefined), ...fields };
  machine.card = card as MachineCardText;
}

/** What was really set out to be done at the part, and the gain that was in it. */
function setOut(
  { done, turns, reached, kind }: ReadMove,
  planned: PlannedMove | undefined,
  card: MachineCardText,
): { readonly amount: number; readonly gain: number; readonly reached?: boolean } {
  const figure = (name: string): number | undefined => (typeof planned?.[name] === 'number' ? planned[name] : undefined);
  const [learned, reach, told] = [figure('gain') ?? 1, figure('reach'), figure('turns')];
  if (reached === false && reach !== undefined) return { amount: reach, gain: learned };
  if (turns !== undefined && planned && told) {
    const [part, preset] = [turns / told, planned.preset ?? 0];
    if (Math.abs(part - 1) < 0.02) return { amount: done, gain: learned, reached };
    // Other turns than the plan's: what they should have done.
    return { amount: (planned.amount - preset) * part + preset, gain: learned };
  }
  const pitch = kind === 'adjuster' ? pitchOf(card) : undefined;
  return { amount: done, gain: gainBy(done, (turns ?? 0) * (pitch ?? 0) * 1000), reached };
}

/** What a screw did of what its turns should have done; 1 where nothing sensible can be told. Both µm. */
function gainBy(done: number, nominal: number): number {
  const gain = nominal === 0 ? 0 : Math.abs(done / nominal);
  return gain > 0.01 && gain < 100 ? done / nominal : 1;
}

function pitchOf(card: MachineCardText): number | undefined {
  const raw = (card as Readonly<Record<string, { readonly pitch?: unknown } | undefined>>)['adjuster']?.pitch;
  const parsed = raw === undefined ? undefined : parseQuantity(raw, 'pitch');
  return parsed?.ok ? parsed.value : undefined;
}

/** What the story taught: gains of screws, which way needles count, spread of set-ups, shifts on tightening. */
function learnedOf(machine: Machine): Learned[] {
  const { heads } = machine;
  const last = new Map(heads.map((head) => [head.check, head]));
  const past = new Map([...last.keys()].map((check) => [check, judgedMoves(check, heads, other(machine))]));
  const screws = new Map<string, Screw>();
  for (const { check, moves } of heads)
    for (const { quantity, kind } of moves) screws.set(`${check}|${quantity}|${kind}`, { check, quantity, kind });
  const ofScrews = [...screws.values()].flatMap((screw): Learned[] => {
    const gain = signedGainOf(past.get(screw.check) ?? [], screw);
    const shift = usualShiftOf(heads, screw);
    return [
      ...(gain === null ? [] : [{ kind: 'gain' as const, value: gain, of: { ...screw } }]),
      ...(shift ? [{ kind: 'tightening' as const, value: shift.shift, of: { ...screw } }] : []),
    ];
  });
  const senses = new Map<string, Learned>();
  for (const { check, mounting, sense, instrumentName } of heads)
    if (sense !== null)
      senses.set(`${check}|${mounting ?? ''}|${instrumentName ?? ''}`, {
        kind: 'sense',
        value: sense,
        of: { check, mounting, instrument: instrumentName },
      });
  const spreads = [...last.keys()].flatMap((check): Learned[] => {
    const own = learnedSpread(check, heads);
    const definition = CHECKS.get(check);
    if (!own || !definition || !reseats(definition)) return [];
    const prior = definition.reseatSpread;
    return [
      {
        kind: 'spread',
        value: prior !== undefined ? pooledSpread(prior, own, undefined).s : own.s,
        of: { check, degrees: own.degrees },
      },
    ];
  });
  return [...ofScrews, ...senses.values(), ...spreads];
}
