import { bestPlane, pricesOf } from '@isometra/core';
import type { DeskEntry, Surface, Zone } from '@isometra/contract';
import { middleOf } from './deskEntries.js';

type Plan = Extract<DeskEntry, { kind: 'plan' }>['content'];

/** The end of a face that stands high, as it lies in its own drawing. */
export type HighEnd = 'left' | 'right' | 'near' | 'far';

const bearing = ({ zones }: Surface): Zone[] => zones.filter(({ use }) => use === 'bear');

/**
 * Depths for a wedge: 0 at the low end, all of it at the high one, each zone by its middle.
 *
 * @param wedge µm over the length of the face.
 */
export function wedgePlan(surface: Surface, wedge: number, high: HighEnd): Plan {
  const along = ({ x, y }: { readonly x: number; readonly y: number }): number => {
    if (high === 'right') return x / surface.width;
    if (high === 'left') return 1 - x / surface.width;
    return high === 'near' ? y / surface.height : 1 - y / surface.height;
  };
  const raw = bearing(surface).map((zone) => ({ zone: zone.id, depth: wedge * along(middleOf(zone)) }));
  // The lowest zone is left alone: what all of it comes down by tilts nothing.
  const least = Math.min(...raw.map(({ depth }) => depth));
  const depths = raw.map(({ zone, depth }) => ({ zone, depth: depth - least }));
  return { depths, from: 'wedge', why: `a wedge of ${wedge.toFixed(0)} µm, high at the ${high} end` };
}

export interface PlanePlan {
  readonly plan: Plan;
  /** µm in total that leaving a zone out would save, by zone: only those that the plane rests on. */
  readonly prices: readonly { readonly zone: string; readonly saves: number }[];
}

/**
 * Depths down to the best plane under heights read in the middle of each zone: only removal, the least of it.
 *
 * @param heights µm, + high. @param doubt µm of one. @returns undefined where fewer than three were read.
 */
export function planePlan(surface: Surface, heights: Readonly<Record<string, number>>, doubt: number): PlanePlan | undefined {
  const read = bearing(surface).filter(({ id }) => heights[id] !== undefined);
  if (read.length < 3) return undefined;
  const points = read.map((zone) => ({ ...middleOf(zone), height: heights[zone.id], doubt, bear: true }));
  const best = bestPlane(points);
  if (!best) return undefined;
  const prices = pricesOf(points, best);
  return {
    plan: {
      depths: read.map(({ id }, i) => ({ zone: id, depth: best.depths[i] })),
      from: 'plane',
      why: `down to the plane under ${read.length} heights`,
    },
    prices: read.flatMap(({ id }, i) => (prices[i] > 0.5 ? [{ zone: id, saves: prices[i] }] : [])),
  };
}

/** A grid of zones over a face, numbered row by row as they are read, all to bear. */
export function gridZones(width: number, height: number, columns: number, rows: number): Zone[] {
  const [w, h] = [width / columns, height / rows];
  return Array.from({ length: columns * rows }, (_, i) => {
    const [x, y] = [(i % columns) * w, Math.floor(i / columns) * h];
    const corners = [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ];
    return { id: String(i + 1), use: 'bear', outline: corners.map(([u, v]) => ({ x: u, y: v })) };
  });
}

/** Zones one inside the other, as the pen goes round on the iron: the outermost first, each of the next lying on it. */
export function nestedZones(width: number, height: number, count: number): Zone[] {
  return Array.from({ length: count }, (_, i) => {
    const [x, y] = [(i * width) / (2 * count), (i * height) / (2 * count)];
    const corners = [
      [x, y],
      [width - x, y],
      [width - x, height - y],
      [x, height - y],
    ];
    return { id: String(i + 1), use: 'bear', outline: corners.map(([u, v]) => ({ x: u, y: v })) };
  });
}
