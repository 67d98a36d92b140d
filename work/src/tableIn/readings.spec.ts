import fc from 'fast-check';
import { CHECKS, FILE_SIZES, readInstrument, readsOf, sizesIn, type CheckDefinition } from '@isometra/core';
import type { StoredReading } from '@isometra/contract';
import { placeOf } from '../notebook/keyOf.js';
import { withReadings } from '../sheets/slots.js';
import { likely, type Mapped } from './fields.js';
import { readingFields } from './readingFields.js';
import type { ReadingIn, ReadingsAbout } from './readingPlaces.js';
import { readingRows, startOf } from './readings.js';
import { rowsToWrite, type InRow } from './rows.js';
import { looksHeaded, partText, tableOfCells } from './table.js';

const DIAL = { kind: 'lever', graduation: '2 um', sense: 1, range: 100 };

/** A table read at 25 places along and 12 across: 300 readings. */
const GRID = {
  check: 'table-parallelism-x',
  plan: { stations: '25', length: '600 mm', rows: '12', width: '220 mm' },
};
const TAILSTOCK = { check: 'tailstock-traverse', setup: { centreDistance: '400 mm' }, plan: {} };

/** A round that a table goes into, with what was read into it. */
function about(
  of: { check: string; setup?: Readonly<Record<string, unknown>>; plan: object },
  readings: readonly StoredReading[] = [],
): ReadingsAbout {
  const check = CHECKS.get(of.check) as CheckDefinition;
  const setup = check.setup.parse(of.setup ?? {}) as Record<string, unknown>;
  const slots = withReadings(check.slots(setup, check.plan.parse(of.plan)), readings, (keys) => placeOf(check, keys));
  return {
    ...{ check, slots, setUp: 1, size: FILE_SIZES, instrument: readInstrument(DIAL).instrument },
    round: { check: of.check, setup: of.setup ?? {}, instrument: DIAL },
    kindOf: (keys) => readsOf(check, setup, keys),
  };
}

const tableOf = (text: string) => {
  const { cells } = partText(text);
  return tableOfCells(cells, looksHeaded(cells));
};
const mapped = (text: string, round: ReadingsAbout, own: Readonly<Record<string, Partial<Mapped>>> = {}) => {
  const mapping = likely(tableOf(text), readingFields(round));
  const fields = Object.entries(mapping.fields).map(([key, field]) => [key, { ...field, ...own[key] }]);
  return { ...mapping, fields: Object.fromEntries(fields) as typeof mapping.fields };
};
const rows = (text: string, round: ReadingsAbout, own: Readonly<Record<string, Partial<Mapped>>> = {}) =>
  readingRows(tableOf(text), mapped(text, round, own), round);
/** What would be written, as the round would then have it. */
const written = (told: readonly InRow<ReadingIn>[]): StoredReading[] =>
  rowsToWrite(told, new Set()).map(({ value }, i) => ({
    ...{ ...value, id: `r${i}`, supersedes: null, why: null, by: 'HB', at: '2026-01-01T00:00:00Z', roundId: 'r', sequence: i },
  }));
const faulty = (told: readonly InRow<ReadingIn>[]) =>
  told.filter(({ state }) => state === 'faulty').map(({ number, reason }) => [number, reason]);

