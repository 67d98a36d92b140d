import { PracticeControl } from '@isometra/core/practice';
import fc from 'fast-check';
import type { MoveWrite, RegisterUse, RoundHead } from '@isometra/contract';
import { displayCounts, recheckOf, registerPlan, registerValue, stillOwed, takenFits, takenValue } from './register.js';
import {
  byRoundNow,
  enteredOn,
  firstOld,
  kappaByAxis,
  learnedKappa,
  leftAt,
  registerLog,
  showsOther,
  unsettledOf,
  withoutLast,
} from './log.js';
import { plateWords, registersFor, reopens, type RegisterBase } from './scope.js';
import { staleWords } from '../ladder/reasons.js';
import { rungsOf } from '../ladder/rungs.js';
import { Diary, finding, move, quantity } from '../testing/heads.js';

const NOW = '2026-11-01T08:00:00.000Z';
const register = (part: Partial<RegisterUse> = {}): RegisterUse => ({
  ...{ name: 'work shift X', axis: 'X', kind: 'added', unit: 'mm', programming: 'radius', digits: 4, total: 0 },
  ...{ old: null, jog: null, homings: 0, power: 0, entered: null },
  ...part,
});
const locked = (value: number) => ({ value, where: 'offset page 2', at: NOW, by: 'RM' });
const way = fc.constantFrom(1 as const, -1 as const);
const counting = fc.record({
  unit: fc.constantFrom('mm' as const, 'inch' as const),
  counts: fc.constantFrom('radius' as const, 'diameter' as const),
});
const control = fc.record({
  off: fc.integer({ min: 5, max: 200 }).chain((size) => fc.constantFrom(size, -size)),
  ...{ way, kappa: way, display: counting, register: counting },
  first: fc.integer({ min: -400, max: 400 }),
  homingError: fc.integer({ min: -30, max: 30 }),
  homing: fc.record({ times: fc.integer({ min: 1, max: 3 }), power: fc.integer({ min: 0, max: 2 }) }),
});
type Truth = typeof control extends fc.Arbitrary<infer T> ? T : never;

/** A register with its old value locked and its sign jogged for, on a homed control whose truth is hidden. */
function bumped(truth: Truth, kind: RegisterUse['kind']) {
  const { counts: programming, unit } = truth.register;
  const box = new PracticeControl({ ...truth, kind });
  box.home();
  const by = truth.display.unit === 'inch' ? 0.0004 : 0.01;
  const jog = { by, before: box.total, after: box.jogged(by) };
  const use = register({ kind, programming, unit, digits: 6, total: box.total, old: locked(truth.first), jog });
  return { box, use };
}
const NOTHING = { dial: null, preset: 0, tightened: null, rule: null } as const;
const entering = (use: RegisterUse, value: number): RegisterUse => ({ ...use, entered: { value, how: 'plus', at: NOW, by: 'RM' } });

