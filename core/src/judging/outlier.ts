import type { Note } from '../checks/define.js';
import { readableStep, type Instrument } from '../instruments/instrument.js';
import { dialDivisions } from '../instruments/reading.js';
import { mean, type Slot } from '../instruments/slots.js';

/** Grubbs' critical values, two-sided at 99 %, for 3, 4, … 20 readings. */
const CRITICAL = [
  1.15468, 1.496, 1.764, 1.973, 2.139, 2.274, 2.387, 2.482, 2.564, 2.636, 2.699, 2.755, 2.806, 2.852, 2.894, 2.932, 2.968, 3.001,
];
const FOR_MANY = 3.2;

/**
 * Index of the reading that does not belong to the others, by Grubbs' test at 99 %; undefined when all do, when
 * there are fewer than three, or when it is off by no more than `step`.
 */
export function outlierOf(values: readonly number[], step: number): number | undefined {
  const n = values.length;
  if (n < 3) return undefined;
  const middle = mean(values);
  const s = Math.sqrt(values.reduce((sum, value) => sum + (value - middle) ** 2, 0) / (n - 1));
  const far = values.reduce((worst, value, i) => (Math.abs(value - middle) > Math.abs(values[worst] - middle) ? i : worst), 0);
  const others = mean(values.filter((_, i) => i !== far));
  const grubbs = s > 0 ? Math.abs(values[far] - middle) / s : 0;
  return grubbs > (CRITICAL[n - 3] ?? FOR_MANY) && Math.abs(values[far] - others) > step ? far : undefined;
}

/** Name a reading that does not belong to the repeats of its place. It is never dropped by itself. */
export function outlierNotes(slots: readonly Slot<object>[], instrument: Instrument | undefined): Note[] {
  if (!instrument) return [];
  return slots.flatMap(({ repeats }): Note[] => {
    const at = outlierOf(repeats, Math.max(readableStep(instrument), instrument.graduation));
    if (at === undefined) return [];
    const shown = repeats.map((value) => Number(dialDivisions(value, instrument).toFixed(2)));
    return [
      {
        code: 'outlier',
        severity: 'warning',
        text: `One reading does not belong to its repeats: ${shown[at]} div among ${shown.filter((_, i) => i !== at).join(', ')}. Was the needle knocked or misread? It still counts: withdraw it with a reason if it was.`,
      },
    ];
  });
}
