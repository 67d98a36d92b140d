import { cyclesAnEvening, cyclesLeft, eveningsFor, median, type Expected } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { endsEvening, ofKind, type Grade } from './entries.js';
import type { Hands } from './hand.js';
import type { DeskZone } from './left.js';
import { priceOf } from './plan.js';
import { eveningsOf } from '../notebook/evenings.js';

/** A cheap reading stands for the full check for so many passes at most. */
const EVERY = 3;

/** Planned changes: cycles, evenings, and full checks with their stripping, which are priced apart. */
export interface Forecast {
  readonly cycles: Expected;
  readonly evenings: Expected;
  readonly checks: { readonly count: number; readonly minutes: number } | null;
}

/** Full checks on the way: after every so many passes over the deepest zone, and one when nothing is left. */
function checksFor({ evening: { check, every = EVERY } }: Surface, cycles: number): Forecast['checks'] {
  if (!check) return null;
  const count = Math.max(1, Math.ceil(cycles / every - 1e-9));
  return { count, minutes: count * check };
}

/** Cycles and evenings still to come for the deepest zone; once nothing is left of a plan, how far its forecast was off. */
export function forecastOf(
  surface: Surface,
  entries: readonly DeskEntry[],
  { zones, pass }: { readonly zones: readonly DeskZone[]; readonly pass: Hands['pass'] },
): { readonly forecast: Forecast | null; readonly hindsight: { readonly expected: number; readonly took: number } | null } {
  const plan = ofKind(entries, 'plan').at(-1);
  if (!plan) return { forecast: null, hindsight: null };
  const { session, setUp, cycle } = surface.evening;
  const each = cyclesAnEvening(session, setUp, cycle);
  const grade: Grade = zones.some((zone) => zone.grade === 'rough' && (zone.left ?? 0) > 0) ? 'rough' : 'fine';
  const { from } = pass[grade];
  const expect = (passes: number) => cyclesLeft(from, passes * median(from));
  const left = Math.max(0, ...zones.map((zone) => zone.left ?? 0));
  if (left > 0) {
    const cycles = expect(left);
    return { forecast: { cycles, evenings: eveningsFor(cycles, each), checks: checksFor(surface, cycles.expected) }, hindsight: null };
  }
  const { cycles: planned } = priceOf(surface, plan.content, { rough: pass.rough.depth, fine: pass.fine.depth });
  const expected = eveningsFor(expect(planned), each).expected;
  const took = eveningsOf(entries, endsEvening).filter((evening) => evening.some(({ kind, at }) => kind === 'pass' && at > plan.at)).length;
  return { forecast: null, hindsight: took ? { expected, took } : null };
}
