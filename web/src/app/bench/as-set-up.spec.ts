import type { Round, RoundWrite } from '@isometra/contract';
import { ApiFailure } from '../data/api';
import { barRound, openShop, show, until } from '../testing/fake-shop.spec';
import { Bench } from './bench';

describe('the set-up of a round that has begun', () => {
  const open = async (round = barRound(-21, 9)) => {
    localStorage.clear();
    const shop = openShop([round]);
    const page = await show(Bench, { checkId: round.check, roundId: round.id });
    await page.press('Put the set-up right');
    return { ...shop, round, page };
  };
  const puts = (api: { readonly sent: readonly { readonly method: string; readonly body: unknown }[] }) =>
    api.sent.filter((write) => write.method === 'PUT').map((write) => write.body as RoundWrite);

  it('is put right: what is sent can be sent, the readings are not touched', async () => {
    const { page, api, round } = await open();
    await page.type('Distance between centres', '500');
    await page.press('Put the set-up right');
    await until(() => puts(api).length === 1);
    const [sent] = puts(api);
    expect(sent.setup['centreDistance']).toBe('500 mm');
    expect(sent.conditions).toEqual(round.conditions);
    expect(sent.instrument).toEqual(round.instrument);
    expect(Object.keys(sent)).not.toContain('readings');
    expect(Object.keys(sent)).not.toContain('surveyId');
    expect(page.element.querySelector('iso-as-set-up')).toBeNull();
  });

  it('a nudge test made too late turns the call round', async () => {
    const { page, api } = await open();
    (page.named('it counts down').querySelector('input') as HTMLInputElement).dispatchEvent(new Event('change'));
    await page.press('Put the set-up right');
    await until(() => puts(api).length === 1);
    expect(puts(api)[0].instrument?.['sense']).toBe(-1);
  });

  it('names what is wrong and sends nothing', async () => {
    const { page, api } = await open();
    await page.type('Distance between centres', 'far');
    await page.press('Put the set-up right');
    expect(page.text()).toContain('One field needs another look.');
    expect(puts(api)).toEqual([]);
  });

  it('what was typed outlives a change made elsewhere, and leaving drops it', async () => {
    const { page, api, round } = await open();
    await page.type('Distance between centres', '500 mm');
    const newer: Round = { ...round, version: 9, setup: { centreDistance: '450 mm' } };
    api.refuse = new ApiFailure(409, [{ path: 'version', message: 'changed', example: '' }], newer);
    await page.press('Put the set-up right');
    expect(page.text()).toContain('Somebody else has changed this round meanwhile.');
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('500 mm');
    await page.press('Put the set-up right');
    await until(() => puts(api).length === 1);
    expect(puts(api)[0].version).toBe(9);
    expect(localStorage.getItem(`isometra-draft:as-set-up:${round.id}`)).toBeNull();
  });
});
