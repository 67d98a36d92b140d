import type { QuantityInfo } from '../checks/define.js';
import type { Note } from '../checks/define.js';
import { showSize } from '../units/format.js';
import type { Uncertainty } from './uncertainty.js';
import { zoneWidth, type Zone } from './verdict.js';

/**
 * When U takes more than a quarter of the zone: what would help, with numbers.
 *
 * @param repeats readings of each place now. @param coverage t of U = t·u.
 */
export function coarseNote(name: string, info: QuantityInfo, uncertainty: Uncertainty, zone: Zone, repeats: number): Note[] {
  const quarter = zoneWidth(zone) / 4;
  if (!(uncertainty.expanded > quarter)) return [];
  const show = (value: number) => showSize(value, info.dimension, 'mm', 'fine', value);
  const coverage = uncertainty.expanded / uncertainty.u;
  const helps: string[] = [];
  const without = (source: RegExp, factor: number) =>
    coverage * Math.sqrt(uncertainty.budget.reduce((sum, line) => sum + (line.u * (source.test(line.source) ? factor : 1)) ** 2, 0));
  if (repeats < 4)
    helps.push(`reading each place four times would bring it to about ±${show(without(/repeating/, Math.sqrt(repeats) / 2))}`);
  helps.push(`an indicator with half the division to about ±${show(without(/dial|repeating|accuracy/, 0.5))}`);
  if (info.dimension === 'slope') helps.push(`twice the base length to about ±${show(uncertainty.expanded / 2)}`);
  return [
    {
      code: 'coarse-instrument',
      severity: 'warning',
      quantity: name,
      text: `${info.label}: the doubt of ±${show(uncertainty.expanded)} is more than a quarter of the zone. The largest part is ${uncertainty.budget[0]?.source ?? 'unknown'}; ${helps.join(', ')}.`,
    },
  ];
}
