import { barRound, openShop, show } from '../testing/fake-shop.spec';
import { Survey } from './survey';

describe('the survey', () => {
  it('draws what is known now and says it in words', async () => {
    openShop([barRound(60, 30), barRound(-21, 9)]);
    const survey = await show(Survey);
    expect(survey.text()).toContain('Tailstock: 0.021 mm away from you.');
    expect(survey.text()).toContain('Bed twist: not measured.');
    expect(survey.text()).toMatch(/errors drawn ×\d+/);
    expect(survey.text()).toContain('Next: Bar between centres.');
  });

  it('goes back in time to as found', async () => {
    openShop([barRound(60, 30), barRound(-21, 9)]);
    const survey = await show(Survey);
    const slider = survey.element.querySelector<HTMLInputElement>('input[type=range]') as HTMLInputElement;
    const shift = () => survey.all('svg g g[transform]')[0].getAttribute('transform');
    const now = shift();
    slider.value = '1';
    slider.dispatchEvent(new Event('input'));
    await survey.fixture.whenStable();
    expect(survey.text()).toContain('Tailstock: 0.060 mm toward you.');
    expect(shift()).not.toBe(now);
    slider.value = '0';
    slider.dispatchEvent(new Event('input'));
    await survey.fixture.whenStable();
    expect(survey.text()).toContain('before anything was measured');
  });
});