describe('a register of a control', () => {
  it('that the control adds is chosen by the jog, and cures the error whatever the factor, unit and direction', () => {
    fc.assert(
      fc.property(control, (truth) => {
        const { box, use } = bumped(truth, 'added');
        const plan = registerPlan(use, null);
        expect(plan?.chosen).not.toBeNull();
        box.put(plan?.chosen === 'plus' ? plan.plus : (plan?.minus ?? 0));
        expect(Math.abs(box.total)).toBeLessThan(0.001);
        expect(displayCounts(use)).toEqual(truth.display);
        // Jogged until the readings agree, the control took the same value by itself.
        const jog = { ...bumped(truth, 'added').use, jog: { by: bumped(truth, 'added').box.wholeJog, before: use.total, after: 0 } };
        expect(takenValue(jog, null)).toBeCloseTo(plan?.chosen === 'plus' ? plan.plus : (plan?.minus ?? NaN), 6);
      }),
    );
  });

  it('that is a reference is not guessed: both are shown with what the next check reads; one round teaches κ for its axis', () => {
    fc.assert(
      fc.property(control, fc.boolean(), (truth, plusFirst) => {
        const { box, use } = bumped(truth, 'reference');
        const plan = registerPlan(use, null);
        expect(plan?.chosen).toBeNull();
        const guess = (plusFirst ? plan?.plus : plan?.minus) ?? 0;
        box.put(guess);
        const recheck = recheckOf(entering(use, guess), box.total);
        if (recheck?.meaning === 'wrong-sign') expect(Math.abs(box.total)).toBeCloseTo(plan?.ifWrong ?? 0, 4);
        else expect(recheck?.meaning).toBe('right');
        expect(learnedKappa([{ move: move(), use: entering(use, guess), recheck }], 'X')).toBe(truth.kappa);
        expect(learnedKappa([{ move: move(), use: entering(use, guess), recheck }], 'Y')).toBeNull();
        // Back from the first old value: what is said next cures it.
        box.put(recheck?.next ?? NaN);
        expect(Math.abs(box.total)).toBeLessThan(0.001);
        // With κ known the next bump is not guessed any more.
        const again = bumped({ ...truth, off: -2 * truth.off }, 'reference');
        const known = registerPlan(again.use, truth.kappa);
        again.box.put((known?.chosen === 'plus' ? known.plus : known?.minus) ?? NaN);
        expect(Math.abs(again.box.total)).toBeLessThan(0.001);
      }),
    );
  });

  it('entered wrongly is told by the ratio of the two readings, and put right from the first old value', () => {
    /** What was entered, in parts of what should have been, and what that is called. */
    const mistakes = [
      ...([
        [2, 'doubled'],
        [-2, 'doubled-wrong-sign'],
        [0.5, 'halved'],
        [-0.5, 'halved-wrong-sign'],
        [-1, 'wrong-sign'],
      ] as const),
      ...([
        [1, 'right'],
        [1 / 25.4, 'inch-as-mm'],
        [25.4, 'mm-as-inch'],
        [-25.4, 'mm-as-inch'],
      ] as const),
    ] as const;
    fc.assert(
      fc.property(control, fc.constantFrom(...mistakes), (truth, [factor, mistake]) => {
        const { box, use } = bumped(truth, 'added');
        const plan = registerPlan(use, null);
        const right = ((plan?.chosen === 'plus' ? plan.plus : plan?.minus) ?? NaN) - truth.first;
        const value = truth.first + factor * right;
        box.put(value);
        const recheck = recheckOf(entering(use, value), box.total);
        expect(recheck?.meaning).toBe(mistake);
        box.put(recheck?.next ?? NaN);
        expect(Math.abs(box.total)).toBeLessThan(0.001);
      }),
    );
  });

  it('not homed, 9 becomes 7; entered and not homed, or not switched off and on, it reads as before; a millimetre taken for an inch is a stop', () => {
    const mm = { unit: 'mm', counts: 'radius' } as const;
    const box = new PracticeControl({
      ...{ off: 7, way: 1, kappa: 1, kind: 'added', display: mm, register: mm, first: 200, homingError: 2 },
      homing: { times: 2, power: 1 },
    });
    expect(box.total / 2).toBe(9);
    box.home();
    expect(box.total / 2).toBe(7);
    const use = register({ total: box.total, old: locked(200) });
    box.enter(199.993);
    const said = () => recheckOf(entering(use, 199.993), box.total)?.meaning;
    box.home();
    box.home();
    expect(said()).withContext('homed twice, and never switched off').toBe('not-taken-up');
    box.switchOver();
    box.home();
    expect(said()).toBe('right');
    expect(stillOwed({ homings: 1, power: 0, kind: 'reference' }, { times: 2, power: 1 })).toEqual({ homings: 1, power: 1 });
    expect(stillOwed({ homings: 3, power: 1, kind: 'reference' }, { times: 2, power: 1 })).toEqual({ homings: 0, power: 0 });
    // What the control adds holds from the next call on: nothing is homed for it.
    expect(stillOwed({ homings: 0, power: 0, kind: 'added' }, { times: 2, power: 1 })).toEqual({ homings: 0, power: 0 });
    expect(recheckOf(entering(use, 199.993), use.total * (1 - 25.4))?.meaning).toBe('mm-as-inch');
    expect(recheckOf(entering(use, 199.993), use.total * (1 - 1 / 25.4))?.meaning).toBe('unclear');
    expect(recheckOf(use, 3)).withContext('nothing was entered').toBeUndefined();
  });

  it('a diameter display jogs 5.2 on 2.6; 5.2 thou across make 0.0660 mm of a millimetre register', () => {
    const counts = (by: number) => displayCounts({ jog: { by, before: 5200, after: 0 } });
    expect(counts(5.2)).toEqual({ counts: 'diameter', unit: 'mm' });
    expect(counts(-2.6)).toEqual({ counts: 'radius', unit: 'mm' });
    expect(counts(0.1024)).withContext('a display in inch, whatever the register is in').toEqual({ counts: 'radius', unit: 'inch' });
    expect(counts(0.2047)).toEqual({ counts: 'diameter', unit: 'inch' });
    expect(counts(9)).toBeNull();
    const use = register({ total: 5.2 * 25.4, old: locked(0) });
    expect(registerValue(registerPlan(use, null)?.plus ?? NaN, use)).toBe('0.0660 mm');
  });

  it('a position that the control took itself is the old value and the jog, in the register’s own factor; a reference waits for κ', () => {
    const use = register({ total: 100, old: locked(200), jog: { by: -0.1, before: 100, after: 0 }, programming: 'radius' });
    expect(takenValue(use, null)).toBeCloseTo(199.95, 9);
    expect(takenValue({ ...use, programming: 'diameter' }, null)).toBeCloseTo(199.9, 9);
    const inches = { ...use, jog: { by: -0.1 / 25.4, before: 100, after: -100 } };
    expect(takenValue(inches, null)).withContext('the display in inch, the register in mm').toBeCloseTo(199.9, 6);
    expect(takenValue({ ...use, kind: 'reference' }, null)).toBeNull();
    expect(takenValue({ ...use, kind: 'reference' }, -1)).toBeCloseTo(200.05, 9);
  });

  it('what the control took fits within its doubt: after a wrong first value it is counted from what stands there', () => {
    const mm = { unit: 'mm', counts: 'radius' } as const;
    const kinds = ['added', 'reference'] as const;
    fc.assert(
      fc.property(control, fc.constantFrom(...kinds), fc.boolean(), (truth, kind, wrongFirst) => {
        const box = new PracticeControl({ ...truth, kind });
        box.home();
        const { counts: programming, unit } = truth.register;
        const use = register({ kind, programming, unit, digits: 6, total: box.total, old: locked(truth.first) });
        const first = truth.first + (registerPlan(use, null)?.change ?? 0);
        if (wrongFirst) box.put(first);
        const stands = wrongFirst ? first : truth.first;
        if (Math.abs(box.total) < 1) return;
        const whole = { ...use, total: box.total, jog: { by: box.wholeJog, before: box.total, after: 0 } };
        const facts = { kappa: kind === 'added' ? null : truth.kappa, stands, doubt: 1 };
        const value = takenValue(whole, facts.kappa, stands) ?? NaN;
        box.put(value);
        expect(Math.abs(box.total)).withContext('the control took it: it is right').toBeLessThan(0.001);
        expect(takenFits(whole, value, facts)).toBeTrue();
        expect(takenFits(whole, 2 * stands - value, facts))
          .withContext('the other way')
          .toBe(Math.abs(whole.total) < 1);
        // Without κ the size alone is known: half the reading, either way.
        if (kind === 'reference') expect(takenFits(whole, 2 * stands - value, { ...facts, kappa: null })).toBeTrue();
      }),
    );
    expect(displayCounts({ jog: { by: 0.01, before: 20, after: 0 } })).toEqual(mm);
  });

  it('a jog that goes with nothing the needle did chooses no sign', () => {
    const use = register({ total: 100, old: locked(200), jog: { by: 0.02, before: 100, after: 96 } });
    expect(registerPlan(use, null)?.chosen).toBeNull();
    expect(registerPlan({ ...use, jog: { by: 0.02, before: 100, after: 60 } }, null)?.chosen).toBe('plus');
    expect(registerPlan({ ...use, jog: { by: 0.02, before: 100, after: 140 } }, null)?.chosen).toBe('minus');
  });

  it('more than half a millimetre is asked about; nothing is planned before the old value is locked', () => {
    expect(registerPlan(register({ total: 1200, old: locked(200) }), null)?.asks).toEqual(['large-change']);
    expect(registerPlan(register({ total: 1200 }), null)).toBeUndefined();
  });
});

