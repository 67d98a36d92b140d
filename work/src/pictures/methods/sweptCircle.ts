import { exaggeration, figure, seen } from './model.js';
import {
  errorsDrawn,
  along,
  axis,
  circle,
  ghost,
  mark,
  moved,
  reading,
  seat,
  words,
  type MethodInputs,
  type Scene,
  type SceneNode,
} from './scene.js';

const RADIUS = 74;
/** Seen from the headstock the operator is on the right. */
const LATHE: Readonly<Record<string, string>> = { 0: 'operator', 180: 'rear' };

/** What is swept: its centre as a cross, the feature where it was found. A lathe's from the headstock, a mill's from above. */
export function sweptCircle({ setup, marks, result, picture }: MethodInputs): Scene {
  const called: Readonly<Record<string, string | undefined>> = picture.words ?? LATHE;
  const bore = (setup['feature'] ?? (picture.bore && 'bore')) === 'bore';
  const factor = exaggeration([result.h, result.v], 24, 3);
  // Toward the operator is to the right, up is up.
  const at = { x: ((result.h ?? 0) / 1000) * 3 * factor, y: -((result.v ?? 0) / 1000) * 3 * factor };
  const slide = slideAt(setup['slant'], at);
  const placed = marks.map((one) => {
    const degrees = one.keys['angle'] as number;
    const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
    const reach = at.x * c - at.y * s + RADIUS;
    return mark(one, 0, 0, [
      seat('M0 0 8 -15H-8Z', { at: { move: [reach * c, -reach * s], turn: [90 - degrees + (bore ? 180 : 0)] } }),
      reading(122 * c, -122 * s + 4, figure(one.text), Math.abs(c) < 0.3 ? 'middle' : c > 0 ? 'start' : 'end'),
    ]);
  });
  const drawn: readonly SceneNode[] = [
    circle('thin', 112, 0, 0, { dashed: true }),
    axis('M-132 0H132'),
    axis('M0 -132V132'),
    circle('iron', RADIUS, at.x, at.y, { opacity: bore ? 0 : 0.7 }),
    ...(bore ? [circle('iron', RADIUS + 12, at.x, at.y, { opacity: 0 })] : []),
    ...(slide ? [axis(slide.d), along(`M0 0L${slide.x} ${slide.y}`), ghost(`M${slide.x} ${slide.y}L${at.x} ${at.y}`, result.out)] : []),
    ghost(`M0 0L${at.x} ${at.y}`, result.out),
    circle('ghost', 3.5, at.x, at.y, { out: result.out }),
    ...placed,
  ];
  const aside: readonly SceneNode[] = slide
    ? [
        words(8, 262, 'blue, along the slide: the control can cure it'),
        words(8, 282, 'square to it: bolts must'),
        words(712, 22, slide.words, 'end'),
      ]
    : [];
  return {
    height: 300,
    told: 'Sweep, with the places to read',
    of: [
      words(8, 22, `seen ${picture.seen ?? 'from the headstock'}`),
      words(500, 196, called['0'] ?? ''),
      words(220, 196, called['180'] ?? '', 'end'),
      words(382, 20, called['90'] ?? ''),
      words(382, 290, called['270'] ?? ''),
      moved(360, 150, drawn),
      ...aside,
      ...errorsDrawn(294, factor, result),
    ],
  };
}

/** The slide at its slant, through the axis, and the part of the error that lies along it. */
function slideAt(slant: unknown, { x, y }: { readonly x: number; readonly y: number }) {
  if (typeof slant !== 'number') return undefined;
  const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
  // Toward the operator a slide goes down where its rear is the higher: to the right and down.
  const by = x * c + y * s;
  const [dx, dy] = [seen(128 * c), seen(128 * s)];
  return {
    d: `M${-dx} ${-dy}L${dx} ${dy}`,
    x: seen(by * c),
    y: seen(by * s),
    words: slant === 0 ? 'slide lies level' : `slide, ${slant > 0 ? 'rear' : 'front'} higher`,
  };
}
