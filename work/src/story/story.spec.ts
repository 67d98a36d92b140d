import fc from 'fast-check';
import { FaultError } from '@isometra/core';
import { tellStory, type StoryStep } from './story.js';
import { lookWords, undoWords } from './words.js';

type Raw = Record<string, unknown>;
const at = (minutes: number): string => new Date(Date.UTC(2026, 2, 2, 18, minutes)).toISOString();
const DIAL = { kind: 'lever', graduation: '0.002 mm', sense: 1, accuracy: '1 um' };

/** A bar between centres: the tail centre stands `offset` µm toward the operator, as a dial of this sense shows it. */
const bar = (offset: number, more: { instrument?: Raw; wild?: number; conditions?: Raw; height?: number; sense?: 1 | -1 } = {}): Raw => {
  const far = ((more.sense ?? 1) * offset * 460) / 500 / 2;
  const side = (place: number, value: number) => ({
    plane: 'h',
    at: place,
    value,
    ...(more.conditions && { conditions: more.conditions }),
  });
  const top = (place: number, value: number) => ({ plane: 'v', at: place, value });
  return {
    format: 'isometra-sheet/1',
    check: 'tailstock-traverse',
    instrument: more.instrument ?? DIAL,
    setup: { centreDistance: 500, bar: { diameter: 30 } },
    readings: [
      side(20, 0),
      ...[135, 250, 365].map((place) => side(place, (far * (place - 20)) / 460)),
      side(480, far + (more.wild ?? 0)),
      side(20, 0),
      ...(more.height === undefined ? [] : [top(20, 0), top(480, (more.height * 460) / 500 / 2)]),
    ],
  };
};
const machine = { number: 'L-99', kind: 'engine-lathe', adjuster: { pitch: '1.5 mm', layout: 'opposed-screws' } };
const told = (entries: Raw[], card: Raw = machine): readonly StoryStep[] =>
  tellStory({ format: 'isometra-history/1', machine: card, entries: entries.map((entry, i) => ({ at: at(i), ...entry })) }).steps;
const round = (id: string, ...given: Parameters<typeof bar>): Raw => ({ id, round: bar(...given) });
const moved = (after: string, done: number, more: Raw = {}): Raw => ({
  move: { round: after, quantity: 'offsetHorizontal', kind: 'adjuster', done: `${done} um`, turns: done / 1500, ...more },
});