describe('the log of a register', () => {
  const book = () => {
    const diary = new Diary();
    const round = (along: number, part: Partial<RoundHead> = {}) =>
      diary.round('sub-spindle', 'out', {
        finding: finding({ alongSlide: quantity({ value: along, limit: null, verdict: null }) }),
        ...part,
      });
    const entered = (day: number, value: number): MoveWrite =>
      move({
        quantity: 'alongSlide',
        kind: 'stored-offset',
        begunAt: Diary.at(day, 10),
        doneAt: Diary.at(day, 12),
        made: {
          ...{ dial: null, preset: 0, tightened: null, rule: null },
          register: {
            ...entering(register({ total: 24, old: locked(200) }), value),
            entered: { value, how: 'plus', at: Diary.at(day, 11), by: 'RM' },
          },
        },
      });
    return { round, entered };
  };

  it('is judged by the next round that was read with the axes homed; two wrong guesses go back to the first old value', () => {
    const { round, entered } = book();
    const rounds = [
      round(12, { conditions: { homed: 'yes' }, moves: [entered(1, 200.012)] }),
      round(12, { conditions: { homed: 'no' } }),
      round(24, { conditions: { homed: 'yes' }, moves: [entered(3, 200.024)] }),
      round(36, { conditions: { homed: 'yes' } }),
    ];
    const log = registerLog(rounds);
    expect(log.map(({ recheck }) => recheck?.meaning)).toEqual(['wrong-sign', 'doubled-wrong-sign']);
    expect(log[0].next?.id).withContext('the one before homing tells nothing').toBe(rounds[2].id);
    expect(log[0].recheck?.next).toBeCloseTo(199.988, 6);
    expect(log[1].recheck?.next).toBeCloseTo(199.988, 6);
    expect(firstOld(log, 'work shift X')?.value).toBe(200);
    expect(firstOld(log, 'another')).toBeNull();
    expect(leftAt(log)['work shift X'].value).withContext('what it should show').toBe(200.024);
    const unsettled = unsettledOf(log)['work shift X'];
    expect([unsettled.old.value, unsettled.total, unsettled.recheck?.meaning]).toEqual([200, 24, 'doubled-wrong-sign']);
  });

  it('a value that was worked out from a round that has been corrected since is not judged by what is read next', () => {
    const { round, entered } = book();
    const homed = { conditions: { homed: 'yes' } };
    const before = (along: number) =>
      registerLog([round(along, { ...homed, moves: [entered(1, 199.988)] }), { ...round(0, homed), at: Diary.at(5) }])[0].recheck;
    expect(before(12)?.meaning).toBe('right');
    expect(before(12.4)?.meaning).withContext('a rounding is no correction').toBe('right');
    expect(before(7)).toEqual({ meaning: 'unclear', ratio: null, next: null, why: 'corrected' });
  });

  it('before anything is entered the sheet follows its round; a jog keeps what it moved', () => {
    const use = register({ total: 24, old: locked(200), jog: { by: 0.01, before: 24, after: 14 } });
    expect(byRoundNow(use, 24.3)).toEqual(use);
    expect(byRoundNow(use, -30)).toEqual({ ...use, total: -30, jog: { by: 0.01, before: -30, after: -40 } });
    const began = entering(use, 200.012);
    expect(byRoundNow(began, -30)).withContext('what was entered stays what it was worked out from').toEqual(began);
  });

  it('a value that was recorded by mistake leaves the one before it', () => {
    const use = register({ total: 24, old: locked(200) });
    const value = (number: number) => ({ value: number, how: 'plus' as const, at: Diary.at(1), by: 'RM' });
    const twice = enteredOn(enteredOn(use, value(200.012)), value(200.12));
    expect(withoutLast({ ...twice, homings: 2 })).toEqual(jasmine.objectContaining({ entered: value(200.012), homings: 0 }));
    expect(withoutLast(withoutLast(twice))).toEqual(use);
  });

  it('keeps the order of what was entered on one change sheet, though the clock of a browser was behind', () => {
    const { round, entered } = book();
    const [first, second] = [round(12, { moves: [entered(1, 200.012)] }), round(24, { moves: [entered(3, 199.988)] })];
    const sheet = second.moves[0].made?.register;
    if (!sheet) throw new Error('no change sheet');
    const back = enteredOn(sheet, { value: 200, how: 'back', at: Diary.at(0), by: 'RM' });
    const rounds = [first, { ...second, moves: [{ ...second.moves[0], made: { ...NOTHING, register: back } }] }];
    const log = registerLog(rounds);
    expect(log.map(({ use }) => use.entered?.value)).toEqual([200.012, 199.988, 200]);
    expect(leftAt(log)['work shift X'].value).toBe(200);
  });

  it('shows another value where its last digit differs, or where its unit does', () => {
    const left = { value: 12.0281, unit: 'inch', digits: 4, how: 'plus', at: Diary.at(1), by: 'RM' } as const;
    expect(showsOther(12.0281, 'inch', left)).toBeFalse();
    expect(showsOther(12.0282, 'inch', left)).toBeTrue();
    expect(showsOther(12.0281, 'mm', left)).toBeTrue();
    expect(showsOther(12.0281, 'mm', undefined))
      .withContext('nothing was ever entered')
      .toBeFalse();
  });

  it('is not judged at another station, by a round that is not to be trusted, or across another move', () => {
    const homed = (station: string) => ({ homed: 'yes', station });
    const told = (...later: Partial<RoundHead>[]) => {
      const { round, entered } = book();
      const at = { check: 'turret-bore', conditions: homed('3') };
      const rounds = [round(12, { ...at, moves: [entered(1, 200.012)] }), ...later.map((part) => round(24, { ...at, ...part }))];
      const [{ next, recheck }] = registerLog(rounds);
      return [recheck?.meaning, recheck?.why, rounds.indexOf(next as RoundHead)];
    };
    expect(told({})).toEqual(['wrong-sign', undefined, 1]);
    expect(told({ conditions: homed('5') })).toEqual([undefined, undefined, -1]);
    expect(told({ conditions: homed('5') }, {})).toEqual(['wrong-sign', undefined, 2]);
    const along = { alongSlide: quantity({ value: 24, limit: null, verdict: null }) };
    expect(told({ finding: finding(along, [{ code: 'closure', severity: 'serious' }]) })).toEqual(['unclear', 'trust', 1]);
    expect(told({ finding: finding(along, [{ code: 'closure', severity: 'warning' }]) })).toEqual(['wrong-sign', undefined, 1]);
    expect(told({ finding: finding(along, [{ code: 'pegged', severity: 'warning' }]) })).toEqual(['unclear', 'trust', 1]);
    // The bolts were driven between the value and the round after it: what that reads says nothing of the value.
    const bolts = { ...move({ id: 'bolts', kind: 'nudge', begunAt: Diary.at(2, 10), doneAt: Diary.at(2, 11) }) };
    const plate = { ...bolts, made: { ...NOTHING, moved: 'one' as const } };
    expect(told({ conditions: { station: '3' }, moves: [bolts] }, {})).toEqual(['unclear', 'moved', 2]);
    expect(told({ conditions: { station: '5' }, moves: [bolts] }, {}))
      .withContext('the whole turret, from another station')
      .toEqual(['unclear', 'moved', 2]);
    expect(told({ conditions: { station: '5' }, moves: [plate] }, {}))
      .withContext('of another plate')
      .toEqual(['wrong-sign', undefined, 2]);
  });

  it('asks for the sign where nobody tried the needle: −1 and +1 look alike, 2 does not', () => {
    const told = (after: number, tried: boolean, expanded = 0.4) => {
      const { round, entered } = book();
      const part = (value: number, more: Partial<RoundHead>): Partial<RoundHead> => ({
        conditions: { homed: 'yes' },
        finding: finding(
          {
            alongSlide: quantity({ value, expanded, limit: null, verdict: null }),
            offsetRadial: quantity({ value: Math.abs(value), verdict: Math.abs(value) < 5 ? 'in' : 'out' }),
          },
          tried ? [] : [{ code: 'direction-assumed', severity: 'warning' }],
        ),
        ...more,
      });
      const rounds = [round(12, part(12, { moves: [entered(1, 200.012)] })), round(after, part(after, {}))];
      const [{ recheck }] = registerLog(rounds);
      return [recheck?.meaning, recheck?.why, recheck?.may];
    };
    expect(told(12.05, true))
      .withContext('0.96 is within its doubt')
      .toEqual(['unclear', 'doubt', ['not-taken-up', 'inch-as-mm']]);
    expect(told(12.05, true, 0.1)).toEqual(['not-taken-up', undefined, undefined]);
    expect(told(-12.05, true)).toEqual(['doubled', undefined, undefined]);
    expect(told(-12.05, false, 0.1)).toEqual(['unclear', 'sign', ['not-taken-up', 'doubled']]);
    expect(told(12.05, false, 0.1)).toEqual(['unclear', 'sign', ['not-taken-up', 'doubled']]);
    expect(told(24.1, false)).withContext('−2 is nothing').toEqual(['wrong-sign', undefined, undefined]);
    expect(told(6.1, false)).toEqual(['halved', undefined, undefined]);
    // Small against its doubt, but in: leave it.
    expect(told(3, true, 4)).toEqual(['right', undefined, undefined]);
    expect(told(6, true, 6)[1]).toBe('doubt');
  });

  it('that was not taken up is judged again by the next sweep: homed, switched off and on, it was right after all', () => {
    const { round, entered } = book();
    const homed = { conditions: { homed: 'yes' } };
    const fine = { ...homed, finding: finding({ alongSlide: quantity({ value: 12, expanded: 0.1, limit: null, verdict: null }) }) };
    const rounds = [round(12, { ...fine, moves: [entered(1, 199.988)] }), round(12, fine)];
    expect(registerLog(rounds)[0].recheck?.meaning).toBe('not-taken-up');
    rounds.push(round(0, homed));
    const [{ next, recheck }] = registerLog(rounds);
    expect([next?.id, recheck?.meaning]).toEqual([rounds[2].id, 'right']);
    // A round that did not close in between says nothing, and does not have the last word.
    const along = { alongSlide: quantity({ value: 3, limit: null, verdict: null }) };
    const loose = round(3, { ...homed, finding: finding(along, [{ code: 'closure', severity: 'serious' }]) });
    expect(registerLog([rounds[0], loose])[0].recheck?.why).toBe('trust');
    expect(registerLog([rounds[0], loose, round(24, homed)])[0].recheck?.meaning).toBe('wrong-sign');
  });

  it('a second value after which it reads as before was not taken up: it is not told by what it read at first', () => {
    const { round, entered } = book();
    const homed = { conditions: { homed: 'yes' } };
    const rounds = [
      round(12, { ...homed, moves: [entered(1, 200.012)] }),
      round(24, { ...homed, moves: [entered(2, 199.988)] }),
      round(24, homed),
    ];
    const [first, second] = registerLog(rounds);
    expect(first.recheck?.meaning).toBe('wrong-sign');
    expect([second.recheck?.meaning, second.recheck?.next]).toEqual(['not-taken-up', null]);
  });

  it('entered over one that had not been taken up says nothing: it may be the other one that is read', () => {
    const { round, entered } = book();
    const homed = { conditions: { homed: 'yes' } };
    // Twice the change and the wrong way, homed too few times; then the right one, and homed: the first is taken up only now.
    const fine = { ...homed, finding: finding({ alongSlide: quantity({ value: 12, expanded: 0.1, limit: null, verdict: null }) }) };
    const rounds = [
      round(12, { ...fine, moves: [entered(1, 200.024)] }),
      round(12, { ...fine, moves: [entered(2, 199.988)] }),
      round(36, homed),
    ];
    const [first, second] = registerLog(rounds);
    expect(first.recheck?.meaning).withContext('what is read after the second tells of the second').toBe('not-taken-up');
    expect(second.recheck).toEqual({ meaning: 'unclear', ratio: 3, next: null, why: 'pending' });
    expect(registerLog([...rounds.slice(0, 2), round(0, homed)])[1].recheck?.meaning).toBe('right');
    expect(registerLog([...rounds.slice(0, 2), round(12, fine)])[1].recheck?.meaning).toBe('not-taken-up');
  });

  it('put back is settled once it reads as it did at first; what still reads as before was not taken up, and nothing new begins on it', () => {
    const { round, entered } = book();
    const homed = { conditions: { homed: 'yes' } };
    const wayBack = (day: number, part: Partial<RegisterUse> = {}) => {
      const made = entered(day, 200);
      const use = made.made?.register as RegisterUse;
      return { ...made, made: { ...made.made, register: { ...use, entered: { ...use.entered, how: 'back' }, ...part } } } as MoveWrite;
    };
    const wrong = [round(12, { ...homed, moves: [entered(1, 200.012)] }), round(24, { ...homed, moves: [wayBack(2)] })];
    const state = (...later: RoundHead[]) => {
      const log = registerLog([...wrong, ...later]);
      return [log[1].recheck?.meaning, unsettledOf(log)['work shift X']?.recheck?.meaning];
    };
    const [stuck, back, knocked] = [round(24, homed), round(12, homed), round(3, homed)];
    expect(state(stuck)).toEqual(['not-taken-up', 'not-taken-up']);
    expect(state(back)).toEqual([undefined, undefined]);
    expect(state(stuck, back)).withContext('homed once more').toEqual([undefined, undefined]);
    expect(state(knocked)).withContext('something else, nobody knows what: it is where to begin').toEqual([undefined, undefined]);
    // Tapped over on its bolts besides, no reading tells; that a homing was counted does.
    const bolts = move({ id: 'bolts', kind: 'nudge', begunAt: Diary.at(3, 10), doneAt: Diary.at(3, 11) });
    const tapped = (part: Partial<RegisterUse>) => {
      const rounds = [wrong[0], { ...wrong[1], moves: [wayBack(2, part), bolts] }];
      return unsettledOf(registerLog([...rounds, { ...round(5, homed), at: Diary.at(20) }]))['work shift X']?.recheck?.why;
    };
    expect(tapped({})).toBe('moved');
    expect(tapped({ homings: 1 })).toBeUndefined();
  });

  it('never asks for a value that does not cure: whatever was entered, homed or not, knocked, or read in between', () => {
    const event = fc.oneof(
      fc.record({ does: fc.constant('enter' as const), factor: fc.constantFrom(1, -1, 2, -2, 0.5, -0.5, 0.7), home: fc.boolean() }),
      fc.record({ does: fc.constant('back' as const), home: fc.boolean() }),
      fc.record({ does: fc.constant('bolts' as const), by: fc.integer({ min: -60, max: 60 }) }),
      fc.record({ does: fc.constant('sweep' as const), homed: fc.boolean(), station: fc.constantFrom('3', '3', '5') }),
    );
    let [cured, begun] = [0, 0];
    fc.assert(
      fc.property(control, fc.array(event, { maxLength: 7 }), (truth, events) => {
        const box = new PracticeControl({ ...truth, kind: 'added' });
        const diary = new Diary();
        const rounds: RoundHead[] = [];
        const { counts: programming, unit } = truth.register;
        let day = 0;
        let stands = truth.first;
        const sweep = (station: string, homed: boolean) => {
          day += 1;
          if (homed) box.home();
          const value = station === '3' ? box.total / 2 : 77;
          const along = { alongSlide: quantity({ value, expanded: 0.02, limit: null, verdict: null }) };
          rounds.push(
            diary.round('turret-bore', null, { conditions: { homed: homed ? 'yes' : 'no', station }, finding: finding(along), moves: [] }),
          );
        };
        sweep('3', true);
        for (const happened of events) {
          const from = rounds.findLastIndex(({ conditions }) => conditions['station'] === '3' && conditions['homed'] === 'yes');
          const at = Diary.at(day, 10 + (rounds[rounds.length - 1].moves.length % 10));
          const add = (made: MoveWrite) => (rounds[from] = { ...rounds[from], moves: [...rounds[from].moves, made] });
          const id = `${day} ${rounds[from].moves.length}`;
          if (happened.does === 'sweep') sweep(happened.station, happened.homed);
          else if (happened.does === 'bolts') {
            box.knock(happened.by);
            add(move({ id, kind: 'nudge', quantity: 'acrossSlide', begunAt: at, doneAt: at }));
          } else {
            const log = registerLog(rounds);
            const before = unsettledOf(log)['station 3'];
            const back = happened.does === 'back';
            // The change sheet does not go on before what was entered has been read again, nor from a round that was read before that.
            if (back ? !before : before && !before.recheck) continue;
            if (!back && (leftAt(log)['station 3']?.at ?? '') > rounds[from].at) continue;
            const total = before?.total ?? 2 * (rounds[from].finding?.quantities['alongSlide'].value ?? 0);
            const old = before?.old ?? { ...locked(stands), at };
            const use = register({ name: 'station 3', total, old, programming, unit, digits: 6 });
            const factor = happened.does === 'back' ? 0 : happened.factor;
            const value = old.value + factor * (registerPlan(use, null)?.change ?? 0) * -truth.way;
            if (happened.home) box.put(value);
            else box.enter(value);
            stands = value;
            add(
              move({
                id,
                kind: 'stored-offset',
                quantity: 'alongSlide',
                begunAt: at,
                doneAt: at,
                made: {
                  ...NOTHING,
                  register: {
                    ...use,
                    homings: back && happened.home ? 1 : 0,
                    entered: { value, how: back ? 'back' : 'taken', at, by: 'RM' },
                  },
                },
              }),
            );
          }
        }
        sweep('3', true);
        const log = registerLog(rounds);
        const now = 2 * (rounds[rounds.length - 1].finding?.quantities['alongSlide'].value ?? 0);
        if (!unsettledOf(log)['station 3']) {
          // Nothing is owed: a change sheet that begins now, from this round, has the value that cures it on one of its two sides.
          const use = register({ name: 'station 3', total: now, old: locked(stands), programming, unit, digits: 6 });
          const { plus = 0, minus = 0 } = registerPlan(use, null) ?? {};
          const left = [plus, minus].map((value) => (box.put(value), Math.abs(box.total)));
          // What is in has no change sheet.
          if (Math.abs(now) < 2) return;
          begun += 1;
          if (Math.min(...left) > 0.05 * Math.abs(now) + 0.1) throw new Error(`a new change sheet on ${now} leaves ${left.join(' or ')}`);
          return;
        }
        const last = log.at(-1);
        const next = last?.next === rounds[rounds.length - 1] ? last.recheck?.next : null;
        if (next === null || next === undefined || last?.recheck?.meaning === 'right') return;
        cured += 1;
        box.put(next);
        // Thrown, so that what failed is made small.
        if (Math.abs(box.total) > 0.05 * Math.abs(last?.use.total ?? 0) + 0.1)
          throw new Error(`${JSON.stringify(last?.recheck)} leaves ${box.total}`);
      }),
      { numRuns: 2000 },
    );
    expect(cured).withContext('how often a value was asked for').toBeGreaterThan(60);
    expect(begun).withContext('how often a change sheet could begin').toBeGreaterThan(60);
  });

  it('a changed reference re-opens every station that is built on it, going back too; a value of one station only its own', () => {
    const state = (kind: RegisterUse['kind'], how: 'plus' | 'back' = 'plus') => {
      const { round, entered } = book();
      const made = entered(3, 200.012);
      const use = made.made?.register as RegisterUse;
      const moved = { ...made, made: { ...made.made, register: { ...use, kind, entered: { ...use.entered, how } } } } as MoveWrite;
      const rounds = [
        round(2, { check: 'turret-bore', conditions: { homed: 'yes' } }),
        round(2, { check: 'spindle-axis' }),
        round(12, { conditions: { homed: 'yes' }, moves: [moved] }),
      ];
      const rungs = rungsOf('turning-centre', rounds);
      return ['turret-bore', 'spindle-axis', 'sub-spindle'].map((id) => rungs.find(({ check }) => check.id === id)?.stale?.code);
    };
    expect(state('reference')).toEqual(['rebased', undefined, 'moved']);
    expect(state('reference', 'back')).toEqual(['rebased', undefined, 'moved']);
    expect(state('added')).toEqual([undefined, undefined, 'moved']);
    expect(staleWords({ code: 'rebased', register: 'home X' })).toContain('“home X” was changed in the control');
  });

  it('the machine card spares the stations that are built on another register, and an unknown one is not spared', () => {
    const named = ({ entered }: ReturnType<typeof book>, day: number, name: string, axis: string, kind: RegisterUse['kind']) => {
      const made = entered(day, 200.012);
      const use = { ...(made.made?.register as RegisterUse), name, axis, kind };
      return { ...made, made: { ...made.made, register: use } } as MoveWrite;
    };
    const told = (own: string, base: string, registers: readonly RegisterBase[], kind: RegisterUse['kind'] = 'added') => {
      const fresh = book();
      const { round } = fresh;
      const rounds = [
        round(9, { check: 'turret-bore', conditions: { homed: 'yes' }, moves: [named(fresh, 1, own, 'X', 'added')] }),
        round(0, { check: 'turret-bore', conditions: { homed: 'yes' } }),
        round(12, { conditions: { homed: 'yes' }, moves: [named(fresh, 20, base, base.slice(-1), kind)] }),
      ];
      return rungsOf('turning-centre', rounds, undefined, { registers }).find(({ check }) => check.id === 'turret-bore')?.stale?.code;
    };
    const card: readonly RegisterBase[] = [
      { name: 'home X', axis: 'X' },
      { name: 'home A', axis: 'A' },
      { name: 'shift X', axis: 'X', basedOn: 'home X' },
      { name: 'station 3', axis: 'X', basedOn: 'shift X' },
      { name: 'station 5', axis: 'X', basedOn: 'home A' },
      { name: 'station 7', axis: 'X' },
    ];
    expect(told('station 3', 'home X', card, 'reference'))
      .withContext('two floors down')
      .toBe('rebased');
    expect(told('station 3', 'shift X', card))
      .withContext('an added one that others are built on')
      .toBe('rebased');
    expect(told('station 3', 'home A', card, 'reference'))
      .withContext('another root')
      .toBeUndefined();
    expect(told('station 5', 'home A', card, 'reference'))
      .withContext('named, across axes')
      .toBe('rebased');
    expect(told('station 7', 'home X', card, 'reference'))
      .withContext('nobody said, same axis')
      .toBe('rebased');
    expect(told('station 7', 'home A', card, 'reference'))
      .withContext('nobody said, another axis')
      .toBeUndefined();
    expect(told('not on the card', 'home A', card, 'reference'))
      .withContext('unknown')
      .toBe('rebased');
    expect(told('station 3', 'station 7', card))
      .withContext('nothing is built on it')
      .toBeUndefined();
    const circle = [...card.slice(0, 2), { name: 'a X', axis: 'X', basedOn: 'b X' }, { name: 'b X', axis: 'X', basedOn: 'a X' }];
    expect(told('a X', 'home X', circle, 'reference'))
      .withContext('a card that goes round in a circle')
      .toBe('rebased');
  });

  it('back at the first old value is no re-check, and the next change begins afresh', () => {
    const { round, entered } = book();
    const first = entered(1, 200.012);
    const use = first.made?.register as RegisterUse;
    const back = {
      ...first,
      made: { ...first.made, register: { ...use, entered: { ...use.entered, value: 200, how: 'back' } } },
    } as MoveWrite;
    const log = registerLog([round(12, { conditions: { homed: 'yes' }, moves: [back] }), round(12, { conditions: { homed: 'yes' } })]);
    expect(log[0].next).toBeDefined();
    expect(log[0].recheck).toBeUndefined();
    expect(unsettledOf(log)).toEqual({});
  });

  it('a value put back weeks later re-opens what was read since, and nothing that was entered on the change sheet is forgotten', () => {
    const { round, entered } = book();
    const first = entered(1, 200.012);
    const use = first.made?.register as RegisterUse;
    const back = enteredOn(use, { value: 200, how: 'back', at: Diary.at(20), by: 'KP' });
    expect([back.entered?.value, back.earlier?.map(({ value }) => value), back.homings]).toEqual([200, [200.012], 0]);
    const sheet = { ...first, made: { ...first.made, register: back } } as MoveWrite;
    const rounds = [round(12, { conditions: { homed: 'yes' }, moves: [sheet] }), round(24, { conditions: { homed: 'yes' } })];
    expect(registerLog(rounds).map(({ use: { entered: said }, recheck }) => [said?.value, recheck?.meaning])).toEqual([
      [200.012, 'wrong-sign'],
      [200, undefined],
    ]);
    const rung = () => rungsOf('turning-centre', rounds).find(({ check }) => check.id === 'sub-spindle')?.stale?.code;
    expect(rung()).withContext('read before it was put back').toBe('moved');
    rounds.push(round(12, { at: Diary.at(21), conditions: { homed: 'yes' } }));
    expect(rung()).toBeUndefined();
  });

  it('counts from when the value was entered, also where nobody said that the card is done', () => {
    const { round, entered } = book();
    const rounds = [
      round(12, { conditions: { homed: 'yes' }, moves: [{ ...entered(1, 200.012), doneAt: null }] }),
      round(24, { conditions: { homed: 'yes' } }),
    ];
    expect(registerLog(rounds)[0].recheck?.meaning).toBe('wrong-sign');
    expect(rungsOf('turning-centre', rounds.slice(0, 1)).find(({ check }) => check.id === 'sub-spindle')?.stale?.code).toBe('moved');
  });

  it('κ of an axis is learned from the log, else it is what the machine card tells', () => {
    const card = [{ axis: 'X', kappa: 'against' }, { axis: 'A', kappa: 'unknown' }, { axis: 'B' }];
    expect(kappaByAxis([], card)).toEqual({ X: -1 });
    const use = register({ kind: 'reference', total: 24, old: locked(200), jog: { by: 0.01, before: 24, after: 4 } });
    const known = { move: move(), use: entering(use, 200.012), recheck: { meaning: 'right' as const, ratio: 0, next: null } };
    expect(kappaByAxis([known], card))
      .withContext('what was learned rules')
      .toEqual({ X: 1 });
  });

  it('nothing is told of what nobody has read again', () => {
    const { round, entered } = book();
    const [only] = registerLog([round(12, { moves: [entered(1, 200.012)] })]);
    expect(only.recheck).toBeUndefined();
    expect(only.next).toBeUndefined();
  });
});

