import { pooledRepeatability, type SetupSpread } from '../judging/budget.js';
import { contradictionsIn, type Contradictions } from '../judging/misread.js';
import { placeOf, placeWords } from '../judging/placeWords.js';
import { FINDING_FORMAT, type Finding, type Move, type Quantity } from '../judging/finding.js';
import { outlierNotes } from '../judging/outlier.js';
import { closureNote, conditionsNote, directionNote, peggedNote } from '../judging/roundNotes.js';
import type { Estimates, Note } from '../checks/define.js';
import { FILE_SIZES, sentence, type Said, type SizeWriter } from '../units/said.js';
import { FaultError, type Fault } from '../input/faults.js';
import { groupReadings, type Grouped, type Slot } from '../instruments/slots.js';
import { planCorrection, type MoveFile, type WantedMove } from './correct.js';
import { readSheet, type Sheet } from './sheet.js';
import { judge, type Round } from './judge.js';

/** What is known beside a sheet: of the campaign it belongs to. */
export interface SolveContext {
  /** Why a call waits: a rung it depends on rocks or tips. It is then unsure, and there is no move. */
  readonly waits?: readonly Note[];
  /** Spread between set-ups that earlier rounds of this check on this machine showed, in the unit of its readings. */
  readonly setupSpread?: SetupSpread;
  /** Moves that the user wants by another amount than the round asks for, by quantity; nothing is planned where no verdict stands. */
  readonly wanted?: Readonly<Record<string, WantedMove>>;
  /** How the sizes in notes are written; as files write them if left out. */
  readonly sizes?: SizeWriter;
}

/**
 * Solve a sheet as written in a file (docs/sheets.md).
 *
 * @throws FaultError with every fault at once.
 */
export function solve(raw: unknown, context: SolveContext = {}): Finding {
  return solveSheet(readSheet(raw), context);
}

/** The estimates of one set-up, with the slots they weigh. */
interface SetResult extends Estimates {
  readonly slots: readonly Slot[];
}

/** Each set-up by itself; all readings together when one set-up alone says too little. */
export function solveSets({ check, setup, instrument }: Sheet, slots: readonly Slot[]): readonly SetResult[] {
  const run = (part: readonly Slot[]): SetResult => ({ slots: part, ...check.estimate({ setup, slots: part, instrument }) });
  const numbers = [...new Set(slots.map((slot) => slot.set))];
  if (numbers.length < 2) return [run(slots)];
  const alone = numbers.map((set) => run(slots.filter((slot) => slot.set === set)));
  return alone.every((set) => set.estimates.length > 0 && set.estimates.length === alone[0].estimates.length) ? alone : [run(slots)];
}

/** Readings in their places, the set-ups worked out, and what they say against themselves. */
interface Worked {
  readonly grouped: Grouped;
  readonly sets: readonly SetResult[];
  readonly contradictions: Contradictions;
}

const NO_CONTRADICTIONS: Contradictions = { notes: [], misread: false, widening: {} };

function workOut(sheet: Sheet, grouped: Grouped): Worked {
  const { check, setup, instrument } = sheet;
  const sets = solveSets(sheet, grouped.slots);
  if (!instrument || sets.every(({ fits = [] }) => fits.length === 0)) return { grouped, sets, contradictions: NO_CONTRADICTIONS };
  const same = 2 * instrument.graduation * (1 + 1e-9);
  const confirmed = new Set(grouped.returns.flatMap(({ slot, difference }) => (Math.abs(difference) <= same ? [grouped.slots[slot]] : [])));
  const pooled = pooledRepeatability(grouped.slots);
  return { grouped, sets, contradictions: contradictionsIn({ check, setup, sets, instrument, pooled, confirmed }) };
}

const contradicted = ({ contradictions: { misread, widening } }: Worked): boolean => misread || Object.keys(widening).length > 0;

/** Where more places than this said otherwise when they were read again, nothing was misread: the dial shows no better. */
const SLIPS_AT_MOST = 6;

/** A place that was read again and said otherwise. */
interface ReadAgain {
  /** Its place among the slots. */
  readonly slot: number;
  /** What was read first, and what later. */
  readonly earlier: number;
  readonly later: number;
  /** The return that is no closing reading any more once the later one counts; left out where it was read twice running. */
  readonly back?: Grouped['returns'][number];
}

