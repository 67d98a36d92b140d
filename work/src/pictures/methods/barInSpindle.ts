import { figure } from './model.js';
import { axis, iron, mark, moved, reading, seat, where, words, type MethodInputs, type Scene } from './scene.js';

const GRIP = 170;
const END = 620;
const VIEWS = [
  { plane: 'h', y: 82, title: 'from above' },
  { plane: 'v', y: 258, title: 'from the side' },
] as const;

/**
 * A bar held in the spindle and turned by hand, from above (the operator at the bottom) and from the side.
 * Each place is read at the highest and the lowest of a turn.
 */
export function barInSpindle({ setup, marks, narrow }: MethodInputs): Scene {
  // Two readings stand over each other at each place.
  const apart = narrow ? 2 : 1;
  const rear = setup['side'] === 'rear';
  const { freeLength = 0 } = (setup['bar'] ?? {}) as { freeLength?: number };
  const length = Math.max(1, freeLength, ...marks.map(({ keys }) => Number(keys['at'] ?? 0)));
  const placed = (plane: 'h' | 'v') => {
    const below = plane === 'h' && !rear;
    const side = below ? 1 : -1;
    return marks
      .filter(({ keys }) => keys['plane'] === plane)
      .map((one) => {
        const highest = one.keys['extreme'] === 'high';
        const turned = one.keys['turn'] === 180 ? 12 : 0;
        const x = GRIP + (Number(one.keys['at']) / length) * (END - GRIP) + (highest ? -9 : 9) + turned;
        return mark(one, x, side * 13, [
          seat(below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z'),
          reading(0, side * (highest ? 31 : 56) + 4, `${highest ? 'high' : 'low'} ${figure(one.text)}`),
        ]);
      });
  };
  const views = VIEWS.map(({ plane, y, title }) =>
    moved(0, y * apart, [
      words(8, -54, title),
      iron('M20 -44H120V44H20Z M120 -26H150V26H120Z M150 -18H170V18H150Z'),
      axis('M120 0H700'),
      iron('M170 -11H652V11H170Z', { opacity: 0.6 }),
      axis('M60 -28a30 30 0 0 1 0 56M54 22 60 28 66 21'),
      ...where(plane === 'h', words(420, 74, rear ? 'operator (read from the rear)' : 'operator', 'middle')),
      ...placed(plane),
    ]),
  );
  return { height: 336 * apart, told: 'Bar in the spindle, with the places to read', of: views };
}
