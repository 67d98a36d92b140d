import * as z from 'zod';
import {
  FOOTPRINTS,
  choice,
  footFaces,
  footprint,
  measure,
  optionalMeasure,
  type Foot,
  type FootprintKind,
  type Support,
} from '@isometra/core';
import { CASTINGS, type Casting } from '@isometra/contract';

/** What a footprint is begun from. @param spindle the spindle sits in it: places are counted from its nose. */
export const presetOf = (spindle: boolean) =>
  z.strictObject({
    kind: choice({
      label: 'It sits on',
      choices: FOOTPRINTS.map(({ id, name }) => ({ value: id, label: name })) as { value: FootprintKind; label: string }[],
    }),
    near: measure('length', {
      label: spindle ? 'Spindle nose to the nearest faces' : 'Its front end to the nearest faces',
      min: 0,
      max: 5000,
      example: '40 mm',
    }),
    length: measure('length', { label: 'Nearest to farthest faces', above: 0, max: 10_000, example: '290 mm' }),
    width: measure('length', { label: 'Across, middle to middle', above: 0, max: 10_000, example: '210 mm' }),
    height: measure('length', {
      label: spindle ? 'Centre above the faces' : 'Its top above the faces',
      above: 0,
      max: 10_000,
      example: '200 mm',
    }),
    angle: optionalMeasure('angle', {
      label: 'Angle of the vee or dovetail',
      above: 0,
      below: 180,
      example: '90',
      rare: true,
      help: 'Included angle of a vee, 90 when left out; of a dovetail, 55.',
    }),
  });
export type Preset = z.output<ReturnType<typeof presetOf>>;

/** A mill counts x, y, z: to the right, toward the column, up. */
function asMill(support: Support): Support {
  const turned = ([along, up, toward]: readonly number[]): [number, number, number] => [along, -toward, up];
  return { ...support, at: turned(support.at), normal: turned(support.normal) };
}

/** A casting as its preset makes it: faces, origin at the centre's height over the nose, and the nose watched. */
export function castingFrom(id: string, frame: Casting['frame'], preset: Preset): Casting {
  const { kind = 'vee-flat', near, length, width, height, angle } = preset;
  const supports = footprint(kind, { near, length, width, angle: angle ?? FOOTPRINTS.find((entry) => entry.id === kind)?.angle });
  const origin: Casting['origin'] = frame === 'lathe' ? [0, height, 0] : [0, 0, height];
  return {
    id,
    name: CASTINGS.find((entry) => entry.id === id)?.name ?? id,
    frame,
    origin,
    supports: frame === 'lathe' ? supports : supports.map(asMill),
    watch: [{ id: 'nose', at: [...origin] }],
  };
}

/** The foot of a column: its four corners, counted from its middle. */
export const footCasting = (id: string, foot: Foot): Casting => ({
  ...{ id, name: CASTINGS.find((entry) => entry.id === id)?.name ?? id, frame: 'mill', origin: [0, 0, 0], watch: [] },
  supports: footFaces(foot),
});
