import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { MoveWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { barRound, openShop, show } from '../testing/fake-shop.spec';
import { JobCard } from './job-card';

describe('a job card', () => {
  const open = async (offsetH: number, offsetV: number, quantity: string) => {
    const round = barRound(offsetH, offsetV);
    const shop = openShop([round]);
    return { ...shop, round, card: await show(JobCard, { roundId: round.id, quantity }) };
  };

  it('says how much and which way, what to slack first and where the needle stops', async () => {
    const { card } = await open(-21, 9, 'offsetHorizontal');
    expect(card.text()).toContain('Tailstock is 0.021 mm away from you.');
    expect(card.text()).toContain('Bring it 0.021 mm toward you 0.8 thou');
    expect(card.text()).toContain('Slack the screw on the side it moves toward (your side)');
    expect(card.text()).toContain('10.5 div from zero, counting up');
    expect(card.text()).toContain('of the screw; believe the needle');
    expect(card.all('.caution').length).toBeGreaterThan(1);
  });

  it('is kept from the first tick on, and each tick after it changes it', async () => {
    const { card, api } = await open(-21, 9, 'offsetHorizontal');
    const box = card.all('li input[type=checkbox]') as HTMLInputElement[];
    box[0].checked = true;
    box[0].dispatchEvent(new Event('change'));
    await card.fixture.whenStable();
    box[2].checked = true;
    box[2].dispatchEvent(new Event('change'));
    await card.fixture.whenStable();
    expect(api.sent.map((write) => `${write.method} ${write.path.split('/')[1]}`)).toEqual(['POST moves', 'PUT moves']);
    expect((api.sent[1].body as MoveWrite).ticks).toEqual([0, 2]);
    expect((api.sent[0].body as MoveWrite).amount).toBeCloseTo(21, 0);
  });

  it('done leads to the next round, with the shift that was seen', async () => {
    const { card, api } = await open(-21, 9, 'offsetHorizontal');
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const shift = card.element.querySelector<HTMLInputElement>('.shift input');
    if (shift) {
      shift.value = '0.5 div';
      shift.dispatchEvent(new Event('input'));
    }
    await card.press(/^It is done/);
    expect(api.sent.at(-1)?.body).toEqual(jasmine.objectContaining({ done: true, shift: '0.5 div' }));
    expect(navigate).toHaveBeenCalledWith(['/machines', 'lathe', 'bench', 'tailstock-traverse']);
  });

  it('chooses shims from the drawer, or different ones front and rear', async () => {
    const { card } = await open(2, -40, 'offsetVertical');
    expect(card.text()).toContain('Shim it 0.040 mm up');
    expect(card.text()).toContain('0.020 mm + 0.020 mm');
    expect(card.text()).toContain('Cutting template, 1:1');
    (card.named(/front and rear apart/).querySelector('input') as HTMLInputElement).dispatchEvent(new Event('change'));
    await card.fixture.whenStable();
    expect(card.text()).toContain('front 0.020 mm + 0.020 mm; rear 0.020 mm + 0.020 mm');
  });

  it('warns before metal goes', async () => {
    const { card } = await open(2, 60, 'offsetVertical');
    expect(card.text()).toContain('Scrape or grind it 0.060 mm down');
    expect(card.text()).toContain('Stop one pass short');
  });

  it('a card ticked somewhere else says so and keeps the ticks', async () => {
    const { card, api } = await open(-21, 9, 'offsetHorizontal');
    api.refuse = new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], {
      id: 'x',
      plan: { turns: 0.014 },
      version: 4,
    });
    const [box] = card.all('li input[type=checkbox]') as HTMLInputElement[];
    box.checked = true;
    box.dispatchEvent(new Event('change'));
    await card.fixture.whenStable();
    expect(card.text()).toContain('ticked somewhere else meanwhile');
    expect(box.checked).toBeTrue();
  });

  it('has nothing to say when nothing is to be moved', async () => {
    const { card } = await open(1, 9, 'offsetHorizontal');
    expect(card.text()).toContain('There is nothing to move here. Leave it alone.');
  });

  it('offers the learned gain, and reckons with it when asked', async () => {
    const rounds = [barRound(60, 9, { moves: [{}] }), barRound(30, 9)];
    openShop(rounds);
    const card = await show(JobCard, { roundId: rounds[1].id, quantity: 'offsetHorizontal' });
    expect(card.text()).toContain('it moves 0.50 of what it should');
    const before = /a hair: (\d+)°|about (\d+)°/.exec(card.text());
    const box = card.named(/^Learned on this machine/).querySelector('input') as HTMLInputElement;
    box.checked = true;
    box.dispatchEvent(new Event('change'));
    await card.fixture.whenStable();
    const after = /a hair: (\d+)°|about (\d+)°/.exec(card.text());
    expect(Number(after?.[1] ?? after?.[2])).toBeCloseTo(2 * Number(before?.[1] ?? before?.[2]), -1);
  });
});
