import type { StoredSurface } from '@isometra/contract';
import { DeskDiary, face } from '../testing/surface.js';
import { metalTaken } from './metal.js';

const stored = ({ surface, entries }: DeskDiary): StoredSurface => ({ ...surface, entries });

describe('metal taken off a face', () => {
  it('is what its passes took off the zone that lost least and the one that lost most', () => {
    const diary = new DeskDiary(face());
    diary.write('blue', { film: null, dye: false, pressed: null });
    diary.passes(2, '1', '2', '3', '4').passes(3, '4');
    diary.write('pass', { zone: '1', kind: 'break-up', grade: 'fine', angle: 45 });
    const told = metalTaken(stored(diary), { from: '2026-01-01T00:00:00.000Z', to: null });
    // Nothing was learned: 12 µm a rough pass, as the card tells.
    expect(told).toEqual(jasmine.objectContaining({ passes: 11, blues: 1, by: ['RM'], print: null }));
    expect(told?.least).toBeCloseTo(24, 9);
    expect(told?.most).toBeCloseTo(60, 9);
  });

  it('counts what lies within the time only, and nothing that was taken back', () => {
    const diary = new DeskDiary(face());
    diary.passes(2, '1');
    const middle = diary.later(60).write('blue', { film: null, dye: false, pressed: null }).at;
    const [gone] = [diary.write('pass', { zone: '1', kind: 'whole', grade: 'rough', angle: 45 })];
    diary.write('withdrawn', {}, gone.id);
    diary.passes(1, '2');
    expect(metalTaken(stored(diary), { from: middle, to: null })).toEqual(jasmine.objectContaining({ passes: 1, blues: 1 }));
    expect(metalTaken(stored(diary), { from: '2026-01-01T00:00:00.000Z', to: middle })).toEqual(jasmine.objectContaining({ passes: 2 }));
    expect(metalTaken(stored(diary), { from: '2027-01-01T00:00:00.000Z', to: null })).toBeUndefined();
  });
});
