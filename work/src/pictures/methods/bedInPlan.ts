import { alongLine, drawnOff, figure } from './model.js';
import { axis, circle, iron, mark, reading, seat, thin, vial, where, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 178;
const RIGHT = 622;

/**
 * The bed from above, the operator at the bottom, with the level laid across the ways at each station.
 * Its bubble stands where the reading puts it: toward the side that is high.
 */
export function bedInPlan({ marks }: MethodInputs): Scene {
  const x = alongLine(marks, LEFT, RIGHT);
  const both = new Set(marks.map(({ keys }) => keys['end'])).size > 1;
  const off = drawnOff(marks, 16, undefined, true);
  const levels = marks.map((one, i) => {
    const forward = one.keys['end'] !== 'reversed';
    // Turned end for end it counts the other way: the bubble still goes to the high side, down is the operator's.
    const by = off.get(one);
    const bubble = by === undefined ? undefined : forward ? by : -by;
    return mark(one, x[i] + (both ? (forward ? -13 : 13) : 0), 140, [
      // The marked end of the level: at the operator going forward, at the rear turned round.
      seat(forward ? 'M-9 -64H9V64L0 74L-9 64Z' : 'M-9 64H9V-64L0 -74L-9 -64Z'),
      vial('M-4.5 -22H4.5V22H-4.5Z'),
      ...where(bubble !== undefined, circle('bubble', 4, 0, bubble)),
      reading(0, forward ? -76 : 92, figure(one.text)),
    ]);
  });
  return {
    height: 288,
    told: 'Bed from above, with the level across the ways',
    of: [
      words(8, 18, 'from above'),
      iron('M118 72H704V84H118Z M118 196H704V212H118Z M118 203H704'),
      iron('M16 58H118V226H16Z M118 104H140V176H118Z'),
      axis('M10 140H710'),
      thin('M650 104H704V176H650Z'),
      words(28, 46, 'headstock'),
      words(704, 46, 'tailstock', 'end'),
      words(410, 280, 'operator', 'middle'),
      ...levels,
    ],
  };
}
