import { drawnOff, figure, profileOf } from './model.js';
import { axis, iron, mark, profile, reading, seat, thin, where, words, type MethodInputs, type Scene } from './scene.js';

const RADIUS = 104;
const FACE = 236;

/**
 * A disc on the spindle from above, the operator at the bottom, with the indicator on the cross slide. A disc
 * faced here is read from its centre to the rear rim, past where the tool went; one that is turned half round
 * is read right across. The face is drawn as it was read: to the right it comes toward the indicator.
 */
export function facedDisc({ setup, marks }: MethodInputs): Scene {
  // A disc faced on this machine: places count from its centre.
  const faced = setup['method'] !== 'reversed-disc';
  const off = drawnOff(marks, 16, ({ keys }) => keys['turn']);
  const far = Math.max(1, ...marks.map(({ keys }) => Number(keys['at'])));
  const places = marks.map((one) => {
    const part = Number(one.keys['at']) / far;
    return {
      mark: one,
      turned: one.keys['turn'] === 180,
      // Toward the rear is up.
      y: 144 - (faced ? part * (RADIUS - 6) : (2 * part - 1) * (RADIUS - 6)),
      x: FACE + (off.get(one) ?? 0),
    };
  });
  // The face as it was read, once for each way round.
  const lines = [false, true].map((turn) => profileOf(places.filter(({ turned }) => turned === turn))).filter(Boolean);
  return {
    height: 292,
    told: 'Disc from above, with the places on its face',
    of: [
      words(8, 18, 'from above'),
      iron('M20 84H112V204H20Z M112 104H150V184H112Z'),
      iron('M150 40H236V248H150Z'),
      axis('M10 144H250'),
      thin('M560 30V258H620V30Z M540 60H560V90H540Z'),
      thin('M590 50V238M584 58 590 48 596 58M584 230 590 240 596 230'),
      words(712, 22, 'cross slide', 'end'),
      words(240, 282, 'operator', 'middle'),
      ...where(
        places.some(({ turned }) => turned),
        words(318, 30, 'turned half round'),
      ),
      ...where(faced, words(252, 222, 'the tool went here')),
      ...lines.map((line) => profile(line)),
      ...places.map(({ mark: one, x, y, turned }) =>
        mark(one, x, y, [seat('M0 0 15 -8V8Z'), reading(turned ? 92 : 22, 5, figure(one.text), 'start')]),
      ),
    ],
  };
}
