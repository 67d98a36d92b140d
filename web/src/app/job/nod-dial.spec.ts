import { readInstrument, type Instrument } from '@isometra/core';
import { nodDial } from './nod-dial';

const dial = (more: object = {}) => readInstrument({ kind: 'lever', graduation: '2 um', sense: 1, ...more }).instrument as Instrument;
/** A head that nods on a pin 450 mm behind the spindle, swept at 110 mm. */
const [PIN, R] = [450, 110];
const turned = (now: { operator: number; column: number }, by: number) => ({
  operator: now.operator + (by * (PIN + R)) / 1000,
  column: now.column + (by * (PIN - R)) / 1000,
});
const BEFORE = { operator: 60, column: -20 };
const known = { before: BEFORE, radius: R, instrument: dial(), limit: 65, aim: 0, pivot: null, learned: null };
const strokes = (...sides: { operator: number; column: number }[]) => ({ radius: R, doubt: 0.5, sides });

describe('the dial of a head that was nodded in strokes', () => {
  it('stands where the last stroke left it, and stops where the rest is done', () => {
    const after = turned(BEFORE, -200);
    const told = nodDial(known, strokes(BEFORE, after));
    // 80/0.22 = 363.6 µm/m at first; 163.6 are left, and are 163.6 · 560/1000 µm on your side.
    expect(told?.amount).toBeCloseTo(-(1000 * 80) / 220 + 200, 6);
    const end = turned(after, told?.amount ?? 0);
    expect(end.operator).toBeCloseTo(end.column, 6);
    expect(told?.own.now).toBeCloseTo(after.operator / 2, 0);
    expect(told?.own.target).toBeCloseTo(end.operator / 2, 0);
    expect(told?.own.where).toContain('your side');
  });

  it('watches the column side where the dial cannot follow on yours; neither where it can follow on none', () => {
    const after = turned(BEFORE, -20);
    const short = nodDial({ ...known, instrument: dial({ range: 90 }) }, strokes(BEFORE, after));
    expect(short?.own.where).toContain('column side');
    expect(nodDial({ ...known, instrument: dial({ range: 20 }) }, strokes(BEFORE, after))).toBeNull();
  });

  it('a needle that counts backwards goes the other way; one that nobody tried tells nothing', () => {
    const after = turned(BEFORE, -200);
    const back = nodDial({ ...known, instrument: dial({ sense: -1 }) }, strokes(BEFORE, after));
    const forth = nodDial(known, strokes(BEFORE, after));
    expect(back?.own.target).toBeCloseTo(-(forth?.own.target ?? 0), 6);
    expect(nodDial({ ...known, instrument: dial({ sense: undefined }) }, strokes(BEFORE, after))).toBeNull();
  });

  it('says nothing before a stroke, nor by one that changed too little to find the pin', () => {
    expect(nodDial({ ...known, pivot: PIN }, strokes(BEFORE))).toBeNull();
    expect(nodDial(known, strokes(BEFORE, { operator: 60.4, column: -20 }))).toBeNull();
    expect(nodDial(known, undefined)).toBeNull();
  });
});
