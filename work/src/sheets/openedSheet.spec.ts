import { readdirSync, readFileSync } from 'node:fs';
import { CHECKS, SHEET_FORMAT } from '@isometra/core';
import { openSheet } from './openedSheet.js';
import { sheetOf } from './sheet.js';

const CASES = new URL('../../../core/cases/checks/', import.meta.url);
const SHEET = {
  ...{ format: SHEET_FORMAT, check: 'tailstock-traverse', setup: { centreDistance: '400 mm' } },
  instrument: { kind: 'lever', graduation: '2 um', sense: 1 },
  readings: [
    { plane: 'h', at: '20 mm', value: '0 div' },
    { plane: 'h', at: 400, value: -4.5, set: 2 },
  ],
};

describe('a sheet that is opened as a round', () => {
  it('keeps its set-up, its instrument and its readings in order, places in mm', () => {
    expect(openSheet(SHEET)).toEqual({
      faults: [],
      opened: {
        round: { check: SHEET.check, plan: {}, setup: SHEET.setup, instrument: SHEET.instrument, conditions: {} },
        readings: [
          { keys: { plane: 'h', at: 20 }, value: '0 div', set: 1 },
          { keys: { plane: 'h', at: 400 }, value: -4.5, set: 2 },
        ],
      },
    });
  });

  it('says the same as before: every case of every check, out and in again', () => {
    const names = readdirSync(CASES).filter((name) => name.endsWith('.json'));
    const opened = names.map((name) => {
      const { sheet } = JSON.parse(readFileSync(new URL(name, CASES), 'utf8')) as { sheet: unknown };
      return { name, ...openSheet(sheet) };
    });
    expect(opened.flatMap(({ name, faults }) => faults.map(({ path, message }) => `${name} ${path} ${message}`))).toEqual([]);
    // A round that was opened is saved as a sheet that opens as the same round.
    for (const { opened: first } of opened) {
      const again = sheetOf(
        first!.round,
        first!.readings.map((reading, i) => ({ ...reading, id: String(i), supersedes: null })),
      );
      expect(openSheet(again).opened).toEqual(first);
    }
    expect(new Set(opened.map(({ opened: one }) => one!.round.check)).size).toBeGreaterThan(CHECKS.size / 2);
  });

  it('is refused with its faults by their path, and where its readings cannot be one round', () => {
    expect(openSheet({ ...SHEET, check: 'bed-twits' }).faults[0].path).toBe('check');
    expect(openSheet({ ...SHEET, readings: [{ plane: 'h', at: 'left', value: 0 }] }).faults[0].path).toBe('readings[0].at');
    expect(openSheet(null).faults.length).toBeGreaterThan(0);
    const [one, other] = SHEET.readings;
    const mixed = [{ ...one, conditions: { temperature: 20 } }, other];
    expect(openSheet({ ...SHEET, readings: mixed }).faults.map(({ path }) => path)).toEqual(['readings']);
  });
});
