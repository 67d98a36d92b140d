import type { HelpAct, Note, QuantityInfo } from '../checks/define.js';
import { DOUBTS } from '../checks/doubts.js';
import type { Said } from '../units/said.js';
import type { Uncertainty } from './budget.js';
import { actFactor, fineness, oftener, type Factors } from './helps.js';
import { zoneWidth, type Zone } from './verdict.js';

/**
 * When U takes more than a quarter of the zone: what would help, with numbers.
 *
 * @param repeats readings of each place now. @param acts what else helps this check.
 */
export function coarseNote(
  name: string,
  info: QuantityInfo,
  uncertainty: Uncertainty,
  zone: Zone,
  repeats: number,
  acts: readonly HelpAct[],
): Note<Said>[] {
  const quarter = zoneWidth(zone) / 4;
  if (!(uncertainty.expanded > quarter)) return [];
  const coverage = uncertainty.u > 0 ? uncertainty.expanded / uncertainty.u : 2;
  const left = (factors: Factors) =>
    coverage * Math.sqrt(uncertainty.budget.reduce((sum, line) => sum + (line.u * factors(line.source)) ** 2, 0));
  const helps: (readonly [what: string, factors: Factors])[] = [
    ...(repeats < 4 ? [['reading each place four times would bring it', oftener(repeats, 4)] as const] : []),
    ['an indicator with half the division', fineness(0.5)],
    // Only what is true of this check is offered: a level has no bar to take out, and no base to double.
    ...acts.filter(({ kind }) => kind === 'base').map((act) => [`to ${act.text}`, actFactor(act)] as const),
  ];
  const largest = uncertainty.budget[0];
  return [
    {
      code: 'coarse-instrument',
      severity: 'warning',
      quantity: name,
      text: (size) => {
        const show = (value: number) => size(value, info.dimension, value);
        const ways = helps.map(([what, factors]) => `${what} to about ±${show(left(factors))}`);
        return `${info.label}: the doubt of ±${show(uncertainty.expanded)} is more than a quarter of the zone. The largest part is ${largest ? DOUBTS[largest.source] : 'unknown'}; ${ways.join(', ')}.`;
      },
    },
  ];
}
