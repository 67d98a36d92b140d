import { prettyUnit } from './units/format.js';
import { coarseNote } from './calls/advice.js';
import { closureNote, directionNote, peggedNote } from './calls/roundNotes.js';
import { pooledRepeatability, uncertaintyOf, type Repeatability, type Uncertainty } from './calls/uncertainty.js';
import { distanceToBound, usualAim, verdictOf, zoneWidth, type Verdict, type Zone } from './calls/verdict.js';
import type { Estimates, Note, QuantityInfo } from './checks/define.js';
import type { Estimate } from './checks/estimate.js';
import { planCorrection } from './correct.js';
import { FINDING_FORMAT, type Finding, type Move, type Quantity } from './finding.js';
import { groupReadings, mean, placesOf, type Grouped, type Slot } from './instruments/slots.js';
import { startingZone } from './limits/zones.js';
import { readSheet, type Sheet } from './sheet.js';

/**
 * Solve a sheet as written in a file (docs/sheets.md).
 *
 * @throws FaultError with every fault at once.
 */
export function solve(raw: unknown): Finding {
  return solveSheet(readSheet(raw));
}

/** The estimates of one set-up, with the slots they weigh. */
interface SetResult extends Estimates {
  readonly slots: readonly Slot[];
}

/** Solve a sheet that has been read. */
export function solveSheet(sheet: Sheet): Finding {
  const grouped = groupReadings(sheet.readings, sheet.check.slotKeys);
  const sets = solveSets(sheet, grouped.slots);
  const closure = closureNote(grouped.returns, sheet.instrument);
  const notes: Note[] = [...directionNote(sheet.instrument), ...peggedNote(sheet.readings, sheet.instrument), ...closure.notes];
  for (const set of sets)
    for (const note of set.notes)
      if (!notes.some((known) => known.code === note.code && known.quantity === note.quantity)) notes.push(note);

  const quantities: Record<string, Quantity> = {};
  const moves: Move[] = [];
  const pooled = pooledRepeatability(grouped.slots);
  const judged = Object.entries(sheet.check.quantities).flatMap(([name, info]) => {
    const bySet = sets.flatMap((set) =>
      set.estimates.filter((estimate) => estimate.name === name).map((estimate) => ({ estimate, slots: set.slots })),
    );
    return bySet.length
      ? [{ name, info, slots: bySet[0].slots, ...judge(sheet, name, info, bySet, pooled, grouped, closure.trusted) }]
      : [];
  });
  const amounts = Object.fromEntries(judged.map(({ name, quantity }) => [name, amountOf(quantity)]));
  for (const { name, info, slots, quantity, notes: own } of judged) {
    quantities[name] = quantity;
    const planned = planCorrection({ sheet, name, info, quantity, trusted: closure.trusted, slots, amounts });
    moves.push(...planned.moves);
    notes.push(...own, ...planned.notes);
  }
  if (Object.keys(quantities).length === 0 && !notes.some((note) => note.code === 'too-few-readings')) {
    notes.push({ code: 'too-few-readings', severity: 'warning', text: 'Not enough has been read yet to say anything.' });
  }
  return { format: FINDING_FORMAT, check: sheet.check.id, quantities, moves, notes };
}

/** What would bring a quantity to its aim; nothing when it is in or has none. */
const amountOf = ({ verdict, aim, value }: Quantity): number => (verdict === null || verdict === 'in' || aim === null ? 0 : aim - value);

/** Each set-up by itself; all readings together when one set-up alone says too little. */
function solveSets(sheet: Sheet, slots: readonly Slot[]): SetResult[] {
  const run = (part: readonly Slot[]): SetResult => {
    const input = { setup: sheet.setup, slots: part, instrument: sheet.instrument };
    return { slots: part, ...sheet.check.estimate(input) };
  };
  const numbers = [...new Set(slots.map((slot) => slot.set))];
  if (numbers.length < 2) return [run(slots)];
  const alone = numbers.map((set) => run(slots.filter((slot) => slot.set === set)));
  return alone.every((set) => set.estimates.length > 0 && set.estimates.length === alone[0].estimates.length) ? alone : [run(slots)];
}

