import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { LogEntry } from '@isometra/contract';
import { Settings } from '../data/settings';
import { openShop, show, until, type FakeServer } from '../testing/fake-shop';
import { Logbook } from './logbook';
import { logPath, logState, logText } from './log-words';

const entry = (id: number, more: Partial<LogEntry> = {}): LogEntry => ({
  ...{ id, at: `2026-03-01T08:${String(59 - (id % 60)).padStart(2, '0')}:00.000Z`, by: 'HB', what: 'survey', text: `Entry ${id}` },
  ...{
    machineId: 'm',
    part: null,
    thing: null,
    thingId: null,
    was: null,
    round: null,
    quantity: null,
    remark: null,
    note: null,
    version: null,
  },
  ...more,
});

const bar = (more: Partial<NonNullable<LogEntry['round']>> = {}): NonNullable<LogEntry['round']> => ({
  ...{ id: 'r', check: 'tailstock-traverse', number: 3, instrumentName: 'Lever dial', finding: null },
  ...more,
});

const away = {
  ...{ value: -30, unit: 'um', direction: 'away from the operator', expanded: 2, limit: [-20, 20], aim: null, verdict: 'out' },
} as unknown as NonNullable<NonNullable<LogEntry['round']>['finding']>['quantities'][string];

describe('the logbook', () => {
  let server: FakeServer;
  async function open(inputs: Record<string, string> = {}) {
    const book = await show(Logbook, inputs);
    await until(() => !book.text().includes('Reading on'));
    return book;
  }
  beforeEach(async () => ({ server } = await openShop()));

  it('tells a round with what it says, in the unit of the day, and leads there', async () => {
    const finding = { quantities: { offsetHorizontal: away }, notes: [] } as unknown as NonNullable<LogEntry['round']>['finding'];
    server.log = [
      entry(1, { what: 'round', text: 'Bar between centres: round begun', thing: 'round', thingId: 'r', round: bar({ finding }) }),
    ];
    const book = await open();
    expect(book.text()).toContain('Bar between centres, round 3');
    expect(book.text()).toContain('Lever dial');
    expect(book.text()).toContain('Tailstock sideways: 0.030 mm away from you');
    expect(book.all('.told a')[0].getAttribute('href')).toBe('/machines/m/bench/tailstock-traverse/r');
    TestBed.inject(Settings).system.set('inch');
    await book.fixture.whenStable();
    expect(book.text()).toContain('Tailstock sideways: 1.2 thou away from you');
  });

  it('strikes through what counts no more: a discarded round, a reading that was put right', async () => {
    server.log = [
      entry(2, { what: 'reading', text: 'Reading corrected to 4 div: misread', was: '9 div', round: bar() }),
      entry(1, { what: 'round', text: 'Bar between centres: round begun', thing: 'round', thingId: 'r', round: bar({ struck: true }) }),
    ];
    const book = await open();
    expect(book.all('s')[0].textContent).toBe('9 div');
    expect(book.all('li')[0].textContent).toContain('Bar between centres, round 3');
    expect(book.all('li.gone').length).toBe(1);
    expect(book.all('li.gone')[0].textContent).toContain('discarded');
    expect(book.all('iso-glyph').length).toBe(0);
  });

  it('asks by the address, and marks the words that were found', async () => {
    server.log = [entry(1, { text: 'Felt of the ram torn' })];
    const book = await open({ words: 'felt', by: 'HB', from: '2026-03-01' });
    const asked = server.asked.filter((path) => path.startsWith('GET /log')).at(-1);
    expect(asked).toContain('words=felt');
    expect(asked).toContain('by=HB');
    expect(asked).toContain('from=2026-03-01');
    expect(book.all('mark').map((mark) => mark.textContent)).toEqual(['Felt']);
    // Marked or not, no letter and no space is lost or added.
    expect(book.all('.told p')[0].textContent?.trim()).toBe('Felt of the ram torn');
  });

  it('puts what is chosen into the address, a day only when it is one', async () => {
    const book = await open();
    const navigate = spyOn(TestBed.inject(Router), 'navigate').and.resolveTo(true);
    const screen = book.fixture.componentInstance as unknown as { askFor(name: string, value: string): void };
    screen.askFor('from', '2026-3');
    expect(navigate).not.toHaveBeenCalled();
    screen.askFor('from', '2026-03-01');
    screen.askFor('what', '');
    expect(navigate.calls.allArgs().map(([, extras]) => extras?.queryParams)).toEqual([{ from: '2026-03-01' }, { what: null }]);
  });

  it('reads on by itself to the last page, each entry once', async () => {
    const first = Array.from({ length: 60 }, (_, i) => entry(200 - i));
    server.logPages = [
      { entries: first, next: '1_141' },
      { entries: [entry(140), entry(139)], next: null },
    ];
    const book = await open();
    // A day that comes into sight gets its real height: whoever wants the end scrolls on.
    await until(() => {
      book.all('.more')[0]?.scrollIntoView();
      return book.text().includes('Entry 139');
    });
    expect(book.all('li').length).toBe(62);
    expect(server.asked.at(-1)).toContain('before=1_141');
    expect(book.text()).not.toContain('Read on');
  });

  it('says when the server cannot be reached, and goes on from there', async () => {
    server.log = [entry(1)];
    server.down = true;
    const book = await open();
    expect(book.text()).toContain('The server cannot be reached.');
    server.down = false;
    book.named('Try again').click();
    await until(() => book.text().includes('Entry 1'));
    expect(book.text()).not.toContain('cannot be reached');
  });

  it('says when nothing was written down that fits', async () => {
    expect((await open({ words: 'unicorn' })).text()).toContain('Nothing was written down that fits.');
  });
});

