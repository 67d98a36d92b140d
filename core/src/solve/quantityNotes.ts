import { sentence, type Said } from '../units/said.js';
import { helpsFor } from '../checks/helps.js';
import { coarseNote } from '../judging/advice.js';
import { spanOfWeights, type Uncertainty } from '../judging/budget.js';
import { coverageFactor } from '../judging/studentT.js';
import { verdictOf, zoneWidth, type Zone } from '../judging/verdict.js';
import type { Carried, Note, QuantityInfo } from '../checks/define.js';
import type { Estimate } from '../checks/estimate.js';
import { placesOf, type Slot } from '../instruments/slots.js';
import type { Sheet } from './sheet.js';

/** How far a result may be carried beyond its base: beyond the first a note says so, beyond the second there is no verdict. */
const FAR = 4;
export const FARTHEST = 10;

/** What is said of a quantity beside its figure. */
interface Weighed {
  readonly sheet: Sheet;
  readonly name: string;
  readonly info: QuantityInfo;
  readonly estimate: Estimate;
  readonly slots: readonly Slot[];
  readonly value: number;
  readonly bySet: readonly number[];
  readonly limit: Zone | null;
  readonly uncertainty: Uncertainty | undefined;
  readonly carried: Carried | undefined;
}

/** The notes of one quantity: why it is not judged, what its doubt comes from, and what would make it smaller. */
export function quantityNotes(said: Weighed): Note<Said>[] {
  const { sheet, name, info, estimate, slots, value, bySet, limit, uncertainty, carried } = said;
  const { check, setup, instrument } = sheet;
  const open = estimate.open !== undefined && limit ? [openNote(name, info, estimate.open)] : [];
  if (!limit || !uncertainty || !instrument) return open;
  const repeats = slots.reduce((least, slot) => Math.min(least, slot.repeats.length), Infinity);
  return [
    ...open,
    ...coarseNote(name, info, uncertainty, limit, repeats, helpsFor(check, setup, placesOf(slots))),
    ...sagNote(name, info, estimate, limit, check.sagHelp?.(setup, slots) ?? []),
    ...oneSetUpNote(sheet, name, info, uncertainty, value, limit),
    ...setUpsDifferNote(info, name, uncertainty, bySet, estimate.weights),
    ...(carried ? carriedNote(name, info, carried) : []),
  ];
}

const openNote = (name: string, info: QuantityInfo, open: string): Note => ({
  code: 'reversal-open',
  severity: 'warning',
  quantity: name,
  text: `${info.label} is not judged yet: ${open}. Half a reversal says as much of the reference as of the machine.`,
});

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
): Note<Said>[] {
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
      text: (size) =>
        `${info.label}: the set-ups differ by ${size(apart, info.dimension)}, more than setting up again explains. Look for a chip, a burr or a loose clamp.${which}`,
    },
  ];
}

function carriedNote(name: string, info: QuantityInfo, { base, over, factor }: Carried): Note<Said>[] {
  if (!(factor > FAR)) return [];
  const waits = factor > FARTHEST ? ' It is too far for a verdict: read over a longer base.' : '';
  return [
    {
      code: 'carried-far',
      severity: 'warning',
      quantity: name,
      factor,
      text: (size) =>
        `${info.label} was read over ${size(base, 'length')} and carried over ${size(over, 'length')}: an error of a reading counts ${factor.toFixed(1)} times. Were the places typed in inches?${waits}`,
    },
  ];
}

function sagNote(name: string, info: QuantityInfo, estimate: Estimate, limit: Zone, helps: readonly Said[]): Note<Said>[] {
  const largest = Math.max(Math.abs(estimate.terms['sag'] ?? 0), Math.abs(estimate.terms['push'] ?? 0));
  if (!(largest > zoneWidth(limit) / 4)) return [];
  // Only where the droop is what was taken out does another bar help.
  const droops = Math.abs(estimate.terms['sag'] ?? 0) > 0;
  return [
    {
      code: 'sag-large',
      severity: 'warning',
      quantity: name,
      text: (size) =>
        `${info.label}: the ${droops ? 'droop or push' : 'push'} of the bar taken out is ${size(largest, info.dimension)}, more than a quarter of the zone. A shorter or thicker bar would leave less to correct${droops && helps.length ? `: ${helps.map((help) => sentence(help, size)).join('; ')}` : ''}.`,
    },
  ];
}
