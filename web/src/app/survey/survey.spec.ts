import { startingSheet } from '@isometra/core';
import { barRound, openShop, show, survey } from '../testing/fake-shop';
import { FRAME } from '@isometra/work/pictures';
import { Survey } from './survey';

describe('the survey', () => {
  it('draws what is known now and says it in words', async () => {
    await openShop([barRound(60, 30), barRound(-21, 9)]);
    const page = await show(Survey);
    expect(page.text()).toContain('Tailstock: 0.021 mm away from you (bar between centres, ');
    expect(page.text()).toContain('Bed twist: not measured.');
    expect(page.text()).toMatch(/errors drawn ×\d+/);
    expect(page.text()).toContain('Next: Bar between centres.');
  });

  it('goes back in time to as found', async () => {
    await openShop([barRound(60, 30), barRound(-21, 9)]);
    const page = await show(Survey);
    const back = async () => {
      page.element.querySelector('[role=slider]')?.dispatchEvent(new KeyboardEvent('keydown', { code: 'ArrowLeft', bubbles: true }));
      await page.fixture.whenStable();
    };
    const shift = () => page.all('.iron[d^="M820 -44"]')[0].getAttribute('transform');
    const now = shift();
    await back();
    expect(page.text()).toContain('Tailstock: 0.060 mm toward you (bar between centres, ');
    expect(shift()).not.toBe(now);
    await back();
    expect(page.text()).toContain('before anything was measured');
  });

  it('ghost lines stand at the limits of the survey', async () => {
    await openShop([barRound(60, 30)], {
      prepare: (server) => {
        server.surveys = [{ ...survey(), judge: startingSheet('toolroom') }];
      },
    });
    const page = await show(Survey);
    const factor = Number(/×(\d+)/.exec(page.text())?.[1]);
    const at = (um: number, sign: number) => sign * (um / 1e6) * FRAME.perMetre * factor;
    const heights = (selector: string, form: RegExp) =>
      page
        .all(selector)
        .map((line) => form.exec(line.getAttribute('d') ?? '')?.[1])
        .filter((height) => height !== undefined)
        .map(Number);
    const meets = (found: number[], wanted: number[]) => {
      found.forEach((height, i) => expect(height).toBeCloseTo(wanted[i], 6));
      expect(found.length).toBe(wanted.length);
    };
    meets(heights('.zone', / (-?[\d.e-]+)h/), [at(-7.5, 1), at(7.5, 1), at(0, -1), at(10, -1)]);
    // The axis: half of 50 and 67 µm/m, drawn 300 mm out.
    meets(heights('.limit', /L356 (-?[\d.e-]+)/), [0, at(0.3 * 25, 1), 0, at(0.3 * 33.5, -1)]);
    // And the bed at ±10 µm/m per m, at each of five sections.
    const turns = page
      .all('.zone[d="M-44 0H44"]')
      .map((line) => /matrix\(([^ ]+) ([^ ]+)/.exec(line.getAttribute('transform') ?? '') ?? [])
      .map(([, cosine, sine]) => (Math.atan2(Number(sine), Number(cosine)) * 180) / Math.PI);
    expect(turns.length).toBe(10);
    expect(turns[9]).toBeCloseTo((-10e-6 * factor * 180) / Math.PI, 6);
    expect(turns[8]).toBeCloseTo(-turns[9], 9);
  });
});
