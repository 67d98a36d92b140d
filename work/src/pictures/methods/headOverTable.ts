import { exaggeration, figure, seen } from './model.js';
import {
  errorsDrawn,
  axis,
  circle,
  ghost,
  group,
  iron,
  mark,
  moved,
  reading,
  seat,
  thin,
  words,
  type MethodInputs,
  type Scene,
} from './scene.js';

const REACH = 96;
/** From the nose to the pin, and to the blocks, as the silhouettes are drawn. */
const PIN = 62;
const BLOCK = 26;

/**
 * The table of a mill from above, the operator at the bottom and the column at the top, with a block at each place of the
 * sweep; beside it the head from the front for its tilt and from the right for its nod, with the pin it nods on.
 */
export function headOverTable({ marks, result }: MethodInputs): Scene {
  const factor = exaggeration([result.h, result.v], 9, 0.1);
  // Degrees as drawn: the top to the right, the top toward the operator, who stands on the left from there.
  const degrees = (slope: number | null) => seen((((slope ?? 0) / 1e6) * factor * 180) / Math.PI);
  const placed = marks.map((one) => {
    const radians = (Number(one.keys['angle']) * Math.PI) / 180;
    const [c, s] = [Math.cos(radians), Math.sin(radians)];
    const left = c < -0.3;
    return mark(one, seen(REACH * c), seen(-REACH * s), [
      seat('M-11 -11H11V11H-11Z'),
      reading(left ? -17 : 17, 5, figure(one.text), left ? 'end' : 'start'),
    ]);
  });
  return {
    height: 316,
    told: 'Table from above, with a block at each place of the sweep',
    of: [
      words(8, 16, 'from above'),
      iron('M20 44H400V272H20Z', { opacity: 0.5 }),
      thin('M20 100H400M20 108H400M20 154H400M20 162H400M20 208H400M20 216H400'),
      iron('M150 20H270V40H150Z'),
      words(280, 36, 'column'),
      words(210, 306, 'you', 'middle'),
      moved(210, 158, [circle('thin', REACH, 0, 0, { dashed: true }), circle('iron', 15), axis('M-8 0H8M0 -8V8'), ...placed]),
      moved(508, 0, [
        words(0, 16, 'from the front: tilt', 'middle'),
        thin('M-64 140H64'),
        group({ turn: [degrees(result.h), 0, 62] }, [iron('M-26 30H26V96H-26Z M-9 96H9V124H-9Z'), ghost('M0 24V132', result.out)]),
        axis('M0 24V132'),
        circle('iron', 4, 0, 62),
        words(-64, 154, 'left'),
        words(64, 154, 'right', 'end'),
      ]),
      moved(508, 158, [
        words(0, 30, 'from the right: nod', 'middle'),
        thin('M-64 128H90'),
        iron('M96 30H120V140H96Z', { opacity: 0.5 }),
        group({ turn: [-degrees(result.v), PIN, 62] }, [
          iron('M-20 34H20V50H62V74H20V92H-20Z M-9 92H9V114H-9Z'),
          ghost('M0 28V122', result.out),
        ]),
        axis('M0 28V122'),
        circle('iron', 5, PIN, 62),
        words(PIN + 4, 100, 'pin', 'middle'),
        iron(`M${-BLOCK - 5} 118h10v10h-10Z M${BLOCK - 5} 118h10v10h-10Z`),
        words(-64, 148, 'you'),
      ]),
      ...errorsDrawn(312, factor, result),
    ],
  };
}
