import type { Fastening, FoundShim, PartDetails } from '@isometra/contract';
import { SHIM_JOINTS } from '@isometra/contract';

/** A length as the user reads it, from mm. */
export type LengthWords = (millimetres: number) => string;

/** "4 × M8 × 25 cap screw, left-hand thread (tighten anticlockwise), torque as found 25 N m, hidden under the name plate". */
export function fasteningWords({ what, count = 1, thread, torque, hidden }: Fastening): string {
  return [
    count === 1 ? what : `${count} × ${what}`,
    thread === 'left' && 'left-hand thread: loosens clockwise, tightens anticlockwise',
    torque && `torque as found ${torque}`,
    hidden && `hidden: ${hidden}`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** "0.30 mm in 2 layers, headstock on the bed, left front"; without a corner where it is not known. */
export function shimWords({ joint, at, thickness, layers }: FoundShim, length: LengthWords): string {
  const stack = layers === undefined ? length(thickness) : `${length(thickness)} in ${layers} ${layers === 1 ? 'layer' : 'layers'}`;
  return [stack, SHIM_JOINTS.find(({ value }) => value === joint)?.label, at].filter(Boolean).join(', ');
}

/** Cautions of a part: while it comes off, or while it goes back on. Said where the hand is. */
export function partCautions({ lift, load, shims }: PartDetails, way: 'off' | 'on'): readonly string[] {
  return [
    ...(lift === 'two' ? ['Two people lift this part.'] : []),
    ...(lift === 'gear' ? ['Lift it with rated gear, never by hand over an edge.'] : []),
    ...(load === undefined ? [] : [UNDER_LOAD[load][way]]),
    ...(shims?.length ? ['Shim edges cut: wear gloves.'] : []),
  ];
}

const UNDER_LOAD = {
  spring: {
    off: 'Let the spring down before you take the last screw out.',
    on: 'The spring pushes back: keep it guided and your hands clear until the last screw holds.',
  },
  weight: {
    off: 'Block the counterweight before you loosen anything.',
    on: 'Keep the counterweight blocked until every screw is tight.',
  },
  pressure: {
    off: 'Switch the pump off and let the pressure out before you open anything.',
    on: 'Leave the pressure off until everything is tight.',
  },
} as const;