describe('a story', () => {
  it('what went the wrong way is undone as its kind allows', () => {
    expect(undoWords('shim-leaves', '0.045 mm')).toBe('Take out what was put in (0.045 mm) first');
    expect(undoWords('swivel')).toBe('Bring it back by what was done first');
    // Nothing puts metal back.
    expect(undoWords('scrape', '0.045 mm')).toBe('Take nothing more off');
  });

  it('plans the first move, judges it by the next round, and learns what the screw moves', () => {
    const [first, , second] = told([round('r1', 60), moved('r1', -60), round('r2', 30)]);
    expect(first.plan?.amount).toBeCloseTo(-60, 6);
    expect(first.plan?.['turns']).toBeCloseTo(-0.04, 6);
    expect(second.judged).toEqual(jasmine.objectContaining({ round: 'r1', quantity: 'offsetHorizontal', word: 'fell-short' }));
    expect(second.judged?.g).toBeCloseTo(0.5, 6);
    // What remains, by a screw that moves half of what it should.
    expect(second.plan?.['turns']).toBeCloseTo(-30 / 1500 / 0.5, 6);
  });

  it('gains compound: what was already in the turns counts', () => {
    const steps = told([round('r1', 60), moved('r1', -60), round('r2', -90), moved('r2', 90, { turns: 90 / 1500 / 2.5 }), round('r3', 18)]);
    expect(steps[2].judged?.word).toBe('overshot');
    expect(steps[4].judged?.g).toBeCloseTo(108 / 90, 6);
    // 2.5 and 2.5 · 1.2 = 3: the median of both.
    expect(steps[4].plan?.['turns']).toBeCloseTo(-18 / 1500 / 2.75, 6);
  });

  it('a wrong way turns the screw round, begins with the nudge tests and says what is still in the machine', () => {
    const [, , second] = told([round('r1', 60), moved('r1', -60), round('r2', 120)]);
    expect(second.judged?.word).toBe('wrong-way');
    expect(second.plan?.['turns']).toBeCloseTo(120 / 1500, 6);
    expect(second.plan?.first).toEqual(['nudge-needle', 'nudge-screw']);
    expect(second.plan?.giveBack).toEqual({ amount: 60, turns: 0.04 });
    const twice = told([round('r1', 60), moved('r1', -60), round('r2', 120), moved('r2', -120, { turns: 0.08 }), round('r3', 240)]);
    expect(twice[4].ask?.code).toBe('nudge-both');
    expect(twice[4].plan).toBeUndefined();
  });

  it('a pass of the scraper teaches no gain, and nobody asks after its screw', () => {
    const scraped = (after: string, done: number): Raw => ({
      move: { round: after, quantity: 'offsetVertical', kind: 'scrape', done: `${done} um` },
    });
    const short = told([round('r1', 0, { height: 200 }), scraped('r1', -190), round('r2', 0, { height: 170 })]);
    expect([short[2].judged?.word, short[2].ask]).toEqual(['fell-short', undefined]);
    expect([short[2].plan?.kind, short[2].plan?.amount]).toEqual(['scrape', jasmine.any(Number)]);
    // All of what is left, whatever share the last passes took of what they were told.
    expect(short[2].plan?.amount).toBeLessThan(-150);
    const nothing = told([
      ...[round('r1', 0, { height: 200 }), scraped('r1', -190), round('r2', 0, { height: 197 })],
      ...[scraped('r2', -190), round('r3', 0, { height: 195 })],
    ]);
    expect(nothing[4].ask?.code).toBe('nothing-moved');
    expect(nothing[4].ask?.text).toContain('Look whether metal came off');
    const risen = told([
      ...[round('r1', 0, { height: 200 }), scraped('r1', -190), round('r2', 0, { height: 300 })],
      ...[scraped('r2', -190), round('r3', 0, { height: 400 })],
    ]);
    expect(risen[4].ask?.text).not.toContain('screw');
  });

  it('leaves that changed nothing are looked for where they lie', () => {
    expect(lookWords('base-shims')).toContain('the leaves lie where the part bears');
    expect(lookWords('adjuster')).toContain('the wrong screw');
  });

  it('nothing that moved twice is asked about, and a gain that no screw has', () => {
    const stuck = told([round('r1', 60), moved('r1', -60), round('r2', 60), moved('r2', -60), round('r3', 61)]);
    expect(stuck[2].judged?.word).toBe('nothing-moved');
    expect(stuck[2].plan?.['turns']).toBeCloseTo(-0.04, 6);
    expect(stuck[4].ask?.code).toBe('nothing-moved');
    const odd = told([round('r1', 60), moved('r1', -60), round('r2', -240)]);
    expect(odd[2].ask?.code).toBe('gain-odd');
    expect(odd[2].ask?.text).toContain('5.0 times');
  });

  it('judges nothing where something else was moved in between, a round cannot be trusted or the conditions differ', () => {
    const because = (entries: Raw[]) => told(entries).at(-1)?.judged;
    const shimmed = [
      round('r1', 60, { height: -30 }),
      moved('r1', -60),
      { move: { round: 'r1', quantity: 'offsetVertical', kind: 'shim-leaves', done: '30 um' } },
      round('r2', 90, { height: 0 }),
    ];
    expect(because(shimmed)?.because).toBe('moved-between');
    expect(because(shimmed)?.word).toBe('not-judged');
    expect(because([round('r1', 60), moved('r1', -60), { event: 'crashed' }, round('r2', 90)])?.because).toBe('moved-between');
    expect(because([round('r1', 60), moved('r1', -60), round('r2', 5, { wild: 50 })])?.because).toBe('untrusted');
    const locked = { bedClamp: 'on' };
    expect(
      because([round('r1', 60, { conditions: locked }), moved('r1', -60), round('r2', 5, { conditions: { bedClamp: 'off' } })])?.because,
    ).toBe('conditions-differ');
    expect(because([round('r1', 60), moved('r1', -3), round('r2', 57)])?.because).toBe('too-small');
    expect(
      because([
        round('r1', 60, { instrument: { ...DIAL, sense: undefined } }),
        moved('r1', -60),
        round('r2', 120, { instrument: { ...DIAL, sense: -1 } }),
      ])?.because,
    ).toBe('needle');
  });

  it('what tightening moved is taken off before a move is judged, and allowed for in the next one', () => {
    const steps = told([round('r1', 60), moved('r1', -60, { tightening: '12 um' }), round('r2', 12)]);
    expect(steps[2].judged?.word).toBe('as-planned');
    expect(steps[2].judged?.g).toBeCloseTo(1, 6);
    const again = told([round('r1', 60), moved('r1', -60, { tightening: '12 um' }), round('r2', 40)]);
    expect(again[2].plan?.preset).toBeCloseTo(12, 6);
    // The screw goes past by what tightening will give back.
    expect(again[2].plan?.['turns']).toBeLessThan(-40 / 1500);
  });

  it('a value that differs with nothing done between is said, and one of the other sign is asked about first', () => {
    const [, second] = told([round('r1', 60), round('r2', 90)]);
    expect(second.differs?.[0]).toEqual(jasmine.objectContaining({ round: 'r1', quantity: 'offsetHorizontal' }));
    expect(second.ask).toBeUndefined();
    const [, turned] = told([round('r1', 60), round('r2', -60)]);
    expect(turned.ask?.code).toBe('nudge-needle');
    const [, , after] = told([round('r1', 60), { event: 'moved' }, round('r2', 90)]);
    expect(after.differs).toBeUndefined();
  });

  it('a round that contradicts itself has no move, and the question names the place', () => {
    const [wild] = told([round('r1', 60, { wild: 50 })]);
    expect(wild.plan).toBeUndefined();
    expect(wild.ask?.code).toBe('misread');
    expect(wild.ask?.text).toContain('480 mm');
  });

  it('the needle is remembered for its mounting; what is known of the machine fills a set-up until something upsets it', () => {
    const bare = { ...DIAL, sense: undefined };
    const [, second] = told([
      round('r1', 60, { instrument: { ...DIAL, sense: -1 }, sense: -1 }),
      round('r2', 60, { instrument: bare, sense: -1 }),
    ]);
    expect(second.finding?.quantities['offsetHorizontal'].value).toBeCloseTo(60, 4);
    expect(second.finding?.notes.map(({ code }) => code)).not.toContain('direction-assumed');
    const level = {
      id: 'level',
      round: {
        format: 'isometra-sheet/1',
        check: 'bed-twist',
        instrument: { kind: 'level', graduation: '20 um/m' },
        setup: {},
        readings: [0, 1000].flatMap((place) => [
          { at: place, end: 'forward', value: place / 1000 },
          { at: place, end: 'reversed', value: -place / 1000 },
        ]),
      },
    };
    const axis = {
      id: 'axis',
      round: {
        format: 'isometra-sheet/1',
        check: 'spindle-axis',
        instrument: DIAL,
        setup: { bar: { diameter: 25, freeLength: 300 }, heightAboveWays: 200 },
        readings: [20, 280].flatMap((place) =>
          (['high', 'low'] as const).map((extreme) => ({ plane: 'h', at: place, extreme, value: place / 40 })),
        ),
      },
    };
    const twist = (entries: Raw[]) => told(entries).at(-1)?.finding?.quantities['slopeH'].terms['twist'];
    expect(twist([level, axis])).toBeCloseTo(-4, 6);
    expect(twist([axis])).toBeUndefined();
    expect(twist([level, { event: 'levelled' }, axis])).toBeUndefined();
  });

  it('an eccentric sleeve starts where it was left, and at its end something else is asked for', () => {
    const sleeve = { kind: 'engine-lathe', eccentric: { throw: '100 um', angle: '0 deg' } };
    const turned = (after: string, done: number, more: Raw = {}): Raw => ({
      move: { round: after, quantity: 'offsetHorizontal', kind: 'eccentric', done: `${done} um`, ...more },
    });
    const steps = told([round('r1', 60), turned('r1', -60), round('r2', 20)], sleeve);
    expect(steps[0].plan?.['angle']).toBeCloseTo((Math.asin(-0.6) * 180) / Math.PI, 6);
    expect(steps[2].plan?.['angle']).toBeCloseTo((Math.asin(-0.8) * 180) / Math.PI, 1);
    const end = told([round('r1', 150), turned('r1', -150, { reached: false }), round('r2', 50)], sleeve);
    expect(end[0].plan?.['reach']).toBeCloseTo(-100, 6);
    // What it could not do is taken off before it is judged.
    expect(end[2].judged?.word).toBe('as-planned');
    expect(end[2].ask?.code).toBe('out-of-reach');
  });

  it('what the machine lacks for a move is asked, and the call stands', () => {
    const dial = { kind: 'lever', graduation: '0.002 mm', sense: 1 };
    const leg = (name: string, last: number) => [0, last, 0].map((value, i) => ({ leg: name, at: [0, 300, 0][i], value }));
    const round = {
      format: 'isometra-sheet/1',
      check: 'axis-squareness',
      instrument: dial,
      setup: { stylus: { reference: '-B', test: '+A' } },
      readings: [...leg('reference', 0), ...leg('test', 24)],
    };
    const told = (trucks: object) =>
      tellStory({
        format: 'isometra-history/1',
        machine: { kind: 'machining-centre', trucks },
        entries: [{ at: '2026-03-01T08:00:00.000Z', id: 'a', round }],
      }).steps[0];
    const [lacks, knows] = [told({ spacing: '320 mm' }), told({ spacing: '320 mm', shoulder: 'left' })];
    expect(lacks.finding?.quantities['squareness'].verdict).toBe('out');
    expect([lacks.plan, lacks.ask?.code]).toEqual([undefined, 'card-lacks']);
    expect(lacks.ask?.text).toContain('machine.trucks.shoulder is missing');
    expect([knows.plan?.kind, knows.ask]).toEqual(['trucks', undefined]);
  });

  it('every fault of a file is told with its path and what would do', () => {
    const faults = (raw: unknown): string[] => {
      try {
        tellStory(raw);
        return [];
      } catch (error) {
        if (!(error instanceof FaultError)) throw error;
        for (const { message, example } of error.faults) expect(message !== '' && example !== '').toBeTrue();
        return error.faults.map(({ path }) => path);
      }
    };
    const file = (entries: Raw[], more: Raw = {}) => ({ format: 'isometra-history/1', machine, entries, ...more });
    expect(faults(file([]))).toEqual([]);
    expect(faults({})).toEqual(jasmine.arrayContaining(['format', 'machine', 'entries']));
    expect(faults(file([{ at: 'yesterday', event: 'levelled' }]))).toEqual(['entries[0].at']);
    expect(
      faults(
        file([
          { at: at(5), event: 'levelled' },
          { at: at(1), event: 'levelled' },
        ]),
      ),
    ).toEqual(['entries[1].at']);
    expect(faults(file([{ at: at(0) }]))).toEqual(['entries[0]']);
    expect(faults(file([{ at: at(0), round: { ...bar(1), check: 'tailstock' } }]))).toEqual(['entries[0].round.check']);
    expect(faults(file([{ at: at(0), ...moved('r9', 5) }]))).toEqual(['entries[0].move.round']);
    expect(
      faults(
        file([
          { at: at(0), ...round('r1', 5) },
          { at: at(1), ...moved('r1', 5, { kind: 'screws', quantity: 'side' }) },
        ]),
      ).sort(),
    ).toEqual(['entries[1].move.kind', 'entries[1].move.quantity']);
    expect(faults(file([], { machine: { kind: 'tractor' } }))).toEqual(['machine.kind']);
    expect(faults(file([], { machinery: 1 }))).toEqual(['machinery']);
  });
});