/** Places that were read twice running and said otherwise, then those that were come back to. */
function readAgain({ slots, returns }: Grouped, apart: number): readonly ReadAgain[] {
  const running = slots.flatMap(({ repeats: [earlier, later, ...more] }, slot) =>
    later === undefined || more.length || Math.abs(later - earlier) <= apart ? [] : [{ slot, earlier, later }],
  );
  const back = returns.flatMap((one) => {
    const earlier = slots[one.slot].value;
    return Math.abs(one.difference) <= apart ? [] : [{ slot: one.slot, earlier, later: earlier + one.difference, back: one }];
  });
  return [...running, ...back];
}

/** Readings in their places, with one value in place of what a slot has. */
const withValue = ({ slots, returns }: Grouped, index: number, value: number): Grouped => ({
  slots: slots.map((slot, i) => (i === index ? { ...slot, value, repeats: [value] } : slot)),
  returns,
});

/** Readings in their places, where the later one of a place that was read again counts: how far it is come back to goes from there. */
function withLater(grouped: Grouped, { slot, earlier, later, back }: ReadAgain): Grouped {
  const { slots, returns } = withValue(grouped, slot, later);
  const others = returns.filter((one) => one !== back);
  const nearer = back ? later - earlier : 0;
  return { slots, returns: others.map((one) => (one.slot === slot ? { ...one, difference: one.difference - nearer } : one)) };
}

/**
 * Places that were read again and said otherwise, after another place or twice running: where the later reading fits the others and
 * the earlier one contradicts them, the earlier one was misread and the later one counts. All of them are tried at once, since two may
 * have been misread (the earlier ones must not fit then, neither all of them nor any by itself), then each.
 */
function withReadAgain(sheet: Sheet, first: Worked): Worked & { readonly notes: readonly Note<Said>[] } {
  const { check, instrument } = sheet;
  if (!instrument) return { ...first, notes: [] };
  const places = readAgain(first.grouped, 2 * instrument.graduation);
  if (places.length > SLIPS_AT_MOST) return { ...first, notes: [] };
  // Coming back to a place does not count by itself: without a contradiction there is nothing to explain.
  if (!contradicted(first) && places.every(({ back }) => back)) return { ...first, notes: [] };
  const fits = (tried: Worked): boolean => !contradicted(tried) && tried.sets.some(({ fits = [] }) => fits.length > 0);
  /** Whether the earlier readings of some places contradict the others. */
  const wrong = (grouped: Grouped, ...those: readonly ReadAgain[]): boolean =>
    contradicted(
      workOut(
        sheet,
        those.reduce((before, { slot, earlier }) => withValue(before, slot, earlier), grouped),
      ),
    );
  let worked = first;
  const taken: ReadAgain[] = [];
  const take = (those: readonly ReadAgain[], tried: Worked): void => {
    worked = tried;
    taken.push(...those);
  };
  const together = (): void => {
    const open = places.filter(({ slot }) => !taken.some((place) => place.slot === slot));
    // Of a place that was read three times the last one.
    const left = open.filter(({ slot }, i) => !open.slice(i + 1).some((place) => place.slot === slot));
    if (left.length === 0 || !wrong(worked.grouped, ...left)) return;
    const all = left.reduce(withLater, worked.grouped);
    const tried = workOut(sheet, all);
    if (fits(tried) && left.every((place) => wrong(all, place))) take(left, tried);
  };
  together();
  for (const place of places) {
    if (taken.includes(place) || (place.back ? !contradicted(worked) : !wrong(worked.grouped, place))) continue;
    const tried = workOut(sheet, withLater(worked.grouped, place));
    if (fits(tried)) take([place], tried);
  }
  // What one of them hid may fit now.
  if (taken.length > 0) together();
  const notes = taken.map(({ slot }): Note<Said> => {
    const { keys } = first.grouped.slots[slot];
    return {
      code: 'read-again',
      severity: 'info',
      text: (size) =>
        `The place ${placeWords(keys, check.slotKeys, size)} was read again: the first reading contradicted the others, the second fits them and counts.`,
      place: placeOf(keys, check.slotKeys),
    };
  });
  return { ...worked, notes };
}

/**
 * Every quantity that the sets of a round give, judged.
 *
 * @throws FaultError with all that makes no sense in them.
 */
