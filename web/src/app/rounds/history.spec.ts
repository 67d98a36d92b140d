import { barRound, openShop, show, until } from '../testing/fake-shop';
import { openTurning, withValue, swept } from '../testing/swept';
import { History } from './history';

describe('the rounds so far', () => {
  it('tell what became of every move, and the learned gain', async () => {
    await openShop([barRound(60, 9, { moves: [{}] }), barRound(118, 9, { moves: [{}] }), barRound(30, 9, { moves: [{}] }), barRound(7, 9)]);
    const history = await show(History, { checkId: 'tailstock-traverse' });
    const moves = history.all('.move').map((entry) => (entry.textContent ?? '').replace(/\s+/g, ' '));
    expect(moves.length).toBe(3);
    expect(moves.at(-1)).toMatch(/went the wrong way: 0\.058 mm toward you instead of 0\.060 mm away from you/);
    expect(moves[0]).toContain('of 0.030 mm away from you that were planned');
    expect(history.all('.move.bad').length).toBe(1);
    expect(history.text()).toContain('Tailstock sideways moves 0.76 of what it should');
  });

  it('of thousands draw those in sight, and the ones after them once they are scrolled to', async () => {
    const base = Date.parse('2020-01-01T08:00:00.000Z');
    const one = barRound(4, 9);
    const rounds = Array.from({ length: 2000 }, (_, i) => ({
      ...one,
      id: crypto.randomUUID(),
      number: i + 1,
      at: new Date(base + 3_600_000 * i).toISOString(),
    }));
    await openShop(rounds);
    const history = await show(History, { checkId: 'tailstock-traverse' });
    await until(() => history.all('ol li').length > 5);
    expect(history.all('ol li').length).toBeLessThan(120);
    expect(history.element.querySelectorAll('*').length).toBeLessThan(3000);
    expect(history.text()).toContain('Round 2000');
    expect(history.text()).toContain('The last 300 of 2000 rounds are drawn.');
    history.all('ol')[0].scrollIntoView({ block: 'end' });
    await until(() => history.text().includes('Round 1 '), 5000);
    expect(history.all('ol li').length).toBeLessThan(120);
  });

  it('say how it drifts since it was last moved, with the date at which it leaves its limits', async () => {
    const year = (i: number) => ({ id: crypto.randomUUID(), number: i + 1, at: `${2022 + i}-03-01T08:00:00.000Z` });
    await openShop([0, 1, 2, 3].map((i) => ({ ...barRound(4 * i, 9), ...year(i) })));
    const history = await show(History, { checkId: 'tailstock-traverse' });
    expect(history.text()).toMatch(/Tailstock sideways drifts by 0\.004 mm ± 0\.00\d mm a year, by 4 rounds\./);
    expect(history.text()).toMatch(/It leaves its limits about \d+ \w+ 2025/);
    expect(history.text()).toMatch(/Tailstock height: no drift is told/);
  });

  it('are drawn over the years, and the machine card takes the interval that the drift proposes', async () => {
    const year = (i: number) => ({ id: crypto.randomUUID(), number: i + 1, at: `${2022 + i}-03-01T08:00:00.000Z` });
    const { server } = await openShop([0, 1, 2, 3].map((i) => ({ ...barRound(4 * i, 9), ...year(i) })));
    const history = await show(History, { checkId: 'tailstock-traverse', by: 'date' });
    expect(history.all('iso-trend-chart').length).toBe(2);
    expect(history.all('iso-round-chart').length).toBe(0);
    const ask = history.named(/^Ask for it every \d+ days$/);
    const days = /\d+/.exec(ask.textContent ?? '')?.[0];
    ask.click();
    await until(() => server.machines[0].card.readAgain !== undefined);
    expect(server.machines[0].card.readAgain as unknown).toEqual([{ check: 'tailstock-traverse', days }]);
    await until(() => history.text().includes(`The machine card asks for this check every ${days} days.`));
  });

  it('name the conditions that differ before the difference is judged', async () => {
    await openShop([barRound(60, 9, { moves: [{}] }), barRound(2, 9, { conditions: { quillLock: 'off', place: 600 } })]);
    const history = await show(History, { checkId: 'tailstock-traverse' });
    expect(history.text()).toContain('The conditions differ: quill lock on, then off.');
  });

  it('draw a chart for each limited quantity, with its limits', async () => {
    await openShop([barRound(60, 9), barRound(5, 9)]);
    const history = await show(History, { checkId: 'tailstock-traverse' });
    const charts = history.all('iso-round-chart');
    expect(charts.length).toBe(2);
    expect(charts[0].querySelector('.chart')?.getAttribute('aria-label')).toContain('round');
    expect(charts[0].textContent).toContain('up: toward you');
    await until(() => charts[0].querySelectorAll('svg path').length > 3);
  });

  it('rounds at several places are one curve along the bed, with what one movement can do for all of them', async () => {
    const at = (place: number, h: number, v: number) => barRound(h, v, { conditions: { quillLock: 'on', place } });
    await openShop([at(200, 4, 9), at(900, -30, 10)]);
    const history = await show(History, { checkId: 'tailstock-traverse' });
    expect(history.text()).toContain('Tailstock sideways, along the bed: 0.004 mm toward you at 200 mm, 0.030 mm away from you at 900 mm.');
    expect(history.text()).toContain('That is wear of what it slides on, not the tailstock.');
    expect(history.text()).toContain(
      'Best for the places used: 0.013 mm toward you, which leaves 0.017 mm toward you at 200 mm, 0.017 mm away from you at 900 mm. At 200 mm that is still 0.002 mm out',
    );
    expect(history.text()).toContain(
      'Tailstock height, along the bed: 0.009 mm high at 200 mm, 0.010 mm high at 900 mm. The same within the doubts',
    );
    const [along] = history.all('section.along iso-round-chart .chart').map((chart) => chart.getAttribute('aria-label'));
    expect(along).toBe('Tailstock sideways along the bed, mm: at 200 0.004 mm, at 900 -0.030 mm');
  });

  it('of several stations are drawn one by one, and a value entered into a register is judged as one', async () => {
    const station = (name: string) => ({ conditions: { homed: 'yes', station: name } });
    const wrong = withValue(swept('turret-bore', 40, -40, station('3')), 200.0566, { name: 'geometry X' });
    await openTurning([wrong, swept('turret-bore', 2, 1, station('5')), swept('turret-bore', 80, -80, station('3'))]);
    const page = await show(History, { checkId: 'turret-bore' });
    const drawn = () => page.all('iso-round-chart .chart')[0].getAttribute('aria-label') ?? '';
    expect(page.text()).toContain('Entered into geometry X: 200.0566 mm.');
    expect(page.text()).toContain('It had the wrong sign: the error has doubled.');
    expect(page.text()).withContext('the words of a screw').not.toContain('It went the wrong way');
    const three = drawn();
    await page.choose('station 5');
    expect(drawn()).not.toBe(three);
  });

  it('say so when there are none', async () => {
    await openShop();
    expect((await show(History, { checkId: 'tailstock-sweep' })).text()).toContain('No round yet.');
  });
});
