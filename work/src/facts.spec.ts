import { factOf, factsOf, factSource, profileOf, tellingAfterEach } from './facts.js';
import { knownSense, mountingOf } from './senses.js';
import { Diary, finding, quantity } from './testing/heads.spec.js';

describe('what is known of a machine', () => {
  const diary = new Diary();
  const twist = (value: number) => diary.round('bed-twist', null, { finding: finding({ twistPerMetre: quantity({ value }) }) });

  it('is what the last round that tells it said', () => {
    const rounds = [twist(12), twist(30), diary.round('bed-twist', null)];
    expect(factOf(rounds, 'twistPerMetre')).toEqual(jasmine.objectContaining({ quantity: 'twistPerMetre', round: rounds[1] }));
    expect(factsOf(rounds, ['twistPerMetre', 'axisSlopeH'])).toEqual({ twistPerMetre: 30 });
  });

  it('has the check that tells it, and nothing for what no check tells', () => {
    expect(factSource('twistPerMetre')?.check.id).toBe('bed-twist');
    expect(factSource('axisSlopeV')?.check.quantities[factSource('axisSlopeV')?.quantity ?? '']).toBeDefined();
    expect(factSource('phase of the moon')).toBeUndefined();
  });

  it('a profile comes from the last round that drew one', () => {
    const points = [{ at: 0, height: 0 }];
    const drawn = diary.round('way-straightness', null, { finding: { ...finding({}), profile: points } });
    expect(profileOf([drawn, diary.round('way-straightness', null)], 'way')).toEqual(points);
    expect(profileOf([drawn], 'nothing')).toBeUndefined();
  });

  it('after each of many rounds is told by a few of them', () => {
    const axis = (names: readonly string[], value: number) =>
      diary.round('spindle-axis', null, { finding: finding(Object.fromEntries(names.map((name) => [name, quantity({ value })]))) });
    const rounds = [
      twist(1),
      axis(['slopeH', 'slopeV'], 2),
      twist(3),
      axis(['slopeH'], 4),
      axis(['slopeH'], 5),
      twist(6),
      axis(['slopeV'], 7),
    ];
    const facts = ['twistPerMetre', 'axisSlopeH', 'axisSlopeV'];
    const telling = [...tellingAfterEach(rounds)];
    expect(telling.map((some) => factsOf(some, facts))).toEqual(rounds.map((_, i) => factsOf(rounds.slice(0, i + 1), facts)));
    expect(telling.at(-1)).toEqual([rounds[1], rounds[4], rounds[5], rounds[6]]);
  });
});

describe('how a dial counts', () => {
  const diary = new Diary();
  const tried = (instrumentName: string | null, mounting: string | null, sense: 1 | -1 | null) =>
    diary.round('spindle-axis', null, { instrumentName, mounting, sense });

  it('is remembered for the check, the dial and the side it hangs on, and never falls back to unknown', () => {
    const rounds = [tried('D-3', 'front', -1), tried('D-3', 'front', null), tried('D-3', 'rear', 1), tried(null, 'front', 1)];
    expect(knownSense(rounds, 'spindle-axis', 'D-3', 'front')).toEqual({ sense: -1, number: 1 });
    expect(knownSense(rounds, 'spindle-axis', 'D-3', 'rear')?.sense).toBe(1);
    expect(knownSense(rounds, 'spindle-axis', null, 'front')?.sense).toBe(1);
    expect(knownSense(rounds, 'spindle-axis', 'D-4', 'front')).toBeUndefined();
    expect(knownSense(rounds, 'bed-twist', 'D-3', 'front')).toBeUndefined();
  });

  it('the side is that of the set-up, where it has one', () => {
    expect(mountingOf('spindle-axis', { side: 'rear' })).toBe('rear');
    expect(mountingOf('spindle-axis', {})).toBe(mountingOf('spindle-axis', { side: 'operator' }));
    expect(mountingOf('bed-twist', { side: 'rear' })).toBeNull();
  });
});
