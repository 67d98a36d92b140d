import { figure } from './model.js';
import { iron, mark, moved, reading, seat, words, type MethodInputs, type Scene } from './scene.js';

const STATES: readonly string[] = ['free', 'pressed', 'clamped'];

/** A casting from above, its corners pressed one after the other: free, pressed, clamped. */
export function seatCorners({ marks }: MethodInputs): Scene {
  const names = [...new Set(marks.map(({ keys }) => String(keys['corner'])))];
  const corners = names.map((name, i) => {
    const up = /rear/.test(name) || (!/front/.test(name) && i > 1);
    const right = /right/.test(name) || (!/left/.test(name) && i % 2 === 1);
    const own = marks.filter(({ keys }) => String(keys['corner']) === name);
    return moved(right ? 480 : 240, up ? 74 : 204, [
      words(0, up ? -26 : 46, name, 'middle'),
      ...own.map((one) => {
        const state = String(one.keys['state']);
        return mark(one, (STATES.indexOf(state) - 1) * 74, 0, [seat('M0 0 8 -15H-8Z'), reading(0, 20, figure(one.text) || state)]);
      }),
    ]);
  });
  return {
    height: 290,
    told: 'Casting from above, with the corners to press',
    of: [iron('M150 50H570V230H150Z'), words(360, 280, 'operator', 'middle'), ...corners],
  };
}
