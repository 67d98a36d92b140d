import { refuse } from './define.js';

/** What is asked for when an amount is neither given nor to be had from an angle: a fault's path, message and example. */
type Asked = readonly [path: string, message: string, example: string];

/**
 * What a slope, µm/m, comes to over a distance, mm: the thickness of a shim between supports, the travel of a screw
 * away from a pivot. µm, signed like the slope.
 *
 * @throws FaultError that asks for `amount` where there is no slope, for `distance` where there is nothing it acts over.
 */
export function overDistance(slope: number | undefined, over: number | undefined, amount: Asked, distance: Asked): number {
  if (slope === undefined) return refuse(...amount);
  if (over === undefined) return refuse(...distance);
  return (slope * over) / 1000;
}
