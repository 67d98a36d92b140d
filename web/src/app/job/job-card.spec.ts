import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { MachineCardText, MoveWrite } from '@isometra/contract';
import { barRound, lathe, openShop, show, until, refusal, LATHE, type Shown } from '../testing/fake-shop';
import { Keys } from '../data/keys';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { JobCard } from './job-card';

describe('a job card', () => {
  const open = async (offsetH: number, offsetV: number, quantity: string) => {
    const round = barRound(offsetH, offsetV);
    const shop = await openShop([round]);
    const card = await show(JobCard, { roundId: round.id, quantity });
    await until(() => card.all('h1').length > 0);
    return { ...shop, round, card };
  };
  const tick = async (card: Shown<JobCard>, index: number) => {
    card.all('li iso-tick input')[index].click();
    await card.fixture.whenStable();
  };

  it('says how much and which way, what to slack first and where the needle stops', async () => {
    const { card } = await open(-21, 9, 'offsetHorizontal');
    expect(card.text()).toContain('Tailstock is 0.021 mm away from you.');
    expect(card.text()).toContain('Bring it 0.021 mm toward you 0.8 thou');
    expect(card.text()).toContain('Slack the screw on the side it moves toward (your side)');
    expect(card.text()).toContain('10.5 div from zero, counting up');
    expect(card.text()).toContain('of the screw. Watch the needle');
    expect(card.all('.caution').length).toBeGreaterThan(1);
  });

  it('is kept from the first tick on, and each tick after it changes it', async () => {
    const { card, server } = await open(-21, 9, 'offsetHorizontal');
    await tick(card, 0);
    await tick(card, 2);
    await until(() => server.sent.length === 2);
    expect(server.sent.map((write) => `${write.method} ${write.path.split('/')[1]}`)).toEqual(['POST moves', 'PUT moves']);
    expect((server.sent[1].body as MoveWrite).ticks).toEqual([0, 2]);
    expect((server.sent[0].body as MoveWrite).amount).toBeCloseTo(21, 0);
  });

  it('done leads to the next round, with the shift that was seen', async () => {
    const { card, server } = await open(-21, 9, 'offsetHorizontal');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const shift = card.element.querySelector<HTMLInputElement>('.shift input');
    if (shift) {
      shift.value = '0.5 div';
      shift.dispatchEvent(new Event('input'));
    }
    // Nothing was ticked: it is asked once.
    await card.press(/^Done: start/);
    expect(server.sent.length).toBe(0);
    expect(card.text()).toContain('No step ticked. Are all of them done? Press again, or tick what has been done.');
    TestBed.inject(Keys).handle(new KeyboardEvent('keydown', { key: 'Escape' }));
    await card.fixture.whenStable();
    expect(card.text()).withContext('Escape: not all of it').not.toContain('Are all of them done?');
    await card.press(/^Done: start/);
    await card.press(/^All steps are done/);
    await until(() => server.sent.length === 1);
    expect(server.sent[0].body).toEqual(jasmine.objectContaining({ doneAt: jasmine.any(String), shift: '0.5 div' }));
    const { begunAt, doneAt } = server.sent[0].body as { begunAt: string; doneAt: string };
    expect(doneAt).withContext('done and begun in one act: never done before it was begun').toBe(begunAt);
    expect(navigate).toHaveBeenCalledWith(['/machines', LATHE, 'bench', 'tailstock-traverse']);
  });

  it('chooses shims from the drawer, or different ones front and rear', async () => {
    // To a quarter of the zone up.
    const { card } = await open(2, -35, 'offsetVertical');
    expect(card.text()).toContain('Shim it 0.040 mm up');
    expect(card.text()).toContain('0.020 mm + 0.020 mm');
    expect(card.text()).toContain('Cutting template, 1:1');
    await card.choose(/front and rear apart/);
    expect(card.text()).toContain('front 0.020 mm + 0.020 mm; rear 0.020 mm + 0.020 mm');
  });

  it('what was raised too far gets thinner shims, and nothing is scraped', async () => {
    const put = { quantity: 'offsetVertical', kind: 'shim-leaves', amount: 80, plan: { leaves: [50, 30], total: 80, error: 0 } };
    const rounds = [barRound(2, -60, { moves: [put] }), barRound(2, 50)];
    const { server } = await openShop(rounds);
    const card = await show(JobCard, { roundId: rounds[1].id, quantity: 'offsetVertical' });
    await until(() => card.all('ol li').length > 0);
    expect(card.text()).toContain('Put thinner shims in: 0.045 mm down');
    expect(card.text()).toContain('Take out the shims that are there: 0.050 mm + 0.030 mm.');
    expect(card.text()).not.toContain('It went the wrong way');
    await tick(card, 0);
    await until(() => server.sent.length === 1);
    const sent = server.sent[0].body as MoveWrite;
    expect([sent.kind, sent.plan['out'], Math.round(sent.amount)]).toEqual(['swap-leaves', [50, 30], -45]);
  });

  it('height before side: the card of the side says so, and that of the height says what it loses', async () => {
    const { round, card } = await open(-60, -40, 'offsetHorizontal');
    expect(card.text()).toContain('Tailstock height first: opening the joint loses this. To that card');
    expect(card.named('To that card').getAttribute('href')).toBe(`/machines/${LATHE}/move/${round.id}/offsetVertical`);
    const height = await show(JobCard, { roundId: round.id, quantity: 'offsetVertical' });
    await until(() => height.all('h1').length > 0);
    expect(height.text()).toContain('Opening the joint loses the tailstock sideways. It comes after, from a new round.');
  });

  describe('begun, and its round or the machine card put right since', () => {
    const begun = (more: Partial<MoveWrite> = {}) => ({ doneAt: null, plan: { turns: 0.01 }, ...more });
    const see = async (offsetH: number, move: Partial<MoveWrite>) => {
      const round = barRound(offsetH, 0, { moves: [begun(move)] });
      const shop = await openShop([round]);
      const card = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
      await until(() => card.all('h1').length > 0);
      return { ...shop, round, card, sent: () => shop.server.sent[0].body as MoveWrite };
    };

    it('goes on by what the round asks for now, and says what it was begun for', async () => {
      const { card, server, sent } = await see(-40, { amount: 21, direction: 'toward the operator', ticks: [0, 1] });
      expect(card.text()).toContain('This card was started for 0.021 mm toward you.');
      expect(card.text()).toContain('it is 0.040 mm toward you now.');
      expect(card.text()).toContain('Bring it 0.040 mm toward you');
      expect(card.all('li iso-tick input').filter((box) => (box as HTMLInputElement).checked).length).toBe(2);
      await tick(card, 2);
      await until(() => server.sent.length === 1);
      expect(sent().amount).toBeCloseTo(40, 0);
      expect(sent().ticks).toEqual([0, 1, 2]);
      expect(sent().made?.replanned?.map(({ amount, moved }) => [amount, moved])).toEqual([[21, false]]);
    });

    it('says when it was moved the wrong way by the old reading, and takes that step back', async () => {
      const { card, sent, server } = await see(-40, { amount: -12, direction: 'away from the operator', ticks: [0, 1, 2, 3, 4, 5, 6] });
      expect(card.text()).toContain('You moved it 0.012 mm away from you by the old reading: that was the wrong way.');
      expect(card.text()).toContain('Leave the zero of the dial: drive the needle to its new target.');
      const boxes = () => card.all('li iso-tick input') as HTMLInputElement[];
      const ticked = boxes().filter((box) => box.checked).length;
      expect(ticked).toBeGreaterThan(0);
      expect(ticked).toBeLessThan(7);
      await tick(card, ticked);
      await until(() => server.sent.length === 1);
      expect(sent().made?.replanned?.at(0)).toEqual(jasmine.objectContaining({ amount: -12, moved: true }));
      expect(sent().direction).toContain('operator');
    });

    it('ends where the round calls it in: nothing is moved, and it can be put away', async () => {
      const { card, server, sent } = await see(0, { amount: 21, direction: 'toward the operator', ticks: [0, 1, 2, 3, 4, 5, 6] });
      expect(card.text()).toContain('there is nothing left to move.');
      expect(card.text()).toContain('Drive the needle back to where it was zeroed, and read a new round.');
      expect(card.all('ol li').length).toBe(0);
      expect(card.text()).not.toContain('It is done');
      await card.press('Close this card');
      await until(() => server.sent.length === 1);
      expect(sent().made?.putAway?.by).toBe(TestBed.inject(Settings).by());
      await until(() => card.text().includes('There is nothing to move here.'));
    });

    it('is not planned anew for a figure of rounding', async () => {
      const { card } = await see(-40, { amount: 40.3, direction: 'toward the operator', plan: {} });
      expect(card.text()).toContain('Bring it 0.040 mm toward you');
      expect(card.text()).not.toContain('This card was started for');
    });

    it('goes by the machine card as it is now', async () => {
      const { card } = await see(-40, { amount: 40, direction: 'toward the operator', plan: { turns: 0.3 } });
      expect(card.text()).toContain('The machine card has been corrected since this card was started');
      expect(card.text()).toContain('10° of the screw');
    });

    it('once it is done it is what was done', async () => {
      const done = await see(-40, { amount: 21, direction: 'toward the operator', doneAt: '2026-12-01T10:00:00.000Z' });
      expect(done.card.text()).not.toContain('This card was started for');
    });

    it('can be made in another way until it is done', async () => {
      const round = barRound(2, -35, {
        moves: [{ ...begun({ quantity: 'offsetVertical', kind: 'base-shims', amount: 35, ticks: [0], plan: { front: 35, rear: 35 } }) }],
      });
      const { server } = await openShop([round]);
      const card = await show(JobCard, { roundId: round.id, quantity: 'offsetVertical' });
      await until(() => card.all('ol li').length > 0);
      await card.choose(/^shims out of the drawer/);
      await until(() => server.sent.length === 1);
      const sent = server.sent[0].body as MoveWrite;
      expect([sent.kind, sent.ticks, Array.isArray(sent.plan['leaves'])]).toEqual(['shim-leaves', [], true]);
    });
  });

  describe('after a move that went the wrong way', () => {
    const wrong = () => [barRound(60, 9, { moves: [{}] }), barRound(118, 9)];

    it('the card says so, begins with both nudge tests, and turns the screw the other way round', async () => {
      const rounds = wrong();
      await openShop(rounds);
      const card = await show(JobCard, { roundId: rounds[1].id, quantity: 'offsetHorizontal' });
      await until(() => card.all('ol li').length > 0);
      expect(card.text()).toContain('The last move went the wrong way: 0.058 mm toward you instead of 0.060 mm away from you');
      const steps = card.all('ol li').map((entry) => entry.textContent ?? '');
      expect(steps[0]).toContain('toward the stylus and see which way the needle goes');
      expect(steps[1]).toContain('watch which way it goes before you drive it');
    });

    it('a second wrong way holds the card back until both tests have been done', async () => {
      const rounds = [barRound(30, 9, { moves: [{}] }), barRound(60, 9, { moves: [{}] }), barRound(118, 9)];
      await openShop(rounds);
      const card = await show(JobCard, { roundId: rounds[2].id, quantity: 'offsetHorizontal' });
      await until(() => card.text().includes('Two moves went the wrong way'));
      expect(card.all('ol li').length).toBe(0);
      expect(card.text()).not.toContain('start the next round');
      await card.tick(/This has been done/);
      await until(() => card.all('ol li').length > 0);
    });

    it('what was put in is taken out first', async () => {
      const rounds = [barRound(2, -40, { moves: [{ quantity: 'offsetVertical', kind: 'shim-leaves', amount: 45 }] }), barRound(2, -85)];
      const { server } = await openShop(rounds);
      const card = await show(JobCard, { roundId: rounds[1].id, quantity: 'offsetVertical' });
      await until(() => card.text().includes('It went the wrong way. Take out what was put in (0.045 mm) first'));
      // It is said once.
      expect(card.text()).not.toContain('The last move went the wrong way');
      expect(card.all('ol li').length).toBe(0);
      // That it is out is kept on the card that it went in by; then this round is old.
      await card.press('The shims are out');
      await until(() => server.sent.length === 1);
      const sent = server.sent[0].body as MoveWrite;
      expect([sent.roundId, sent.amount, sent.made?.takenOut?.by]).toEqual([rounds[0].id, 45, TestBed.inject(Settings).by()]);
      await until(() => card.text().includes('It is out again. Read a new round'));
      expect(card.all('ol li').length).toBe(0);
      expect(card.named('New round').getAttribute('href')).toBe(`/machines/${LATHE}/bench/${rounds[1].check}`);
    });

    it('what came out again is not asked for a second time: a round read since has its card', async () => {
      const out = { at: '2026-02-03T07:00:00.000Z', by: 'HB' };
      const made = { dial: null, preset: 0, tightened: null, rule: null, takenOut: out };
      const put = { quantity: 'offsetVertical', kind: 'shim-leaves', amount: 45, made };
      const on = (day: number) => ({ at: `2026-02-0${day}T08:00:00.000Z` });
      const rounds = [barRound(2, -40, { moves: [put], ...on(1) }), barRound(2, -85, on(2)), barRound(2, -40, on(4))];
      await openShop(rounds);
      const card = await show(JobCard, { roundId: rounds[2].id, quantity: 'offsetVertical' });
      await until(() => card.all('ol li').length > 0);
      expect(card.text()).not.toContain('Take out what was put in');
    });
  });

  it('a worn bed: the screw is set for all the places that were read, unless one alone is asked for', async () => {
    const near = barRound(4, 9, { conditions: { quillLock: 'on', place: 200 } });
    const far = barRound(-36, 9, { conditions: { quillLock: 'on', place: 900 } });
    const { server } = await openShop([near, far]);
    const card = await show(JobCard, { roundId: far.id, quantity: 'offsetHorizontal' });
    await until(() => card.text().includes('along the bed'));
    expect(card.text()).toContain('That is wear of what it slides on, not the tailstock.');
    // By pencil: +4 and −36, zone ±15: 40 do not go into 30; 16 toward you leaves 5 over at either end.
    expect(card.text()).toContain(
      'Best for the places used: 0.016 mm toward you, which leaves 0.020 mm toward you at 200 mm, 0.020 mm away from you at 900 mm. At 200 mm that is still 0.005 mm out',
    );
    expect(card.all('h1')[0].textContent).toContain('0.004 mm toward you at 200 mm, 0.036 mm away from you at 900 mm');
    expect(card.text()).toContain('Bring it 0.016 mm toward you');
    expect(card.text()).toContain('8 div from zero, counting up');
    await card.tick(/^Set it for all the places/);
    expect(card.text()).toContain('Bring it 0.036 mm toward you');
    expect(card.text()).toContain('18 div from zero, counting up');
    await card.tick(/^Set it for all the places/);
    await tick(card, 0);
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as MoveWrite).amount).toBeCloseTo(16, 6);
    // 16 µm on a pitch of 1.5 mm.
    expect((server.sent[0].body as MoveWrite).plan['turns']).toBeCloseTo(16 / 1500, 4);
    expect(card.text()).withContext('a card that was begun keeps its amount').toContain('Bring it 0.016 mm toward you');
  });

  it('a worn bed whose last place is in: its base is planned for all places, and leaves and metal with it', async () => {
    const near = barRound(0, -18, { conditions: { quillLock: 'on', place: 200 } });
    const far = barRound(0, 6, { conditions: { quillLock: 'on', place: 900 } });
    await openShop([near, far]);
    const card = await show(JobCard, { roundId: far.id, quantity: 'offsetVertical' });
    await until(() => card.text().includes('along the bed'));
    // By pencil: −18 and 6, zone 0 to 20: at the least 18 up, and no more than 14. 16 leaves 2 over at either end.
    expect(card.text()).toContain('Shim it 0.016 mm up');
    expect(card.text()).toContain('which leaves 0.002 mm low at 200 mm, 0.022 mm high at 900 mm');
  });

  it('what is in comes nearer when the user says so, half of what is left, with the warning; its card says so for good', async () => {
    const round = barRound(-8, 9);
    const { server } = await openShop([round]);
    const plain = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => plain.all('h1').length > 0);
    expect(plain.text()).toContain('There is nothing to move here.');
    const card = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal', nearer: '0.5' });
    await until(() => card.all('ol li').length > 0);
    expect(card.text()).toContain('is in: this move is not needed. Every move can upset something else');
    expect(card.text()).toContain('Bring it 0.004 mm toward you');
    await tick(card, 0);
    await until(() => server.sent.length === 1);
    const sent = server.sent[0].body as MoveWrite;
    expect(sent.amount).toBeCloseTo(4, 1);
    expect(sent.made?.nearer).toBe(0.5);
    expect(card.text()).withContext('begun, it is not closed for being in').not.toContain('Close this card');
    expect(card.text()).toContain('Bring it 0.004 mm toward you');
  });

  it('what really went in is entered, kept, and judged by its thickness', async () => {
    const { card, server } = await open(2, -40, 'offsetVertical');
    const enter = async (text: string) => {
      const field = card.element.querySelector<HTMLInputElement>('input[aria-label="What went in"]');
      if (!field) throw new Error('no field for what went in');
      field.value = text;
      field.dispatchEvent(new Event('change'));
      await card.fixture.whenStable();
    };
    await enter('two leaves');
    expect(card.text()).toMatch(/"two leaves" (has no unit|is no leaf of shim)\. Example: 0\.05 \+ 0\.02 mm/);
    expect(server.sent).toEqual([]);
    await enter('0.05 mm + 0.02');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as MoveWrite).made?.wentIn).toEqual([50, 20]);
    // By pencil: 40 low, 70 in: 30 high, and the zone ends at 20.
    expect(card.text()).toContain('By the shims alone: Tailstock is 0.030 mm high. That is out; the next round tells.');
    await enter('0.05 mm');
    await until(() => server.sent.length === 2);
    expect(card.text()).toContain('By the shims alone: Tailstock is 0.010 mm high. That is in; the next round tells.');
  });

  it('warns before metal goes', async () => {
    const { card } = await open(2, 60, 'offsetVertical');
    expect(card.text()).toContain('Scrape or grind it 0.055 mm down');
    expect(card.text()).toContain('Stop one pass short');
  });

  it('three quick ticks while the server is slow make one move', async () => {
    const { card, server } = await open(-21, 9, 'offsetHorizontal');
    server.latency = (method) => (method === 'GET' ? 1 : 200);
    for (const i of [0, 1, 2]) await tick(card, i);
    expect((card.all('li iso-tick input') as HTMLInputElement[]).slice(0, 3).every(({ checked }) => checked)).toBeTrue();
    await until(() => server.rounds[0].moves[0]?.ticks.length === 3);
    expect(server.rounds[0].moves.length).toBe(1);
    expect(new Set(server.sent.map(({ body }) => body.id)).size).toBe(1);
  });

  it('the readings that are still on their way count: there is a move as soon as the bench says so', async () => {
    const round = barRound(-21, 9);
    const { server } = await openShop([{ ...round, readings: [] }]);
    server.down = true;
    const rounds = TestBed.inject(Rounds);
    const begun = { ...round, readings: [] };
    for (const { roundId: _round, sequence: _sequence, ...reading } of round.readings) rounds.takeReading(begun, reading);
    server.down = false;
    server.latency = (method) => (method === 'POST' ? 5000 : 1);
    const card = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => card.text().includes('Bring it'));
    expect(card.text()).toContain('Bring it 0.021 mm toward you');
  });

  it('a card changed this card says so and keeps the ticks to be put over it', async () => {
    const { card, server } = await open(-21, 9, 'offsetHorizontal');
    await tick(card, 0);
    await until(() => server.sent.length === 1);
    const theirs = { ...server.rounds[0].moves[0], ticks: [4], version: 4 };
    server.rounds = server.rounds.map((round) => ({ ...round, moves: [theirs] }));
    server.refuse = refusal(409, 'changed', theirs, 'version');
    await tick(card, 1);
    await until(() => card.text().includes('changed this card at the same time'));
    await card.press('Overwrite with mine');
    await until(() => server.rounds[0].moves[0].ticks.length === 2);
    expect(server.sent.at(-1)?.body).toEqual(jasmine.objectContaining({ ticks: [0, 1], version: 4 }));
    await until(() => !card.text().includes('changed this card'));
  });

  it('says that it is old news when another round has been read since', async () => {
    const [round, later] = [barRound(-21, 9), barRound(-5, 9, { at: '2026-12-01T08:00:00.000Z' })];
    await openShop([round, later]);
    const card = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => card.text().includes('This is history'));
    expect(card.text()).toMatch(/This is history: round \d+ was read on 1 Dec 2026 by HB\. Tailstock is 0\.005 mm away from you\./);
    // No order stands beside it, and one press leads to what counts.
    expect(card.all('ol li').length).toBe(0);
    expect(card.named(`To round ${later.number}`).getAttribute('href')).toContain(later.id);
  });

  it('a machine whose card tells of an eccentric sleeve and of no screws gets no card about screws', async () => {
    const round = barRound(-21, 9);
    const { adjuster: _none, ...card } = lathe().card as Record<string, unknown>;
    const sleeve = { ...card, eccentric: { throw: '0.1 mm', angle: '-33.7 deg' } } as unknown as MachineCardText;
    await openShop([round], { prepare: (server) => void (server.machines = [{ ...lathe(), card: sleeve }]) });
    const shown = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => shown.text().includes('sleeve'));
    expect(shown.text()).not.toMatch(/screw/);
    // sin −33.7° = −0.555; 21 µm more of 100 is −0.345: −20.2°.
    expect(shown.text()).toContain('to -20.2°');
  });

  it('a sleeve that comes to its end: the needle stops there, and the better way can be chosen and is written down', async () => {
    const round = barRound(-150, 9);
    const { adjuster: _none, ...card } = lathe().card as Record<string, unknown>;
    const sleeve = { ...card, eccentric: { throw: '0.1 mm', angle: '0 deg' } } as unknown as MachineCardText;
    const { server } = await openShop([round], { prepare: (shop) => void (shop.machines = [{ ...lathe(), card: sleeve }]) });
    const shown = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => shown.text().includes('no further'));
    // 100 µm of the 150 on a dial of 2 µm.
    expect(shown.text()).toContain('50 div from zero');
    await shown.choose('sleeve to its middle, and move the body');
    await until(() => shown.text().includes('move the body of the tailstock'));
    expect(shown.text()).toContain('75 div from zero');
    await tick(shown, 0);
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as MoveWrite).kind).toBe('sleeve-middle');
    expect((server.sent[0].body as MoveWrite).plan['ways']).toBeCloseTo(150, 0);
  });

  it('has nothing to say when nothing is to be moved', async () => {
    const { card } = await open(1, 9, 'offsetHorizontal');
    expect(card.text()).toContain('There is nothing to move here. Leave it alone.');
  });

  it('offers the learned gain, and reckons with it when asked', async () => {
    const rounds = [barRound(60, 9, { moves: [{}] }), barRound(30, 9)];
    await openShop(rounds);
    const card = await show(JobCard, { roundId: rounds[1].id, quantity: 'offsetHorizontal' });
    await until(() => card.text().includes('Learned'));
    expect(card.text()).toContain('it moves 0.50 of what it should');
    const before = /a hair: (\d+)°|about (\d+)°/.exec(card.text());
    await card.tick(/^Learned on this machine/);
    const after = /a hair: (\d+)°|about (\d+)°/.exec(card.text());
    expect(Number(after?.[1] ?? after?.[2])).toBeCloseTo(2 * Number(before?.[1] ?? before?.[2]), -1);
  });
});
