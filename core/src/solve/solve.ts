import { prettyUnit } from '../units/format.js';
import { helpsFor } from '../checks/helps.js';
import { coarseNote } from '../judging/advice.js';
import { pooledRepeatability, uncertaintyOf, type Repeatability, type Uncertainty } from '../judging/budget.js';
import { FINDING_FORMAT, type Finding, type Move, type Quantity } from '../judging/finding.js';
import { outlierNotes } from '../judging/outlier.js';
import { closureNote, conditionsNote, directionNote, peggedNote } from '../judging/roundNotes.js';
import { coverageFactor } from '../judging/studentT.js';
import { insideZone } from '../checks/zone.js';
import { usualAim, verdictOf, zoneWidth, type Verdict, type Zone } from '../judging/verdict.js';
import { startingZone } from '../judging/zones.js';
import type { Estimates, Note, QuantityInfo } from '../checks/define.js';
import type { Estimate } from '../checks/estimate.js';
import { FaultError, type Fault } from '../input/faults.js';
import { groupReadings, mean, placesOf, type Grouped, type Slot } from '../instruments/slots.js';
import { planCorrection } from './correct.js';
import { aimOutside, readSheet, type Sheet } from './sheet.js';

/** What is known beside a sheet: of the campaign it belongs to. */
export interface SolveContext {
  /** Why a call waits: a rung it hangs on rocks or tips. It is then unsure, and there is no move. */
  readonly waits?: readonly Note[];
  /** Spread of reseating that earlier rounds of this check on this machine showed, in the unit of its readings. */
  readonly reseatSpread?: number;
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

/** Solve a sheet that has been read. */
export function solveSheet(sheet: Sheet, context: SolveContext = {}): Finding {
  const { check, instrument, readings } = sheet;
  const grouped = groupReadings(readings, check.slotKeys);
  const sets = solveSets(sheet, grouped.slots);
  const [closure, conditions] = [closureNote(grouped.returns, instrument), conditionsNote(readings)];
  const notes: Note[] = [
    ...directionNote(instrument),
    ...peggedNote(readings, instrument),
    ...closure.notes,
    ...conditions.notes,
    ...outlierNotes(grouped.slots, instrument),
    ...(context.waits ?? []),
  ];
  for (const set of sets)
    for (const note of set.notes)
      if (!notes.some((known) => known.code === note.code && known.quantity === note.quantity)) notes.push(note);

  const round: Round = {
    sheet,
    context,
    grouped,
    pooled: pooledRepeatability(grouped.slots),
    distrust: [
      ...(closure.trusted ? [] : ['closure']),
      ...(conditions.trusted ? [] : ['conditions-differ']),
      ...(context.waits ?? []).map(({ code }) => code),
    ],
  };
  const faults: Fault[] = [];
  const judged = Object.entries(check.quantities).flatMap(([name, info]) => {
    const bySet = sets.flatMap((set) =>
      set.estimates.filter((estimate) => estimate.name === name).map((estimate) => ({ estimate, slots: set.slots })),
    );
    if (bySet.length === 0) return [];
    const one = judge(round, name, info, bySet);
    faults.push(...one.faults);
    return [{ name, info, slots: bySet[0].slots, ...one }];
  });
  if (faults.length) throw new FaultError(faults);
  const quantities: Record<string, Quantity> = {};
  const moves: Move[] = [];
  const amounts = Object.fromEntries(judged.map(({ name, quantity }) => [name, amountOf(quantity)]));
  const wholes = Object.fromEntries(judged.map(({ name, quantity }) => [name, quantity]));
  for (const { name, info, slots, quantity, notes: own } of judged) {
    quantities[name] = quantity;
    const planned = planCorrection({ sheet, name, info, quantity, slots, amounts, wholes });
    moves.push(...planned.moves);
    notes.push(...own, ...planned.notes);
  }
  if (Object.keys(quantities).length === 0 && !notes.some((note) => note.code === 'too-few-readings')) {
    notes.push({ code: 'too-few-readings', severity: 'warning', text: 'Not enough has been read yet to say anything.' });
  }
  return { format: FINDING_FORMAT, check: check.id, quantities, moves, notes };
}

/** What would bring a quantity to its aim; nothing when it is in, waits or has none. */
const amountOf = ({ verdict, aim, value, because }: Quantity): number =>
  verdict === null || verdict === 'in' || aim === null || because ? 0 : aim - value;

interface InSet {
  readonly estimate: Estimate;
  readonly slots: readonly Slot[];
}

/** Put the set-ups together: their mean, with the weights shared out over all slots. */
export function merge(sets: readonly InSet[]): { estimate: Estimate; slots: readonly Slot[]; value: number; bySet: number[] } {
  const bySet = sets.map(({ estimate, slots }) => estimate.evaluate(slots.map((slot) => slot.value)));
  if (sets.length === 1) return { bySet, value: bySet[0], ...sets[0] };
  const share = 1 / sets.length;
  const terms: Record<string, number> = {};
  for (const { estimate } of sets)
    for (const [term, amount] of Object.entries(estimate.terms)) terms[term] = (terms[term] ?? 0) + amount * share;
  const weights = sets.flatMap(({ estimate }) => estimate.weights.map((weight) => weight * share));
  const slots = sets.flatMap((set) => set.slots);
  const meanOf = (part: (estimate: Estimate) => (values: ArrayLike<number>) => number) => (values: ArrayLike<number>) => {
    let [from, sum] = [0, 0];
    for (const set of sets) {
      sum += part(set.estimate)(Array.prototype.slice.call(values, from, from + set.slots.length)) * share;
      from += set.slots.length;
    }
    return sum;
  };
  const [first] = sets;
  const open = sets.map(({ estimate }) => estimate.open).find((text) => text !== undefined);
  return {
    bySet,
    value: mean(bySet),
    slots,
    estimate: {
      ...first.estimate,
      terms,
      weights,
      open,
      unsure: sets.some(({ estimate }) => estimate.unsure) || undefined,
      evaluate: meanOf((estimate) => estimate.evaluate),
      ...(first.estimate.magnitude && { bare: meanOf((estimate) => estimate.bare ?? estimate.evaluate) }),
    },
  };
}

interface Round {
  readonly sheet: Sheet;
  readonly context: SolveContext;
  readonly grouped: Grouped;
  readonly pooled: Repeatability;
  /** Codes of what makes the whole round not to be judged. */
  readonly distrust: readonly string[];
}

function judge({ sheet, context, grouped, pooled, distrust }: Round, name: string, info: QuantityInfo, sets: readonly InSet[]) {
  const { check, instrument, setup } = sheet;
  const { estimate, slots, value, bySet } = merge(sets);
  const drift = grouped.returns.reduce((worst, back) => Math.max(worst, Math.abs(back.difference)), 0);
  const reseatSpread = context.reseatSpread ?? check.reseatSpread;
  const uncertainty = instrument
    ? uncertaintyOf({ estimate, slots, instrument, pooled, bySet, drift, reseatSpread })
    : leavesAlone(estimate);
  const limit = zoneFor(info, sheet.limits[name] ?? startingZone(check, name, setup, placesOf(slots)) ?? estimate.zone);
  const own = sheet.aims[name];
  const aim = own ?? (limit ? usualAim(info, limit) : null);
  const faults: Fault[] = [
    ...(Number.isFinite(value) && (uncertainty === undefined || Number.isFinite(uncertainty.expanded))
      ? []
      : [
          {
            path: `quantities.${name}`,
            message: `${info.label} does not come out as a finite number: something read or set up is far too large or too small`,
            example: 'figures of a machine',
          },
        ]),
    ...(own !== undefined && limit && !insideZone(own, limit) ? [aimOutside(`aims.${name}`, own, limit)] : []),
  ];
  const expanded = uncertainty?.expanded ?? null;
  const seen: Verdict | null = limit && verdictOf(value, expanded ?? 0, limit);
  const because = [
    ...distrust,
    ...(estimate.open === undefined ? [] : ['reversal-open']),
    ...(estimate.unsure ? ['readings-doubtful'] : []),
    ...(estimate.never !== undefined && estimate.never === seen ? ['self-made-evidence'] : []),
  ];
  // No direction is told of what cannot be told from zero.
  const told = expanded === null ? value !== 0 : Math.abs(value) > Math.min(expanded, quietBelow(limit));
  const quantity: Quantity = {
    value: value + 0,
    unit: info.unit,
    expanded,
    ...(estimate.magnitude && uncertainty && value < uncertainty.floor && { interval: [0, value + uncertainty.expanded] as const }),
    direction: info.words && told ? (value > 0 ? info.words.plus : info.words.minus) || null : null,
    limit,
    aim,
    verdict: seen && because.length ? 'unsure' : seen,
    ...(seen && because.length > 0 && { because }),
    terms: estimate.terms,
    budget: uncertainty?.budget ?? [],
    ...(estimate.detail && { detail: estimate.detail }),
  };
  const notes: Note[] = [];
  if (estimate.open !== undefined && limit)
    notes.push({
      code: 'reversal-open',
      severity: 'warning',
      quantity: name,
      text: `${info.label} is not judged yet: ${estimate.open}. Half a reversal says as much of the reference as of the machine.`,
    });
  if (limit && uncertainty && instrument) {
    const repeats = slots.reduce((least, slot) => Math.min(least, slot.repeats.length), Infinity);
    notes.push(
      ...coarseNote(name, info, uncertainty, limit, repeats, helpsFor(check, setup, placesOf(slots))),
      ...sagNote(name, info, estimate, limit, check.sagHelp?.(setup, slots) ?? []),
      ...oneSetUpNote(sheet, name, info, uncertainty, value, limit, sets.length),
    );
  }
  return { quantity, notes, faults };
}

/** Leaves bound a gap by themselves: their doubt needs no instrument. Undefined where nothing tells a doubt. */
function leavesAlone(estimate: Estimate): Uncertainty | undefined {
  const leaves = estimate.doubts.filter(({ source, u }) => source === 'leaves' && u > 0);
  if (leaves.length === 0) return undefined;
  const u = Math.hypot(...estimate.doubts.map((doubt) => doubt.u));
  const budget = estimate.doubts.filter((doubt) => doubt.u > 0).map((doubt) => ({ ...doubt, share: doubt.u ** 2 / u ** 2 }));
  return {
    u,
    expanded: coverageFactor(Infinity) * u,
    floor: 0,
    reseating: 0,
    degreesOfFreedom: Infinity,
    budget: budget.sort((a, b) => b.share - a.share),
  };
}

/** A value within its doubt is still told a way when that doubt is a large part of its zone: there the doubt is the news. */
const quietBelow = (limit: Zone | null): number => (limit ? zoneWidth(limit) / 8 : Infinity);

/** The zone that applies; a size has no lower bound. */
function zoneFor(info: QuantityInfo, own: Zone | undefined): Zone | null {
  if (!own) return null;
  return info.magnitude ? [null, own[1]] : own;
}

/** A single set-up, when reseating by the usual spread could make another call of it. */
function oneSetUpNote(
  { check }: Sheet,
  name: string,
  info: QuantityInfo,
  uncertainty: Uncertainty,
  value: number,
  limit: Zone,
  sets: number,
): Note[] {
  if (sets > 1 || !check.reseat) return [];
  const wider = Math.max(
    coverageFactor(uncertainty.degreesOfFreedom) * Math.sqrt(uncertainty.u ** 2 + uncertainty.reseating),
    uncertainty.expanded,
  );
  if (verdictOf(value, wider, limit) === verdictOf(value, uncertainty.expanded, limit)) return [];
  return [
    {
      code: 'one-set-up',
      severity: 'info',
      quantity: name,
      text: `${info.label} comes from a single set-up, and setting up again could make another call of it. ${check.reseat}: that moves more than re-reading.`,
    },
  ];
}

function sagNote(name: string, info: QuantityInfo, estimate: Estimate, limit: Zone, helps: readonly string[]): Note[] {
  const largest = Math.max(Math.abs(estimate.terms['sag'] ?? 0), Math.abs(estimate.terms['push'] ?? 0));
  if (!(largest > zoneWidth(limit) / 4)) return [];
  // Only where the droop is what was taken out does another bar help.
  const droops = Math.abs(estimate.terms['sag'] ?? 0) > 0;
  return [
    {
      code: 'sag-large',
      severity: 'warning',
      quantity: name,
      text: `${info.label}: the ${droops ? 'droop or push' : 'push'} of the bar taken out is ${largest.toFixed(1)} ${prettyUnit(info.unit)}, more than a quarter of the zone. A shorter or thicker bar would leave less to correct${droops && helps.length ? `: ${helps.join('; ')}` : ''}.`,
    },
  ];
}