describe('what a register shifts, by the machine card', () => {
  const card: readonly RegisterBase[] = [
    { name: 'home X', axis: 'X', scope: 'turret' },
    { name: 'home B', axis: 'B', scope: 'turret' },
    { name: 'work shift X', axis: 'X', scope: 'turret' },
    { name: 'station 3', axis: 'X', scope: 'station', station: '3', basedOn: 'home X' },
    { name: 'station 5', axis: 'X', scope: 'station', station: '5', basedOn: 'home B' },
    { name: 'sub A', axis: 'A', scope: 'sub' },
    { name: 'not said', axis: 'X' },
  ];
  const at = (check: string, station?: string): Pick<RoundHead, 'check' | 'conditions'> => ({
    check,
    conditions: station ? { station } : {},
  });
  const names = (check: string, station?: string) => registersFor(card, at(check, station)).map(({ name }) => name);

  it('is offered for that alone: none of another station, none of another spindle', () => {
    expect(names('turret-bore', '3')).toEqual(['home X', 'home B', 'work shift X', 'station 3', 'not said']);
    expect(names('turret-bore')).toEqual(['home X', 'home B', 'work shift X', 'station 3', 'station 5', 'not said']);
    expect(names('sub-spindle')).toEqual(['sub A', 'not said']);
  });

  it('is re-opened when it changes: added to all of them all, a reference those that are built on it, one station that one', () => {
    const told = (name: string, kind: RegisterUse['kind']) => {
      const changed = { ...(card.find((entry) => entry.name === name) as RegisterBase), kind };
      return [at('turret-bore', '3'), at('turret-bore', '5'), at('turret-bore'), at('sub-spindle')].map((round) =>
        reopens(changed, round, undefined, card),
      );
    };
    expect(told('work shift X', 'added')).toEqual([true, true, true, false]);
    expect(told('home X', 'reference')).withContext('station 5 is built on another').toEqual([true, false, true, false]);
    expect(told('station 3', 'added')).withContext('one that was not named may be it').toEqual([true, false, true, false]);
    expect(told('sub A', 'added')).toEqual([false, false, false, true]);
  });

  it('leaves each station standing for itself on the ladder: one that is out is not forgotten when the next is in', () => {
    const diary = new Diary();
    const read = (station: string, verdict: 'in' | 'out', moved?: number) =>
      diary.round('turret-bore', verdict, { conditions: { station }, ...(moved && { moved }) });
    const rung = (rounds: readonly RoundHead[]) => {
      const found = rungsOf('turning-centre', rounds).find(({ check }) => check.id === 'turret-bore');
      return [found?.state, found?.thing];
    };
    const three = read('3', 'out');
    const five = read('5', 'in');
    expect(rung([three, five])).toEqual(['out', 'station 3']);
    const plate = { ...NOTHING, moved: 'one' as const };
    const moved = { ...three, moves: [move({ begunAt: Diary.at(3), doneAt: Diary.at(3, 9), made: plate })] };
    expect(rung([moved, five]))
      .withContext('the plate of one station was moved')
      .toEqual(['stale', 'station 3']);
    expect(rung([{ ...moved, conditions: {} }, five]))
      .withContext('nobody said which')
      .toEqual(['stale', 'station 5']);
    diary.round('x', null);
    expect(rung([moved, five, read('3', 'in')])).toEqual(['in', 'station 3']);
  });

  it('the whole turret on its bolts takes every station and flat with it; the plate of one leaves them as they are', () => {
    const states = (made: MoveWrite['made'], check = 'turret-bore') => {
      const diary = new Diary();
      const flats = ['front of station 3', 'rear'].map((flat) => diary.round('turret-face', 'in', { conditions: { flat } }));
      const five = diary.round('turret-bore', 'in', { conditions: { station: '5' } });
      const three = diary.round('turret-bore', 'out', { conditions: { station: '3' } });
      const done = move({ kind: 'nudge', begunAt: Diary.at(8), doneAt: Diary.at(8, 9), ...(made && { made }) });
      const rounds = [...flats, five, three].map((round) =>
        round === (check === 'turret-bore' ? three : flats[0]) ? { ...round, moves: [done] } : round,
      );
      // Its own station is read again after it, so that the others have the word.
      const last = Diary.at(9);
      const again = { ...(check === 'turret-bore' ? three : flats[0]), id: 'again', at: last, finding: five.finding };
      const rungs = rungsOf('turning-centre', [...rounds, again]);
      return ['turret-face', 'turret-bore'].map((id) => {
        const rung = rungs.find((entry) => entry.check.id === id);
        return `${rung?.state} ${rung?.stale?.code ?? ''}`.trim();
      });
    };
    expect(states(undefined)).withContext('nobody said: all of it').toEqual(['stale upset', 'stale moved']);
    expect(states({ ...NOTHING, moved: 'all' })).toEqual(['stale upset', 'stale moved']);
    expect(states({ ...NOTHING, moved: 'one' })).toEqual(['in', 'in']);
    // A turret that was turned by one of its flats: the other flat, and every pocket.
    expect(states(undefined, 'turret-face')).toEqual(['stale moved', 'stale upset']);
  });
});

describe('a plate', () => {
  const stations = [
    { station: '3', plate: '3' },
    { station: '5', plate: '5' },
  ];
  it('on the wrong station is told, with where it belongs; on its own, or on a card that says nothing, not', () => {
    expect(plateWords(stations, { station: '3', plate: '5' })).toContain('plate 5 belongs on station 5');
    expect(plateWords(stations, { station: '3', plate: '3' })).toBe('');
    expect(plateWords(stations, { station: '7', plate: '3' })).toBe('');
    expect(plateWords(undefined, { station: '3', plate: '5' })).toBe('');
    expect(plateWords(stations, { homed: 'yes' })).toBe('');
  });
});
