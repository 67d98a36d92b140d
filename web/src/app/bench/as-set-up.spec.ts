import { TestBed } from '@angular/core/testing';
import { roundWriteOf, type RoundWrite } from '@isometra/contract';
import { Settings } from '../data/settings';
import { barRound, openShop, show, until, refusal, type FakeServer } from '../testing/fake-shop';
import { Bench } from './bench';

describe('the set-up of a round that has begun', () => {
  const open = async (round = barRound(-21, 9)) => {
    localStorage.clear();
    const shop = await openShop([round]);
    const page = await show(Bench, { checkId: round.check, roundId: round.id });
    await page.press('Edit set-up');
    return { ...shop, round, page };
  };
  const puts = (server: FakeServer): RoundWrite[] => server.sent.filter((write) => write.method === 'PUT').map((write) => write.body);

  it('is put right: what is sent can be sent, the readings are not touched', async () => {
    const { page, server, round } = await open();
    await page.type('Distance between centres', '500');
    await page.press('Edit set-up');
    await until(() => puts(server).length === 1);
    const [sent] = puts(server);
    expect(sent.setup['centreDistance']).toBe('500 mm');
    expect(sent.conditions).toEqual(round.conditions);
    expect(sent.instrument).toEqual(round.instrument);
    expect(Object.keys(sent)).not.toContain('readings');
    expect(Object.keys(sent)).not.toContain('surveyId');
    expect(page.element.querySelector('iso-as-set-up')).toBeNull();
  });

  it('what a file gave as a bare text stays in the unit of the file, also on a screen in inches', async () => {
    const { page, server } = await open(barRound(-21, 9, { setup: { centreDistance: '400' } }));
    TestBed.inject(Settings).system.set('inch');
    await page.choose('it counts down');
    await page.press('Edit set-up');
    await until(() => puts(server).length === 1);
    expect(puts(server)[0].setup['centreDistance']).toBe('400 mm');
  });

  it('a nudge test made too late turns the call round', async () => {
    const { page, server } = await open();
    await page.choose('it counts down');
    await page.press('Edit set-up');
    await until(() => puts(server).length === 1);
    expect(puts(server)[0].instrument?.['sense']).toBe(-1);
  });

  it('names what is wrong and sends nothing', async () => {
    const { page, server } = await open();
    await page.type('Distance between centres', 'far');
    await page.press('Edit set-up');
    expect(page.text()).toContain('One field needs another look.');
    expect(puts(server)).toEqual([]);
  });

  it('what was typed outlives a change made elsewhere, and leaving drops it', async () => {
    const { page, server, round } = await open();
    await page.type('Distance between centres', '500 mm');
    server.rounds = server.rounds.map((entry) => ({ ...entry, version: 9, setup: { centreDistance: '450 mm' } }));
    const newer = { ...roundWriteOf(round), version: 9, setup: { centreDistance: '450 mm' } };
    server.refuse = refusal(409, 'changed', newer, 'version');
    await page.press('Edit set-up');
    expect(page.text()).toContain('Somebody else has changed this round meanwhile.');
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('500 mm');
    await page.press('Edit set-up');
    await until(() => puts(server).length === 1);
    expect(puts(server)[0].version).toBe(9);
    expect(localStorage.getItem(`isometra-draft:as-set-up:${round.id}`)).toBeNull();
  });
});
