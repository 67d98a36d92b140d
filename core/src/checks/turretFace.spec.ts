import { solve } from '../solve/solve.js';

describe('a ground flat of a turret', () => {
  const read = (side: string, perPlace: number) =>
    solve({
      format: 'isometra-sheet/1',
      check: 'turret-face',
      instrument: { kind: 'lever', graduation: '0.002 mm', sense: 1 },
      setup: { side },
      readings: [0, 40, 80, 120].map((at, i) => ({ at, value: i * perPlace })),
    });
  const told = (side: string, perPlace = 3) =>
    Object.entries(read(side, perPlace).quantities).flatMap(([name, { value, direction, verdict }]) =>
      verdict ? [`${name} ${value > 0 ? '+' : '−'} ${direction}`] : [],
    );

  it('says which end goes where, for each way of reading it: + is what comes toward the stylus', () => {
    expect(told('operator')).toEqual(['slope + with the end away from the headstock toward the operator']);
    expect(told('rear')).toEqual(['slope − with the end away from the headstock away from the operator']);
    expect(told('above')).toEqual(['tipSlope + with the end away from the headstock high']);
    expect(told('headstock')).toEqual(['faceSlope + with its operator’s end toward the headstock']);
    expect(told('tail')).toEqual(['faceSlope − with its operator’s end away from the headstock']);
  });

  it('is turned on its bolts; what tips has shims alone', () => {
    expect(read('headstock', 3).moves.map(({ kind, direction }) => [kind, direction])).toEqual([
      ['nudge', 'so that its operator’s end goes away from the headstock'],
    ]);
    expect(read('above', -3).moves.map(({ kind, direction }) => [kind, direction])).toEqual([
      ['shim-leaves', 'so that the end away from the headstock comes up'],
    ]);
    expect(read('operator', 0.02).moves).toEqual([]);
  });

  it('the needle ends where the end of the flat reads what its beginning does, over what was read', () => {
    for (const side of ['operator', 'rear', 'headstock', 'tail']) {
      const { moves } = read(side, 3);
      const { now = NaN, target = NaN, where } = moves[0].indicator ?? {};
      // By pencil: 3 a place over four places.
      expect(now).withContext(side).toBeCloseTo(9, 6);
      expect(Math.abs(target)).withContext(side).toBeLessThan(1e-6);
      expect(where).toBe('at the end of the flat, zeroed where its reading begins');
    }
  });

  it('left out it is read along the spindle from the operator’s side, as a sheet means it', () => {
    const { setup: _none, ...sheet } = { setup: {}, format: 'isometra-sheet/1', check: 'turret-face' };
    const readings = [0, 120].map((at) => ({ at, value: `${at / 10} um` }));
    const { quantities } = solve({ ...sheet, setup: {}, readings });
    expect(quantities['slope'].value).toBeCloseTo(100, 6);
  });
});
