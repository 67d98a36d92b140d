import type { KitItem, Machine } from '@isometra/contract';
import { likely, type Mapped } from './fields.js';
import { rowsToWrite } from './rows.js';
import { looksHeaded, MOST_ROWS, partText, tableOfCells } from './table.js';
import { kitFields, kitRows, machineFields, machineRows } from './things.js';

const cellsOf = (text: string, pasted?: boolean) => partText(text, pasted).cells;
const openQuote = (text: string) => partText(text).openQuote;
const tableOf = (text: string) => {
  const cells = cellsOf(text);
  return tableOfCells(cells, looksHeaded(cells));
};
let made = 0;
const newId = () => `new-${++made}`;
const ID = '5f6f5a0e-0000-4000-8000-000000000001';
const newUuid = () => `5f6f5a0e-0000-4000-8000-${String(++made).padStart(12, '0')}`;

const kit = (text: string, known: readonly KitItem[] = [], own: Readonly<Record<string, Mapped>> = {}) => {
  const table = tableOf(text);
  const mapping = likely(table, kitFields());
  return kitRows(table, { ...mapping, fields: { ...mapping.fields, ...own } }, known, newUuid);
};
const EDGE: KitItem = {
  ...{ id: ID, kind: 'straightedge', name: 'Camelback', photos: [], version: 3 },
  ...{ data: { length: '900 mm', material: 'cast-iron' }, care: { certificate: 'C-1', due: '2026-03-31' } },
};

describe('a table of kit', () => {
  it('makes new pieces, each row by its own kind, with units from the head of a column', () => {
    const rows = kit(
      [
        'Name;Kind of kit;Kind of instrument;One division (mm);Length (mm);Material;Due on',
        'Lever dial;instrument;lever indicator;0,002;;;31.03.2027',
        'Camelback;straightedge;;;900;cast iron;2027-03-31',
      ].join('\n'),
    );
    expect(rows.map(({ reason }) => reason)).toEqual([undefined, undefined]);
    expect(rows.map(({ value }) => [value?.kind, value?.data, value?.care])).toEqual([
      ['instrument', { kind: 'lever', graduation: '0.002 mm' }, { due: '2027-03-31' }],
      ['straightedge', { length: '900 mm', material: jasmine.any(String) }, { due: '2027-03-31' }],
    ] as never);
  });

  it('changes the piece of the same name where a certificate came, and leaves what its cells do not say', () => {
    const [row] = kit('instrument,certificate no,next due\ncamelback,C-2,2028-03-31\n', [EDGE]);
    expect(row.state).toBe('changed');
    expect(row.says).toContain('Due again on: 31 Mar 2026 → 31 Mar 2028');
    expect(row.value).toEqual({ ...EDGE, care: { certificate: 'C-2', due: '2028-03-31' } });
    expect(kit('name,due\nCamelback,2026-03-31\n', [EDGE])[0].state).toBe('same');
  });

  it('tells each row that cannot be taken, and why', () => {
    const rows = kit(
      [
        'Name,Kind of kit,Length (mm),Blade (mm),Material,Due on',
        ',straightedge,900,,steel,',
        'A,hammer,900,,steel,',
        'B,straightedge,900,300,steel,',
        'C,straightedge,-900,,steel,',
        'D,straightedge,900,,steel,3/4/2027',
        'E,straightedge,900,,steel,2027-02-30',
        'Camelback,square,,300,,',
        'F,straightedge,900,,steel,',
        'f,straightedge,900,,steel,',
        'G,,900,,steel,',
      ].join('\n'),
      [EDGE],
    );
    expect(rows.map(({ state, reason }) => (state === 'faulty' ? reason : state))).toEqual([
      'Name is missing: give it a name',
      jasmine.stringContaining('"hammer" is none of'),
      'Blade does not belong to a straightedge',
      jasmine.stringContaining('Length'),
      jasmine.stringContaining('"3/4/2027" is no day'),
      'there is no day 30 in month 2 of 2027',
      'is a straightedge here, and a square in the table',
      'new',
      'is in row 9 already',
      'Kind of kit is missing: say what kind it is',
    ] as never);
  });

  it('is as it is where it came from here: the table of the shop changes nothing', () => {
    const text = `name,kind,certificate,certified on,due on,data,archived,id\nCamelback,straightedge,C-1,,2026-03-31,"${JSON.stringify(EDGE.data).replaceAll('"', '""')}",no,${ID}\n`;
    expect(kit(text, [EDGE]).map(({ state }) => state)).toEqual(['same']);
  });

  it('says for all rows what no column tells', () => {
    const rows = kit('Name,Length (mm),Material\nOne,500,steel\n', [], { kind: { column: null, fixed: 'straightedge' } });
    expect(rows.map(({ value }) => value?.kind)).toEqual(['straightedge']);
  });
});

