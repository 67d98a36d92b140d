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
    expect(words).toContain('Screw by screw, the middle ones first');
    expect(words).not.toMatch(/small end/);
    expect(
      stepsOf('gib', facts)
        .map(({ text }) => text)
        .join(' '),
    ).toMatch(/small end .* back a quarter/);
  });
});
