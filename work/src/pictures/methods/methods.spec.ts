import { CHECKS } from '@isometra/core';
import { practiceRound } from '@isometra/core/practice';
import { isCircle, isWord } from '../shapes.js';
import { METHOD_DRAWINGS, drawMethod, onPaper, type MethodInputs, type MethodMark, type SceneNode } from './index.js';

/** A round of a check with a number for each place of its plan. */
function numbered(id: string, more: Partial<MethodInputs> = {}): MethodInputs {
  const check = CHECKS.get(id);
  if (!check) throw new Error(`no check ${id}`);
  const { setup: raw, readings } = practiceRound(id, 1).sheet as { setup: object; readings: Readonly<Record<string, never>>[] };
  const setup = check.setup.parse(raw);
  const planned = check.slots(setup, check.plan.parse({})).filter(({ closing }) => !closing);
  // A plan that asks nothing of its own is drawn from what was read.
  const keys = planned.length ? planned.map((slot) => slot.keys) : readings.map(({ value: _value, ...rest }) => rest);
  const marks = keys.map((of, index): MethodMark => ({
    index,
    keys: of,
    label: '',
    state: 'todo',
    text: `(${index + 1})`,
    deviation: null,
  }));
  return { setup, marks, result: { h: null, v: null, out: false }, picture: check.picture, ...more };
}

const nodesOf = (nodes: readonly SceneNode[]): SceneNode[] => nodes.flatMap((node) => ['of' in node ? nodesOf(node.of) : [], node].flat());
const letters = { line: 12, width: (text: string) => 6 * text.length };

describe('how a check is read, drawn', () => {
  for (const id of CHECKS.keys())
    it(`${id}: every place is on it once, whatever was found, and on paper no number lies on another or is left out`, () => {
      for (const result of [
        { h: null, v: null, out: false },
        { h: 12, v: -7, out: true },
      ]) {
        const inputs = numbered(id, { result });
        const scene = drawMethod(inputs);
        const marks = nodesOf(scene.of).flatMap((node) => (node.kind === 'mark' ? [node.mark.index] : []));
        expect(marks.sort((a, b) => a - b)).toEqual(inputs.marks.map(({ index }) => index));
        const { drawn, width, height, told } = onPaper(scene, letters);
        expect(told).not.toBe('');
        expect(JSON.stringify(drawn)).not.toMatch(/NaN|null|undefined/);
        const words = drawn.filter(isWord);
        for (const { text } of inputs.marks)
          expect(words.filter((word) => word.text.includes(text)).length)
            .withContext(text)
            .toBe(1);
        const boxes = words.map(({ text, x, y, anchor }) => {
          const wide = letters.width(text);
          const left = x - (anchor === 'end' ? wide : anchor === 'middle' ? wide / 2 : 0);
          return { text, left, right: left + wide, top: y - 9.6, bottom: y + 2.4 };
        });
        for (const { text, left, right, top, bottom } of boxes)
          expect(left >= -5 && right <= width + 5 && top >= -5 && bottom <= height + 5)
            .withContext(`${text} on the drawing`)
            .toBeTrue();
        const over = boxes.flatMap((one, i) =>
          boxes
            .slice(i + 1)
            .filter(
              (other) =>
                one.left + 2 < other.right && other.left + 2 < one.right && one.top + 2 < other.bottom && other.top + 2 < one.bottom,
            )
            .map((other) => `${one.text} on ${other.text}`),
        );
        expect(over).toEqual([]);
      }
    });

  it('there is a drawing for every picture that a check asks for, and none that nobody asks for', () => {
    expect(Object.keys(METHOD_DRAWINGS).sort()).toEqual([...new Set([...CHECKS.values()].map(({ picture }) => picture.drawing))].sort());
  });

  it('what is moved, turned and mirrored on the screen is so on paper', () => {
    const scene = { height: 100, told: 'a test', of: [] as SceneNode[] };
    const path: SceneNode = { kind: 'path', look: 'seat', d: 'M10 0H20', at: { move: [5, 6], turn: [90], mirrored: true } };
    const { drawn } = onPaper({ ...scene, of: [{ kind: 'group', at: { move: [100, 0] }, of: [path] }] }, letters);
    const [shape] = drawn;
    if (isWord(shape) || isCircle(shape)) throw new Error('not a path');
    // 10, 0 is turned to 0, 10 and then moved to 105, 16; mirroring changes nothing on its axis.
    const [a, b, c, d, e, f] = shape.at ?? [1, 0, 0, 1, 0, 0];
    expect([a * 10 + e, b * 10 + f].map((value) => Number(value.toFixed(9)))).toEqual([105, 16]);
    // 0, 1 is mirrored to 0, −1 and turned to 1, 0.
    expect([c, d].map((value) => Number(value.toFixed(9)) + 0)).toEqual([1, 0]);
  });

  it('on paper a side on which the stylus does not stand is not drawn', () => {
    const arrows = (setup: MethodInputs['setup']) =>
      onPaper(drawMethod({ ...numbered('axis-squareness'), setup }), letters).drawn.filter((one) => !isWord(one) && one.look === 'arrow')
        .length;
    expect(arrows({})).toBe(0);
    expect(arrows({ stylus: { reference: '+B', test: '-A' } })).toBe(2);
  });
});
