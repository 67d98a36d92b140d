import { drawnOff, figure, profileOf, type MethodMark } from './model.js';
import { group, iron, mark, moved, profile, reading, seat, vial, words, type MethodInputs, type Scene } from './scene.js';

const LEFT = 40;
const RIGHT = 690;
const ROW = 104;
/** Lower side of the straightedge, over the way. */
const EDGE = -30;

const NAMES: Readonly<Record<string, string>> = {
  forward: 'level as it is, from the side',
  reversed: 'level turned end for end',
  'toward-operator': 'straightedge facing you, from above',
  away: 'rolled over, read from the other side',
};

const rowOf = ({ keys }: MethodMark): string => String(keys['end'] ?? keys['edge'] ?? 'forward');

/**
 * A way and what is laid along it: a level on its foot stepped end to end, each step tilted as it read, or a
 * straightedge beside the way with the indicator run along it. A row for each way of reading.
 */
export function wayFromTheSide({ setup, marks }: MethodInputs): Scene {
  // Length of the level's foot in mm: its steps stand for themselves; none along a straightedge.
  const foot = setup['method'] === 'straightedge' ? undefined : (setup['base'] as number | undefined);
  const long = foot ?? 0;
  const at = marks.map(({ keys }) => Number(keys['at']));
  const [low, high] = [Math.min(...at), Math.max(...at) + long];
  const scale = (RIGHT - LEFT) / (high - low || 1);
  const off = drawnOff(marks, long ? 5 : 9, rowOf, long > 0);
  const half = Math.max(10, (long * scale) / 2 - 2);
  const rows = [...new Set(marks.map(rowOf))].map((name, i) => {
    const places = marks
      .filter((one) => rowOf(one) === name)
      .map((one) => ({
        mark: one,
        x: LEFT + (Number(one.keys['at']) - low + long / 2) * scale,
        // The indicator is carried along the way and reads the edge above it: toward the stylus is down.
        y: EDGE + (off.get(one) ?? 0),
        // + is the far end high; turned end for end the same slope counts the other way. Up is −y.
        tilt: (off.get(one) ?? 0) * (name === 'reversed' ? 1 : -1),
      }));
    return moved(0, 76 + i * ROW, [
      words(8, -58, NAMES[name] ?? name),
      iron('M24 0H706V20H24Z'),
      ...(foot ? [] : [iron('M30 -52H700V-42H30Z', { opacity: 0.5 }), profile(profileOf(places))]),
      ...places.map((place) =>
        mark(place.mark, place.x, 0, [
          foot
            ? group({ turn: [place.tilt] }, [
                seat(`M${-half} 0V-4H${-half + 8}V-16H${half - 8}V-4H${half}V0Z`),
                vial('M-13 -12H13V-5H-13Z'),
              ])
            : seat('M0 0 7 14H-7Z', { at: { move: [0, place.y] } }),
          reading(0, foot ? -30 : 15, figure(place.mark.text)),
        ]),
      ),
    ]);
  });
  return { height: rows.length * ROW + 12, told: 'The way, with the places to read', of: rows };
}
