import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { Settings } from '../data/settings';
import { barRound, openShop, show, SURVEY, until } from '../testing/fake-shop';
import { Compare } from './compare';

describe('before and after', () => {
  const at = (month: number) => ({ at: `2026-0${month}-01T08:00:00.000Z`, number: month });

  it('shows both sides with their doubts, what it went by and what was moved between, in the unit of the day', async () => {
    await openShop([
      { ...barRound(60, 9, { moves: [{ amount: -58, doneAt: '2026-01-02T08:00:00.000Z' }] }), ...at(1) },
      { ...barRound(30, 9), ...at(2) },
      { ...barRound(2, 9), ...at(3) },
    ]);
    const compare = await show(Compare);
    const [sideways, height] = compare.all('tbody tr').map((row) => (row.textContent ?? '').replace(/\s+/g, ' '));
    expect(sideways).toContain('0.060 mm toward you');
    expect(sideways).toContain('0.002 mm± 0.004 mm');
    expect(sideways).toMatch(/It went 0\.058 mm away from you ± 0\.00\d mm\./);
    expect(sideways).toContain('moved 0.058 mm away from you, 2 Jan 2026');
    expect(height).toContain('No change can be told');
    expect(compare.text()).toMatch(/2 results on both sides, 1 came in/);
    TestBed.inject(Settings).system.set('inch');
    await compare.fixture.whenStable();
    expect(compare.all('tbody tr')[0].textContent).toContain('2.4 thou toward you');
  });

  it('draws the machine as it was found beside the machine as it was left, both at one scale', async () => {
    await openShop([
      { ...barRound(60, 9), ...at(1) },
      { ...barRound(2, 9), ...at(2) },
    ]);
    const compare = await show(Compare);
    const [before, after] = compare.all('figure');
    expect(before.querySelector('figcaption')?.textContent).toContain('Before');
    const scale = (figure: HTMLElement) => /×\d+/.exec(figure.querySelector('figcaption')?.textContent ?? '')?.[0];
    expect(scale(before)).toBe(scale(after));
    expect(before.querySelector('svg')?.innerHTML).not.toBe(after.querySelector('svg')?.innerHTML);
  });

  it('what was read once says so; a side of another survey is asked for by the address', async () => {
    await openShop([{ ...barRound(60, 9), ...at(1) }]);
    const compare = await show(Compare);
    expect(compare.text()).toContain('One round stands on both sides.');
    expect(compare.text()).not.toContain('It went');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await compare.pick('Before', /as left/);
    expect(navigate.calls.mostRecent().args[1]?.queryParams?.['from']).toMatch(/\.left$/);
    // An address that names no survey of this machine is as none.
    compare.fixture.componentRef.setInput('from', 'gone.found');
    await compare.fixture.whenStable();
    expect(compare.text()).toContain('0.060 mm toward you');
  });

  it('says who worked how long in the surveys between, and for which check', async () => {
    const rounds = [barRound(60, 5), barRound(4, 5)];
    await openShop(rounds, {
      prepare: (server) =>
        (server.hours = [
          { surveyId: SURVEY, check: 'tailstock-traverse', by: 'EK', minutes: 200 },
          { surveyId: SURVEY, check: 'bed-twist', by: 'HB', minutes: 300 },
          { surveyId: 'another', check: 'bed-twist', by: 'HB', minutes: 900 },
        ]),
    });
    const page = await show(Compare);
    await until(() => page.text().includes('Hours in these surveys'));
    expect(page.text()).toContain('Hours in these surveys, as far as they were timed: HB 5 h, EK 3 h 20.');
    expect(page.all('tbody tr').some((row) => row.textContent?.includes('EK 3 h 20'))).toBeTrue();
  });

  it('says when there is nothing to compare', async () => {
    await openShop();
    expect((await show(Compare)).text()).toContain('Neither side has a result with a limit yet.');
  });
});
