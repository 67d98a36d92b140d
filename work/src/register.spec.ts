import fc from 'fast-check';
import type { MoveWrite, RegisterUse, RoundHead } from '@isometra/contract';
import {
  displayCounts,
  firstOld,
  learnedKappa,
  plateWords,
  recheckOf,
  registerLog,
  registerPlan,
  registerValue,
  takenValue,
  unsettledOf,
  type RegisterBase,
} from './register.js';
import { rungsOf, staleWords } from './rungs.js';
import { Diary, finding, move, quantity } from './testing/heads.spec.js';

/** A control with one register, and what it does to the machine: the truth that no reading shows. */
class VirtualControl {
  /** µm off along the slide, + toward the operator. */
  private atHome: number;
  private taken: number;

  constructor(
    readonly use: RegisterUse,
    private readonly truth: { readonly off: number; readonly way: 1 | -1; readonly kappa: 1 | -1; readonly display: 'radius' | 'diameter' },
    readonly first: number,
  ) {
    this.atHome = truth.off;
    this.taken = first;
  }

  private get unit(): number {
    return this.use.unit === 'inch' ? 25.4 : 1;
  }

  /** What a change of the register by so much does to the slide, µm. */
  private moves(change: number): number {
    const sign = this.use.kind === 'reference' ? this.truth.kappa : 1;
    return (1000 * this.unit * this.truth.way * sign * change) / (this.use.programming === 'diameter' ? 2 : 1);
  }

  /** A jog on the display: what the two readings differ by after it. */
  jog(by: number): number {
    return 2 * (this.atHome + (1000 * this.unit * this.truth.way * by) / (this.truth.display === 'diameter' ? 2 : 1));
  }

  /** Enter a value; it counts once the control is homed. */
  enter(value: number, homed = true): void {
    if (!homed) return;
    this.atHome += this.moves(value - this.taken);
    this.taken = value;
  }

  get total(): number {
    return 2 * this.atHome;
  }
}

const NOW = '2026-11-01T08:00:00.000Z';
const register = (part: Partial<RegisterUse> = {}): RegisterUse => ({
  ...{ name: 'work shift X', axis: 'X', kind: 'added', unit: 'mm', programming: 'radius', digits: 4, total: 0 },
  ...{ old: null, jog: null, homings: 0, power: 0, entered: null },
  ...part,
});
const locked = (value: number) => ({ value, where: 'offset page 2', at: NOW, by: 'RM' });
const control = fc.record({
  off: fc.integer({ min: 5, max: 200 }).chain((size) => fc.constantFrom(size, -size)),
  way: fc.constantFrom(1 as const, -1 as const),
  kappa: fc.constantFrom(1 as const, -1 as const),
  display: fc.constantFrom('radius' as const, 'diameter' as const),
  programming: fc.constantFrom('radius' as const, 'diameter' as const),
  unit: fc.constantFrom('mm' as const, 'inch' as const),
  first: fc.integer({ min: -400, max: 400 }),
});
type Truth = typeof control extends fc.Arbitrary<infer T> ? T : never;

/** A register with its old value locked and its sign jogged for, on a control whose truth is hidden. */
function bumped({ off, way, kappa, display, programming, unit, first }: Truth, kind: RegisterUse['kind']) {
  const empty = register({ kind, programming, unit, digits: 6 });
  const box = new VirtualControl(empty, { off, way, kappa, display }, first);
  const by = unit === 'inch' ? 0.0004 : 0.01;
  const use = { ...empty, total: box.total, old: locked(first), jog: { by, before: box.total, after: box.jog(by) } };
  return { box, use };
}
const entering = (use: RegisterUse, value: number): RegisterUse => ({ ...use, entered: { value, how: 'plus', at: NOW, by: 'RM' } });

