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
  words,
  type MethodInputs,
  type Scene,
  type SceneSide,
} from './scene.js';

const FOOT = 250;
const TALL = 190;
/** Two elevations: from the front sideways is seen, from the right front to back. */
const VIEWS = [
  { axis: 'x', title: 'from the front', near: 'left', far: 'right', at: 190, sides: ['left', 'right'] },
  { axis: 'y', title: 'from the right', near: 'you', far: 'column', at: 530, sides: ['operator', 'column'] },
] as const;
type Side = (typeof VIEWS)[number]['sides'][number];

const SIDE_WORDS: Readonly<Record<Side, string>> = {
  left: 'left-hand side',
  right: 'right-hand side',
  operator: 'your side',
  column: 'column side',
};

/**
 * A column from the front and from the right, with a square on the table before it and the heights at which its blade is
 * read. The column is drawn leaning as it was found; the side of the blade on which the stylus stands is pointed at.
 */
export function columnInElevation({ setup, marks, result }: MethodInputs): Scene {
  const factor = exaggeration([result.h, result.v], 16, TALL / 1000);
  const stands = (typeof setup['side'] === 'object' ? (setup['side'] ?? {}) : {}) as Partial<Record<'x' | 'y', Side>>;
  const views = VIEWS.map((view) => {
    const lean = (view.axis === 'x' ? result.h : result.v) ?? 0;
    // Seen from the right the operator stands on the left: the top toward the operator goes left.
    const way = view.axis === 'x' ? 1 : -1;
    const turn = seen(((way * lean) / 1e6) * factor * (180 / Math.PI));
    const sides = view.sides.map((value, i): SceneSide => {
      const [x, degrees] = i === 0 ? [-96, -90] : [-84, 90];
      return {
        kind: 'side',
        words: `the ${SIDE_WORDS[value]}`,
        chosen: stands[view.axis] === value,
        sets: { side: { ...stands, [view.axis]: value } },
        at: { move: [x, 74] },
        of: [arrow('M0 0 9 -17H-9Z', { at: { turn: [degrees] } })],
      };
    });
    return moved(view.at, 0, [
      words(0, 16, view.title, 'middle'),
      iron('M-140 250H140V268H-140Z', { opacity: 0.5 }),
      group({ turn: [turn, 78, 250] }, [iron('M48 250V48H108V250Z', { opacity: 0.7 }), ghost('M78 250V40', result.out)]),
      axis('M78 250V36'),
      iron('M-96 250V50H-84V238H-20V250Z'),
      ...sides,
      words(-140, 290, view.near),
      words(140, 290, view.far, 'end'),
      ...placed(marks, view.axis),
    ]);
  });
  return {
    height: 316,
    told: 'Column from the front and from the right, with the heights to read',
    of: [...views, ...errorsDrawn(312, factor, result)],
  };
}

function placed(marks: MethodInputs['marks'], view: 'x' | 'y') {
  const own = marks.filter(({ keys }) => keys['axis'] === view);
  const top = Math.max(1, ...own.map(({ keys }) => Number(keys['at'])));
  return own.map((one) => {
    const flipped = one.keys['flip'] === true;
    // A gap is written where it is, between the blade and the column.
    const inside = flipped || one.keys['shim'] !== undefined;
    const y = seen(FOOT - 26 - (Number(one.keys['at']) / top) * (TALL - 70)) - (flipped ? 15 : 0);
    return mark(one, -90, y, [circle('seat', 7), reading(inside ? 24 : -14, 5, figure(one.text), inside ? 'start' : 'end')]);
  });
}
