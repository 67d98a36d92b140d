import { CHECKS, type CheckDefinition } from '@isometra/core';
import type { KitItem, MachineCardText } from '@isometra/contract';
import { headOf, rungsOf, sheetOf } from '@isometra/work';
import { bedTwistSheet } from '@isometra/core/practice';
import { barRound, dial, drawer, lathe, practiceRound, DIAL, type TestRound } from '../testing/fake-shop';
import { asTyped, filledFrom, firstDraft, purposeOf, suitable } from './begin-draft';

const check = (id: string): CheckDefinition => CHECKS.get(id) as CheckDefinition;
const instrument = (kind: string): KitItem => ({ ...dial(), data: { kind, graduation: '1 um' } });
const own = 'own';

describe('what a piece of kit can read', () => {
  it('depends on what is read: a micrometer reads sizes, a level slopes, a needle the rest', () => {
    const table = (['micrometer', 'level', 'lever', 'plunger', 'feeler'] as const).map((kind) =>
      (['size', 'level', 'indicator', 'gap'] as const).map((read) => suitable(instrument(kind), read)),
    );
    expect(table).toEqual([
      [true, false, false, false],
      [false, true, false, false],
      [false, false, true, false],
      [false, false, true, false],
      [false, false, false, true],
    ]);
    expect(suitable(drawer(), 'indicator')).toBeFalse();
  });
});

describe('the first draft of a set-up', () => {
  const card = lathe().card as MachineCardText;
  const heads = (rounds: readonly TestRound[]) => rounds.map((round) => headOf(round, round, sheetOf(round, round.readings)));
  const draft = (id: string, rounds: readonly TestRound[] = []) => {
    const last = rounds.filter((round) => round.check === id).at(-1);
    const known = { card, last, other: rounds.at(-1), heads: heads(rounds), kit: [dial()] };
    return firstDraft(check(id), { ...known, rungs: rungsOf('engine-lathe', heads(rounds)) }, own);
  };

  it('starts from the machine card where nothing has been read', () => {
    expect(draft('tailstock-traverse').setup).toEqual({ centreDistance: '1500 mm' });
    // Half the swing over the ways, for what the twist of the bed leaks into.
    expect(draft('spindle-axis').setup['heightAboveWays']).toBe('210 mm');
    expect(draft('tailstock-traverse').kitId).toBe(DIAL);
    expect(draft('tailstock-traverse').sense).toBeNull();
    expect(draft('tailstock-traverse').read).toBeFalse();
  });

  it('starts from the last round of the check, its dial and how that counted', () => {
    const { setup, plan, conditions, kitId, sense } = draft('tailstock-traverse', [barRound(3, 4)]);
    expect(setup).toEqual({ centreDistance: '400 mm' });
    expect(plan).toEqual({ stations: 2 });
    expect(conditions).toEqual({ quillLock: 'on', place: '600 mm' });
    expect([kitId, sense]).toEqual([DIAL, 1]);
  });

  it('a bare text from a file keeps the unit of the file, whatever unit the screen is in', () => {
    const told = barRound(0, 0, {
      ...{ setup: { centreDistance: '400' }, conditions: { quillLock: 'on' as const, place: '600' } },
      ...{ instrumentName: null, instrument: { kind: 'lever', graduation: '2' } },
    });
    const { setup, conditions, own: words } = draft('tailstock-traverse', [told]);
    expect([setup, conditions, words]).toEqual([
      { centreDistance: '400 mm' },
      { quillLock: 'on', place: '600 mm' },
      { kind: 'lever', graduation: '2 µm' },
    ]);
  });

  it('takes conditions of other rounds over where the check asks for them', () => {
    expect(draft('quill-parallelism', [barRound(3, 4)]).conditions).toEqual({ quillLock: 'on' });
    expect(draft('bed-twist', [barRound(3, 4)]).conditions).toEqual({});
  });

  it('a dial that was described stays described, and how it counted is remembered too', () => {
    const described = barRound(0, 0, { instrumentName: null, instrument: { kind: 'plunger', graduation: '0.01 mm', sense: -1 } });
    const { own: words, kitId, sense } = draft('tailstock-traverse', [described]);
    expect(words).toEqual({ kind: 'plunger', graduation: '0.01 mm' });
    expect(kitId).toBe(own);
    expect(sense).toBe(-1);
  });

  it('what another rung found goes before what was typed last time, unless that rung is stale', () => {
    const twist = practiceRound(bedTwistSheet((z) => (12.3 * z) / 1000, [100, 700, 1300], { graduation: 1, zero: 0 }));
    const axis = barRound(0, 0, { check: 'spindle-axis', setup: { twistPerMetre: '99 um/m per m' } });
    const value = '12.3 µm/m per m';
    const rungs = (rounds: readonly TestRound[]) => rungsOf('engine-lathe', heads(rounds));
    expect(filledFrom(check('spindle-axis'), rungs([twist]))).toEqual({ twistPerMetre: value });
    const moved = { ...twist, moves: barRound(1, 1, { moves: [{ quantity: 'twistPerMetre' }] }).moves };
    expect(filledFrom(check('spindle-axis'), rungs([moved]))).toEqual({});
    expect(filledFrom(check('bed-twist'), rungs([twist]))).toEqual({});
    expect(draft('spindle-axis', [axis, twist]).setup['twistPerMetre']).toBe(value);
    // Moved since: what the rung told then is not offered again out of the last set-up.
    expect(draft('spindle-axis', [axis, moved]).setup).toEqual({});
    // Nobody has measured it here: what was typed by hand stays.
    expect(draft('spindle-axis', [axis]).setup['twistPerMetre']).toBe('99 um/m per m');
  });
});

describe('texts of a draft', () => {
  it('conditions are shown as a person would type them', () => {
    const { conditions } = check('tailstock-traverse');
    expect(asTyped({ place: 600, quillLock: 'on', indicatorOn: 'carriage', weather: 'wet' }, conditions)).toEqual({
      place: '600 mm',
      quillLock: 'on',
      indicatorOn: 'carriage',
    });
  });

  it('what it is for is left out when it was not said', () => {
    expect(purposeOf({})).toBeNull();
    expect(purposeOf({ kind: 'unsaid', length: '250 mm' })).toBeNull();
    expect(purposeOf({ kind: 'turning' })).toEqual({ kind: 'turning' });
    expect(purposeOf({ kind: 'drilling', length: '', diameter: '12 mm' })).toEqual({ kind: 'drilling', diameter: '12 mm' });
  });
});
