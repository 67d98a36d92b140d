import type { Surface } from '@isometra/contract';
import { middleOf } from '@isometra/work';
import type { FlatDrawing, FlatLine } from '../drawings/flat';
import { faceSize, placeOn } from './face-place';

const ONE = { along: 1, across: 1 };
const INK = '#000';
/** Height of the names, and width of the lines, mm. */
const [WORD, LINE] = [5, 0.2];

/** A face and its zones 1 : 1 as it lies on the bench, mm: to be laid under it, or cut out. On the screen a narrow way is drawn wider. */
export function faceFlat(surface: Surface): FlatDrawing {
  const place = placeOn(surface, ONE);
  const line = (corners: readonly { readonly x: number; readonly y: number }[], dashes: string | null = null): FlatLine => ({
    ...{ points: corners.map(({ x, y }) => place(x, y)), closed: true, stroke: INK, fill: null, strokeOpacity: 1, fillOpacity: 1 },
    ...{ width: LINE, dashes },
  });
  const { width, height, zones } = surface;
  const whole = line([
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ]);
  const strips = zones.map(({ outline, use }) => line(outline, use === 'bear' ? null : '2 1'));
  return {
    ...faceSize(surface, ONE),
    lines: [whole, ...strips],
    words: zones.map((zone) => {
      const { x, y } = middleOf(zone);
      return { text: zone.id, at: place(x, y), size: WORD, turn: 0, colour: INK };
    }),
  };
}
