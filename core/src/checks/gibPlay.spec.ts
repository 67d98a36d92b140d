import { MOVES } from '../moves/registry.js';
import { solve } from '../solve/solve.js';
import { CHECKS } from './registry.js';
import type { CheckDefinition } from './define.js';
import { stepsOf } from '../testing/jobs.js';

const play = (slide: string, indicatorOn: string | undefined, readings: readonly object[] = STROKES) =>
  solve({
    format: 'isometra-sheet/1',
    check: `${slide}-gib-play`,
    instrument: { kind: 'plunger', graduation: '0.01 mm', sense: 1 },
    setup: { guideLength: 180, distance: 320 },
    readings: readings.map((reading) => ({ ...reading, ...(indicatorOn && { conditions: { indicatorOn } }) })),
  });
const STROKES = [
  { stroke: 'push', locks: 'off', value: '4 div' },
  { stroke: 'pull', locks: 'off', value: '-3 div' },
];

describe('which slide a swing is of', () => {
  it('is the one above what carries the indicator; with others in between it judges none alone', () => {
    const alone = play('table', 'saddle');
    expect([alone.quantities['swing'].verdict, alone.moves[0]?.kind]).toEqual(['out', 'gib']);
    expect(alone.notes.map(({ code }) => code)).not.toContain('other-slide');
    const all = play('table', 'column');
    expect([all.quantities['swing'].verdict, all.moves.length]).toEqual(['unsure', 0]);
    expect(all.notes.find(({ code }) => code === 'other-slide')?.text).toContain('this is the swing of knee, saddle and table together');
    expect(play('knee', 'column').quantities['swing'].verdict).toBe('out');
    // A base on the saddle sees the saddle itself when the knee is pushed: not the knee alone.
    expect(play('knee', 'table').quantities['swing'].verdict).toBe('unsure');
    expect(play('knee', undefined).quantities['swing'].verdict).toBe('out');
  });
});

describe('bodies that are named in the set-up', () => {
  const told = (slide: string, setup: object) => {
    const finding = solve({
      ...{ format: 'isometra-sheet/1', check: `${slide}-gib-play` },
      instrument: { kind: 'plunger', graduation: '0.01 mm', sense: 1 },
      setup: { guideLength: 180, distance: 320, ...setup },
      readings: STROKES,
    });
    return {
      verdict: finding.quantities['swing'].verdict,
      text: finding.notes.find(({ code }) => code === 'other-slide')?.text,
      moves: finding.moves.map(({ kind }) => kind),
    };
  };

  it('every slide between them swings, unless it was locked', () => {
    expect(told('table', { carriedBy: 'saddle', touches: 'table' })).toEqual({ verdict: 'out', text: undefined, moves: ['gib'] });
    const all = told('table', { carriedBy: 'column', touches: 'table' });
    expect([all.verdict, all.moves]).toEqual(['unsure', []]);
    expect(all.text).toContain('With the indicator on the column this is the swing of knee, saddle and table together.');
    expect(told('table', { carriedBy: 'column', locked: ['knee', 'saddle'] })).toEqual({ verdict: 'out', text: undefined, moves: ['gib'] });
    expect(told('table', { carriedBy: 'column', locked: ['knee'] }).text).toContain(
      'With the indicator on the column and the knee locked this is the swing of saddle and table together.',
    );
    expect(told('knee', { carriedBy: 'column', touches: 'table', locked: ['saddle', 'table'] }).verdict).toBe('out');
    expect(told('knee', { carriedBy: 'column', touches: 'saddle' }).text).toContain(
      'and its stylus on the saddle this is the swing of knee and saddle',
    );
  });

  it('what is locked itself, or lies on one side of both, is not judged', () => {
    expect(told('table', { carriedBy: 'saddle', locked: ['table'] }).text).toContain(
      'the swing of nothing: no slide between them is free.',
    );
    expect(told('table', { carriedBy: 'column', touches: 'knee' }).verdict).toBe('unsure');
    expect(told('saddle', { carriedBy: 'table', touches: 'saddle' }).text).toContain('this is the swing of the table.');
  });

  it('go by any of their names; another is refused by its name', () => {
    expect(told('saddle', { carriedBy: 'base' }).verdict).toBe('out');
    expect(told('knee', { carriedBy: 'spindle' }).verdict).toBe('out');
    expect(() => told('knee', { carriedBy: 'vice' })).toThrowError(/carriedBy/);
    expect(() => told('knee', { locked: ['column'] })).toThrowError(/locked/);
    expect(() => told('knee', { locked: 'knee' })).toThrowError(/must be a list of knee, saddle, table/);
  });
});

