import { drawnOff, figure, profileOf } from './model.js';
import { axis, iron, mark, moved, profile, reading, seat, where, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 150;
const RIGHT = 440;
const VIEWS = [
  { plane: 'h', y: 84, title: 'from above' },
  { plane: 'v', y: 234, title: 'from the side' },
] as const;

/** The tailstock with its quill run out, from above (the operator at the bottom) and from the side; places count from the tailstock toward the free end. */
export function quill({ setup, marks, narrow }: MethodInputs): Scene {
  const apart = narrow ? 2 : 1;
  const off = drawnOff(marks, 9, ({ keys }) => `${String(keys['plane'])} ${String(keys['turn'])}`);
  const longest = Math.max(1, ...marks.map(({ keys }) => Number(keys['at'])));
  const views = VIEWS.map(({ plane, y, title }) => {
    const below = plane === 'h' && setup['side'] !== 'rear';
    const side = below ? 1 : -1;
    const places = marks
      .filter(({ keys }) => keys['plane'] === plane)
      .map((one) => {
        const turned = one.keys['turn'] === 180 ? 12 : 0;
        const x = RIGHT - (Number(one.keys['at']) / longest) * (RIGHT - LEFT) + turned;
        return { mark: one, x, y: side * 24 + side * (off.get(one) ?? 0), textY: side * (turned ? 44 : 29) + 4 };
      });
    return moved(0, y * apart, [
      words(8, -56, title),
      iron('M500 -46H690V46H500Z M476 -30H500V30H476Z'),
      iron('M120 -20H476V20H120Z', { opacity: 0.6 }),
      iron('M120 -7 132 0 120 7Z'),
      axis('M60 0H710'),
      ...where(plane === 'h', words(600, 66, 'operator', 'middle')),
      profile(profileOf(places)),
      ...places.map((place) =>
        mark(place.mark, place.x, place.y, [
          seat(below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z'),
          reading(0, place.textY, figure(place.mark.text)),
        ]),
      ),
    ]);
  });
  return { height: 304 * apart, told: 'Quill of the tailstock, with the places to read', of: views };
}