describe('a row with a comma too many', () => {
  it('is told, and nothing is read from the wrong column', () => {
    const [whole, ragged] = kit('Name,Certificate,Due\nCamelback,C-2,2028-03-31\nLevel, the long one,C-3,2028-03-31\n', [EDGE]);
    expect([whole.state, ragged.state, ragged.value]).toEqual(['changed', 'faulty', undefined]);
    expect(ragged.reason).toContain('more cells than the columns have names');
  });
});

describe('a table of machines', () => {
  const lathe: Machine = { id: ID, version: 2, card: { number: 'L-14', kind: 'engine-lathe', swing: '360 mm', tailstockBase: 'x' } };
  const machines = (text: string, known: readonly Machine[] = []) => {
    const table = tableOf(text);
    return machineRows(table, likely(table, machineFields()), known, newId);
  };

  it('makes new cards and changes known ones, whatever else stands on them', () => {
    const rows = machines('Shop number,Kind,Nickname,Swing over bed (in),Between centres (in)\nL-20,engine lathe,the new one,14,60\n');
    expect(rows.map(({ state, reason }) => reason ?? state)).toEqual(['new']);
    expect(rows[0].value?.card).toEqual({
      ...{ number: 'L-20', kind: 'engine-lathe', nickname: 'the new one', swing: '14 in', centreDistance: '60 in' },
    });
  });

  it('refuses what another kind has, a kind that differs, and a figure without its unit', () => {
    const { tailstockBase: _gone, ...card } = lathe.card;
    const rows = machines('number,kind,swing\nM-1,turret mill,300 mm\nL-14,bench-lathe,\nL-15,engine-lathe,360\n', [{ ...lathe, card }]);
    expect(rows.map(({ reason }) => reason)).toEqual([
      'Swing over bed does not belong to this kind of machine',
      'is another kind of machine here: put its card right',
      'Swing over bed "360" has no unit: say what the column is in',
    ]);
  });
});

describe('a table', () => {
  it('is known by what parts its cells, numbers its rows as a spreadsheet, and names columns that have no name', () => {
    const table = tableOf('\uFEFFname\tvalue\tvalue\n\na\t1\t2\n');
    expect([table.head, table.rows]).toEqual([['name', 'value', 'value (2)'], [{ number: 3, cells: ['a', '1', '2'] }]]);
    expect(tableOfCells([['1', '2']], false).head).toEqual(['Column A', 'Column B']);
    expect(looksHeaded(cellsOf('1;2\n3;4'))).toBe(false);
  });

  it('is parted by what parts its first row: of two columns, of one with decimal commas, of a column that was pasted', () => {
    expect(cellsOf('a;b\n1,5;2\n\n3;4\n')).toEqual([['a', 'b'], ['1,5', '2'], [''], ['3', '4'], ['']]);
    expect(cellsOf('place,dial\n1,2\n')).toEqual([['place', 'dial'], ['1', '2'], ['']]);
    expect(cellsOf('dial\n0,5\n-1,5\n')).toEqual([['dial'], ['0,5'], ['-1,5'], ['']]);
    expect(cellsOf('0,5\n-1,5', true)).toEqual([['0,5'], ['-1,5']]);
    expect(cellsOf('a,b\n"x, y",2')).toEqual([
      ['a', 'b'],
      ['x, y', '2'],
    ]);
    expect([openQuote('a,b\n"x,2\ny,3\n'), openQuote('a,b\n"x",2\n12" bar,3\n')]).toEqual([2, undefined]);
    expect(cellsOf('name, first;n\nx;1\ny;2')[1]).toEqual(['x', '1']);
  });

  it('that is empty or far too long says so', () => {
    expect(tableOf('').faults[0].message).toContain('no row');
    const long = tableOfCells(
      Array.from({ length: MOST_ROWS + 2 }, () => ['1']),
      true,
    );
    expect([long.rows.length, long.faults[0].message]).toEqual([0, `has ${MOST_ROWS + 1} rows: at most ${MOST_ROWS} are read at once`]);
  });

  it('of few rows is written only as far as it can be, and a doubt only once it is settled', () => {
    const row = { what: '', says: '', value: 1 };
    const rows = [
      { ...row, number: 1, state: 'new' as const },
      { ...row, number: 2, state: 'new' as const, doubt: true, reason: 'odd' },
      { ...row, number: 3, state: 'faulty' as const },
      { ...row, number: 4, state: 'same' as const },
    ];
    expect(rowsToWrite(rows, new Set()).map(({ number }) => number)).toEqual([1]);
    expect(rowsToWrite(rows, new Set(['odd'])).map(({ number }) => number)).toEqual([1, 2]);
  });
});
