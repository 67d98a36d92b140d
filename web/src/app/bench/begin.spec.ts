import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { RoundWrite } from '@isometra/contract';
import { barRound, openShop, show } from '../testing/fake-shop.spec';
import { Desk } from '../tailstock/desk';
import { Begin } from './begin';

describe('before a round', () => {
  const open = async (checkId: string, rounds = [] as ReturnType<typeof barRound>[]) => {
    const shop = openShop(rounds);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    return { ...shop, navigate, page: await show(Begin, { checkId }) };
  };
  const tick = async (page: Awaited<ReturnType<typeof open>>['page']) => {
    const box = page.element.querySelector<HTMLInputElement>('.tick input');
    if (box) {
      box.checked = true;
      box.dispatchEvent(new Event('change'));
    }
    await page.fixture.whenStable();
  };

  it('the cautions are read first', async () => {
    const { page, api } = await open('tailstock-traverse');
    await page.press('Begin the round');
    expect(page.text()).toContain('Read the cautions and tick them first.');
    expect(api.sent).toEqual([]);
  });

  it('what is missing is named and counted', async () => {
    const { page } = await open('tailstock-traverse');
    await tick(page);
    await page.type('Distance between centres', '');
    await page.press('Begin the round');
    expect(page.text()).toContain('One field needs another look.');
    expect(
      page
        .all('[role=alert]')
        .map((alert) => alert.textContent)
        .join(),
    ).toContain('Distance between centres is missing');
  });

  it('begins with the instrument in hand, the nudge test and the conditions in base units', async () => {
    const { page, api, navigate } = await open('tailstock-traverse');
    await tick(page);
    await page.type('Distance between centres', '16');
    await page.type('Place along the bed', '600 mm');
    (page.named('it counts down').querySelector('input') as HTMLInputElement).dispatchEvent(new Event('change'));
    await page.press('Begin the round');
    const round = api.sent[0].body as RoundWrite;
    expect(round.instrument).toEqual({ kind: 'lever', graduation: '0.002 mm', sense: -1 });
    expect(round.instrumentName).toBe('Lever dial');
    expect(round.setup['centreDistance']).toBe('16 mm');
    expect(round.conditions).toEqual({ place: 600 });
    expect(navigate).toHaveBeenCalledWith(['/machines', 'lathe', 'bench', 'tailstock-traverse', round.id]);
  });

  it('starts from the last round, how the dial counted too, and says where that is from', async () => {
    const { page } = await open('tailstock-traverse', [barRound(3, 9)]);
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('400 mm');
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('600 mm');
    expect(page.text()).toContain('this dial counted up, read from the same side');
    expect((page.named('it counts up').querySelector('input') as HTMLInputElement).checked).toBeTrue();
    // From the other side it is another matter: the nudge is asked anew.
    (page.named('the rear').querySelector('input') as HTMLInputElement).dispatchEvent(new Event('change'));
    await page.fixture.whenStable();
    expect(page.text()).not.toContain('this dial counted');
    expect(page.text()).toContain('Not tried: the call will be given with the direction assumed');
  });

  it('a bar out of the kit fills in what the set-up asks of it, a holder its droop', async () => {
    const { api } = openShop();
    const piece = { ...api.kit[0], care: { due: '2020-01-01' } };
    api.kit = [
      ...api.kit,
      { ...piece, id: 'bar', kind: 'test-bar', name: 'Ground bar', data: { diameter: '32 mm', finish: 'ground', bend: '2 um' } },
      { ...piece, id: 'arm', kind: 'holder', name: 'Long arm', data: { sag: '-21 um' } },
    ];
    TestBed.inject(Desk).load('lathe').subscribe();
    spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(Begin, { checkId: 'tailstock-traverse' });
    const choose = async (label: string, value: string) => {
      const select = page.element.querySelector<HTMLSelectElement>(`[aria-label="${label}"]`) as HTMLSelectElement;
      select.value = value;
      select.dispatchEvent(new Event('change'));
      await page.fixture.whenStable();
    };
    expect(page.text()).toMatch(/Ground bar, overdue by \d+ days/);
    await choose('Bar out of the kit', 'bar');
    await choose('Held in', 'arm');
    await tick(page);
    await page.type('Distance between centres', '400 mm');
    await page.press('Begin the round');
    const sent = api.sent[0].body as RoundWrite;
    expect(sent.setup['bar']).toEqual({ diameter: '32 mm', finish: 'ground' });
    expect(sent.instrument?.['holderSag']).toBe('-21 um');
  });

  it('a level is described by its slope, and only what is asked is shown', async () => {
    const { page } = await open('bed-twist');
    expect(page.text()).not.toContain('As it is used');
    expect(page.text()).not.toContain('What it is for');
    await tick(page);
    await page.type('One division', '20');
    await page.press('Begin the round');
    expect(page.all('[role=alert]').length).toBe(0);
  });

  it('a draft survives leaving the page', async () => {
    const { page } = await open('tailstock-traverse');
    await page.type('Distance between centres', '123');
    page.fixture.destroy();
    const again = await show(Begin, { checkId: 'tailstock-traverse' });
    expect((again.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('123 mm');
  });

  it('what an earlier rung has found fills in what hangs on it, and says so', async () => {
    const bed = barRound(1, 1);
    const twist = {
      value: 4.23,
      unit: 'um/m per m',
      expanded: 2,
      direction: null,
      limit: null,
      aim: null,
      verdict: 'in',
      terms: {},
      budget: [],
    };
    const found = {
      ...bed,
      check: 'bed-twist',
      finding: { ...bed.finding, quantities: { twistPerMetre: twist } },
    } as unknown as typeof bed;
    const { page } = await open('spindle-axis', [found]);
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('4.2 µm/m per m');
    expect(page.text()).toContain('Bed twist: 4.2 µm/m per m, as its own rung found it.');
    await page.type('Bed twist', '9 um/m per m');
    expect(page.text()).not.toContain('as its own rung found it');
  });
});
