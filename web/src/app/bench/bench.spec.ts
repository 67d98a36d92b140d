import { TestBed } from '@angular/core/testing';
import type { ReadingWrite } from '@isometra/contract';
import { Keys } from '../data/keys';
import { barRound, openShop, show, until, type Shown } from '../testing/fake-shop';
import { Bench } from './bench';

describe('the bench on the screen', () => {
  const open = async (round = { ...barRound(0, 0), readings: [] } as ReturnType<typeof barRound>) => {
    const shop = await openShop([round]);
    const bench = await show(Bench, { checkId: round.check, roundId: round.id });
    return { ...shop, round, bench };
  };
  const field = (bench: Shown<Bench>) => bench.element.querySelector<HTMLInputElement>('#reading') as HTMLInputElement;
  const read = async (bench: Shown<Bench>, text: string) => {
    field(bench).value = text;
    field(bench).dispatchEvent(new Event('input'));
    field(bench).form?.requestSubmit();
    await bench.fixture.whenStable();
  };
  const press = async (bench: Shown<Bench>, key: string) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
    field(bench).dispatchEvent(event);
    TestBed.inject(Keys).handle(event);
    await bench.fixture.whenStable();
  };

  it('asks for the first place, then the next, and the call follows', async () => {
    const { bench, server } = await open();
    expect(bench.text()).toContain('Operator’s side, near the headstock, 20 mm');
    expect(bench.text()).toContain('No result yet');
    await read(bench, '0');
    expect(bench.text()).toContain('near the tailstock, 380 mm');
    await read(bench, '-9.5');
    expect(bench.text()).toContain('Bring it 0.021 mm toward you.');
    await until(() => server.sent.length === 2);
    expect(server.sent.map((write) => (write.body as ReadingWrite).value)).toEqual(['0 div', '-9.5 div']);
  });

  it('is saved as a sheet with the readings that the shop has not heard of yet', async () => {
    const { bench, server } = await open();
    server.holds = (method, path) => method === 'POST' && path.endsWith('/readings');
    await read(bench, '0');
    await read(bench, '-9.5');
    const given: Blob[] = [];
    spyOn(URL, 'createObjectURL').and.callFake((blob) => `#${given.push(blob as Blob)}`);
    spyOn(HTMLAnchorElement.prototype, 'click');
    await bench.press('sheet file');
    const sheet = JSON.parse(await given[0].text()) as { check: string; readings: { value: string }[] };
    expect(sheet.check).toBe('tailstock-traverse');
    expect(sheet.readings.map(({ value }) => value)).toEqual(['0 div', '-9.5 div']);
  });

  it('a dial that is set over for another direction is nudged again before the first reading there', async () => {
    const { bench } = await open();
    const asked = 'The dial is set over now';
    expect(bench.text()).not.toContain(asked);
    await read(bench, '0');
    await read(bench, '-9.5');
    await until(() => bench.text().includes(asked));
    await bench.choose(/the other way/);
    expect(bench.text()).toContain('Turn the dial or its lever over before you read');
    await bench.choose(/as before/);
    expect(bench.text()).not.toContain('Turn the dial or its lever over');
    await read(bench, '3');
    expect(bench.text()).not.toContain(asked);
  });

  it('a place is put where the stylus really goes: typed, for both planes, and what was read there goes with it', async () => {
    const { bench, server } = await open();
    const typePlace = async (text: string) => {
      const place = bench.element.querySelector<HTMLInputElement>('input[aria-label="Place of the stylus"]') as HTMLInputElement;
      place.value = text;
      place.dispatchEvent(new Event('change'));
      await bench.fixture.whenStable();
      return place;
    };
    await read(bench, '0');
    await read(bench, '-9.5');
    await until(() => server.sent.length === 2);
    await press(bench, 'ArrowUp');
    expect(bench.text()).toContain('near the tailstock, 380 mm');
    const kept = await typePlace('far out');
    expect(kept.value).toBe('far out');
    expect(bench.text()).toContain('The place "far out"');
    await typePlace('20 mm');
    expect(bench.text()).toContain('There is a place at 20 mm already');
    await typePlace('200 mm');
    await until(() => server.sent.length === 4);
    const [plan, again] = server.sent.slice(2).map(({ body }) => body as { plan?: object; keys?: object; value?: string; why?: string });
    expect(plan.plan).toEqual(jasmine.objectContaining({ places: ['20 mm', '200 mm'] }));
    expect(again).toEqual(jasmine.objectContaining({ keys: { plane: 'h', at: 200 }, value: '-9.5 div', why: 'place changed' }));
    // By pencil: the same 19 µm over half the length is twice the error of the tailstock.
    await until(() => bench.text().includes('Bring it 0.042 mm toward you.'));
    await until(() => bench.text().includes('near the tailstock, 200 mm'));
  });

  it('a reading that is none stays in the field with its fault', async () => {
    const { bench, server } = await open();
    await read(bench, 'twelve');
    expect(bench.element.querySelector('#reading-fault')?.textContent).toContain('Example: 3.5 div');
    expect(field(bench).value).toBe('twelve');
    expect(server.sent).toEqual([]);
  });

  it('± turns a sign, a hyphen in a figure is none; arrows move the needle, and in a text the cursor', async () => {
    const { bench } = await open();
    const type = (text: string) => {
      field(bench).value = text;
      field(bench).dispatchEvent(new Event('input'));
    };
    type('5');
    await press(bench, '-');
    expect(field(bench).value).toBe('5');
    type('5-1/2');
    await press(bench, '±');
    expect(field(bench).value).toBe('-5-1/2');
    expect(bench.element.querySelector('iso-dial svg')?.getAttribute('aria-label')).toBe('Needle at -5.5 divisions');
    await press(bench, 'ArrowRight');
    expect(field(bench).value).toBe('-5-1/2');
    type('');
    await press(bench, 'ArrowRight');
    await press(bench, 'ArrowRight');
    expect(field(bench).value).toBe('1');
  });

  it('a bare reading that the dial cannot show is asked back, and taken as it is meant', async () => {
    const { bench, server } = await open();
    await read(bench, '.012');
    expect(bench.text()).toContain('The dial cannot show .012 divisions. Which is meant?');
    expect(server.sent).toEqual([]);
    await bench.press('.012 mm');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as ReadingWrite).value).toBe('.012 mm');
    expect(bench.text()).not.toContain('Which is meant');
  });

  it('Space takes what the needle shows, and is a blank in what is typed', async () => {
    const { bench, server } = await open();
    await press(bench, 'ArrowRight');
    await press(bench, 'ArrowRight');
    await press(bench, ' ');
    await until(() => server.sent.length === 1);
    expect((server.sent[0].body as ReadingWrite).value).toBe('1 div');
    expect(bench.text()).toContain('near the tailstock, 380 mm');
    await press(bench, ' ');
    field(bench).value = '5';
    field(bench).dispatchEvent(new Event('input'));
    await press(bench, ' ');
    expect(field(bench).value).toBe('5');
    expect(server.sent.length).toBe(1);
    // Typed after the needle was moved: it is a text again.
    field(bench).setSelectionRange(1, 1);
    await press(bench, 'ArrowRight');
    field(bench).value = '5 1/2';
    field(bench).dispatchEvent(new Event('input'));
    await press(bench, ' ');
    expect(server.sent.length).toBe(1);
  });

  it('keys work from the empty field: another place, the table, another set-up', async () => {
    const { bench } = await open();
    await press(bench, 'ArrowDown');
    expect(bench.text()).toContain('near the tailstock, 380 mm');
    await press(bench, 't');
    expect(bench.all('table').length).toBe(1);
    await press(bench, 's');
    expect(bench.text()).toContain('set-up 2');
  });

  it('readings are corrected and withdrawn in the table, never changed', async () => {
    const { bench, server, round } = await open(barRound(-21, 9));
    await press(bench, 't');
    expect(bench.all('tbody tr').length).toBe(5);
    await bench.press('Correct');
    expect(bench.text()).toContain('Correct the reading 0 µm');
    await read(bench, '1 um');
    await bench.press('Withdraw');
    await until(() => server.sent.length === 2);
    const [first, second] = server.sent.map((write) => write.body as ReadingWrite);
    expect(first).toEqual(jasmine.objectContaining({ supersedes: round.readings[0].id, why: 'misread' }));
    expect(second).toEqual(jasmine.objectContaining({ value: null, why: 'withdrawn' }));
    expect(bench.all('tr.gone').length).toBe(2);
  });

  it('a finished round shows its call, its doubts and what it cannot see', async () => {
    const { bench } = await open(barRound(-21, 9, { purpose: { kind: 'turning', length: '200 mm' } }));
    expect(bench.text()).toContain('All places are read');
    expect(bench.text()).toContain('What this cannot see');
    expect(bench.text()).toContain('taper on diameter over the length');
    await bench.press('What makes the ±');
    expect(bench.all('.budget li').length).toBeGreaterThan(2);
    expect(bench.named('Job card for this move').classList).toContain('next');
  });

  it('marks on the drawing can be chosen', async () => {
    const { bench } = await open();
    await until(() => bench.all('.mark').length > 3);
    bench.all('.mark')[3].dispatchEvent(new MouseEvent('click', { bubbles: true }));
    await bench.fixture.whenStable();
    expect(bench.text()).toContain('Top, near the tailstock');
  });
});
