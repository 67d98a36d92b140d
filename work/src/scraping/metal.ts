import type { PrintResult, StoredSurface } from '@isometra/contract';
import { ofKind, removes, taken } from './entries.js';
import { standing } from './faults.js';
import { handsOf, type LearnedPass } from './hand.js';

/** What was done to a face in some time. */
export interface MetalTaken {
  /** Over any of its zones. */
  readonly passes: number;
  readonly blues: number;
  /** Metal off the zone that lost least of it, and off the one that lost most, µm: by the depth of a pass as it was learned. */
  readonly least: number;
  readonly most: number;
  /** Who made the passes, by initials, in the order in which they first did. */
  readonly by: readonly string[];
  /** ISO times of the first and the last of them. */
  readonly from: string;
  readonly to: string;
  /** The last print that was read until then. */
  readonly print: PrintResult | null;
}

/** A time from one moment to another; open where the other is null. ISO times. */
export interface During {
  readonly from: string;
  readonly to: string | null;
}

/**
 * The metal that was taken off a face in some time. Passes that break up a face or relieve it take nothing off all of it, and are not
 * counted.
 *
 * @param elsewhere what passes taught on the other faces of the shop: `learnedOn`.
 * @returns undefined where nothing was taken off.
 */
export function metalTaken(surface: StoredSurface, { from, to }: During, elsewhere: readonly LearnedPass[] = []): MetalTaken | undefined {
  const entries = standing(surface.entries).filter(({ at }) => to === null || at <= to);
  const { took } = handsOf(surface, entries, elsewhere);
  const passes = ofKind(entries, 'pass').filter((pass) => pass.at >= from && removes(pass));
  if (passes.length === 0) return undefined;
  // What is to be relieved or left alone tells nothing of how far the face came down.
  const bearing = surface.zones.filter(({ use }) => use === 'bear');
  const off = (bearing.length ? bearing : surface.zones).map(({ id }) => taken(passes, id, { took }));
  return {
    passes: passes.length,
    blues: ofKind(entries, 'blue').filter(({ at }) => at >= from).length,
    ...{ least: Math.min(...off), most: Math.max(...off) },
    by: [...new Set(passes.map((pass) => pass.by))],
    ...{ from: passes[0].at, to: passes[passes.length - 1].at },
    print: ofKind(entries, 'print').at(-1)?.content.result ?? null,
  };
}
