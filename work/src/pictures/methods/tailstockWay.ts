import { alongLine, drawnOff, figure, profileOf } from './model.js';
import { iron, mark, moved, profile, reading, seat, thin, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 150;
const RIGHT = 620;

/** The bed from above: the saddle on its outer ways carries an indicator along the way of the tailstock. */
export function tailstockWay({ setup, marks }: MethodInputs): Scene {
  const rear = setup['side'] === 'rear';
  const x = alongLine(marks, LEFT, RIGHT);
  const off = drawnOff(marks, 9, ({ keys }) => keys['turn']);
  const side = rear ? -1 : 1;
  const stations = marks.map((one, i) => {
    const turned = one.keys['turn'] === 180 ? 9 : 0;
    const by = off.get(one) ?? 0;
    // The stylus stands on the side it reads from; what comes toward it is drawn toward it.
    return { mark: one, x: x[i] + turned, y: (rear ? 92 : 172) + side * by, textY: side * ((turned ? 46 : 31) - by) + 4 };
  });
  // What was read, once for each way round.
  const lines = [undefined, 0, 180].map((turn) => profileOf(stations.filter((one) => one.mark.keys['turn'] === turn))).filter(Boolean);
  // The saddle stands where the next reading is.
  const saddle = stations.filter((one) => one.mark.state === 'next').slice(0, 1);
  return {
    height: 270,
    told: 'Bed from above, with the places along the tailstock’s way',
    of: [
      words(8, 18, 'from above'),
      iron('M100 44H710V54H100Z M100 216H710V232H100Z M100 224H710'),
      iron('M100 96H710V106H100Z M100 156H710V168H100Z M100 162H710', { opacity: 0.5 }),
      iron('M12 36H100V240H12Z'),
      words(20, 60, 'headstock'),
      words(410, 262, 'operator', 'middle'),
      ...saddle.map((at) =>
        moved(at.x, 0, [thin('M-46 38H46V62H20V208H46V238H-46V208H-20V62H-46Z'), thin(rear ? 'M0 62V80' : 'M0 208V186')]),
      ),
      ...lines.map((line) => profile(line)),
      ...stations.map((at) =>
        mark(at.mark, at.x, at.y, [seat(rear ? 'M0 0 8 -15H-8Z' : 'M0 0 8 15H-8Z'), reading(0, at.textY, figure(at.mark.text))]),
      ),
    ],
  };
}
