import * as z from 'zod';
import { FRAMES } from '@isometra/core';
import type { Casting } from '@isometra/contract';
import { sameAsKept } from '../data/round-shown';

/** What a job card of a whole casting was planned from: what its round asked for, and the faces of the machine card. */
const basisSchema = z.object({
  /** By pose component: the wanted change, µm or µm/m, 0 for what is in. */
  asked: z.record(z.string(), z.number()),
  faces: z.array(z.unknown()),
});
export type SeatBasis = z.infer<typeof basisSchema>;

interface Found {
  readonly value: number;
  readonly aim: number | null;
  readonly verdict: string | null;
}

/** The change of each pose component that a round asks for, µm or µm/m: target less value, 0 for what is in. */
export function askedOfCasting(quantities: Readonly<Record<string, Found>>, frame: Casting['frame']): Record<string, number> {
  const names: readonly string[] = FRAMES[frame].components.map(([name]) => name);
  return Object.fromEntries(
    Object.entries(quantities).flatMap(([name, { aim, value, verdict }]) =>
      names.includes(name) && aim !== null ? [[name, verdict === 'in' ? 0 : Math.round((aim - value) * 10) / 10]] : [],
    ),
  );
}

/** By how much a figure may differ that a plan was made from, µm or µm/m. */
const SAME = 0.5;

/**
 * Why a plan of a whole casting no longer holds: its round was corrected since, or its faces on the machine card were changed.
 * '' where it holds, and for cards that were begun before this was kept.
 *
 * @param asked what the round asks for now, by pose component.
 */
export function seatPlanOutdated(
  plan: Readonly<Record<string, unknown>>,
  asked: Readonly<Record<string, number>>,
  faces: readonly unknown[],
): string {
  const basis = basisSchema.safeParse(plan['from']).data;
  if (!basis) return '';
  const corrected = Object.entries(basis.asked).some(([name, was]) => Math.abs((asked[name] ?? 0) - was) > SAME);
  const moved = !sameAsKept(faces, basis.faces);
  if (!corrected && !moved) return '';
  const why = corrected ? 'The round has been corrected' : 'The faces on the machine card have been changed';
  return `${why} since this casting was planned, so the amounts below no longer hold. Plan the casting again.`;
}
