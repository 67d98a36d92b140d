import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { bedTwistSheet } from '@isometra/core/practice';
import type { RoundWrite } from '@isometra/contract';
import {
  barRound,
  lathe,
  openShop,
  practiceRound,
  show,
  showAtOnce,
  until,
  LATHE,
  type FakeServer,
  type TestRound,
} from '../testing/fake-shop';
import { Rounds } from '../data/rounds';
import { Settings } from '../data/settings';
import { Undo } from '../data/undo';
import { Begin } from './begin';

describe('before a round', () => {
  const open = async (checkId: string, rounds: TestRound[] = [], prepare: (server: FakeServer) => void = () => undefined) => {
    const shop = await openShop(rounds, { prepare });
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    return { ...shop, navigate, page: await show(Begin, { checkId }) };
  };
  const tick = async (page: Awaited<ReturnType<typeof open>>['page']) => {
    await page.tick('I have read and done this');
  };

  it('the cautions are read first', async () => {
    const { page, server } = await open('tailstock-traverse');
    await page.press('Start the round');
    expect(page.text()).toContain('Read the cautions and tick them first.');
    expect(server.sent).toEqual([]);
  });

  it('leads the hand to the cautions, but not one that types elsewhere by then', async () => {
    const { page } = await open('tailstock-traverse');
    const box = page.field('I have read and done this');
    await page.press('Start the round');
    expect(document.activeElement).toBe(box);
    const field = page.field('Distance between centres');
    page.named('Start the round').click();
    field.focus();
    await page.fixture.whenStable();
    expect(document.activeElement).toBe(field);
  });

  it('what is missing is named and counted', async () => {
    const { page } = await open('tailstock-traverse');
    await tick(page);
    await page.type('Distance between centres', '');
    await page.press('Start the round');
    expect(page.text()).toContain('One field needs another look.');
    expect(
      page
        .all('[role=alert]')
        .map((alert) => alert.textContent)
        .join(),
    ).toContain('Distance between centres is missing');
  });

  it('what is to be read with leaves is begun with leaves, without a needle to nudge', async () => {
    const { page, server } = await open('column-lean', [], (shop) => {
      shop.machines = [{ ...lathe(), card: { ...lathe().card, kind: 'column-mill' } }];
    });
    await tick(page);
    expect(page.text()).toContain('it counts down');
    await page.tick(/Read the gap beside the blade with leaves/);
    expect(page.text()).not.toContain('it counts down');
    await page.choose('right-hand side');
    await page.choose('your side');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
    const round: RoundWrite = server.sent[0].body;
    expect(round.instrument).toEqual(jasmine.objectContaining({ kind: 'feeler' }));
    expect(round.plan).toEqual({ leaves: true });
  });

  it('begins with the instrument in hand, the nudge test and the conditions in base units', async () => {
    const { page, server, navigate } = await open('tailstock-traverse');
    await tick(page);
    await page.type('Distance between centres', '16');
    await page.type('Place along the bed', '600 mm');
    await page.choose('it counts down');
    await page.press('Start the round');
    // 16 what? Nothing begins before it is told.
    expect(server.sent).toEqual([]);
    await page.press('16 mm');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
    const round: RoundWrite = server.sent[0].body;
    expect(round.instrument).toEqual({ kind: 'lever', graduation: '0.002 mm', sense: -1 });
    expect(round.instrumentName).toBe('Lever dial');
    expect(round.setup['centreDistance']).toBe('16 mm');
    expect(round.conditions).toEqual({ place: 600 });
    expect(navigate).toHaveBeenCalledWith(['/machines', LATHE, 'bench', 'tailstock-traverse', round.id]);
  });

  it('places are typed as a list, stand as one with their unit, and are there again the next time', async () => {
    const { page, server } = await open('tailstock-traverse');
    TestBed.inject(Settings).system.set('inch');
    await page.type('Their places', '2 16');
    expect((page.field('Their places') as HTMLInputElement).value).toBe('2, 16 in');
    await page.type('Their places', '20,180');
    expect(page.text()).toContain('Their places must be a list of places, with a space or a semicolon between them. Example: 0.75, 15 in');
    await page.type('Their places', '2 16');
    await tick(page);
    await page.type('Distance between centres', '18 in');
    await page.choose('it counts up');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as RoundWrite).plan['places']).toBe('2, 16 in');
    const again = await show(Begin, { checkId: 'tailstock-traverse' });
    await until(() => (again.field('Their places') as HTMLInputElement).value === '2, 16 in');
  });

  it('a needle that stays when it is pulled away is pegged: nothing is read before it is free', async () => {
    const { page, server } = await open('tailstock-traverse');
    await tick(page);
    await page.type('Distance between centres', '400 mm');
    await page.type('Place along the bed', '600 mm');
    await page.choose('it counts up');
    await page.choose('it stays');
    expect(page.text()).toContain('The needle is at the end of its travel, and its reading means nothing');
    await page.press('Start the round');
    expect(page.text()).toContain('The needle is at the end of its travel. Set the dial so that the needle can move both ways');
    expect(server.sent).toEqual([]);
    await page.choose('it goes back');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
  });

  it('starts from the last round, how the dial counted too, and says where that is from', async () => {
    const { page } = await open('tailstock-traverse', [barRound(3, 9)]);
    await until(() => page.text().includes('this dial counted'));
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('400 mm');
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('600 mm');
    expect(page.text()).toContain('this dial counted up, read from the same side');
    expect((page.named('it counts up').querySelector('input') as HTMLInputElement).checked).toBeTrue();
    // From the other side it is another matter: the nudge is asked anew.
    await page.choose('the rear');
    expect(page.text()).not.toContain('this dial counted');
    expect(page.text()).toContain('Not tried: the result will assume the direction');
  });

  it('a bar out of the kit fills in what the set-up asks of it, a holder its droop', async () => {
    const { page, server } = await open('tailstock-traverse', [], (shop) => {
      const piece = { ...shop.kit[0], care: { due: '2020-01-01' } };
      shop.kit.push(
        { ...piece, id: 'bar', kind: 'test-bar', name: 'Ground bar', data: { diameter: '32 mm', finish: 'ground', bend: '2 um' } },
        { ...piece, id: 'arm', kind: 'holder', name: 'Long arm', data: { sag: '-21 um' } },
      );
    });
    await page.pick('Bar out of the kit', /^Ground bar, overdue by \d+ days$/);
    await page.pick('Held in', /^Long arm/);
    await tick(page);
    await page.type('Distance between centres', '400 mm');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
    const sent: RoundWrite = server.sent[0].body;
    expect(sent.setup['bar']).toEqual({ diameter: '32 mm', finish: 'ground' });
    expect(sent.instrument?.['holderSag']).toBe('-21 um');
  });

  it('a seat asks which casting it is: what rests on it hangs on the answer', async () => {
    const { page, server } = await open('seat');
    await tick(page);
    await page.press('Start the round');
    expect(page.text()).toMatch(/Casting[^.]* is missing/);
    expect(server.sent).toEqual([]);
    await page.pick('Casting', 'saddle');
    await page.press('Start the round');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as RoundWrite).conditions['casting']).toBe('saddle');
  });

  it('a level is described by its slope, and only what is asked is shown', async () => {
    const { page } = await open('bed-twist');
    expect(page.text()).not.toContain('Conditions');
    expect(page.text()).not.toContain('What it is for');
    await tick(page);
    await page.type('One division', '0.02');
    await page.press('Start the round');
    expect(page.all('[role=alert]').length).toBe(0);
  });

  it('no field is shown before what fills it has come: none is filled under a hand that types', async () => {
    const { server } = await openShop([barRound(3, 9)]);
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    server.holds = (_, path) => path.startsWith('/rounds/');
    const page = showAtOnce(Begin, { checkId: 'tailstock-traverse' });
    const values = () => (page.all('input') as HTMLInputElement[]).map((input) => input.value);
    await until(() => page.text().includes('Loading the last set-up'));
    const ticked = page.tick('I have read and done this');
    expect(values()).not.toContain('600 mm');
    expect((page.named('Start the round') as HTMLButtonElement).disabled).toBeTrue();
    server.letGo();
    await ticked;
    await until(() => values().includes('600 mm'));
    // What was ticked meanwhile stays.
    await page.type('Distance between centres', '390 mm');
    expect(values().filter((value) => value === '390 mm').length).toBe(1);
    await page.press('Start the round');
    await until(() => navigate.calls.count() === 1 && server.sent.length === 1);
    expect((server.sent[0].body as RoundWrite).setup['centreDistance']).toBe('390 mm');
  });

  it('the last round fills the form in also while it is still on its way to the server', async () => {
    const { server } = await openShop([barRound(3, 9)]);
    const { finding: _finding, readings: _readings, moves: _moves, number: _number, surveyId: _survey, ...fresh } = barRound(1, 1);
    server.down = true;
    const held = { ...fresh.instrument, holderSag: '-9 um' };
    const later = { ...fresh, at: '2027-01-01T08:00:00.000Z', setup: { centreDistance: '412 mm' }, instrument: held, instrumentName: null };
    TestBed.inject(Rounds).begin(later as RoundWrite);
    const page = await show(Begin, { checkId: 'tailstock-traverse' });
    const values = () => (page.all('input') as HTMLInputElement[]).map((input) => input.value);
    await until(() => values().includes('412 mm'));
    expect(values()).toContain('-9 um');
    expect(page.text()).not.toContain('could not be loaded');
  });

  it('says so where the last set-up cannot be fetched', async () => {
    const { server } = await openShop([barRound(3, 9)]);
    server.down = true;
    const page = await show(Begin, { checkId: 'tailstock-traverse' });
    await until(() => page.text().includes('The last set-up could not be loaded'));
    expect(page.text()).toContain('Check every field, the instrument and its holder too.');
    expect((page.named('Start the round') as HTMLButtonElement).disabled).toBeFalse();
  });

  it('initials are asked once, where nobody has given them', async () => {
    const { page, server } = await open('tailstock-traverse');
    TestBed.inject(Settings).who.set('');
    const asked = await show(Begin, { checkId: 'tailstock-traverse' });
    const field = asked.element.querySelector<HTMLInputElement>('.who input') as HTMLInputElement;
    field.value = 'EK';
    field.dispatchEvent(new Event('input'));
    await asked.tick('I have read and done this');
    await asked.type('Distance between centres', '400 mm');
    expect(asked.element.querySelector('.who')).not.toBeNull();
    await asked.press('Start the round');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as RoundWrite).by).toBe('EK');
    page.fixture.destroy();
    const later = await show(Begin, { checkId: 'tailstock-traverse' });
    expect(later.element.querySelector('.who')).toBeNull();
  });

  it('refused, the hand is led to the first field that needs another look', async () => {
    const { page } = await open('tailstock-traverse');
    document.body.append(page.element);
    await page.press('Start the round');
    await until(() => document.activeElement?.getAttribute('type') === 'checkbox');
    await tick(page);
    await page.type('Distance between centres', 'far');
    await page.press('Start the round');
    await until(() => document.activeElement === page.element.querySelector('[aria-invalid=true]'));
    expect((document.activeElement as HTMLInputElement).value).toBe('far');
    page.element.remove();
  });

  it('pressed twice it begins once, also while the server is slow', async () => {
    const { page, server, navigate } = await open('tailstock-traverse');
    server.holds = (method) => method === 'POST';
    await tick(page);
    await page.type('Distance between centres', '400 mm');
    const button = page.named('Start the round');
    button.click();
    button.click();
    await until(() => server.rounds.length > 0);
    server.letGo();
    await until(() => navigate.calls.count() === 2 && server.inFlight === 0);
    expect(server.sent.length).toBe(1);
    expect(server.rounds.length).toBe(1);
  });

  it('a draft survives leaving the page', async () => {
    const { page } = await open('tailstock-traverse');
    await page.type('Distance between centres', '123');
    page.fixture.destroy();
    const again = await show(Begin, { checkId: 'tailstock-traverse' });
    expect((again.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('123 mm');
  });

  it('what an earlier rung has found fills in what hangs on it, and says so', async () => {
    const found = practiceRound(bedTwistSheet((z) => (4.23 * z) / 1000, [100, 700, 1300], { graduation: 1, zero: 0 }));
    const { page } = await open('spindle-axis', [found]);
    expect((page.all('input') as HTMLInputElement[]).map((input) => input.value)).toContain('4.2 µm/m per m');
    expect(page.text()).toContain('Bed twist: 4.2 µm/m per m, as its own check measured it.');
    await page.type('Bed twist', '9 um/m per m');
    expect(page.text()).not.toContain('as its own check measured it');
  });
});