describe('a register of a control', () => {
  it('that the control adds is chosen by the jog, and cures the error whatever the factor, unit and direction', () => {
    fc.assert(
      fc.property(control, (truth) => {
        const { box, use } = bumped(truth, 'added');
        const plan = registerPlan(use, null);
        expect(plan?.chosen).not.toBeNull();
        box.enter(plan?.chosen === 'plus' ? plan.plus : (plan?.minus ?? 0));
        expect(Math.abs(box.total)).toBeLessThan(0.001);
        expect(displayCounts(use)).toBe(truth.display);
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
        box.enter(guess);
        const recheck = recheckOf(entering(use, guess), box.total);
        if (recheck?.meaning === 'wrong-sign') expect(Math.abs(box.total)).toBeCloseTo(plan?.ifWrong ?? 0, 4);
        else expect(recheck?.meaning).toBe('right');
        expect(learnedKappa([{ move: move(), use: entering(use, guess), recheck }], 'X')).toBe(truth.kappa);
        expect(learnedKappa([{ move: move(), use: entering(use, guess), recheck }], 'Y')).toBeNull();
        // Back from the first old value: what is said next cures it.
        box.enter(recheck?.next ?? NaN);
        expect(Math.abs(box.total)).toBeLessThan(0.001);
        // With κ known the next bump is not guessed any more.
        const again = bumped({ ...truth, off: -2 * truth.off }, 'reference');
        const known = registerPlan(again.use, truth.kappa);
        again.box.enter((known?.chosen === 'plus' ? known.plus : known?.minus) ?? NaN);
        expect(Math.abs(again.box.total)).toBeLessThan(0.001);
      }),
    );
  });

  it('entered wrongly is told by the ratio of the two readings, and put right from the first old value', () => {
    const factors = {
      doubled: 2,
      'doubled-wrong-sign': -2,
      halved: 0.5,
      'halved-wrong-sign': -0.5,
      'wrong-sign': -1,
      right: 1,
    } as const;
    fc.assert(
      fc.property(control, fc.constantFrom(...(Object.keys(factors) as (keyof typeof factors)[])), (truth, slip) => {
        const { box, use } = bumped(truth, 'added');
        const plan = registerPlan(use, null);
        const right = ((plan?.chosen === 'plus' ? plan.plus : plan?.minus) ?? NaN) - truth.first;
        const value = truth.first + factors[slip] * right;
        box.enter(value);
        const recheck = recheckOf(entering(use, value), box.total);
        expect(recheck?.meaning).toBe(slip);
        box.enter(recheck?.next ?? NaN);
        expect(Math.abs(box.total)).toBeLessThan(0.001);
      }),
    );
  });

  it('not homed reads as before; a millimetre taken for an inch is a stop', () => {
    const truth: Truth = { off: 30, way: 1, kappa: 1, display: 'radius', programming: 'radius', unit: 'mm', first: 200 };
    const { box, use } = bumped(truth, 'added');
    const plan = registerPlan(use, null);
    const value = (plan?.chosen === 'plus' ? plan.plus : plan?.minus) ?? NaN;
    box.enter(value, false);
    expect(recheckOf(entering(use, value), box.total)?.meaning).toBe('not-taken-up');
    expect(recheckOf(entering(use, value), use.total * (1 - 25.4))?.meaning).toBe('mm-as-inch');
    expect(recheckOf(entering(use, value), use.total * (1 - 1 / 25.4))?.meaning).toBe('inch-as-mm');
    expect(recheckOf(use, 3)).withContext('nothing was entered').toBeUndefined();
  });

  it('a diameter display jogs 5.2 on 2.6; 5.2 thou across make 0.0660 mm of a millimetre register', () => {
    expect(displayCounts({ unit: 'mm', jog: { by: 5.2, before: 5200, after: 0 } })).toBe('diameter');
    expect(displayCounts({ unit: 'mm', jog: { by: 2.6, before: 5200, after: 0 } })).toBe('radius');
    expect(displayCounts({ unit: 'mm', jog: { by: 9, before: 5200, after: 0 } })).toBeNull();
    const use = register({ total: 5.2 * 25.4, old: locked(0) });
    expect(registerValue(registerPlan(use, null)?.plus ?? NaN, use)).toBe('0.0660 mm');
  });

  it('a position that the control took itself is the old value and the jog, in the register’s own factor; a reference waits for κ', () => {
    const use = register({ total: 100, old: locked(200), jog: { by: -0.1, before: 100, after: 0 }, programming: 'radius' });
    expect(takenValue(use, null)).toBeCloseTo(199.95, 9);
    expect(takenValue({ ...use, programming: 'diameter' }, null)).toBeCloseTo(199.9, 9);
    expect(takenValue({ ...use, kind: 'reference' }, null)).toBeNull();
    expect(takenValue({ ...use, kind: 'reference' }, -1)).toBeCloseTo(200.05, 9);
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
    const unsettled = unsettledOf(log)['work shift X'];
    expect([unsettled.old.value, unsettled.total, unsettled.recheck?.meaning]).toEqual([200, 24, 'doubled-wrong-sign']);
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

  it('nothing is told of what nobody has read again', () => {
    const { round, entered } = book();
    const [only] = registerLog([round(12, { moves: [entered(1, 200.012)] })]);
    expect(only.recheck).toBeUndefined();
    expect(only.next).toBeUndefined();
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
