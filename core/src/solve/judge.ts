import { uncertaintyOf, type Repeatability, type SetupSpread, type Uncertainty } from '../judging/budget.js';
import type { Contradictions } from '../judging/misread.js';
import type { Quantity } from '../judging/finding.js';
import { coverageFactor } from '../judging/studentT.js';
import { insideZone } from '../checks/zone.js';
import { usualAim, verdictOf, zoneWidth, type Verdict, type Zone } from '../judging/verdict.js';
import { startingZone } from '../judging/zones.js';
import type { Carried, CheckDefinition, Note, QuantityInfo } from '../checks/define.js';
import type { Estimate } from '../checks/estimate.js';
import type { Fault } from '../input/faults.js';
import { mean, placesOf, type Grouped, type Slot, type Values } from '../instruments/slots.js';
import type { Said } from '../units/said.js';
import { aimOutside, type Sheet } from './sheet.js';
import { FARTHEST, quantityNotes } from './quantityNotes.js';

/** What a round says as a whole: what every quantity of it is judged by. */
export interface Round {
  readonly sheet: Sheet;
  /** Spread between set-ups that earlier rounds of this check showed. */
  readonly learnedSpread: SetupSpread | undefined;
  readonly grouped: Grouped;
  readonly pooled: Repeatability;
  readonly contradictions: Contradictions;
  /** Codes of what makes the whole round not to be judged. */
  readonly distrust: readonly string[];
}

export interface InSet {
  readonly estimate: Estimate;
  readonly slots: readonly Slot[];
}

/** A quantity by all its set-ups, and by each of them. */
interface Merged extends InSet {
  readonly value: number;
  readonly bySet: readonly number[];
}

/** Put the set-ups together: their mean, with the weights shared out over all slots. */
export function merge(sets: readonly InSet[]): Merged {
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

/** Expanded uncertainty of a quantity, what it is made of, and what other set-ups read. */
const doubtOf = (uncertainty: ReturnType<typeof uncertaintyFor>) => ({
  expanded: uncertainty?.expanded ?? null,
  budget: uncertainty?.budget ?? [],
  ...(uncertainty?.settingUp.own && { setUps: uncertainty.settingUp.own }),
});

/** The quantity of a round with its verdict, what is to be said of it, and what makes no sense in it. */
export function judge(
  round: Round,
  name: string,
  info: QuantityInfo,
  sets: readonly InSet[],
): { quantity: Quantity; notes: Note<Said>[]; faults: Fault[] } {
  const { check, setup, limits, aims } = round.sheet;
  const merged = merge(sets);
  const { estimate, slots, value } = merged;
  const limit = zoneFor(info, limits[name] ?? startingZone(check, name, setup, placesOf(slots)) ?? estimate.zone);
  const uncertainty = uncertaintyFor(round, name, merged);
  const carried = limit ? check.reach?.(name, setup, slots) : undefined;
  const aim = aims[name] ?? (limit ? usualAim(info, limit) : null);
  const seen: Verdict | null = limit && verdictOf(value, uncertainty?.expanded ?? 0, limit);
  const because = seen ? [...round.distrust, ...reasonsAgainst(estimate, seen, carried)] : [];
  const quantity: Quantity = {
    value: value + 0,
    unit: info.unit,
    ...doubtOf(uncertainty),
    ...intervalOf(value, estimate, uncertainty),
    direction: directionOf(value, info, uncertainty, limit),
    limit,
    aim,
    verdict: because.length ? 'unsure' : seen,
    ...(because.length > 0 && { because }),
    terms: estimate.terms,
    ...(estimate.detail && { detail: estimate.detail }),
  };
  return {
    quantity,
    notes: quantityNotes({ sheet: round.sheet, name, info, limit, uncertainty, carried, ...merged }),
    faults: [...notFinite(name, info, value, uncertainty), ...aimFaults(name, aims[name], limit)],
  };
}

/** A size that its doubt cannot tell from nothing is told as what it may be at most. */
const intervalOf = (value: number, { magnitude }: Estimate, uncertainty: Uncertainty | undefined): Pick<Quantity, 'interval'> =>
  magnitude && uncertainty && value < uncertainty.floor ? { interval: [0, value + uncertainty.expanded] } : {};

/** How well a quantity is known; undefined where nothing says. */
function uncertaintyFor(
  { sheet, learnedSpread, grouped, pooled, contradictions }: Round,
  name: string,
  { estimate, slots, bySet }: Merged,
) {
  const { check, instrument, setup } = sheet;
  if (!instrument) return leavesAlone(estimate);
  const drift = grouped.returns.reduce((worst, back) => Math.max(worst, Math.abs(back.difference)), 0);
  const reseatSpread = reseatSpreadOf(check, name, setup);
  const learned = reseatSpread > 0 ? learnedSpread : undefined;
  const widening = contradictions.widening[name];
  return uncertaintyOf({ estimate, slots, instrument, pooled, bySet, drift, reseatSpread, learnedSpread: learned, widening });
}

/** Codes of what about a quantity itself makes that it is not judged. */
const reasonsAgainst = (estimate: Estimate, seen: Verdict | null, carried: Carried | undefined): string[] => [
  ...(estimate.open === undefined ? [] : ['reversal-open']),
  ...(estimate.unsure ? ['readings-doubtful'] : []),
  ...(estimate.never !== undefined && estimate.never === seen ? ['self-made-evidence'] : []),
  ...(carried && carried.factor > FARTHEST ? ['carried-far'] : []),
];

/** Which way it is out; no direction is told of what cannot be told from zero. */
function directionOf(value: number, { words }: QuantityInfo, uncertainty: Uncertainty | undefined, limit: Zone | null): string | null {
  const told = uncertainty === undefined ? value !== 0 : Math.abs(value) > Math.min(uncertainty.expanded, quietBelow(limit));
  return words && told ? (value > 0 ? words.plus : words.minus) || null : null;
}

function notFinite(name: string, info: QuantityInfo, value: number, uncertainty: Uncertainty | undefined): Fault[] {
  if (Number.isFinite(value) && (uncertainty === undefined || Number.isFinite(uncertainty.expanded))) return [];
  return [
    {
      path: `quantities.${name}`,
      message: `${info.label} does not come out as a finite number: something read or set up is far too large or too small`,
      example: 'figures of a machine',
    },
  ];
}

const aimFaults = (name: string, own: number | undefined, limit: Zone | null): Fault[] =>
  own !== undefined && limit && !insideZone(own, limit) ? [aimOutside(`aims.${name}`, own, limit)] : [];

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

/** Spread of the readings from one set-up to the next before anything is learned; 0 where nothing is reseated. */
export const reseatSpreadOf = (check: CheckDefinition, quantity: string, setup: Values): number =>
  check.reseatSpreadFor?.(quantity, setup) ?? check.reseatSpread ?? 0;
