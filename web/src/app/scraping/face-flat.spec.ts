import type { Surface } from '@isometra/contract';
import { faceFlat } from './face-flat';

const strip = (id: string, x: number, use: 'bear' | 'relieve' = 'bear') => ({
  ...{ id, use },
  outline: [
    { x, y: 0 },
    { x: x + 50, y: 0 },
    { x: x + 50, y: 20 },
    { x, y: 20 },
  ],
});
const SURFACE = {
  width: 100,
  height: 20,
  turned: 0,
  mirrored: false,
  zones: [strip('1', 0), strip('2', 50, 'relieve')],
} as unknown as Surface;

describe('a face for a file', () => {
  it('is drawn 1 : 1 whatever it looks like on the screen, each strip with its name in its middle', () => {
    const { width, height, lines, words } = faceFlat(SURFACE);
    expect([width, height]).toEqual([100, 20]);
    expect(lines.map(({ points }) => points[2])).toEqual([
      [100, 20],
      [50, 20],
      [100, 20],
    ]);
    expect(lines.map(({ dashes }) => dashes)).toEqual([null, null, '2 1']);
    expect(words.map(({ text, at }) => [text, ...at])).toEqual([
      ['1', 25, 10],
      ['2', 75, 10],
    ]);
  });

  it('lies as it lies on the bench: on its side it is high and narrow, mirrored its first strip is on the right', () => {
    const turned = faceFlat({ ...SURFACE, turned: 90 });
    expect([turned.width, turned.height]).toEqual([20, 100]);
    expect(faceFlat({ ...SURFACE, mirrored: true }).words[0].at).toEqual([75, 10]);
  });
});