describe('a table of readings', () => {
  const grid = about(GRID);
  const lines = grid.slots
    .filter(({ closing }) => !closing)
    .map(({ keys }, i) => `${String(keys['at'])};${String(keys['across'])};${((i % 7) - 3) / 2}`);

  it('of 300 rows with eleven faults: each is told with its row and its reason, and the other 289 stand at their places', () => {
    expect(lines.length).toBe(300);
    const spoilt: Readonly<Record<number, string>> = {
      3: `${lines[3].split(';').slice(0, 2).join(';')};abc`,
      20: `${lines[20].split(';').slice(0, 2).join(';')};`,
      41: `999;0;1`,
      62: `;0;1`,
      83: `${lines[80].split(';').slice(0, 2).join(';')};1`,
      104: `${lines[104].split(';').slice(0, 2).join(';')};400`,
      125: `${lines[125].split(';').slice(0, 2).join(';')};1.5 furlongs`,
      146: 'left;0;1',
      167: `0;;1`,
      188: `${lines[188].split(';').slice(0, 2).join(';')};1,5`,
      299: `${lines[299].split(';').slice(0, 2).join(';')};1 2 3`,
    };
    const text = ['At (mm);Across (mm);Reading (div)', ...lines.map((line, i) => spoilt[i] ?? line)].join('\n');
    const told = rows(text, grid, { 'keys.at': { column: 'At (mm)', unit: 'mm' } });
    expect(faulty(told)).toEqual([
      [5, 'Reading "abc" is no figure'],
      [22, 'has no reading'],
      [43, jasmine.stringContaining('no place of the round is at 999 mm; the nearest is at 600 mm')],
      [64, jasmine.stringContaining('places of the round are')],
      [85, 'stands in the table already, with other places between'],
      [106, jasmine.stringContaining('is more than the dial can travel')],
      [127, jasmine.stringContaining('furlongs')],
      [148, jasmine.stringContaining('"left" is no figure')],
      [169, jasmine.stringContaining('places of the round are')],
      [190, '"1,5" has a comma, where figures have a decimal point'],
      [301, jasmine.stringContaining('the unit "2 3" is not one of')],
    ] as never);
    const stored = written(told);
    expect(stored.length).toBe(289);
    for (const { keys, value } of stored) {
      const line = lines.findIndex((one) => one.startsWith(`${String(keys['at'])};${String(keys['across'])};`));
      expect(value).toBe(`${((line % 7) - 3) / 2} div`);
    }
    // Put right and read again, only the eleven are new.
    const again = rows(['At (mm);Across (mm);Reading (div)', ...lines].join('\n'), about(GRID, stored));
    expect(again.filter(({ state }) => state === 'same').length).toBe(289);
    expect(again.filter(({ state }) => state === 'new').length).toBe(11);
    expect(faulty(again)).toEqual([]);
  });

  it('says the same of a round in whatever order its rows and columns stand', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(lines, { minLength: 20 }), fc.boolean(), fc.boolean(), (some, comma, turned) => {
        const text = ['Across [mm],Dial (div),At [mm]']
          .concat(
            some.map((line) => {
              const [at, across, value] = line.split(';');
              return [across, turned ? String(-Number(value)) : value, at].join(',');
            }),
          )
          .map((line) => (comma ? line.replaceAll(',', ';').replaceAll('.', ',') : line))
          .join('\r\n');
        const told = written(rows(text, grid, { value: { column: 'Dial (div)', unit: 'div', turned } }));
        const expected = some.map((line) => line.split(';').map(Number));
        expect(told.map(({ keys, value }) => [keys['at'], keys['across'], Number(String(value).split(' ')[0])])).toEqual(
          expected.map((line) => line.map((figure) => figure + 0)) as never,
        );
      }),
      { numRuns: 25 },
    );
  });

  it('without places is taken in working order; a bad or empty row leaves its place out and moves none of the others', () => {
    const told = rows('div\n0\n\nbad\n1.5', grid, { value: { column: 'div', unit: 'div' } });
    expect(told.map(({ number, state, value }) => [number, state, value?.keys, value?.value])).toEqual([
      [2, 'new', grid.slots[0].keys, '0 div'],
      [3, 'faulty', undefined, undefined],
      [4, 'faulty', undefined, undefined],
      [5, 'new', grid.slots[3].keys, '1.5 div'],
    ]);
    expect(startOf(2, about(GRID, written(told)).slots)).toBe(1);
    expect(startOf(300, about(GRID, written(told)).slots)).toBe(0);
  });

  it('asks whether rows stand in working order where another column may be their places', () => {
    const text = 'where it stood;div\n600;1\n0;2\n';
    const told = rows(text, grid, { value: { column: 'div', unit: 'div' } });
    expect(told.map(({ reason, doubt }) => [reason, doubt])).toEqual(
      Array(2).fill(['No column says the place: the rows stand in working order', true]) as never,
    );
    expect(rowsToWrite(told, new Set()).length).toBe(0);
    // Named, they lie where they were read.
    const named = rows(text, grid, { value: { column: 'div', unit: 'div' }, 'keys.at': { column: 'where it stood', unit: 'mm' } });
    expect(named.map(({ state }) => state)).toEqual(['faulty', 'faulty']);
    expect(named[0].reason).toContain('say which column is "across the travel"');
  });

  it('gives no unit that nobody said, keeps the unit of a cell, and turns signs where the column counts the other way', () => {
    const text = 'reading\n0\n1.5 thou\n−2\n';
    expect(faulty(rows(text, grid)).map(([number]) => number)).toEqual([2, 4]);
    const told = rows(text, grid, { value: { column: 'reading', unit: 'um', turned: true } });
    expect(told.map(({ value }) => value?.value)).toEqual(['0 µm', '-1.5 thou', '2 µm']);
  });

  it('asks before it takes a needle that was set over, a place read twice otherwise, and a figure ten times the others', () => {
    const round = about(TAILSTOCK);
    const [h, v] = ['h', 'v'].map((plane) => round.slots.filter(({ keys }) => keys['plane'] === plane));
    const text = ['plane,at (mm),reading (div)', `h,${h[0].keys['at']},0`, `h,${h[0].keys['at']},9`, `v,${v[0].keys['at']},1`].join('\n');
    const told = rows(text, round);
    expect(told.map(({ doubt }) => doubt ?? false)).toEqual([false, true, true]);
    expect(rowsToWrite(told, new Set()).length).toBe(1);
    expect(rowsToWrite(told, new Set(told.flatMap(({ reason }) => reason ?? []))).length).toBe(3);
  });

  it('in inches: places in inches, thou off the dial, and what is told of them in inches too', () => {
    const inch = { ...about(TAILSTOCK), size: sizesIn({ system: 'inch', fineness: 'fine' }) };
    const ats = [...new Set(inch.slots.map(({ keys }) => Number(keys['at'])))];
    const text = [
      'plane\tat (in)\treading (thou)',
      ...ats.map((at, i) => `h\t${(at / 25.4).toFixed(4)}\t${i}.5`),
      `h\t${(ats[0] / 25.4).toFixed(4)}\t90`,
      'h\t99\t0',
    ].join('\n');
    const told = rows(text, inch);
    expect(told.slice(0, ats.length).map(({ value }) => [value?.keys['at'], value?.value])).toEqual(
      ats.map((at, i) => [at, `${i}.5 thou`]),
    );
    const reasons = faulty(told).map(([, reason]) => String(reason));
    expect(reasons[0]).toMatch(/more than the dial can travel: [\d.]+ (tenths|thou) from end to end/);
    expect(reasons[1]).toMatch(/is at 99 in|at 99.00 in/);
    expect(reasons.join()).not.toContain('mm');
  });

  describe('of places that are felt', () => {
    const SEAT = { check: 'table-parallelism-x', plan: { leaves: true, stations: '3', length: '600 mm' } };
    const bare = (of: ReadingsAbout): ReadingsAbout => ({ ...of, instrument: undefined, round: { ...of.round, instrument: null } });
    const round = bare(about(SEAT));
    const [first, second] = round.slots.map(({ keys }) => Number(keys['at']));
    const text = [
      'at (mm),enters (mm),does not enter (mm)',
      `${first},0.10,0.12`,
      `${second},0.08,`,
      `${second},,`,
      `${first},0.2,0.1`,
    ].join('\n');

    it('takes the leaf that enters and the one that does not, and says which of the two is missing', () => {
      const told = rows(text, round);
      expect(told[0]).toEqual(
        jasmine.objectContaining({
          state: 'new',
          value: jasmine.objectContaining({ value: null, keys: jasmine.objectContaining({ at: first, go: '0.10 mm', noGo: '0.12 mm' }) }),
        }),
      );
      expect(faulty(told).map(([number]) => number)).toEqual([3, 4, 5]);
      expect(String(told[1].reason)).toContain('bound a gap');
      expect(told[2].reason).toBe('has no reading');
    });

    it('does not double what the round has, in whichever unit it stands there, and a figure of a dial is not taken', () => {
      const had = bare(about(SEAT, written(rows(text, round))));
      const [again] = rows(`at (mm),enters (um),does not enter (um)\n${first},100,120\n`, had);
      expect(again.state).toBe('same');
      expect(readingFields(round).map(({ key }) => key)).not.toContain('value');
    });
  });

  it('takes what stands beside a size: how warm the part was', () => {
    const round = about({ check: 'chuck-test-cut', setup: { bar: { diameter: '40 mm', material: 'steel' } }, plan: {} });
    const at = Number(round.slots[0].keys['at']);
    const [told] = rows(`at (mm),size (mm),temperature (C)\n${at},39.812,24\n`, round, { 'beside.temperature': { unit: 'C' } });
    expect(told).toEqual(jasmine.objectContaining({ state: 'new' }));
    expect(told.value).toEqual(jasmine.objectContaining({ value: '39.812 mm', keys: jasmine.objectContaining({ at }) }));
    expect(String(told.value?.keys['temperature'])).toContain('24');
  });

  it('takes places that the plan does not have only where somebody says so', () => {
    const text = 'at (mm),across (mm),reading (div)\n17,0,1\n';
    expect(faulty(rows(text, grid)).length).toBe(1);
    const [own] = rows(text, { ...grid, ownPlaces: true });
    expect([own.state, own.value?.keys['at'], own.value?.keys['across']]).toEqual(['new', 17, 0]);
  });

  it('never throws, whatever the cells hold', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 12 }), { maxLength: 4 }), { maxLength: 12 }), fc.boolean(), (cells, headed) => {
        const table = tableOfCells(cells, headed);
        for (const { value, state, reason } of readingRows(table, likely(table, readingFields(grid)), grid))
          expect(value !== undefined || state === 'same' || reason !== undefined).toBe(true);
      }),
    );
  });
});
