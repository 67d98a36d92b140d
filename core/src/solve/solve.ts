import { prettyUnit } from '../units/format.js';
import { helpsFor } from '../checks/helps.js';
import { coarseNote } from '../judging/advice.js';
import {
  pooledRepeatability,
  spanOfWeights,
  uncertaintyOf,
  type Repeatability,
  type SetupSpread,
  type Uncertainty,
} from '../judging/budget.js';
import { contradictionsIn, type Contradictions } from '../judging/misread.js';
import { placeOf, placeWords } from '../judging/placeWords.js';
import { FINDING_FORMAT, type Finding, type Move, type Quantity } from '../judging/finding.js';
import { outlierNotes } from '../judging/outlier.js';
import { closureNote, conditionsNote, directionNote, peggedNote } from '../judging/roundNotes.js';
import { coverageFactor } from '../judging/studentT.js';
import { insideZone } from '../checks/zone.js';
import { usualAim, verdictOf, zoneWidth, type Verdict, type Zone } from '../judging/verdict.js';
import { startingZone } from '../judging/zones.js';
import type { Carried, CheckDefinition, Estimates, Note, QuantityInfo } from '../checks/define.js';
import type { Estimate } from '../checks/estimate.js';
import { FaultError, type Fault } from '../input/faults.js';
import { groupReadings, mean, placesOf, type Grouped, type Slot, type Values } from '../instruments/slots.js';
import { planCorrection } from './correct.js';
import { aimOutside, readSheet, type Sheet } from './sheet.js';

