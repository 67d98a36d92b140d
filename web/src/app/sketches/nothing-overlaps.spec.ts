import { TestBed } from '@angular/core/testing';
import { CHECKS } from '@isometra/core';
import { practiceRound as roundOf } from '@isometra/core/practice';
import { Bench } from '../bench/bench';
import { Settings } from '../data/settings';
import { openShop, practiceRound, show, until } from '../testing/fake-shop';

/** px by which two boxes may touch: the empty rim round letters. */
const RIM = 3;

const boxOf = (element: Element): DOMRect => element.getBoundingClientRect();
const meet = (one: DOMRect, other: DOMRect): boolean =>
  one.left + RIM < other.right && other.left + RIM < one.right && one.top + RIM < other.bottom && other.top + RIM < one.bottom;
const words = (element: Element): string => (element.textContent ?? '').trim();

/** Labels of a drawing that lie over each other or run over its edge. */
function laidOver(svg: SVGSVGElement): string[] {
  const edge = boxOf(svg);
  const labels = [...svg.querySelectorAll('text')].filter(
    (text) => words(text) !== '' && boxOf(text).width > 0 && text.style.visibility !== 'hidden',
  );
  const over = labels
    .filter((label) => {
      const box = boxOf(label);
      return box.left < edge.left - 4 || box.right > edge.right + 4 || box.top < edge.top - 8 || box.bottom > edge.bottom + 8;
    })
    .map((label) => `"${words(label)}" runs over the edge`);
  const marks = [...svg.querySelectorAll('.mark .seat')].map(boxOf);
  const onMarks = labels
    .filter((label) => marks.some((mark) => meet(boxOf(label), mark)))
    .map((label) => `"${words(label)}" lies on a mark`);
  const pairs = labels.flatMap((one, i) =>
    labels
      .slice(i + 1)
      .filter((other) => meet(boxOf(one), boxOf(other)))
      .map((other) => `"${words(one)}" lies on "${words(other)}"`),
  );
  return [...over, ...onMarks, ...pairs];
}

const frames = async (count: number): Promise<void> => {
  for (let i = 0; i < count; i++) await new Promise((done) => requestAnimationFrame(done));
};

describe('on a drawing', () => {
  const widths = { 'of a laptop': ['mm', 646], 'of a tablet': ['inch', 438], 'of a phone': ['mm', 362] } as const;
  for (const [screen, [system, width]] of Object.entries(widths))
    for (const id of CHECKS.keys())
      it(`${id}, in the width ${screen}: no label lies on another or runs over the edge`, async () => {
        const { sheet } = roundOf(id, 3, { repeat: 0.2 });
        const places = [
          ...new Set(
            (sheet['readings'] as readonly { readonly at?: unknown }[]).flatMap(({ at }) => (typeof at === 'number' ? [`${at} mm`] : [])),
          ),
        ];
        const own = 'places' in (CHECKS.get(id)?.plan.shape ?? {}) && places.length > 1;
        const round = practiceRound(sheet, own ? { plan: { places } } : {});
        await openShop([round]);
        TestBed.inject(Settings).system.set(system);
        const bench = await show(Bench, { checkId: id, roundId: round.id });
        await until(() => bench.all('.sketch svg').length > 0);
        // Labels are cleared in the frame after they were drawn, and again when the drawing was shrunk.
        await frames(3);
        for (const place of bench.all('.sketch')) place.style.width = `${width}px`;
        await bench.fixture.whenStable();
        await frames(3);
        const found = (bench.all('.sketch svg') as unknown as SVGSVGElement[]).flatMap(laidOver);
        expect(found.join(' ¦ ')).toBe('');
        const leftOut = bench
          .all('.sketch svg text')
          .filter((text) => text.style.visibility === 'hidden')
          .map(words);
        if (screen === 'of a laptop') expect(leftOut.join(' ¦ ')).toBe('');
        else expect(leftOut.length).toBeLessThan(bench.all('.sketch svg text').length / 2);
      });
});