function judgeAll(round: Round, sets: ReturnType<typeof workOut>['sets']) {
  const { check } = round.sheet;
  const faults: Fault[] = [];
  const judged = Object.entries(check.quantities).flatMap(([name, usual]) => {
    const bySet = sets.flatMap((set) =>
      set.estimates.filter((estimate) => estimate.name === name).map((estimate) => ({ estimate, slots: set.slots })),
    );
    if (bySet.length === 0) return [];
    const info = { ...usual, ...check.asRead?.(name, bySet[0].slots)?.info };
    const one = judge(round, name, info, bySet);
    faults.push(...one.faults);
    return [{ name, info, slots: bySet[0].slots, ...one }];
  });
  if (faults.length) throw new FaultError(faults);
  return judged;
}

/** Solve a sheet that has been read. */
export const solveSheet = (sheet: Sheet, context: SolveContext = {}): Finding => solved(sheet, context).finding;

/**
 * The moves that a sheet asks for as files of their own, each of which `planMove` answers with the same plan. What is done by hand and
 * eye, or lacks its hardware, has none.
 *
 * @throws FaultError with every fault at once.
 */
export function moveFiles(raw: unknown, context: SolveContext = {}): readonly { readonly quantity: string; readonly file: MoveFile }[] {
  const { finding, files } = solved(readSheet(raw), context);
  return finding.moves.flatMap((move) => {
    const file = files.get(move);
    return file ? [{ quantity: move.quantity, file }] : [];
  });
}

function solved(sheet: Sheet, context: SolveContext): { readonly finding: Finding; readonly files: ReadonlyMap<Move, MoveFile> } {
  const { check, instrument, readings } = sheet;
  const { grouped, sets, contradictions, notes: again } = withReadAgain(sheet, workOut(sheet, groupReadings(readings, check.slotKeys)));
  const [closure, conditions] = [closureNote(grouped.returns, instrument), conditionsNote(readings)];
  const notes: Note<Said>[] = [
    ...directionNote(instrument),
    ...peggedNote(readings, instrument),
    ...contradictions.notes,
    ...again,
    ...closure.notes,
    ...conditions.notes,
    ...outlierNotes(grouped.slots, instrument),
    ...(context.waits ?? []),
  ];
  // What one wild reading makes of a circle is no news beside it.
  const news = sets.flatMap((set) => set.notes.filter(({ code }) => !(contradictions.misread && code === 'out-of-round')));
  for (const note of news) if (!notes.some(({ code, quantity }) => code === note.code && quantity === note.quantity)) notes.push(note);

  const round: Round = {
    sheet,
    learnedSpread: context.setupSpread ?? sheet.setupSpread,
    grouped,
    pooled: pooledRepeatability(grouped.slots),
    contradictions,
    distrust: [
      ...(closure.trusted ? [] : ['closure']),
      ...(contradictions.misread ? ['misread'] : []),
      ...(conditions.trusted ? [] : ['conditions-differ']),
      ...(context.waits ?? []).map(({ code }) => code),
    ],
  };
  const judged = judgeAll(round, sets);
  const quantities: Record<string, Quantity> = {};
  const moves: Move[] = [];
  const files = new Map<Move, MoveFile>();
  const amounts = Object.fromEntries(judged.map(({ name, quantity }) => [name, context.wanted?.[name]?.amount ?? amountOf(quantity)]));
  const wholes = Object.fromEntries(judged.map(({ name, quantity }) => [name, quantity]));
  for (const { name, info, slots, quantity, notes: own } of judged) {
    quantities[name] = quantity;
    const planned = planCorrection({ sheet, name, info, quantity, slots, amounts, wholes, wanted: context.wanted?.[name] });
    moves.push(...planned.moves);
    for (const [move, file] of planned.files) files.set(move, file);
    notes.push(...own, ...planned.notes);
  }
  if (judged.length === 0 && !notes.some((note) => note.code === 'too-few-readings')) {
    notes.push({ code: 'too-few-readings', severity: 'warning', text: 'Not enough has been read yet to say anything.' });
  }
  const size = context.sizes ?? FILE_SIZES;
  const finding: Finding = {
    format: FINDING_FORMAT,
    check: check.id,
    quantities,
    moves,
    notes: notes.map((note) => ({ ...note, text: sentence(note.text, size) })),
  };
  return { finding, files };
}

/** What would bring a quantity to its aim; nothing when it is in, waits or has none. */
const amountOf = ({ verdict, aim, value, because }: Quantity): number =>
  verdict === null || verdict === 'in' || aim === null || because ? 0 : aim - value;