interface InSet {
  readonly estimate: Estimate;
  readonly slots: readonly Slot[];
}

/** Put the set-ups together: their mean, with the weights shared out over all slots. */
function merge(sets: readonly InSet[]): { estimate: Estimate; slots: Slot[]; value: number; bySet: number[] } {
  const bySet = sets.map(({ estimate, slots }) => estimate.evaluate(slots.map((slot) => slot.value)));
  const share = 1 / sets.length;
  const terms: Record<string, number> = {};
  for (const { estimate } of sets)
    for (const [term, amount] of Object.entries(estimate.terms)) terms[term] = (terms[term] ?? 0) + amount * share;
  const weights = sets.flatMap(({ estimate }) => estimate.weights.map((weight) => weight * share));
  return { bySet, value: mean(bySet), slots: sets.flatMap((set) => set.slots), estimate: { ...sets[0].estimate, terms, weights } };
}

function judge(
  sheet: Sheet,
  name: string,
  info: QuantityInfo,
  sets: readonly InSet[],
  pooled: Repeatability,
  grouped: Grouped,
  trusted: boolean,
) {
  const { estimate, slots, value, bySet } = merge(sets);
  const drift = grouped.returns.reduce((worst, back) => Math.max(worst, Math.abs(back.difference)), 0);
  const uncertainty: Uncertainty | undefined =
    sheet.instrument && uncertaintyOf({ estimate, slots, instrument: sheet.instrument, pooled, bySet, drift });
  const limit = zoneFor(info, sheet.limits[name] ?? startingZone(sheet.check, name, sheet.setup, placesOf(slots)));
  const aim = limit ? aimFor(info, limit, sheet.aims[name]) : (sheet.aims[name] ?? null);
  const expanded = uncertainty?.expanded ?? null;
  const judged: Verdict | null = limit && verdictOf(value, expanded ?? 0, limit);
  const quantity: Quantity = {
    value,
    unit: info.unit,
    expanded,
    direction: info.words && value !== 0 ? (value > 0 ? info.words.plus : info.words.minus) : null,
    limit,
    aim,
    verdict: judged && !trusted ? 'unsure' : judged,
    terms: estimate.terms,
    budget: uncertainty?.budget ?? [],
    ...(estimate.detail && { detail: estimate.detail }),
  };
  const notes: Note[] = [];
  if (limit && uncertainty) {
    const repeats = Math.min(...slots.map((slot) => slot.repeats.length));
    notes.push(
      ...coarseNote(name, info, uncertainty, limit, repeats),
      ...sagNote(name, info, estimate, limit, sheet.check.sagHelp?.(sheet.setup, slots) ?? []),
    );
    if (sets.length === 1 && distanceToBound(value, limit) < 2 * uncertainty.expanded && judged !== 'in') {
      notes.push({
        code: 'one-set-up',
        severity: 'info',
        quantity: name,
        text: `${info.label} is close to its limit and comes from a single set-up. Take the bar out, put it back and read again: reseating moves more than re-reading.`,
      });
    }
  }
  return { quantity, notes };
}

/** The zone that applies; a size has no lower bound. */
function zoneFor(info: QuantityInfo, own: Zone | undefined): Zone | null {
  if (!own) return null;
  return info.magnitude ? [null, own[1]] : own;
}

const aimFor = (info: QuantityInfo, zone: Zone, own: number | undefined): number => own ?? usualAim(info, zone);

function sagNote(name: string, info: QuantityInfo, estimate: Estimate, limit: Zone, helps: readonly string[]): Note[] {
  const largest = Math.max(Math.abs(estimate.terms['sag'] ?? 0), Math.abs(estimate.terms['push'] ?? 0));
  if (!(largest > zoneWidth(limit) / 4)) return [];
  return [
    {
      code: 'sag-large',
      severity: 'warning',
      quantity: name,
      text: `${info.label}: the droop or push of the bar taken out is ${largest.toFixed(1)} ${prettyUnit(info.unit)}, more than a quarter of the zone. A shorter, thicker or hollow bar would leave less to correct${helps.length ? `: ${helps.join('; ')}` : ''}.`,
    },
  ];
}
