import { Router } from '@angular/router';
import { barRound, lathe, openShop, show, survey, toldHead, until, LATHE } from '../testing/fake-shop';
import { Settings } from '../data/settings';
import { TestBed } from '@angular/core/testing';
import { Ladder } from './ladder';
import { Methods } from './methods';

describe('the ladder', () => {
  it('has a rung for every check of a lathe, with its last value in words', async () => {
    await openShop([barRound(-21, 9)]);
    const ladder = await show(Ladder);
    expect(ladder.all('li').length).toBeGreaterThan(12);
    const rung = ladder.all('li').find((entry) => entry.textContent?.includes('Bar between centres'));
    expect(rung?.textContent).toContain('0.021 mm away from you');
    expect(rung?.classList).toContain('next');
    expect(rung?.textContent).toContain('It is out: do the move.');
    expect(rung?.querySelector('svg')?.getAttribute('aria-label')).toBe('out');
  });

  it('a move makes its own rung stale, and those it upsets', async () => {
    await openShop([barRound(30, 9, { check: 'tailstock-traverse' }), barRound(30, 9, { moves: [{}] })]);
    const ladder = await show(Ladder);
    const rung = ladder.all('li').find((entry) => entry.textContent?.includes('Bar between centres'));
    expect(rung?.textContent).toContain('moved since: read it again');
    expect(rung?.querySelector('svg')?.getAttribute('aria-label')).toBe('stale');
  });

  it('sizes that stand side by side carry their names, directions do not need them', async () => {
    const lift = (value: number) => ({
      value,
      unit: 'um',
      expanded: 1,
      direction: null,
      limit: [10, 30] as const,
      aim: 20,
      verdict: 'in' as const,
    });
    const finding = { quantities: { liftFront: lift(23), liftRear: lift(18) }, notes: [] };
    await openShop([barRound(-21, 9)], { prepare: (server) => void server.told.push(toldHead('spindle-play', {}, { finding })) });
    const ladder = await show(Ladder);
    const lines = (title: string) =>
      [
        ...(ladder
          .all('li')
          .find((entry) => entry.textContent?.includes(title))
          ?.querySelectorAll('.last') ?? []),
      ].map((line) => line.textContent);
    expect(lines('Spindle play')).toEqual(['Lift at the front bearing: 0.023 mm', 'Lift at the rear bearing: 0.018 mm']);
    expect(lines('Bar between centres')).toEqual(['0.021 mm away from you', '0.009 mm high']);
  });

  it('changes its figures with the unit', async () => {
    await openShop([barRound(-25.4, 9)]);
    const ladder = await show(Ladder);
    TestBed.inject(Settings).system.set('inch');
    await ladder.fixture.whenStable();
    expect(ladder.text()).toContain('1.0 thou away from you');
  });

  it('its yellow steps back while a screen has a next thing of its own', async () => {
    const { desk } = await openShop([barRound(-21, 9)]);
    desk.inHand.set(true);
    expect((await show(Ladder)).all('li.next').length).toBe(0);
  });
});

describe('a machine without a tailstock', () => {
  it('comes to what is known of it, and its ladder offers no ways to check one', async () => {
    await openShop([], {
      prepare: (server) => {
        server.machines = [{ ...lathe(), card: { ...lathe().card, number: 'M-03', kind: 'turret-mill' } }];
      },
    });
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await show(Methods);
    expect(navigate).toHaveBeenCalledWith(['/machines', LATHE, 'survey'], { replaceUrl: true });
    const ladder = await show(Ladder);
    expect(ladder.text()).not.toContain('tailstock');
    expect(ladder.text()).toContain('Head tram');
  });
});

describe('the ways to check', () => {
  it('stand side by side with what they last said and where', async () => {
    await openShop([barRound(-21, 9)]);
    const ways = await show(Methods);
    expect(ways.all('.ways section').length).toBe(3);
    expect(ways.text()).toContain('Tailstock is 0.021 mm away from you.');
    expect(ways.text()).toContain('tailstock at 600 mm');
    expect(ways.text()).toContain('check a second place too');
    expect(ways.text()).toContain('The whole difference counts, not half');
    expect(ways.text()).toContain('Half the difference counts');
  });

  it('tell of a rough look that never gives a number', async () => {
    await openShop();
    const ways = await show(Methods);
    const rough = ways.all('.coarse dd').map((entry) => entry.textContent ?? '');
    expect(rough.length).toBeGreaterThan(8);
    for (const line of rough) expect(line).not.toMatch(/\d/);
  });

  it('what a rough look showed is written down and taken back', async () => {
    const { server } = await openShop([], { prepare: (shop) => (shop.surveys = [survey()]) });
    const ways = await show(Methods);
    await ways.press('Seen: From the side, the tail point is lower');
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body).toEqual(
      jasmine.objectContaining({ kind: 'rough-look', content: { step: 'points', seen: 'From the side, the tail point is lower' } }),
    );
    await until(() => ways.text().includes('From the side, the tail point is lower. Points brought together, HB'));
    await ways.press('Undo: From the side, the tail point is lower');
    await until(() => !ways.text().includes('Points brought together, HB'));
  });

  it('two places along the bed are both named', async () => {
    await openShop([barRound(3, 9), barRound(4, 9, { conditions: { place: 1100 } })]);
    const ways = await show(Methods);
    expect(ways.text()).toContain('600 mm and 1100 mm');
    expect(ways.text()).not.toContain('Only one place along the bed so far. Wear changes the result: check a second place too. New round');
  });
});