describe('a round out of a sheet file', () => {
  const sheet = (text: string) => new File([text], 'sheet.json');
  const open = async (checkId: string, text: string) => {
    const { server } = await openShop();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const page = await show(Begin, { checkId });
    const choose = page.element.querySelector<HTMLInputElement>('iso-sheet-in input[type=file]')!;
    const files = new DataTransfer();
    files.items.add(sheet(text));
    choose.files = files.files;
    choose.dispatchEvent(new Event('change'));
    return { server, navigate, page };
  };
  const told = bedTwistSheet((z) => z / 25, [50, 500, 950], { graduation: 10, zero: 0 });

  it('has its set-up, instrument and readings, and goes to the bench', async () => {
    const { navigate, server } = await open('bed-twist', JSON.stringify(told));
    await until(() => navigate.calls.count() > 0);
    const [, , , check, id] = navigate.calls.mostRecent().args[0] as string[];
    expect(check).toBe('bed-twist');
    await until(() => server.rounds.find((round) => round.id === id)?.readings.length === 6);
    TestBed.inject(Undo).takeBack();
    await until(() => server.rounds.find((round) => round.id === id)?.struck !== undefined);
  });

  it('of another check, with mistakes, or none at all is told, and nothing is written', async () => {
    for (const [text, words] of [
      [JSON.stringify(told), 'This sheet is of another check: Bed twist. Open it there.'],
      ['{', 'is not JSON'],
      [JSON.stringify({ ...told, check: 'tailstock-traverse' }), 'was not opened.'],
    ]) {
      const { page, server } = await open('tailstock-traverse', text);
      await until(() => page.text().includes(words));
      expect(server.sent).toEqual([]);
      TestBed.resetTestingModule();
    }
  });
});
