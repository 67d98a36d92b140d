import { readInstrument, readableStep, type Instrument } from './instrument.js';
import { dialDivisions, readingValue } from './reading.js';
import { groupReadings } from './slots.js';

const lever: Instrument = {
  kind: 'lever',
  graduation: 10,
  sense: -1,
  leverAngle: 60,
  readTo: 0.5,
  accuracy: 5,
  holderSag: 0,
  contactForce: 0,
};

describe('an instrument', () => {
  it('fills in the usual values', () => {
    const { instrument } = readInstrument({ kind: 'lever', graduation: '0.5 thou' });
    expect(instrument).toEqual(jasmine.objectContaining({ graduation: 12.7, readTo: 0.5, accuracy: 6.35, leverAngle: 0, contactForce: 0 }));
    expect(instrument?.sense).toBeUndefined();
    expect(readableStep(instrument as Instrument)).toBeCloseTo(6.35);
  });

  it("takes a level's division as a slope", () => {
    expect(readInstrument({ kind: 'level', graduation: '0.04 mm/m' }).instrument?.graduation).toBeCloseTo(40);
    expect(readInstrument({ kind: 'level', graduation: '0.04 mm' }).faults[0].path).toBe('instrument.graduation');
  });

  it('names every fault at once', () => {
    const { faults } = readInstrument({ kind: 'ruler', graduation: 0, sense: 2, leverAngle: 95, readTo: 3, range: -1, holder: 1 });
    expect(faults.map((fault) => fault.path).sort()).toEqual(
      ['graduation', 'holder', 'kind', 'leverAngle', 'range', 'readTo', 'sense'].map((name) => `instrument.${name}`),
    );
    expect(readInstrument({ graduation: 1 }).faults[0]).toEqual(jasmine.objectContaining({ path: 'instrument.kind', example: 'lever' }));
  });
});

describe('the value of a reading', () => {
  it('is sense · cos(lever angle) · graduation · divisions', () => {
    const read = readingValue('3 div', 'indicator', lever);
    expect(read.ok && read.value).toBeCloseTo(-15, 9);
    const bare = readingValue(3, 'indicator', lever);
    expect(bare.ok && bare.value).toBeCloseTo(-15, 9);
    const typed = readingValue('30 um', 'indicator', lever);
    expect(typed.ok && typed.value).toBeCloseTo(-15, 9);
    expect(dialDivisions(-15, lever)).toBeCloseTo(3, 9);
  });

  it('without an instrument refuses a bare number and takes a unit as the deviation itself', () => {
    expect(readingValue(3, 'indicator', undefined).ok).toBeFalse();
    expect(readingValue('3 div', 'indicator', undefined).ok).toBeFalse();
    const read = readingValue('0.5 thou', 'indicator', undefined);
    expect(read.ok && read.value).toBeCloseTo(12.7, 9);
  });

  it('of a micrometer is a size in mm', () => {
    const read = readingValue('1 in', 'size', undefined);
    expect(read.ok && read.value).toBeCloseTo(25_400, 6);
    expect(readingValue('3 div', 'size', lever).ok).toBeFalse();
  });
});

describe('places', () => {
  const at = (place: number, value: number, set = 1) => ({ at: place, value, set });

  it('a place read twice running is a repeat', () => {
    const { slots, returns } = groupReadings([at(1, 2), at(1, 4), at(2, 5)], ['at']);
    expect(slots.map((slot) => slot.value)).toEqual([3, 5]);
    expect(slots[0].repeats).toEqual([2, 4]);
    expect(returns).toEqual([]);
  });

  it('read again later it closes the round and is not averaged in', () => {
    const { slots, returns } = groupReadings([at(1, 2), at(2, 5), at(1, 6), at(1, 8)], ['at']);
    expect(slots.map((slot) => slot.value)).toEqual([2, 5]);
    expect(returns).toEqual([{ slot: 0, first: true, difference: 5 }]);
  });

  it('another set-up starts afresh', () => {
    const { slots, returns } = groupReadings([at(1, 2), at(2, 5), at(1, 6, 2), at(2, 9, 2)], ['at']);
    expect(slots.length).toBe(4);
    expect(returns).toEqual([]);
  });
});
