import { exaggeration, figure, seen } from './model.js';
import {
  errorsDrawn,
  arrow,
  axis,
  circle,
  ghost,
  group,
  iron,
  mark,
  moved,
  reading,
  thin,
  words,
  type MethodInputs,
  type Scene,
  type SceneSide,
} from './scene.js';

/** The corner of the square, and the length of its legs as drawn. */
const CORNER = { x: 150, y: 250 };
const LEG = { reference: 320, test: 200 };
const THICK = 26;
const HEIGHT = 330;

type Leg = keyof typeof LEG;

/**
 * A square on the table from above, the operator at the bottom: its reference leg along the first motion, to the right, its
 * test leg along the second. The four sides on which a stylus may stand are pointed at; beside it a plate of four holes
 * as the two motions would drill it.
 */
export function squareInPlan({ setup, marks, result, picture }: MethodInputs): Scene {
  const down = picture.words?.['drawn'] === 'down';
  const called = picture.words ?? {};
  const factor = exaggeration([result.h], 20, 0.12);
  // By how much the far end of the second motion is drawn off: an obtuse angle takes it to the left.
  const lean = seen(-((result.h ?? 0) / 1e6) * 120 * factor * (down ? -1 : 1));
  // A height on the drawing: +B is up for a mill and down for a lathe.
  const at = (up: number): number => (down ? HEIGHT - up : up);

  const stylus = (setup['stylus'] ?? {}) as Partial<Record<Leg, string>>;
  const side = (leg: Leg, value: string, x: number, up: number, turn: number): SceneSide => ({
    kind: 'side',
    words: called[value] ?? value,
    chosen: stylus[leg] === value,
    sets: { stylus: { ...stylus, [leg]: value } },
    at: { move: [x, at(up)] },
    of: [arrow('M0 0 9 -17H-9Z', { at: { turn: [down && leg === 'reference' ? turn + 180 : turn] } })],
  });

  const names = [
    { of: '+A', x: 478, y: 237 },
    { of: '-A', x: 8, y: 278 },
    { of: '+B', x: 196, y: 52 },
    { of: '-B', x: 340, y: 282 },
  ].flatMap(({ of, x, y }) => (called[of] ? [words(x, at(y) + 5, called[of])] : []));

  const far = (leg: Leg) => Math.max(1, ...marks.filter(({ keys }) => keys['leg'] === leg).map(({ keys }) => Number(keys['at'])));
  const reach = { reference: far('reference'), test: far('test') };
  const placed = marks.map((one) => {
    const leg: Leg = one.keys['leg'] === 'test' ? 'test' : 'reference';
    const part = Number(one.keys['at']) / reach[leg];
    // Read again flipped over, a place stands a little beside itself, and its figure on the other side of the leg.
    const flipped = one.keys['flip'] === true ? 15 : 0;
    const text = figure(one.text);
    return leg === 'reference'
      ? mark(one, seen(CORNER.x + THICK + 24 + part * (LEG.reference - THICK - 40)) + flipped, at(237), [
          circle('seat', 7),
          reading(0, down === flipped > 0 ? 34 : -26, text),
        ])
      : mark(one, 163, at(seen(CORNER.y - THICK - 24 - part * (LEG.test - THICK - 36)) - flipped), [
          circle('seat', 7),
          flipped ? reading(30, 5, text, 'start') : reading(-30, 5, text, 'end'),
        ]);
  });
  const holes = [-60, 60, -60 + lean, 60 + lean].map((x, i) => circle('iron', 6, x, i < 2 ? 60 : -60));
  return {
    height: HEIGHT,
    told: 'Square from above, with the places to read',
    of: [
      words(8, 16, 'from above, you at the bottom'),
      group(down ? { move: [0, HEIGHT], mirrored: true } : {}, [
        iron('M150 50H176V224H470V250H150Z', { opacity: 0.7 }),
        axis('M120 237H520M163 280V28'),
      ]),
      side('reference', '+B', 420, 224, 0),
      side('reference', '-B', 420, 250, 180),
      side('test', '+A', 176, 90, 90),
      side('test', '-A', 150, 90, -90),
      ...names,
      ...placed,
      moved(610, 200, [
        words(0, 88, 'four holes, as drilled', 'middle'),
        thin('M-60 60H60V-60H-60Z', { dashed: true }),
        ghost(`M-60 60H60L${60 + lean} -60H${-60 + lean}Z`, result.out),
        ...holes,
      ]),
      ...errorsDrawn(324, factor, result),
    ],
  };
}