/** A hidden machine: where its tail centre really stands, and how its screw and its needle behave. */
interface Hidden {
  readonly offset: number;
  readonly gain: number;
  readonly way: 1 | -1;
  readonly needle: 1 | -1;
  readonly slip: number;
  readonly sticks: boolean;
  readonly wild: number;
  readonly wildRound: number;
  readonly noise: readonly number[];
}

/** Follow what the story says until it is in, or says to stop; how many rounds that took, and what was said. */
function follow({ offset, gain, way, needle, slip, sticks, wild, wildRound, noise }: Hidden) {
  let [x, stuck, rounds, nudged] = [offset, sticks, 0, false];
  const entries: Raw[] = [];
  const words: string[] = [];
  let k = 0;
  const read = (clean: boolean): Raw => {
    rounds += 1;
    const seen = x + (noise[k++ % noise.length] ?? 0);
    // A needle that was not nudged is taken to count up.
    const instrument = { ...DIAL, sense: nudged ? needle : 1 };
    return round(`r${rounds}`, seen, { sense: needle, instrument, ...(!clean && rounds === wildRound && { wild }) });
  };
  entries.push(read(false));
  let asked = 0;
  for (let turn = 0; turn < 12; turn++) {
    const step = told(entries).at(-1) as StoryStep;
    if (step.judged) words.push(step.judged.word);
    const verdict = step.finding?.quantities['offsetHorizontal'].verdict;
    if (verdict === 'in') return { x, rounds: rounds - asked, words, verdict };
    if (step.ask) {
      asked += 1;
      if (step.ask.code === 'misread' || step.ask.code === 'too-close') entries.push(read(true));
      else if (step.ask.code.startsWith('nudge')) {
        nudged = true;
        entries.push(read(true));
      } else return { x, rounds: rounds - asked, words, verdict: step.ask.code };
      continue;
    }
    if (!step.plan) return { x, rounds: rounds - asked, words, verdict: 'nothing' };
    const turns = step.plan['turns'] as number;
    const slipped = stuck ? 0 : slip;
    if (!stuck) x += turns * 1500 * gain * way + slip;
    stuck = false;
    // The needle that watches the tightening is the one that was read.
    const watched = nudged ? 1 : needle;
    entries.push(moved(`r${rounds}`, step.plan.amount, { turns, ...(slipped !== 0 && { tightening: `${slipped * watched} um` }) }));
    entries.push(read(false));
  }
  return { x, rounds: rounds - asked, words, verdict: 'never' };
}

