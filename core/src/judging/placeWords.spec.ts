import { FILE_SIZES } from '../units/said.js';
import { placeWords, saysWhole } from './placeWords.js';

const told = (keys: Readonly<Record<string, unknown>>): string => placeWords(keys, Object.keys(keys), FILE_SIZES);

describe('a place in words', () => {
  it('is told by all that tells it from the others, and what goes without saying is left out', () => {
    expect(told({ plane: 'h', at: 400, turn: 180 })).toBe('side, 400 mm, turned half round');
    expect(told({ plane: 'v', at: 20, turn: 0 })).toBe('top, 20 mm');
    expect(told({ leg: 'test', at: 150, flip: true })).toBe('test leg, 150 mm, square flipped');
    expect(told({})).toBe('this place');
  });

  it('names a part of a spindle as people do', () => {
    expect(told({ feature: 'taperNear', extreme: 'low', turn: 180 })).toBe('taper, at its mouth, lowest, turned half round');
    expect(told({ feature: 'axialSlip', extreme: 'high' })).toBe('slip along the axis, highest');
  });

  it('says whether it says all of it', () => {
    expect(saysWhole({ plane: 'h', at: 20 }, ['plane', 'at'])).toBeTrue();
    expect(saysWhole({ stroke: 'push', locks: 'off' }, ['stroke', 'locks'])).toBeFalse();
    expect(saysWhole({ plane: 'h', stroke: 'push' }, ['plane'])).toBeTrue();
  });
});
