import { figure, type MethodMark } from './model.js';
import { axis, iron, mark, moved, reading, seat, words, type MethodInputs, type Scene } from './scene.js';

interface Spot {
  readonly x: number;
  readonly y: number;
  /** Which way the stylus comes: from above, from the right along the axis. */
  readonly from: 'above' | 'axis';
  readonly name: string;
}

/** Where the named places of a headstock are on its side view. */
const SPOTS: Readonly<Record<string, Spot>> = {
  front: { x: 404, y: -34, from: 'above', name: 'front bearing' },
  rear: { x: 120, y: -34, from: 'above', name: 'rear bearing' },
  noseRadial: { x: 466, y: -30, from: 'above', name: 'nose' },
  taperNear: { x: 506, y: -12, from: 'above', name: 'taper, mouth' },
  taperFar: { x: 660, y: -12, from: 'above', name: 'bar, far' },
  face: { x: 492, y: 24, from: 'axis', name: 'face' },
  axialSlip: { x: 676, y: 0, from: 'axis', name: 'along the axis' },
  radial: { x: 560, y: -6, from: 'above', name: 'point of the centre' },
};

const TIPS = { above: 'M0 0 8 -15H-8Z', axis: 'M0 0 15 -8V8Z' } as const;

/** The place of a mark: its feature or its bearing. */
const spotOf = ({ keys }: MethodMark): Spot | undefined => SPOTS[String(keys['feature'] ?? keys['place'] ?? '')];

/** A headstock from the side, with the places that have a name: bearings, nose, taper, face, point. */
export function headstockSide({ marks }: MethodInputs): Scene {
  const taken = new Map<Spot, number>();
  const spots = marks.flatMap((one) => {
    const spot = spotOf(one);
    if (!spot) return [];
    const before = taken.get(spot) ?? 0;
    taken.set(spot, before + 1);
    // The two readings of a place stand side by side, further ones above them.
    const [column, row] = [before % 2, Math.floor(before / 2)];
    const above = spot.from === 'above';
    const word = String(one.keys['extreme'] ?? one.keys['stroke'] ?? '');
    const text = figure(one.text) || (one.state === 'next' ? word : '');
    return [
      mark(one, spot.x + (above ? (column ? 17 : -17) : row * 34), spot.y + (above ? -row * 34 : column ? 12 : -12), [
        seat(TIPS[spot.from]),
        reading(above ? (column ? 14 : -14) : 40, above ? -20 : 5, text),
      ]),
    ];
  });
  const names = [...taken.keys()].map(({ name, x, y, from }) =>
    words(from === 'axis' ? x + 4 : x, from === 'axis' ? y + 40 : 92, name, 'middle'),
  );
  return {
    height: 270,
    told: 'Headstock from the side, with the places to read',
    of: [
      moved(0, 138, [
        iron('M70 -70H440V70H70Z'),
        iron('M96 -30H144V30H96Z M380 -30H428V30H380Z', { opacity: 0.6 }),
        iron('M40 -18H440V18H40Z', { opacity: 0.6 }),
        iron('M440 -30H488V30H440Z'),
        iron('M488 -9H672V9H488Z', { opacity: 0.6 }),
        axis('M20 0H705'),
        ...spots,
        ...names,
      ]),
    ],
  };
}
