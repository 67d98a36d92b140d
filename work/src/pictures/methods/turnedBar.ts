import { exaggeration, figure } from './model.js';
import { errorsDrawn, axis, iron, mark, moved, reading, seat, tool, where, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 130;
const RIGHT = 600;

/** A bar turned where it stands, from above: pads to measure, the tool on its side, the tail centre where it was found. */
export function turnedBar({ setup, marks, result }: MethodInputs): Scene {
  const centres = setup['centreDistance'] as number | undefined;
  // Whether a tailstock holds the other end: a bar cut in the chuck alone has none.
  const tail = centres !== undefined;
  const length = centres ?? 1.1 * Math.max(0, ...marks.map(({ keys }) => Number(keys['at'])));
  const scale = (RIGHT - LEFT) / (length || 1);
  const chuck = setup['held'] === 'chuck' || !tail;
  // 1 when the tool stands on the operator's side, which is below.
  const side = setup['tool'] === 'rear' ? -1 : 1;
  const factor = exaggeration([result.h], 30, scale);
  const shift = ((result.h ?? 0) / 1000) * scale * factor;
  // The jaws hide the first of a bar held in the chuck.
  const left = tail ? LEFT : LEFT + 46;
  const pads = marks.map((one) => {
    const part = length ? (one.keys['at'] as number) / length : 0;
    return mark(one, left + part * (RIGHT - left), shift * part, [seat('M-10 -24H10V24H-10Z'), reading(0, -34, figure(one.text))]);
  });
  return {
    height: 250,
    told: 'Turned bar, with the pads to measure',
    of: [
      words(8, 22, 'from above'),
      moved(0, 118, [
        iron('M20 -48H96V48H20Z'),
        iron(chuck ? 'M96 -40H122V40H96Z M122 -30H140V-14H122Z M122 14H140V30H122Z' : 'M96 -22H112V22H96Z M112 -9 130 0 112 9Z'),
        axis('M96 0H660'),
        ...where(tail, moved(0, shift, [iron('M630 -34H706V38H630Z M612 -12H630V12H612Z M612 -9 596 0 612 9Z')])),
        iron(`M${LEFT} -17 L${RIGHT} ${shift - 17} V${shift + 17} L${LEFT} 17Z`),
        tool('M0 -30 9 -14H20V26H-12V-14H-5Z', { at: { move: [360, side * 58], ...(side < 0 && { mirrored: true }) } }),
        words(392, side * 62 + 4, 'tool'),
        words(360, 118, 'operator', 'middle'),
        ...pads,
      ]),
      ...(tail ? errorsDrawn(244, factor, result) : []),
    ],
  };
}
