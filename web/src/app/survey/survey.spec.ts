import { startingSheet } from '@isometra/core';
import { barRound, openShop, show, survey } from '../testing/fake-shop.spec';
import { FRAME } from './picture';
import { Survey } from './survey';

describe('the survey', () => {
  it('draws what is known now and says it in words', async () => {
    openShop([barRound(60, 30), barRound(-21, 9)]);
    const page = await show(Survey);
    expect(page.text()).toContain('Tailstock: 0.021 mm away from you.');
    expect(page.text()).toContain('Bed twist: not measured.');
    expect(page.text()).toMatch(/errors drawn ×\d+/);
    expect(page.text()).toContain('Next: Bar between centres.');
  });

  it('goes back in time to as found', async () => {
    openShop([barRound(60, 30), barRound(-21, 9)]);
    const page = await show(Survey);
    const slider = page.element.querySelector<HTMLInputElement>('input[type=range]') as HTMLInputElement;
    const shift = () => page.all('svg g g[transform]')[0].getAttribute('transform');
    const now = shift();
    slider.value = '1';
    slider.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('Tailstock: 0.060 mm toward you.');
    expect(shift()).not.toBe(now);
    slider.value = '0';
    slider.dispatchEvent(new Event('input'));
    await page.fixture.whenStable();
    expect(page.text()).toContain('before anything was measured');
  });

  it('ghost lines stand at the limits of the survey', async () => {
    const { api, desk } = openShop([barRound(60, 30)]);
    api.surveys = [{ ...survey(), judge: startingSheet('toolroom') }];
    desk.load('lathe').subscribe();
    const page = await show(Survey);
    const factor = Number(/×(\d+)/.exec(page.text())?.[1]);
    const at = (um: number, sign: number) => sign * (um / 1e6) * FRAME.perMetre * factor;
    const heights = page.all('.zone').map((line) => Number(/ (-?[\d.e-]+)h/.exec(line.getAttribute('d') ?? '')?.[1]));
    const wanted = [at(-7.5, 1), at(7.5, 1), at(0, -1), at(10, -1)];
    heights.forEach((height, i) => expect(height).toBeCloseTo(wanted[i], 6));
    expect(heights.length).toBe(4);
  });
});
