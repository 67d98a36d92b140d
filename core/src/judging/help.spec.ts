import fc from 'fast-check';
import { CHECKS } from '../checks/registry.js';
import { helpsFor, longerBase, TURN_BAR } from '../checks/helps.js';
import type { CheckDefinition } from '../checks/define.js';
import { readInstrument, type Instrument } from '../instruments/instrument.js';
import { solve } from '../solve/solve.js';
import { SHEET_FORMAT } from '../solve/sheet.js';
import { doubtOfDifference, finenessFor } from './finder.js';
import { whatHelps, type HelpFacts } from './helps.js';

const dial = (graduation: number, more: object = {}): Instrument => {
  const { instrument } = readInstrument({ kind: 'lever', graduation, accuracy: graduation / 2, ...more });
  if (!instrument) throw new Error('no instrument');
  return instrument;
};

describe('the finder', () => {
  it('agrees with the doubt that the solver gives for two readings', () => {
    for (const graduation of [1, 2, 10]) {
      const { quantities } = solve({
        format: SHEET_FORMAT,
        check: 'slot-parallelism',
        instrument: { kind: 'lever', graduation, accuracy: graduation / 2, sense: 1 },
        setup: {},
        readings: [
          { at: 0, value: 0 },
          { at: 300, value: 1 },
        ],
      });
      expect(doubtOfDifference(dial(graduation)) / 0.3).toBeCloseTo(quantities['slope'].expanded as number, 6);
    }
  });

  it('a dial is fine enough when its doubt takes a quarter of the zone at most', () => {
    expect(finenessFor(dial(2), 'deviation', 30).fineEnough).toBeTrue();
    const coarse = finenessFor(dial(10, { accuracy: 1 }), 'deviation', 30);
    expect([coarse.fineEnough, coarse.repeats]).toEqual([false, 2]);
    expect(finenessFor(dial(10), 'deviation', 5).repeats).toBeNull();
  });

  it('repeats help down to an eighth of a division, which four of them reach', () => {
    const by = (repeats: number) => doubtOfDifference(dial(8), repeats);
    expect(by(1)).toBeCloseTo(2 * Math.sqrt(2 * (1.16 ** 2 + 2 ** 2) + 16 / 3), 9);
    expect(by(4)).toBeCloseTo(2 * Math.sqrt(2 * (1.16 ** 2 + 1 ** 2) + 16 / 3), 9);
    expect(by(3)).toBeGreaterThan(by(4));
    expect(by(8)).toBe(by(4));
  });

  it('a slope wants a base: twice as long is half the doubt', () => {
    const short = finenessFor(dial(2), 'slope', 40, 150);
    expect(short.expanded).toBeCloseTo(2 * finenessFor(dial(2), 'slope', 40, 300).expanded, 9);
  });

  it('a level tells a slope by itself, and turned end for end counts half', () => {
    const level = dial(20, { kind: 'level', accuracy: 4 });
    expect(finenessFor(level, 'slope', 40, 10).expanded).toBe(doubtOfDifference(level));
    expect(doubtOfDifference(level)).toBeCloseTo(doubtOfDifference(dial(20, { accuracy: 4 })) / 2, 9);
  });

  it('a finer division is never worse, nor are more readings', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 50, noNaN: true }), fc.integer({ min: 1, max: 7 }), (graduation, repeats) => {
        const now = doubtOfDifference(dial(graduation), repeats);
        return doubtOfDifference(dial(graduation / 2), repeats) < now && doubtOfDifference(dial(graduation), repeats + 1) <= now;
      }),
    );
  });
});

describe('what would help most', () => {
  const facts = (more: Partial<HelpFacts> = {}): HelpFacts => ({
    expanded: 8,
    budget: [
      { source: 'repeating', u: 3, share: 9 / 16 },
      { source: 'bar-straightness', u: 2, share: 4 / 16 },
      { source: 'accuracy', u: Math.sqrt(3), share: 3 / 16 },
    ],
    instrument: dial(2, { accuracy: 3 }),
    repeats: 1,
    acts: [TURN_BAR],
    kit: [],
    ...more,
  });

  it('puts the finest instrument of the kit first when the dial is the doubt', () => {
    const [first] = whatHelps(facts({ kit: [{ name: 'Best dial', instrument: dial(0.5, { accuracy: 0.5 }) }] }));
    expect(first.text).toBe('read it with “Best dial”');
    expect(first.expanded).toBeCloseTo(2 * Math.sqrt(9 / 16 + 4 + 3 / 36), 6);
  });

  it('tells what each act would leave, the most helpful first, and never a coarser instrument', () => {
    const helps = whatHelps(facts({ kit: [{ name: 'Rough dial', instrument: dial(10) }] }));
    expect(helps.map((help) => help.text)).toEqual(['read each place 4 times', 'turn the bar half round and read again']);
    expect(helps[0].expanded).toBeCloseTo(2 * Math.sqrt(9 / 4 + 4 + 3), 6);
    expect(helps[1].expanded).toBeCloseTo(2 * Math.sqrt(12), 6);
  });

  it('a longer base halves what comes from the places, and is offered only where the check has one to lengthen', () => {
    const help = whatHelps(facts({ acts: [longerBase('read over twice the length')] })).find((entry) => entry.kind === 'base');
    expect(help?.expanded).toBe(4);
    expect(whatHelps(facts({ acts: [] })).some((entry) => entry.kind === 'base')).toBeFalse();
    expect(CHECKS.get('table-level')?.helps ?? []).toEqual([]);
    expect(CHECKS.get('table-level')?.reseat).toBeUndefined();
    expect(CHECKS.get('bed-twist')?.helps ?? []).toEqual([]);
  });

  it('nobody is told to read twice as far along a bar that ends before', () => {
    const axis = CHECKS.get('spindle-axis') as CheckDefinition;
    const base = (freeLength: number) => helpsFor(axis, { bar: { freeLength } }, [20, 120]).filter(({ kind }) => kind === 'base').length;
    expect([base(300), base(200), base(199)]).toEqual([1, 1, 0]);
  });

  it('says nothing where nothing helps', () => {
    expect(whatHelps(facts({ expanded: 0 }))).toEqual([]);
    expect(whatHelps(facts({ budget: [{ source: 'temperature', u: 4, share: 1 }] }))).toEqual([]);
  });
});
