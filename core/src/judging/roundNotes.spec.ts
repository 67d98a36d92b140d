import type { Instrument } from '../instruments/instrument.js';
import { FILE_SIZES, sentence } from '../units/said.js';
import { coarseNote } from './advice.js';
import type { Uncertainty } from './budget.js';
import { closureNote, directionNote, peggedNote } from './roundNotes.js';
import { longerBase } from '../checks/helps.js';
import { defaultAim, zoneWidth } from './verdict.js';

const dial: Instrument = {
  kind: 'lever',
  graduation: 2,
  range: 100,
  sense: 1,
  leverAngle: 0,
  readTo: 0.5,
  accuracy: 1,
  holderSag: 0,
  contactForce: 0,
};
const readings = (...values: number[]) => values.map((value) => ({ value, set: 1 }));

describe('what a round says of its instrument', () => {
  it('only needles have a direction to assume', () => {
    for (const kind of ['lever', 'plunger'] as const) expect(directionNote({ ...dial, kind, sense: undefined }).length).toBe(1);
    for (const kind of ['level', 'micrometer', 'feeler'] as const) expect(directionNote({ ...dial, kind, sense: undefined })).toEqual([]);
    expect(directionNote(dial)).toEqual([]);
    expect(directionNote(undefined)).toEqual([]);
  });

  it('a needle may be pegged where the readings used nearly all of its travel, wherever the bezel stands', () => {
    expect(peggedNote(readings(0, 90), dial)).toEqual([]);
    expect(peggedNote(readings(-90, 0), dial)).toEqual([]);
    expect(peggedNote(readings(0, 181), dial).length).toBe(1);
    expect(peggedNote(readings(-100, 90), dial).length).toBe(1);
    expect(peggedNote(readings(0, 190), { ...dial, range: undefined })).toEqual([]);
    expect(peggedNote([], dial)).toEqual([]);
  });

  it('coming back is judged by the worst place', () => {
    const back = (difference: number) => ({ slot: 0, first: true, difference });
    expect(closureNote([back(0.5), back(-1)], dial)).toEqual({ notes: [], trusted: true });
    expect(closureNote([back(0.5), back(-3)], dial).trusted).toBeTrue();
    expect(closureNote([back(0.5), back(-3)], dial).notes[0].text).toContain('1.5 divisions');
    expect(closureNote([back(4.1)], dial).trusted).toBeFalse();
    expect(closureNote([back(4)], dial).trusted).toBeTrue();
    expect(closureNote([back(9)], undefined).trusted).toBeTrue();
  });
});

describe('what would help', () => {
  const info = { label: 'Slope', dimension: 'slope', unit: 'um/m' } as const;
  const acts = [longerBase('read over twice the length')];
  const uncertainty: Uncertainty = {
    u: 10,
    expanded: 20,
    degreesOfFreedom: Infinity,
    floor: 0,
    settingUp: { spread: { s: 0, degrees: Infinity }, u: 0, sets: 1 },
    budget: [
      { source: 'repeating', u: 8, share: 0.64 },
      { source: 'accuracy', u: 6, share: 0.36 },
    ],
  };

  it('is said with numbers when U is more than a quarter of the zone, and only then', () => {
    expect(coarseNote('slope', info, uncertainty, [-40, 40], 1, acts)).toEqual([]);
    const [note] = coarseNote('slope', info, uncertainty, [-39, 39], 1, acts);
    expect(note.code).toBe('coarse-instrument');
    const text = sentence(note.text, FILE_SIZES);
    expect(text).toContain('The largest part is repeating a reading');
    // √(4² + 6²)·2 with four readings, half of everything with half the division.
    expect(text).toContain('four times would bring it to about ±14 µm/m');
    expect(text).toContain('half the division to about ±10 µm/m');
    expect(text).toContain('read over twice the length');
  });

  it('more repeats are not asked for when there are four', () => {
    expect(sentence(coarseNote('slope', info, uncertainty, [0, 20], 4, acts)[0].text, FILE_SIZES)).not.toContain('four times');
  });
});

describe('zones', () => {
  it('have a width and an aim', () => {
    expect(zoneWidth([null, 5])).toBe(5);
    expect(zoneWidth([2, null])).toBe(Infinity);
    expect(defaultAim([10, 30])).toBe(20);
    expect(defaultAim([3, null])).toBe(0);
  });
});
