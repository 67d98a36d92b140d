import type { HeightAt } from '../checks/estimate.js';
import { minimumZoneLines, type ZoneLines } from '../fit/hull.js';
import { fitLine } from '../fit/line.js';
import { groupReadings } from '../instruments/slots.js';
import { readSheet } from './sheet.js';

/** A profile to be drawn: the heights, the line through them and the narrowest zone that holds them. */
export interface WayProfile {
  readonly points: readonly HeightAt[];
  /** µm per mm, and µm at 0. */
  readonly line: { readonly slope: number; readonly at0: number };
  readonly zone: ZoneLines;
  /** Where the profile lies farthest off its line, mm. */
  readonly worstAt: number;
}

/**
 * The profile of a sheet, when its check has one and three places were read. Set-ups are taken
 * together: what is drawn is the mean.
 *
 * @throws FaultError when the sheet makes no sense.
 */
export function wayProfile(raw: unknown): WayProfile | undefined {
  const sheet = readSheet(raw);
  const { slots } = groupReadings(sheet.readings, sheet.check.slotKeys);
  const sets = [...new Set(slots.map((slot) => slot.set))].map((set) => slots.filter((slot) => slot.set === set));
  const profiles = sets.map((set) => sheet.check.profile?.(sheet.setup, set) ?? []);
  const points = meanOf(profiles);
  if (points.length < 3) return undefined;
  const [x, y] = [points.map((point) => point.at), points.map((point) => point.height)];
  const { slope, at0, residuals } = fitLine(x, y);
  const sizes = residuals.map(Math.abs);
  return { points, line: { slope, at0 }, zone: minimumZoneLines(x, y), worstAt: x[sizes.indexOf(Math.max(...sizes))] };
}

/** Mean height of each place over the profiles that have it. */
function meanOf(profiles: readonly (readonly HeightAt[])[]): HeightAt[] {
  const heights = new Map<number, number[]>();
  for (const { at, height } of profiles.flat()) heights.set(at, [...(heights.get(at) ?? []), height]);
  return [...heights]
    .map(([at, all]) => ({ at, height: all.reduce((sum, height) => sum + height, 0) / all.length }))
    .sort((a, b) => a.at - b.at);
}