/** What is known beside a sheet: of the campaign it belongs to. */
export interface SolveContext {
  /** Why a call waits: a rung it depends on rocks or tips. It is then unsure, and there is no move. */
  readonly waits?: readonly Note[];
  /** Spread between set-ups that earlier rounds of this check on this machine showed, in the unit of its readings. */
  readonly setupSpread?: SetupSpread;
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
function withReadAgain(sheet: Sheet, first: Worked): Worked & { readonly notes: readonly Note[] } {
  const { check, instrument } = sheet;
  if (!instrument) return { ...first, notes: [] };
  const apart = 2 * instrument.graduation;
  let worked = first;
  const notes: Note[] = [];
  const take = (index: number, value: number, returns: Grouped['returns']): void => {
    const tried = workOut(sheet, { slots: withValue(worked.grouped.slots, index, value), returns });
    if (contradicted(tried) || tried.sets.every(({ fits = [] }) => fits.length === 0)) return;
    worked = tried;
    const { keys } = first.grouped.slots[index];
    notes.push({
      code: 'read-again',
      severity: 'info',
      text: `The place ${placeWords(keys, check.slotKeys)} was read again: the first reading contradicted the others, the second fits them and counts.`,
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

/** Solve a sheet that has been read. */
export function solveSheet(sheet: Sheet, context: SolveContext = {}): Finding {
  const { check, instrument, readings } = sheet;
  const { grouped, sets, contradictions, notes: again } = withReadAgain(sheet, workOut(sheet, groupReadings(readings, check.slotKeys)));
  const [closure, conditions] = [closureNote(grouped.returns, instrument), conditionsNote(readings)];
  const notes: Note[] = [
    ...directionNote(instrument),
    ...peggedNote(readings, instrument),
    ...contradictions.notes,
    ...again,
    ...closure.notes,
    ...conditions.notes,
    ...outlierNotes(grouped.slots, instrument),
    ...(context.waits ?? []),
  ];
  for (const set of sets)
    for (const note of set.notes)
      // What one wild reading makes of a circle is no news beside it.
      if (
        !(contradictions.misread && note.code === 'out-of-round') &&
        !notes.some((known) => known.code === note.code && known.quantity === note.quantity)
      )
        notes.push(note);

  const round: Round = {
    sheet,
    context: { ...context, setupSpread: context.setupSpread ?? sheet.setupSpread },
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
  readonly contradictions: Contradictions;
  /** Codes of what makes the whole round not to be judged. */
  readonly distrust: readonly string[];
}

function judge(
  { sheet, context, grouped, pooled, contradictions, distrust }: Round,
  name: string,
  info: QuantityInfo,
  sets: readonly InSet[],
) {
  const { check, instrument, setup } = sheet;
  const { estimate, slots, value, bySet } = merge(sets);
  const drift = grouped.returns.reduce((worst, back) => Math.max(worst, Math.abs(back.difference)), 0);
  const limit = zoneFor(info, sheet.limits[name] ?? startingZone(check, name, setup, placesOf(slots)) ?? estimate.zone);
  const reseatSpread = reseatSpreadOf(check, name, setup);
  const learnedSpread = reseatSpread > 0 ? context.setupSpread : undefined;
  const widening = contradictions.widening[name];
  const uncertainty = instrument
    ? uncertaintyOf({ estimate, slots, instrument, pooled, bySet, drift, reseatSpread, learnedSpread, widening })
    : leavesAlone(estimate);
  const carried = limit && check.reach?.(name, setup, slots);
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
    ...(carried && carried.factor > FARTHEST ? ['carried-far'] : []),
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
    ...(uncertainty?.settingUp.own && { setUps: uncertainty.settingUp.own }),
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
      ...oneSetUpNote(sheet, name, info, uncertainty, value, limit),
      ...setUpsDifferNote(info, name, uncertainty, bySet, estimate.weights),
      ...(carried ? carriedNote(name, info, carried) : []),
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
    settingUp: { spread: { s: 0, degrees: Infinity }, u: 0, sets: 1 },
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

/** How far a result may be carried beyond its base: beyond the first a note says so, beyond the second there is no verdict. */
const FAR = 4;
const FARTHEST = 10;

/** Spread of the readings from one set-up to the next before anything is learned; 0 where nothing is reseated. */
export const reseatSpreadOf = (check: CheckDefinition, quantity: string, setup: Values): number =>
  check.reseatSpreadFor?.(quantity, setup) ?? check.reseatSpread ?? 0;

/** A single set-up, where a second one that says the same would make a call of what is too close to call. */
function oneSetUpNote({ check }: Sheet, name: string, info: QuantityInfo, uncertainty: Uncertainty, value: number, limit: Zone): Note[] {
  const { settingUp, u, expanded, degreesOfFreedom } = uncertainty;
  if (settingUp.sets > 1 || !check.reseat || settingUp.u === 0 || verdictOf(value, expanded, limit) !== 'unsure') return [];
  const second = coverageFactor(degreesOfFreedom) * Math.sqrt(Math.max(0, u ** 2 - settingUp.u ** 2 / 2));
  if (verdictOf(value, second, limit) === 'unsure') return [];
  return [
    {
      code: 'one-set-up',
      severity: 'info',
      quantity: name,
      text: `${info.label} is too close to call from one set-up. ${check.reseat}: a second set-up with the same result would settle it.`,
    },
  ];
}

/** Set-ups that lie further apart than reseating explains, and which one stands alone. */
function setUpsDifferNote(
  info: QuantityInfo,
  name: string,
  { settingUp, u }: Uncertainty,
  bySet: readonly number[],
  weights: readonly number[],
): Note[] {
  if (bySet.length < 2 || info.magnitude) return [];
  const reading = Math.sqrt(Math.max(0, u ** 2 - settingUp.u ** 2) * bySet.length);
  const room = 4 * Math.hypot(settingUp.spread.s * spanOfWeights(weights), reading);
  const apart = Math.max(...bySet) - Math.min(...bySet);
  if (!(apart > room)) return [];
  const alone = bySet.findIndex((_, i) => {
    const others = bySet.filter((__, k) => k !== i);
    return others.length > 1 && Math.max(...others) - Math.min(...others) <= room / 2;
  });
  const which = alone >= 0 ? ` Set-up ${alone + 1} stands alone: do that one again.` : ' A third set-up will show which one is wrong.';
  return [
    {
      code: 'set-ups-differ',
      severity: 'warning',
      quantity: name,
      text: `${info.label}: the set-ups differ by ${apart.toFixed(1)} ${prettyUnit(info.unit)}, more than setting up again explains. Look for a chip, a burr or a loose clamp.${which}`,
    },
  ];
}

function carriedNote(name: string, info: QuantityInfo, { base, over, factor }: Carried): Note[] {
  if (!(factor > FAR)) return [];
  const waits = factor > FARTHEST ? ' It is too far for a verdict: read over a longer base.' : '';
  return [
    {
      code: 'carried-far',
      severity: 'warning',
      quantity: name,
      factor,
      text: `${info.label} was read over ${Number(base.toFixed(1))} mm and carried over ${Number(over.toFixed(1))} mm: an error of a reading counts ${factor.toFixed(1)} times. Were the places typed in inches?${waits}`,
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