describe('drag by feel', () => {
  const check = CHECKS.get('table-gib-play') as CheckDefinition;

  it('is planned along the travel, and asked beside the place without a figure of a dial', () => {
    const felt = check.slots({ guideLength: 180, distance: 320 }, { feel: 3, travel: 300 }).filter(({ keys }) => keys['at'] !== undefined);
    expect(felt.map(({ keys }) => keys['at'])).toEqual([0, 150, 300]);
    expect(check.beside?.[0].instead).toBeTrue();
    expect(check.beside?.[0].when?.(felt[1].keys)).toBeTrue();
    expect(check.slots({ guideLength: 180, distance: 320 }, {}).length).toBe(4);
  });

  it('the tightest place rules', () => {
    const found = play('table', 'saddle', [...STROKES, { at: 0, drag: 1 }, { at: 150, drag: 4 }, { at: 300, drag: 2 }]);
    expect(found.notes.find(({ code }) => code === 'tightest-place')?.text).toContain('Tightest at 150 mm');
  });
});

describe('a swing of nothing', () => {
  const still = [
    { stroke: 'push', locks: 'off', value: '0 div' },
    { stroke: 'pull', locks: 'off', value: '0 div' },
  ];
  const drags = [
    { at: 0, drag: 1 },
    { at: 300, drag: 2 },
  ];
  const read = (free: boolean, readings: readonly object[]) => {
    const found = solve({
      format: 'isometra-sheet/1',
      check: 'table-gib-play',
      instrument: { kind: 'plunger', graduation: '0.01 mm', sense: 1 },
      setup: { guideLength: 180, distance: 320, ...(free && { free }) },
      readings,
    });
    return [found.quantities['swing'].verdict, found.notes.some(({ code }) => code === 'lock-left-on')];
  };

  it('is a lock left on, or a tight gib, until a hand has felt it free along its travel', () => {
    expect(read(false, [...still, ...drags])).toEqual(['unsure', true]);
    expect(read(true, [...still, ...drags])).toEqual(['in', false]);
  });

  it('said alone it settles nothing: not without the drag, not where it is stiff', () => {
    expect(read(true, still)).toEqual(['unsure', true]);
    expect(read(true, [...still, drags[0]])).toEqual(['unsure', true]);
    expect(read(true, [...still, drags[0], { at: 300, drag: 4 }])).toEqual(['unsure', true]);
  });
});

describe('the gib of a slide', () => {
  const gib = MOVES.get('gib');
  const part = CHECKS.get('saddle-gib-play')?.part;
  const card = {
    gibs: [
      { slide: 'table', taper: 50, pitch: 1.5 },
      { slide: 'saddle', straight: true, screws: 4, pitch: 1 },
    ],
  };

  it('is that of its row on the card; the common one where there is none', () => {
    expect(gib?.hardware?.({ card, part: CHECKS.get('table-gib-play')?.part })).toEqual({ taper: 50, pitch: 1.5, angle: undefined });
    expect(gib?.hardware?.({ card: { gib: { taper: 60, pitch: 2 } }, part })).toEqual({ taper: 60, pitch: 2 });
  });

  it('a straight one is set screw by screw, without a number of eighths', () => {
    expect(gib?.hardware?.({ card, part })).toBeUndefined();
    const facts = { size: '20 µm', direction: 'less', plus: false, part };
    const words = stepsOf('gib', { ...facts, card })
      .map(({ text }) => text)
      .join(' ');
    expect(words).toContain('Loosen the lock nuts of the 4 screws');
    expect(words).toContain('Screw by screw, in this order: 2, 3, 1, 4, counted along it');
    expect(words).not.toMatch(/small end/);
    expect(
      stepsOf('gib', facts)
        .map(({ text }) => text)
        .join(' '),
    ).toMatch(/small end .* back a quarter/);
  });
});
