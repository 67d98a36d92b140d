import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Made, MoveWrite } from '@isometra/contract';
import { Keys } from '../data/keys';
import { barRound, openShop, refusal, show, until, type Shown } from '../testing/fake-shop';
import { AtScrew } from './at-screw';
import { JobCard } from './job-card';

const SCREW = { dial: null, preset: 0, tightened: null, rule: null };
const toScrew = async (sense: 1 | -1 | undefined, ...before: ReturnType<typeof barRound>[]) => {
  const round = barRound(-21, 9, { instrument: { kind: 'lever', graduation: '0.002 mm', ...(sense && { sense }) } });
  const shop = await openShop([...before, round]);
  const screen = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal', at: 'screw' });
  await until(() => screen.all('iso-at-screw').length > 0);
  const made = () => (shop.server.sent.at(-1)?.body as MoveWrite | undefined)?.made;
  return { ...shop, screen, made };
};
const key = async (screen: Shown<JobCard>, words: RegExp) => screen.press(words);
const typeIn = async (screen: Shown<JobCard>, label: string, text: string) => {
  const field = screen.element.querySelector<HTMLInputElement>(`input[aria-label="${label}"]`);
  if (!field) throw new Error(`no field ${label}`);
  field.value = text;
  field.dispatchEvent(new Event('input'));
  await screen.fixture.whenStable();
};
const stop = (screen: Shown<JobCard>) =>
  screen.all('.stop').map((line) =>
    [...line.children]
      .map((part) => part.textContent?.trim())
      .join(' ')
      .replace(' ,', ','),
  )[0];

