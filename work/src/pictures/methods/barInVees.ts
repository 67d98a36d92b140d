import { alongLine, drawnOff, figure } from './model.js';
import { axis, iron, mark, reading, seat, type MethodInputs, type Scene } from './scene.js';

const LEFT = 110;
const RIGHT = 610;

/** A test bar in two vees, turned by hand: each place is read at the highest and the lowest of a turn. */
export function barInVees({ marks }: MethodInputs): Scene {
  const x = alongLine(marks, LEFT, RIGHT);
  const off = drawnOff(marks, 9);
  const places = marks.map((one, i) => {
    const { extreme } = one.keys;
    const side = extreme === 'high' ? -11 : extreme === 'low' ? 11 : 0;
    const by = off.get(one) ?? 0;
    return mark(one, x[i] + side, 94 - by, [
      seat('M0 0 8 -15H-8Z'),
      reading(0, (extreme === 'low' ? -50 : -31) + by, [extreme, figure(one.text)].filter(Boolean).join(' ')),
    ]);
  });
  return {
    height: 224,
    told: 'Test bar in two vees, with the places to read',
    of: [
      iron('M20 190H700V206H20Z'),
      iron('M150 190 164 130H196L210 190Z M510 190 524 130H556L570 190Z', { opacity: 0.6 }),
      iron('M70 106H650V132H70Z'),
      axis('M40 119H690'),
      axis('M52 100a26 26 0 0 0 0 40M44 132 52 141 56 129'),
      ...places,
    ],
  };
}