describe('a hand that follows the story', () => {
  it('brings every hidden machine in within four rounds, never twice the wrong way, and never stops outside', () => {
    fc.assert(
      fc.property(
        fc.record({
          offset: fc.integer({ min: 25, max: 200 }).chain((size) => fc.constantFrom(size, -size)),
          gain: fc.double({ min: 0.3, max: 3, noNaN: true }),
          way: fc.constantFrom(1 as const, -1 as const),
          needle: fc.constantFrom(1 as const, 1 as const, -1 as const),
          slip: fc.constantFrom(0, 0, 4, -6),
          sticks: fc.boolean(),
          wild: fc.constantFrom(0, 0, 40, -60),
          wildRound: fc.integer({ min: 1, max: 3 }),
          noise: fc.array(fc.double({ min: -0.7, max: 0.7, noNaN: true }), { minLength: 6, maxLength: 6 }),
        }),
        (hidden) => {
          const { x, rounds, words, verdict } = follow(hidden);
          expect(verdict).withContext(JSON.stringify({ hidden, x, rounds, words })).toBe('in');
          // ± 15 is the zone: what is said to be in is in.
          expect(Math.abs(x)).toBeLessThanOrEqual(15);
          expect(rounds)
            .withContext(JSON.stringify({ hidden, words }))
            .toBeLessThanOrEqual(hidden.sticks ? 5 : 4);
          expect(words.filter((word) => word === 'wrong-way').length).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 120 },
    );
  });
});