describe('at the screw', () => {
  it('says where the needle of the round’s dial stops, which way it goes, and which screw now', async () => {
    const { screen } = await toScrew(1);
    expect(stop(screen)).toBe('Stop at 10.5 div, counting up from zero');
    expect(screen.text()).toContain('Slack the screw on the side it moves toward (your side).');
    expect(screen.text()).toContain('Drive the other screw until the needle reads its target.');
  });

  it('the other way, and the dial counts as it was said: it is the screw, and the machine remembers it', async () => {
    const { screen, made, server } = await toScrew(1);
    await key(screen, /went the other way/);
    expect(stop(screen)).toBe('Stop. Bring the needle back to 0 div');
    await screen.press('up');
    // Before the machine is believed to work the other way round it is asked which screw was driven.
    expect(screen.text()).toContain('The dial is right. Which screw did you drive?');
    expect(server.sent).toEqual([]);
    await screen.press('the screw on the rear');
    await until(() => server.sent.length === 2);
    expect(server.rounds[0].moves[0].made).toEqual({ ...SCREW, rule: 'drive-near' });
    // It stands on the machine card, where it can be put right.
    expect((server.machines[0].card['adjuster'] as { rule: string }).rule).toBe('drive-near');
    expect(made).toBeDefined();
    expect(stop(screen)).withContext('the dial was right').toBe('Stop at 10.5 div, counting up from zero');
    expect(screen.text()).toContain('Slack the screw on the side it moves away from (the rear).');
  });

  it('the other way because the other screw was driven: the machine is not blamed', async () => {
    const { screen, server } = await toScrew(1);
    await key(screen, /went the other way/);
    await screen.press('up');
    await screen.press('the screw on your side');
    expect(screen.text()).toContain('That was the other one. Slack it and drive the screw on the rear.');
    await key(screen, /went the other way/);
    await screen.press('up');
    await screen.press('I am not sure');
    expect(screen.text()).toContain('Nothing is remembered');
    expect(server.sent).toEqual([]);
    expect(screen.text()).toContain('Slack the screw on the side it moves toward (your side).');
  });

  it('the other way, and the needle of the round counts backwards: stop, the round itself is wrong', async () => {
    const { screen, server } = await toScrew(1);
    await key(screen, /went the other way/);
    await screen.press('down');
    expect(screen.text()).toContain('so the round says the wrong way');
    expect(screen.all('.stop')).toEqual([]);
    expect(server.sent).toEqual([]);
  });

  it('what it does on tightening is worked out from the needle, and allowed for when it is driven again', async () => {
    const { screen, made, server } = await toScrew(1);
    await key(screen, /moved on tightening/);
    await typeIn(screen, 'Tightened, the needle reads', 'much');
    await screen.press('Keep it');
    expect(screen.text()).toContain('"much" is not a number of divisions. Example: 10.5');
    await typeIn(screen, 'Tightened, the needle reads', '12');
    // By pencil: 1.5 divisions of 2 µm past, counting up is toward you.
    expect(screen.text()).toContain('It moved 0.003 mm toward you on tightening.');
    expect(screen.text()).toContain('By the dial it still needs 0.003 mm away from you.');
    await screen.press(/allow for that/);
    await until(() => server.sent.length === 1);
    expect(made()?.tightened).toBeCloseTo(3, 6);
    expect(made()?.preset).toBeCloseTo(3, 6);
    expect((server.sent[0].body as MoveWrite).shift).toBe('1.5 div');
    expect(stop(screen)).toBe('Stop at 9 div, counting up from zero');
  });

  it('the next move of this screw is asked to allow for the median of what was seen, and does so unasked where it is steady', async () => {
    const moved = (tightened: number): Made => ({ ...SCREW, tightened });
    const { screen, made, server } = await toScrew(
      1,
      barRound(-60, 9, { moves: [{ made: moved(4) }] }),
      barRound(-40, 9, { moves: [{ made: moved(8) }] }),
    );
    expect(screen.text()).toContain('On tightening it moves 0.006 mm toward you here (median of 2).');
    expect(stop(screen)).withContext('21 − 6 = 15 µm').toBe('Stop at 7.5 div, counting up from zero');
    await screen.tick(/^On tightening it moves/);
    await until(() => server.sent.length === 1);
    expect(made()?.preset).toBe(0);
    expect(stop(screen)).toBe('Stop at 10.5 div, counting up from zero');
  });

  it('done with what was allowed for unasked: that is kept with the move', async () => {
    const moved = (tightened: number): Made => ({ ...SCREW, tightened });
    const before = [4, 8].map((shift) => barRound(-50, 9, { moves: [{ made: moved(shift) }] }));
    const { screen, made, server } = await toScrew(1, ...before);
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await key(screen, /start the next round/);
    await until(() => server.sent.length === 1);
    expect(made()?.preset).toBe(6);
  });

  it('a card that was changed somewhere else meanwhile says so here too', async () => {
    const { screen, server } = await toScrew(1);
    await key(screen, /went the other way/);
    await screen.press('up');
    await screen.press('the screw on the rear');
    await until(() => server.sent.length === 2);
    const theirs = { ...server.rounds[0].moves[0], ticks: [4], version: 4 };
    server.rounds = server.rounds.map((round) => ({ ...round, moves: [theirs] }));
    server.refuse = refusal(409, 'changed', theirs, 'version');
    await key(screen, /moved on tightening/);
    await typeIn(screen, 'Tightened, the needle reads', '12');
    await screen.press('Keep it');
    await until(() => screen.text().includes('changed somewhere else meanwhile'));
  });

  it('a dial whose direction nobody tried is asked for: nothing is taken for granted', async () => {
    const { screen, made, server } = await toScrew(undefined);
    expect(screen.text()).toContain('Which dial sees the move?');
    await screen.press(/to the screw$/);
    expect(screen.text()).toContain('Dial: choose the dial at the part');
    await screen.pick('Dial', 'another one');
    await typeIn(screen, 'One division of it', '0.01');
    await screen.press(/to the screw$/);
    expect(screen.text()).withContext('a bare figure is not a size').toContain('"0.01" is not a size with its unit');
    await typeIn(screen, 'One division of it', '0.5 thou');
    await screen.choose('on the rear');
    await screen.press(/to the screw$/);
    expect(screen.text()).toContain('press the stylus in, and say whether it counts up or down');
    await screen.choose('up');
    await screen.press(/to the screw$/);
    await until(() => server.sent.length === 1);
    expect(made()?.dial).toEqual(jasmine.objectContaining({ side: 'away', pressed: 1, graduation: 12.7 }));
    // 21 µm toward you, away from a rear stylus: 21 / 12.7 = 1.65, let out, counting down.
    expect(stop(screen)).toBe('Stop at 1.5 div, counting down from zero');
    await key(screen, /went the other way/);
    await screen.press('down');
    await until(() => made()?.dial?.pressed === -1);
    expect(stop(screen))
      .withContext('the dial was described wrongly, the screw is not blamed')
      .toBe('Stop at 1.5 div, counting up from zero');
    expect(made()?.rule).toBeNull();
  });

  it('a head that is watched from where it stands: the side of zero is said, no figure stands alone with its sign', () => {
    const way = (now: number, target: number): string =>
      AtScrew.prototype['wayOf'].call(AtScrew.prototype, { now, target, per: 1, step: 0.5 });
    expect(way(-9, -4.5)).toBe(' below zero, counting up from 9 below zero');
    expect(way(9, -4.5)).toBe(' below zero, counting down from 9 above zero');
    expect(way(-9, 0)).toBe(', counting up from 9 below zero');
    expect(way(0, -10.5)).toBe(', counting down from zero');
  });

  it('done is done: the move counts from now', async () => {
    const { screen, server } = await toScrew(1);
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    await key(screen, /start the next round/);
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as MoveWrite).doneAt).not.toBeNull();
  });
});

describe('the keys of a job card', () => {
  it('tick the next step, go from step to step, lead to the screw and say that it is done', async () => {
    const round = barRound(-21, 9);
    const { server } = await openShop([round]);
    const card = await show(JobCard, { roundId: round.id, quantity: 'offsetHorizontal' });
    await until(() => card.all('li').length > 0);
    const keys = TestBed.inject(Keys);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const press = async (name: string) => {
      keys.handle(new KeyboardEvent('keydown', { key: name }));
      await card.fixture.whenStable();
    };
    document.body.append(card.element);
    await press('Enter');
    await press('Enter');
    await until(() => server.sent.length === 2);
    expect((server.sent[1].body as MoveWrite).ticks).toEqual([0, 1]);
    const boxes = card.all('ol iso-tick input');
    expect(document.activeElement).toBe(boxes[1]);
    await press('ArrowDown');
    expect(document.activeElement).toBe(boxes[2]);
    await press('s');
    expect(navigate).toHaveBeenCalledWith([], jasmine.objectContaining({ queryParams: { at: 'screw' } }));
    // Some steps are not ticked: it is asked once.
    await press('d');
    expect(server.sent.length).toBe(2);
    expect(card.text()).toContain('2 of 8 steps ticked. Are all of them done?');
    await press('d');
    await until(() => server.sent.length === 3);
    expect((server.sent[2].body as MoveWrite).doneAt).not.toBeNull();
    card.element.remove();
  });
});
