import { startingSheet, STARTING_SHEETS, type LimitSheet } from '@isometra/core';
import { limitsFromCsv, limitsToCsv } from './limitCsv.js';
import { contentOf, rejudge } from './limits.js';
import { sheetOf } from './sheet.js';
import { headOf, reading, tailstockRound } from '../testing/rounds.js';

const HEAD = 'check,quantity,when,low,high,unit,over,least,aim,reason';
const table = (...rows: string[]) => limitsFromCsv([HEAD, ...rows].join('\n'), 'Ours');

describe('a limit sheet as a table', () => {
  for (const { id } of STARTING_SHEETS) {
    it(`${id} comes back from CSV as it was`, () => {
      const sheet = startingSheet(id);
      expect(limitsFromCsv(limitsToCsv(sheet), sheet.name)).toEqual({ sheet, faults: [] });
    });
  }

  it('takes semicolons with decimal commas, units of its own and empty lines', () => {
    const text = `${HEAD.replaceAll(',', ';')}\r\nbed-twist;twistPerMetre;;-20,5;20,5;um/m per m;;;;\r\n\r\ncentre-runout;radial;;;0.0002 in;;;;;\r\n`;
    const { sheet, faults } = limitsFromCsv(`\uFEFF${text}`, 'Ours');
    expect(faults).toEqual([]);
    expect(sheet?.lines.map((line) => line.zone)).toEqual([
      [-20.5, 20.5],
      [null, 5.08],
    ]);
  });

  it('keeps reasons with commas and quotes', () => {
    const own: LimitSheet = {
      ...startingSheet('general'),
      lines: [{ check: 'tailstock-traverse', quantity: 'offsetVertical', zone: [0, 20], aim: 15, reason: 'wears down, "fast"' }],
    };
    expect(limitsFromCsv(limitsToCsv(own), own.name).sheet).toEqual(own);
  });

  it('three different mistakes are each named with row, column and what would do', () => {
    const { sheet, faults } = table(
      'bed-twist,twistPerMetre,,-20,20,um/m per m,,,,',
      'bed-twst,twistPerMetre,,-20,20,um/m per m,,,,',
      'seat,rock,,,abc,um,,,,',
      'spindle-axis,slopeH,,50,0,um/m,,,,',
    );
    expect(sheet).toBeUndefined();
    expect(faults.map((fault) => fault.path)).toEqual(['row 3, check', 'row 4, high', 'row 5, low and high']);
    expect(faults[0].example).toBe('bed-twist');
    expect(faults[1].message).toContain('"abc" is not a small distance');
  });

  it('a line twice is told with both rows', () => {
    const { faults } = table('seat,rock,,,5,um,,,,', '', 'seat,rock,,,6,um,,,,');
    expect(faults[0].path).toBe('row 4');
    expect(faults[0].message).toContain('after row 2');
  });

  it('a head that is wrong is told first', () => {
    expect(limitsFromCsv('check,low\nx,1', 'x').faults.map((fault) => fault.message)).toEqual([
      'has no column "quantity"',
      'has no column "high"',
    ]);
    expect(limitsFromCsv(`${HEAD},colour\n`, 'x').faults[0].message).toContain('"colour"');
    expect(limitsFromCsv(HEAD, 'x').faults[0].message).toContain('no line below');
  });

  it('a table without a name says so', () => {
    expect(limitsFromCsv(`${HEAD}\nseat,rock,,,5,um,,,,`, '').faults[0].path).toBe('name');
  });
});

describe('judging by a limit sheet', () => {
  it('a zone over a length follows what was read, whatever unit the places are in', () => {
    const steps = { check: 'way-straightness', setup: { base: '8 in' }, instrument: null, conditions: {} };
    const at = (place: string) => reading(place, '0', null, { at: place });
    const sheet = sheetOf(steps, [at('0 in'), at('40 in')], { limits: startingSheet('general') });
    expect(sheet['limits']).toEqual(jasmine.objectContaining({ straightness: [null, jasmine.any(Number)] }));
    expect((sheet['limits'] as Record<string, number[]>)['straightness'][1]).toBeCloseTo((15 * 48 * 25.4) / 1000, 9);
  });

  it('judging again tells what would change and changes nothing', () => {
    const round = tailstockRound(20);
    const before = JSON.stringify(round);
    expect(rejudge([headOf(round)], [round], startingSheet('general'))).toEqual([]);
    const changed = rejudge([headOf(round)], [round], startingSheet('light-bench'));
    expect(changed.map(({ quantity, before: was, after }) => [quantity, was, after])).toEqual([['offsetHorizontal', 'out', 'in']]);
    expect(JSON.stringify(round)).toBe(before);
  });

  it('faults of a sheet that was sent begin at its content', () => {
    expect(contentOf({ format: 'x', name: 'y', lines: [] }).faults[0].path).toBe('content.format');
    expect(contentOf(startingSheet('general')).content?.name).toBe('General shop');
    expect(contentOf(7).faults[0].path).toBe('content');
  });
});
