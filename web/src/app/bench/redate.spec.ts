import { TestBed } from '@angular/core/testing';
import { History } from '../rounds/history';
import { MachineStore } from '../machine/machine-store';
import { OWN_ZONE, shopZone } from '../data/when';
import { barRound, openShop, show, until, type Shown } from '../testing/fake-shop';
import { Bench } from './bench';

describe('a round dated later than now', () => {
  afterEach(() => shopZone.set(OWN_ZONE));

  const LATER = '2199-01-03T10:00:00.000Z';
  const open = async () => {
    const round = { ...barRound(-21, 9), at: LATER, ahead: true as const };
    const shop = await openShop([round]);
    return { ...shop, round, bench: await show(Bench, { checkId: round.check, roundId: round.id }) };
  };
  const type = async (bench: Shown<Bench>, placeholder: RegExp, text: string) => {
    const field = bench
      .all('iso-redate input')
      .find((input) => placeholder.test(input.getAttribute('placeholder') ?? '')) as HTMLInputElement;
    // The date picker listens to what a hand types only.
    field.dispatchEvent(new KeyboardEvent('keydown', { key: '1' }));
    field.value = text;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
    field.blur();
    await bench.fixture.whenStable();
  };

  it('has no call and no move until its date is put right; then it is judged', async () => {
    shopZone.set('Europe/Berlin');
    const { bench, server, round } = await open();
    expect(bench.text()).toContain('This round is dated 3 Jan 2199, 11:00');
    expect(bench.text()).not.toContain('toward you');
    expect(TestBed.inject(MachineStore).of(round.check)).toEqual([]);
    await bench.press('Correct the date');
    expect(bench.text()).toContain('Day and time of day are needed');
    await type(bench, /^\d{4}-/, '2026-03-01');
    await type(bench, /18:40/, '18:40');
    await bench.press('Correct the date');
    expect(bench.text()).toContain('Say why the date was wrong');
    await type(bench, /clock was wrong/, 'clock of the tablet');
    await bench.press('Correct the date');
    await until(() => server.sent.some(({ path }) => path.endsWith('/date')));
    const sent = server.sent.find(({ path }) => path.endsWith('/date'));
    expect(sent?.body).toEqual(jasmine.objectContaining({ at: '2026-03-01T17:40:00.000Z', why: 'clock of the tablet', version: 1 }));
    await until(() => bench.all('iso-redate').length === 0);
    await until(() => bench.text().includes('toward you'));
    await until(() => TestBed.inject(MachineStore).of(round.check).length === 1);
  });

  it('takes no day that is still to come', async () => {
    const { bench, server } = await open();
    await type(bench, /^\d{4}-/, '2198-03-01');
    await type(bench, /18:40/, '18:40');
    await type(bench, /clock was wrong/, 'clock');
    await bench.press('Correct the date');
    expect(bench.text()).toContain('still to come');
    expect(server.sent).toEqual([]);
  });

  it('stands among the rounds, without a call', async () => {
    const { round } = await open();
    const list = await show(History, { checkId: round.check });
    expect(list.text()).toContain('dated in the future: open it and correct the date');
  });
});

describe('a spoilt round on the bench', () => {
  it('is struck out with a reason, stands struck out among the rounds, and can be counted again', async () => {
    const round = barRound(-21, 9);
    const { server } = await openShop([round]);
    const bench = await show(Bench, { checkId: round.check, roundId: round.id });
    await until(() => bench.text().includes('toward you'));
    const asked = () => bench.element.querySelector('iso-struck form');
    await bench.press('Discard this round');
    await bench.escape('iso-struck form input');
    expect(asked()).toBeNull();
    await bench.press('Discard this round');
    await bench.press('Discard round');
    expect(bench.text()).toContain('A reason is required');
    await bench.type('Reason', 'the bar was not home');
    await bench.press('Discard round');
    await until(() => bench.text().includes('This round was discarded by'));
    expect(bench.text()).not.toContain('toward you');
    await until(() => TestBed.inject(MachineStore).of(round.check).length === 0);
    const list = await show(History, { checkId: round.check });
    expect(list.text()).toContain('the bar was not home');
    expect(list.all('.struck').length).toBe(1);
    await bench.press('Restore');
    await until(() => bench.text().includes('toward you'));
    expect(server.sent.map(({ body }) => body.why)).toEqual(['the bar was not home', null]);
  });
});