describe('an entry of the logbook', () => {
  const shown = { system: 'mm', fineness: 'coarse' } as const;
  const moved = (text: string, quantity = 'offsetHorizontal') =>
    entry(1, { what: 'move', text, thing: 'move', thingId: 'x', round: bar(), quantity });

  it('of a move says how far and which way as the screens do', () => {
    const text = 'Move done: Turn the adjusting screws, 21.0 um away from the operator';
    expect(logText(moved(text), shown)).toBe('Move done: Turn the adjusting screws, 0.021 mm away from you');
    expect(logText(moved(text), { system: 'inch', fineness: 'coarse' })).toBe(
      'Move done: Turn the adjusting screws, 0.8 thou away from you',
    );
    // What is not known any more is told as it was written down.
    expect(logText({ ...moved(text), quantity: 'gone' }, shown)).toBe(text);
    expect(logText(moved('Moved on tightening: 0.5 div'), shown)).toBe('Moved on tightening: 0.5 div');
  });

  it('leads to where it happened, and nowhere when that is not known', () => {
    expect(logPath(moved(''))).toEqual(['/machines', 'm', 'move', 'r', 'offsetHorizontal']);
    expect(logPath({ ...moved(''), round: null })).toBeUndefined();
    expect(logPath(entry(1, { thing: 'face', thingId: 'f' }))).toEqual(['/machines', 'm', 'scraping', 'f']);
    expect(logPath(entry(1, { thing: 'machine', thingId: 'm' }))).toEqual(['/machines', 'm', 'card']);
    expect(logPath(entry(1, { thing: 'survey', thingId: 's' }))).toEqual(['/machines', 'm', 'campaign']);
    expect(logPath(entry(1, { thing: 'survey', thingId: 's', part: 'seat' }))).toEqual(['/machines', 'm', 'rounds', 'seat']);
    expect(logPath(entry(1, { thing: 'kit', thingId: 'k', machineId: null }))).toEqual(['/kit']);
    expect(logPath(entry(1, { thing: 'limits', thingId: 'l', machineId: null }))).toEqual(['/limits', 'l']);
    expect(logPath(entry(1))).toBeUndefined();
    expect(logPath(entry(1, { thing: 'dream' }))).toBeUndefined();
    const changed = entry(1, { thing: 'face', thingId: 'f', version: 3 });
    expect(logPath({ ...entry(1), what: 'shop', thing: null })).toEqual(['/shop']);
    expect(logPath({ ...entry(1), thing: 'part', thingId: 'p', part: 's', machineId: 'm' })).toEqual(['/machines', 'm', 'parts', 's']);
    expect([logPath(changed), logState(changed), logState(entry(1))]).toEqual([
      ['/machines', 'm', 'scraping', 'f', 'face'],
      { state: 'f.3' },
      null,
    ]);
  });
});
