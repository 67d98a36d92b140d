import { alongLine, drawnOff, figure } from './model.js';
import {
  axis,
  circle,
  iron,
  mark,
  moved,
  reading,
  seat,
  seenAt,
  thin,
  where,
  words,
  type MethodInputs,
  type Scene,
  type SceneNode,
} from './scene.js';

/** Arrows of the hand: pushing comes from the left, pulling goes back to it. */
const ARROWS = { push: 'M-70 -7H-24V-16L0 0L-24 16V7H-70Z', pull: 'M0 -7H-46V-16L-70 0L-46 16V7H0Z' } as const;
const ROW = 142;
const MORE = 92;

/** A slide on its guide, pushed and pulled by hand against an indicator; a row for locks off and one for locks on. */
export function pushPull(inputs: MethodInputs): Scene {
  const rows = strokes(inputs);
  const base = baseOf(inputs);
  const felt = feltAlong(inputs);
  const [baseAt, feltAt] = [rows.length * ROW, rows.length * ROW + (base.length ? MORE : 0)];
  return {
    height: feltAt + (felt.length ? MORE : 8),
    told: 'Slide on its guide, pushed and pulled',
    of: [
      ...rows.map((row, i) => moved(0, i * ROW, row)),
      ...where(base.length, moved(360, baseAt + 50, base)),
      ...where(felt.length, moved(0, feltAt, felt)),
    ],
  };
}

function strokes({ marks }: MethodInputs): (readonly SceneNode[])[] {
  const own = marks.filter(({ keys }) => keys['stroke'] !== undefined);
  const off = drawnOff(own, 18, undefined, true);
  const rowOf = (one: (typeof own)[number]) => (one.keys['locks'] ? `locks ${String(one.keys['locks'])}` : '');
  return [...new Set(own.map(rowOf))].map((name) => [
    words(8, 18, name),
    iron('M230 108H590V134H230Z M280 108 292 90H528L540 108Z', { opacity: 0.6 }),
    iron('M262 34H558V108H546L534 86H286L274 108H262Z'),
    thin('M640 20V134M640 62H606'),
    iron('M606 55H570V69H606Z M570 62H560'),
    ...own
      .filter((one) => rowOf(one) === name)
      .map((one) => {
        const stroke = one.keys['stroke'] === 'pull' ? 'pull' : 'push';
        const by = off.get(one);
        return mark(one, 246, stroke === 'push' ? 50 : 90, [
          seat(ARROWS[stroke]),
          reading(-84, 5, [stroke, figure(one.text)].filter(Boolean).join(' '), 'end'),
          ...where(by !== undefined, seenAt(`M${312 + (by ?? 0)} -10V10`)),
        ]);
      }),
  ]);
}

/** Where the stylus stands, on slides whose play is brought to their guide: drawn to scale, and carried along it. */
function baseOf({ setup, held, length = (mm) => `${Number(mm.toFixed(1))} mm` }: MethodInputs): readonly SceneNode[] {
  const { guideLength, distance } = setup as { readonly guideLength?: number; readonly distance?: number };
  if (guideLength === undefined || distance === undefined) return [];
  const most = Math.max(guideLength, 2 * distance);
  const scale = 300 / most;
  const now = held ?? distance;
  const [half, x] = [(guideLength / 2) * scale, now * scale];
  return [
    words(-352, -22, 'guide and stylus, from above'),
    words(x / 2, 40, length(now), 'middle'),
    iron(`M${-half} -9H${half}V9H${-half}Z`, { opacity: 0.6 }),
    axis('M0 -16V16'),
    thin(`M0 22H${x}M0 17V27M${x} 17V27`),
    {
      kind: 'slider',
      label: 'Middle of the guide to the stylus',
      ...{ distance: now, most, words: length(now), scale, from: 360 },
      at: { move: [x, 0] },
      of: [seat('M0 -9 7 -24H-7Z'), seat('M-16 -40H16V-24H-16Z')],
    },
  ];
}

/** Where the drag is felt; the tightest place rules. */
function feltAlong({ marks }: MethodInputs): readonly SceneNode[] {
  const own = marks.filter(({ keys }) => keys['stroke'] === undefined);
  if (own.length === 0) return [];
  const x = alongLine(own, 150, 630);
  const most = Math.max(...own.map(({ text }) => Number(text || NaN)).filter((drag) => !Number.isNaN(drag)), -1);
  return [
    words(8, 18, 'drag, along the travel'),
    iron('M120 40H660V50H120Z', { opacity: 0.5 }),
    ...own.map((one, i) => {
      const tightest = most > 0 && one.text !== '' && Number(one.text) === most;
      return mark(one, x[i], 45, [circle('seat', tightest ? 13 : 8), reading(0, 38, `${one.text}${tightest ? ' tightest' : ''}`)]);
    }),
  ];
}
