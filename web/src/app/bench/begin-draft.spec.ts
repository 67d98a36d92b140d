import { CHECKS, type CheckDefinition } from '@isometra/core';
import type { KitItem, MachineCardText, Rung } from '@isometra/contract';
import { barRound, dial, drawer, lathe } from '../testing/fake-shop.spec';
import { asTyped, filledFrom, firstDraft, learnedSense, purposeOf, suitable } from './begin-draft';

const check = (id: string): CheckDefinition => CHECKS.get(id) as CheckDefinition;
const instrument = (kind: string): KitItem => ({ ...dial(), data: { kind, graduation: '1 um' } });
const own = 'own';

describe('what a piece of kit can read', () => {
  it('depends on what is read: a micrometer reads sizes, a level slopes, a needle the rest', () => {
    const table = (['micrometer', 'level', 'lever', 'plunger', 'feeler'] as const).map((kind) =>
      (['size', 'level', 'indicator'] as const).map((read) => suitable(instrument(kind), read)),
    );
    expect(table).toEqual([
      [true, false, false],
      [false, true, false],
      [false, false, true],
      [false, false, true],
      [false, false, false],
    ]);
    expect(suitable(drawer(), 'indicator')).toBeFalse();
  });
});

describe('how a dial counted', () => {
  const nudged = (sense: 1 | -1 | undefined, more: Parameters<typeof barRound>[2] = {}) =>
    barRound(0, 0, { instrument: { kind: 'lever', graduation: '0.002 mm', ...(sense && { sense }) }, ...more });

  it('is what its last nudge test from the same side said', () => {
    const rounds = [nudged(1), nudged(-1), nudged(undefined)];
    expect(learnedSense(rounds, 'tailstock-traverse', 'Lever dial', {})?.sense).toBe(-1);
    expect(learnedSense(rounds, 'tailstock-traverse', 'Lever dial', { side: 'operator' })?.number).toBe(rounds[1].number);
  });

  it('is not known from the other side, of another dial, or in another check', () => {
    const rounds = [nudged(1)];
    expect(learnedSense(rounds, 'tailstock-traverse', 'Lever dial', { side: 'rear' })).toBeUndefined();
    expect(learnedSense(rounds, 'tailstock-traverse', 'Plunger', {})).toBeUndefined();
    expect(learnedSense(rounds, 'spindle-axis', 'Lever dial', {})).toBeUndefined();
    expect(learnedSense(rounds, 'tailstock-traverse', null, {})).toBeUndefined();
  });
});

describe('the first draft of a set-up', () => {
  const card = lathe().card as MachineCardText;
  const draft = (id: string, rounds = [] as ReturnType<typeof barRound>[], rungs: readonly Rung[] = []) =>
    firstDraft(check(id), card, rounds, [dial()], own, rungs);

  it('starts from the machine card where nothing has been read', () => {
    expect(draft('tailstock-traverse').setup).toEqual({ centreDistance: '1500 mm' });
    // Half the swing over the ways, for what the twist of the bed leaks into.
    expect(draft('spindle-axis').setup['heightAboveWays']).toBe('210 mm');
    expect(draft('tailstock-traverse').kitId).toBe('dial');
    expect(draft('tailstock-traverse').sense).toBeNull();
    expect(draft('tailstock-traverse').read).toBeFalse();
  });

  it('starts from the last round of the check, its dial and how that counted', () => {
    const { setup, plan, conditions, kitId, sense } = draft('tailstock-traverse', [barRound(3, 4)]);
    expect(setup).toEqual({ centreDistance: '400 mm' });
    expect(plan).toEqual({ stations: 2 });
    expect(conditions).toEqual({ quillLock: 'on', place: '600 mm' });
    expect([kitId, sense]).toEqual(['dial', 1]);
  });

  it('takes conditions of other rounds over where the check asks for them', () => {
    expect(draft('quill-parallelism', [barRound(3, 4)]).conditions).toEqual({ quillLock: 'on' });
    expect(draft('bed-twist', [barRound(3, 4)]).conditions).toEqual({});
  });

  it('a dial that was described stays described, and is nudged anew', () => {
    const described = barRound(0, 0, { instrumentName: null, instrument: { kind: 'plunger', graduation: '0.01 mm', sense: -1 } });
    const { own: words, kitId, sense } = draft('tailstock-traverse', [described]);
    expect(words).toEqual({ kind: 'plunger', graduation: '0.01 mm' });
    expect(kitId).toBe(own);
    expect(sense).toBeNull();
  });

  it('what another rung found goes before what was typed last time, unless that rung is stale', () => {
    const rung = (state: Rung['state']): Rung =>
      ({
        check: check('bed-twist'),
        state,
        round: { finding: { quantities: { twistPerMetre: { value: 12.34 } } } },
      }) as unknown as Rung;
    expect(filledFrom(check('spindle-axis'), [rung('in')])).toEqual({ twistPerMetre: '12.3 µm/m per m' });
    expect(filledFrom(check('spindle-axis'), [rung('stale')])).toEqual({});
    expect(filledFrom(check('bed-twist'), [rung('in')])).toEqual({});
    expect(draft('spindle-axis', [], [rung('out')]).setup['twistPerMetre']).toBe('12.3 µm/m per m');
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
