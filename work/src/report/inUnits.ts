import type { Fineness } from '@isometra/core';
import type { Shown } from '../said/said.js';

/** The unit that a paper is written in; in both, inches stand behind in brackets. */
export type PaperUnits = 'mm' | 'inch' | 'both';

/**
 * A figure in the unit of the paper.
 *
 * @param write it in one unit; what comes out the same in both is written once.
 */
export function inUnits(
  { units, fineness }: { readonly units: PaperUnits; readonly fineness: Fineness },
  write: (shown: Shown) => string,
): string {
  if (units !== 'both') return write({ system: units, fineness });
  const [mm, inch] = (['mm', 'inch'] as const).map((system) => write({ system, fineness }));
  return mm === inch || inch === '' ? mm : `${mm} (${inch})`;
}
