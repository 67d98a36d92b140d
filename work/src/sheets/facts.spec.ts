import { factOf, factsOf, factsOfEach, factSource, profilesOf, tellingAfterEach } from './facts.js';
import { knownTurning } from '../ladder/known.js';
import { howRead, knownSense, mountingOf } from './senses.js';
import { sameThing } from '../notebook/things.js';
import { Diary, finding, quantity } from '../testing/heads.js';

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
    expect(profilesOf([drawn, diary.round('way-straightness', null)], 'way')).toEqual([{ name: '', heights: points }]);
    expect(profilesOf([drawn], 'nothing')).toEqual([]);
  });

  it('each of several ways has its own profile; the one that was read last stands last', () => {
    const way = (name: string, height: number) =>
      diary.round('way-straightness', null, {
        conditions: { way: name },
        finding: { ...finding({}), profile: [{ at: 0, height }] },
      });
    const rounds = [way('front vee', 1), way('rear flat', 2), way('Front vee ', 3)];
    expect(profilesOf(rounds, 'way').map(({ name, heights }) => [name, heights[0].height])).toEqual([
      ['way rear flat', 2],
      ['way front vee', 3],
    ]);
  });

  it('each station of a turret stands for itself: what one tells is never mixed with another', () => {
    const pocket = (station: string, found: Record<string, number>) =>
      diary.round('turret-bore', null, {
        conditions: { station },
        finding: finding(Object.fromEntries(Object.entries(found).map(([name, value]) => [name, quantity({ value })]))),
      });
    // Of station 5 only the line from front to rear was read: its height is not that of station 3.
    const rounds = [pocket('3', { offsetHorizontal: 9, offsetVertical: -4 }), pocket('5', { offsetHorizontal: 2 })];
    expect(knownTurning(rounds)).toEqual({
      pockets: [
        { name: 'station 3', h: 9, v: -4 },
        { name: 'station 5', h: 2 },
      ],
    });
    const again = [...rounds, pocket('3', { offsetHorizontal: 1 })];
    expect(factsOfEach(again, ['turretH', 'turretV'])).toEqual([
      { name: 'station 5', facts: { turretH: 2 } },
      { name: 'station 3', facts: { turretH: 1, turretV: -4 } },
    ]);
    // And nothing of it is lost where only the rounds are kept that still tell something.
    expect([...tellingAfterEach(again)].map(knownTurning)).toEqual(again.map((_, i) => knownTurning(again.slice(0, i + 1))));
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
    expect(mountingOf('spindle-axis', { side: 'rear' })).toBe('side rear');
    expect(mountingOf('spindle-axis', {})).toBe(mountingOf('spindle-axis', { side: 'operator' }));
    expect(mountingOf('bed-twist', { side: 'rear' })).toBeNull();
  });

  it('a way that was read on its side is another thing than the same way read on its top', () => {
    const on = (plan: Readonly<Record<string, unknown>>) =>
      howRead('tailstock-way-parallelism', { setup: {}, plan, instrument: { sense: -1 } });
    expect(on({ face: 'side' })).toEqual({ mounting: 'side operator, face side', sense: -1, face: 'side' });
    expect(on({}).face).toBe('top');
    expect(howRead('bed-twist', { setup: {}, plan: { face: 'side' }, instrument: null })).toEqual({ mounting: null, sense: null });
    const read = (plan: Readonly<Record<string, unknown>>) => new Diary().round('tailstock-way-parallelism', null, on(plan));
    expect(sameThing(read({ face: 'side' }), read({ face: 'side' }))).toBeTrue();
    expect(sameThing(read({ face: 'top' }), read({}))).toBeTrue();
    expect(sameThing(read({ face: 'top' }), read({ face: 'side' }))).toBeFalse();
  });
});
