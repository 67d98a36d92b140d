import * as z from 'zod';
import { HEAD_SWINGS } from '../checks/cautions.js';
import { fieldRegistry, optionalMeasure, optionalNumber } from '../input/fields.js';
import type { CardOf } from './define.js';
import { ISOLATE, turnsInWords, watch, type JobStep, type StepFacts } from './jobSteps.js';

/** The head of a mill on a machine card. */
export const headCard = {
  head: z
    .strictObject({
      pivotDistance: optionalMeasure('length', {
        label: 'Nod pivot behind the spindle',
        above: 0,
        max: 5000,
        example: '450 mm',
        help: 'One stroke at the bench finds it, if it is not known.',
      }),
      bolts: optionalNumber({ label: 'Bolts of the head', min: 2, max: 12, example: '4' }),
      tiltBolts: optionalNumber({
        label: 'Bolts that hold the tilt',
        min: 2,
        max: 12,
        example: '4',
        help: 'Where tilt and nod have bolts of their own.',
      }),
      nodBolts: optionalNumber({ label: 'Bolts that hold the nod', min: 2, max: 12, example: '3' }),
      tiltOver: optionalMeasure('length', { label: 'Tilt: pivot to screw', above: 0, max: 5000, example: '140 mm' }),
      tiltPitch: optionalMeasure('pitch', { label: 'Tilt: screw pitch', above: 0, max: 20, example: '2 mm' }),
      nodOver: optionalMeasure('length', { label: 'Nod: pivot to screw', above: 0, max: 5000, example: '250 mm' }),
      nodPitch: optionalMeasure('pitch', { label: 'Nod: screw pitch', above: 0, max: 20, example: '2 mm' }),
    })
    .optional()
    .register(fieldRegistry, { label: 'Head', group: true }),
};

/** Bolts of a head of which the card says nothing. */
export const USUAL_BOLTS = 4;

/** Bolts that hold what a quantity turns: a set for tilt and one for nod, where the card tells them apart. */
export function headBolts(
  { head = {} }: CardOf<typeof headCard>,
  quantity: string | undefined,
): { readonly count: number; readonly own: boolean } {
  const own = quantity === 'tilt' ? head.tiltBolts : quantity === 'nod' ? head.nodBolts : undefined;
  return { count: own ?? head.bolts ?? USUAL_BOLTS, own: own !== undefined };
}

/** The screws of a head, by what they turn; undefined where the card tells of none. */
export function headScrews({ head = {} }: CardOf<typeof headCard>): Readonly<Record<string, unknown>> | undefined {
  const { tiltOver, tiltPitch, nodOver, nodPitch } = head;
  const ways = {
    ...(tiltOver && tiltPitch && { tilt: { over: tiltOver, pitch: tiltPitch } }),
    ...(nodOver && nodPitch && { nod: { over: nodOver, pitch: nodPitch } }),
  };
  return Object.keys(ways).length ? { ways } : undefined;
}

/**
 * Bolts on a circle in the order in which they are tightened: each as far as can be from the one before, so that the
 * head is not walked round.
 *
 * @example crossOrder(4) // [1, 3, 2, 4]
 */
export function crossOrder(bolts: number): number[] {
  const left = Array.from({ length: bolts }, (_, i) => i);
  const order: number[] = [];
  const apart = (one: number, other: number): number => Math.min((one - other + bolts) % bolts, (other - one + bolts) % bolts);
  while (left.length) {
    const last = order.at(-1);
    const next = last === undefined ? left[0] : left.reduce((best, bolt) => (apart(bolt, last) > apart(best, last) ? bolt : best));
    order.push(next);
    left.splice(left.indexOf(next), 1);
  }
  return order.map((bolt) => bolt + 1);
}

/** The steps of turning a head: eased and not freed, moved by the needle, tightened crosswise with a reading after each bolt. */
export function headSteps(facts: StepFacts<{ readonly turns?: number }, CardOf<typeof headCard>>): JobStep[] {
  const { direction, needle, quantity } = facts;
  const { turns } = facts.plan;
  const { count: bolts, own } = headBolts(facts.card, quantity);
  const held = own ? `bolts that hold the ${quantity}` : 'bolts of the head';
  const other = own ? ` Those that hold the ${quantity === 'tilt' ? 'nod' : 'tilt'} stay tight.` : '';
  const turn = turns === undefined ? '' : ` That is ${turnsInWords(turns)}. Watch the needle.`;
  return [
    { text: 'Lock knee, saddle and quill as they will be used. The table is left alone from here on.', caution: ISOLATE },
    watch(facts),
    {
      text: `Loosen the ${bolts} ${held} by half a turn each, then bring them up finger tight: the head must move when it is tapped, and stay when it is not.${other}`,
      caution: HEAD_SWINGS,
    },
    {
      text: `Turn or tap the head ${direction}${needle ? ', until the needle reads its target' : ''}.${turn} The engraved scale is not to be trusted.`,
      needle: true,
    },
    {
      text: `Tighten a little at a time, crosswise: bolts ${crossOrder(bolts).join(', ')}, and round again. Read after each: the needle is not the same after the last as after the first.`,
      shift: true,
    },
    {
      text: 'Zero the dial again. Clamp the head for use, then read both sides in a new round. Only that round counts.',
    },
  ];
}
