import svgpath from 'svgpath';
import { shifted, turned, within, type BentPicture, type Drawn, type Matrix, type PictureWord } from '../shapes.js';
import { cleared, type Box, type Lying } from './clearLabels.js';
import { SCENE_WIDTH, type Scene, type SceneCircle, type SceneNode, type ScenePath, type SceneWords, type Standing } from './scene.js';

/** Letters of the paper, in units of the drawing: how high a line is, and how wide a text. */
export interface Letters {
  readonly line: number;
  readonly width: (text: string) => number;
}

const SAME: Matrix = [1, 0, 0, 1, 0, 0];
const MIRRORED: Matrix = [1, 0, 0, -1, 0, 0];

function matrixOf({ move = [0, 0], turn = [0], mirrored }: Standing = {}): Matrix {
  const [degrees, x = 0, y = 0] = turn;
  return within(within(shifted(...move), turned(degrees, x, y)), mirrored ? MIRRORED : SAME);
}

/** A word where it would stand, and which way it gives way. */
interface Label {
  readonly words: SceneWords;
  readonly x: number;
  readonly y: number;
  readonly gives: Lying['gives'];
}

interface Flat {
  readonly drawn: Drawn[];
  readonly labels: Label[];
  /** What no label may lie on. */
  readonly seats: Box[];
}

/** How a line or an area is drawn. */
const styleOf = ({ look, out, opacity, dashed }: ScenePath | SceneCircle) => ({
  look: look === 'ghost' && out ? ('ghost-out' as const) : look,
  ...(opacity !== undefined && { opacity }),
  ...(dashed && { dashed }),
});

function boxOf(d: string, at: Matrix): Box {
  const [xs, ys]: [number[], number[]] = [[], []];
  svgpath(d)
    .matrix([...at])
    .abs()
    .iterate((segment, _i, x, y) => {
      const [command, ...numbers] = segment;
      if (command === 'Z') return;
      xs.push(command === 'V' ? x : numbers[command === 'H' ? 0 : numbers.length - 2]);
      ys.push(command === 'H' ? y : (numbers.at(-1) as number));
    });
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

function walk(nodes: readonly SceneNode[], at: Matrix, flat: Flat, inMark: boolean): void {
  for (const node of nodes) {
    switch (node.kind) {
      case 'words': {
        const [a, b, c, d, e, f] = at;
        const { x, y } = node;
        if (node.text.trim() !== '')
          flat.labels.push({ words: node, x: a * x + c * y + e, y: b * x + d * y + f, gives: !inMark ? 0 : y < 0 ? -1 : 1 });
        break;
      }
      case 'path': {
        if (node.d === '') break;
        const own = within(at, matrixOf(node.at));
        flat.drawn.push({ ...styleOf(node), d: node.d, at: own });
        if (inMark && node.look === 'seat') flat.seats.push(boxOf(node.d, own));
        break;
      }
      case 'circle': {
        const { x, y, r } = node;
        flat.drawn.push({ ...styleOf(node), circle: { x, y, r }, at });
        if (inMark && node.look === 'seat') flat.seats.push(boxOf(`M${x - r} ${y - r}L${x + r} ${y + r}`, at));
        break;
      }
      case 'side':
        // Where the stylus does not stand there is nothing on paper to point at.
        if (node.chosen) walk(node.of, within(at, matrixOf(node.at)), flat, inMark);
        break;
      default:
        walk(node.of, within(at, matrixOf(node.at)), flat, inMark || node.kind === 'mark');
    }
  }
}

const LEFT_OF = { start: 0, middle: 0.5, end: 1 } as const;

/** A drawing of a method as it is printed: no label on another, on a mark or over the edge. What finds no place is left out. */
export function onPaper({ of, told, height }: Scene, letters: Letters): BentPicture {
  const flat: Flat = { drawn: [], labels: [], seats: [] };
  walk(of, SAME, flat, false);
  const lying = flat.labels.map(({ words: { text, anchor }, x, y, gives }): Lying => {
    const width = letters.width(text);
    const left = x - LEFT_OF[anchor] * width;
    return { left, right: left + width, top: y - 0.8 * letters.line, bottom: y + 0.2 * letters.line, gives };
  });
  const free = cleared(lying, { left: 0, right: SCENE_WIDTH, top: 0, bottom: height }, flat.seats);
  const words = flat.labels.flatMap(({ words: { text, anchor, reading }, x, y }, i): PictureWord[] => {
    const by = free[i];
    return by ? [{ text, x: x + by.right, y: y + by.down, anchor, ...(reading && { strong: true as const }) }] : [];
  });
  return { width: SCENE_WIDTH, height, told, drawn: [...flat.drawn, ...words] };
}
