import { exaggeration, figure, seen } from './model.js';
import { errorsDrawn, axis, ghost, group, iron, mark, moved, reading, seat, where, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 120;
const RIGHT = 600;
const VIEWS = [
  { plane: 'h', y: 84, title: 'from above' },
  { plane: 'v', y: 252, title: 'from the side' },
] as const;

/**
 * A bar between centres, from above (the operator at the bottom) and from the side. A reading is
 * drawn off the bar by what the stylus saw, and the tail centre where it was found.
 */
export function barBetweenCentres({ setup, marks, result, narrow }: MethodInputs): Scene {
  const apart = narrow ? 1.5 : 1;
  const length = (setup['centreDistance'] as number | undefined) ?? 0;
  const rear = setup['side'] === 'rear';
  const scale = (RIGHT - LEFT) / (length || 1);
  const factor = exaggeration([result.h, result.v], 26, scale);
  const pixels = (offset: number | null): number => seen(((offset ?? 0) / 1000) * scale * factor);

  const views = VIEWS.map(({ plane, y, title }) => {
    // From above + is toward the operator, who stands below; from the side + is up.
    const shift = plane === 'h' ? pixels(result.h) : -pixels(result.v);
    const below = plane === 'h' && !rear;
    const side = below ? 1 : -1;
    const places = marks
      .filter(({ keys }) => keys['plane'] === plane)
      .map((one) => {
        const part = length ? (one.keys['at'] as number) / length : 0;
        const turned = one.keys['turn'] === 180 ? 7 : 0;
        return mark(one, LEFT + part * (RIGHT - LEFT) + turned, seen(shift * part) + side * 14, [
          seat(below ? 'M0 0 8 15H-8Z' : 'M0 0 8 -15H-8Z'),
          reading(0, side * (turned ? 46 : 31) + 4, figure(one.text)),
        ]);
      });
    return moved(0, y * apart, [
      words(8, -68, title),
      iron('M20 -42H96V42H20Z M96 -22H112V22H96Z'),
      iron('M112 -9 128 0 112 9Z'),
      axis('M128 0H640'),
      group({ move: [0, shift] }, [iron('M624 -30H704V34H624Z M608 -12H624V12H608Z'), iron('M608 -9 592 0 608 9Z')]),
      iron(`M120 -13 L600 ${shift - 13} V${shift + 13} L120 13Z`, { opacity: 0.6 }),
      ...where(shift, ghost(`M120 0 L600 ${shift}`, result.out)),
      ...where(plane === 'h', words(360, 58, 'operator', 'middle')),
      ...places,
    ]);
  });
  return {
    height: 326 * apart,
    told: 'Bar between centres, with the places to read',
    of: [...views, ...errorsDrawn(320 * apart, factor, result)],
  };
}
