import { startingSheet, STARTING_SHEETS, type LimitSheet } from '@isometra/core';
import { limitsFromCsv, limitsToCsv } from './limitCsv.js';
import { contentOf, rejudge } from './limits.js';
import type { Round, StoredReading } from './round.js';
import { sheetOf, trySolve } from './sheetOf.js';
import { freshSurvey, surveySchema } from './survey.js';

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
  const readings = [
    { keys: { plane: 'h', at: 0 }, value: '0 um' },
    { keys: { plane: 'h', at: 400 }, value: '20 um' },
  ].map((reading, i): StoredReading => ({
    ...reading,
    id: `${i}`,
    roundId: 'r',
    sequence: i,
    set: 1,
    supersedes: null,
    why: null,
    by: 'HB',
    at: '',
  }));
  const base = {
    check: 'tailstock-traverse',
    setup: { centreDistance: '400 mm' },
    instrument: { kind: 'lever', graduation: '1 um', sense: 1 },
    conditions: {},
  };
  const round = { ...base, readings, finding: trySolve(sheetOf(base, readings)).finding } as unknown as Round;

  it('the sheet of a round has its limits and aims written out', () => {
    const sheet = sheetOf(base, readings, { limits: startingSheet('toolroom') });
    expect(sheet['limits']).toEqual({ offsetHorizontal: [-7.5, 7.5], offsetVertical: [0, 10] });
    expect(sheet['aims']).toEqual({ offsetVertical: 0 });
  });

  it('a zone over a length follows what was read, whatever unit the places are in', () => {
    const steps = { check: 'way-straightness', setup: { base: '8 in' }, instrument: null, conditions: {} };
    const at = (place: string) => ({ ...readings[0], id: place, keys: { at: place } });
    const sheet = sheetOf(steps, [at('0 in'), at('40 in')], { limits: startingSheet('general') });
    expect((sheet['limits'] as Record<string, number[]>)['straightness'][1]).toBeCloseTo((15 * 48 * 25.4) / 1000, 9);
  });

  it('judging again tells what would change and changes nothing', () => {
    const before = JSON.stringify(round);
    expect(rejudge([round], startingSheet('general'))).toEqual([]);
    const changed = rejudge([round], startingSheet('light-bench'));
    expect(changed.map(({ quantity, before: was, after }) => [quantity, was, after])).toEqual([['offsetHorizontal', 'out', 'in']]);
    expect(JSON.stringify(round)).toBe(before);
  });

  it('faults of a sheet that was sent begin at its content', () => {
    expect(contentOf({ format: 'x', name: 'y', lines: [] }).faults[0].path).toBe('content.format');
    expect(contentOf(startingSheet('general')).content?.name).toBe('General shop');
    expect(contentOf(7).faults[0].path).toBe('content');
  });
});

describe('a survey', () => {
  const machine = { id: 'f3c2a5b0-8d0b-4a39-9a53-0a4a6b0f7c11', kind: 'bench-lathe' };
  const fresh = freshSurvey(machine, '0d2ff3bb-9ea9-4c7b-8d14-24f1a3e8b0a2', 'As found', '2026-01-01T08:00:00.000Z');

  it('begins with the ladder of its machine, cascade and its usual limits', () => {
    expect(fresh.order[0]).toBe('stiffness');
    expect(fresh.school).toBe('cascade');
    expect(fresh.judge.name).toBe('Light bench machine');
    const { judge: _judge, ...write } = fresh;
    expect(surveySchema.parse(write)).toEqual(write);
  });

  it('names what is wrong with it', () => {
    const { judge: _judge, ...write } = fresh;
    const bad = surveySchema.safeParse({
      ...write,
      title: ' ',
      school: 'both',
      limits: { sheet: 'mine', version: 1 },
      skipped: [{ check: 'seat', by: 'HB', at: fresh.startedAt }],
    });
    expect(bad.error?.issues.map((issue) => issue.path.join('.'))).toEqual(['title', 'school', 'skipped.0.why', 'limits.sheet']);
  });
});
