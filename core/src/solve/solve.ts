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

/** A slot with one value in place of what it has. */
const withValue = (slots: readonly Slot[], index: number, value: number): Slot[] =>
  slots.map((slot, i) => (i === index ? { ...slot, value, repeats: [value] } : slot));

/**
 * A place that was read again and said otherwise, after another place or twice running: where the later reading fits the others and
 * the earlier one contradicts them, the earlier one was misread and the later one counts.
 */
function withReadAgain(sheet: Sheet, first: Worked): Worked & { readonly notes: readonly Note<Said>[] } {
  const { check, instrument } = sheet;
  if (!instrument) return { ...first, notes: [] };
  const apart = 2 * instrument.graduation;
  let worked = first;
  const notes: Note<Said>[] = [];
  const take = (index: number, value: number, returns: Grouped['returns']): void => {
    const tried = workOut(sheet, { slots: withValue(worked.grouped.slots, index, value), returns });
    if (contradicted(tried) || tried.sets.every(({ fits = [] }) => fits.length === 0)) return;
    worked = tried;
    const { keys } = first.grouped.slots[index];
    notes.push({
      code: 'read-again',
      severity: 'info',
      text: (size) =>
        `The place ${placeWords(keys, check.slotKeys, size)} was read again: the first reading contradicted the others, the second fits them and counts.`,
      place: placeOf(keys, check.slotKeys),
    });
  };
  first.grouped.slots.forEach(({ repeats: [before, after, ...more] }, index) => {
    if (after === undefined || more.length || Math.abs(after - before) <= apart) return;
    const { slots, returns } = worked.grouped;
    if (contradicted(workOut(sheet, { slots: withValue(slots, index, before), returns }))) take(index, after, returns);
  });
  for (const { slot: index, difference } of first.grouped.returns) {
    if (Math.abs(difference) <= apart || !contradicted(worked)) continue;
    const others = worked.grouped.returns.filter(({ slot }) => slot !== index);
    take(index, first.grouped.slots[index].value + difference, others);
  }
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
