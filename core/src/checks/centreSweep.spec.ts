import fc from 'fast-check';
import { solve } from '../solve/solve.js';
import { CHECKS } from './registry.js';
import { FILE_SIZES, sentence } from '../units/said.js';

const LIMIT = 10;
/** A pocket swept: its middle stands h toward the operator and v up. In a bore the wall comes nearer where the middle stands away. */
const swept = (
  h: number,
  v: number,
  setup: Record<string, unknown> = {},
  check = 'turret-bore',
  bush = { h: 0, v: 0 },
  turned = false,
) => ({
  format: 'isometra-sheet/1',
  check,
  instrument: { kind: 'plunger', graduation: '1 um', sense: 1, accuracy: '0.5 um' },
  setup,
  readings: (turned ? [0, 180] : [undefined]).flatMap((turn) =>
    [0, 90, 180, 270].map((angle) => {
      const sign = turn === 180 ? -1 : 1;
      const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
      return { angle, ...(turn !== undefined && { bush: turn }), value: -((h + sign * bush.h) * c + (v + sign * bush.v) * s) };
    }),
  ),
});
const movesOf = (sheet: unknown) =>
  solve(sheet).moves.map(({ quantity, kind, direction, amount }) => ({ quantity, kind, direction, amount }));

describe('a pocket off the axis', () => {
  it('is parted: along the slide the register, square to it bolts; h 25, v −9 on the usual bed are 24.0 and 11.3', () => {
    const { quantities } = solve(swept(25, -9, { slant: 45 }));
    expect(quantities['alongSlide'].value).toBeCloseTo(24.04, 2);
    expect(quantities['acrossSlide'].value).toBeCloseTo(11.31, 2);
    expect(movesOf(swept(25, -9, { slant: 45 }))).toEqual([
      { quantity: 'alongSlide', kind: 'stored-offset', direction: 'away from the operator', amount: jasmine.any(Number) as never },
      { quantity: 'acrossSlide', kind: 'nudge', direction: 'down', amount: jasmine.any(Number) as never },
    ]);
    // A slide that rises toward the operator parts it the other way.
    const other = solve(swept(25, -9, { slant: -45 })).quantities;
    expect(other['alongSlide'].value).toBeCloseTo(11.31, 2);
    expect(other['acrossSlide'].value).toBeCloseTo(-24.04, 2);
  });

  it('on a flat bed sideways is the register’s and height the bolts’; inside its limit nothing is moved', () => {
    expect(movesOf(swept(25, 20)).map(({ quantity, kind }) => `${quantity} ${kind}`)).toEqual([
      'offsetHorizontal stored-offset',
      'offsetVertical nudge',
    ]);
    expect(movesOf(swept(5, 4))).toEqual([]);
  });

  it('the moves it asks for bring it inside, and each goes against its error: what is in by itself is left alone', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: -60, max: 60 }),
        fc.constantFrom(45, -45, 30, -60, 0),
        (h, v, slant) => {
          const sheet = swept(h, v, { slant });
          const { quantities, moves } = solve(sheet);
          if (quantities['offsetRadial'].verdict !== 'out') return expect(moves).toEqual([]);
          const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
          let [x, y] = [h, v];
          for (const { quantity, amount } of moves) {
            expect(Math.sign(amount)).toBe(-Math.sign(quantities[quantity].value));
            const [dx, dy] = { alongSlide: [c, -s], acrossSlide: [s, c], offsetHorizontal: [1, 0], offsetVertical: [0, 1] }[quantity] ?? [
              0, 0,
            ];
            [x, y] = [x + amount * dx, y + amount * dy];
          }
          return expect(Math.hypot(x, y)).toBeLessThanOrEqual(LIMIT);
        },
      ),
    );
  });

  it('a side pair on a slide that leans is no line of that slide: it has no move', () => {
    const pair = (setup: Record<string, unknown>) => {
      const whole = swept(40, 0, setup);
      return { ...whole, readings: whole.readings.filter(({ angle }) => angle === 0 || angle === 180) };
    };
    expect(movesOf(pair({ slant: 45 }))).toEqual([]);
    expect(solve(pair({})).quantities['offsetHorizontal'].verdict).toBe('out');
  });

  it('read at both ends of its own slide it has that part with its own verdict and move, droop of the holder taken out', () => {
    const signed = fc.integer({ min: -60, max: 60 });
    fc.assert(
      fc.property(
        ...([signed, signed, fc.constantFrom(45, -45, 30, -60), fc.constantFrom('along', 'across')] as const),
        ...([fc.constantFrom('bore', 'outside'), fc.constantFrom('main', 'sub'), fc.integer({ min: -12, max: 0 })] as const),
        (h, v, slant, line, feature, carrier, droop) => {
          const near = ((line === 'along' ? 360 : 450) - slant) % 360;
          const outward = feature === 'bore' ? -1 : 1;
          const readings = [near, (near + 180) % 360].map((angle) => {
            const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
            const stands = (carrier === 'sub' ? -1 : 1) * (h * c + v * s);
            // A holder hangs: away from what it sweeps outside, toward the wall of a bore.
            return { angle, value: outward * (stands + (droop * (1 - s)) / 2) };
          });
          const instrument = { kind: 'plunger', graduation: '1 um', sense: 1, accuracy: '0.5 um', holderSag: `${droop} um` };
          const sheet = { format: 'isometra-sheet/1', check: 'sub-spindle', instrument, setup: { slant, feature, carrier }, readings };
          const { quantities, moves } = solve(sheet);
          const name = line === 'along' ? 'alongSlide' : 'acrossSlide';
          const radians = (slant * Math.PI) / 180;
          const part = line === 'along' ? h * Math.cos(radians) - v * Math.sin(radians) : v * Math.cos(radians) + h * Math.sin(radians);
          expect(Object.keys(quantities)).toEqual([name]);
          expect(quantities[name].value).toBeCloseTo(part, 6);
          expect(quantities[name].limit).toEqual([-8, 8]);
          if (Math.abs(part) < 12) return;
          expect(quantities[name].verdict).toBe('out');
          expect(moves.map(({ kind, quantity, amount }) => [kind, quantity, Math.sign(amount)])).toEqual([
            [line === 'along' ? 'stored-offset' : 'nudge', name, -Math.sign(part)],
          ]);
        },
      ),
    );
    const plan = CHECKS.get('sub-spindle')?.slots({ slant: 45 }, { angles: 'slide-4' }) ?? [];
    expect(plan.map(({ keys, label }) => `${String(keys['angle'])} ${sentence(label, FILE_SIZES)}`)).toEqual([
      '315 Operator’s end of the slide',
      '45 Square to the slide, above',
      '135 Rear end of the slide',
      '225 Square to the slide, below',
      '315 Operator’s end of the slide',
    ]);
    expect(
      CHECKS.get('sub-spindle')
        ?.slots({ slant: -30 }, { angles: 'slide' })
        .map(({ keys }) => keys['angle']),
    ).toEqual([30, 210, 30]);
  });

  it('the directions swap where the sub-spindle carries the indicator', () => {
    const { quantities } = solve(swept(30, 0, { slant: 0, carrier: 'sub' }, 'sub-spindle'));
    expect(quantities['offsetHorizontal'].value).toBeCloseTo(-30, 6);
  });
});

describe('a guide bush', () => {
  it('is bolted, whatever the slant; turned half round it is parted from its housing, and told when it runs out itself', () => {
    const sheet = swept(20, -15, { slant: 45 }, 'guide-bush', { h: 7, v: 0 }, true);
    const { quantities, notes } = solve(sheet);
    expect(quantities['housingHorizontal'].value).toBeCloseTo(20, 6);
    expect(quantities['bushHorizontal'].value).toBeCloseTo(7, 6);
    expect(movesOf(sheet).map(({ quantity, kind, direction }) => `${quantity} ${kind} ${direction}`)).toEqual([
      'offsetHorizontal nudge away from the operator',
      'offsetVertical nudge up',
    ]);
    expect(notes.find(({ code }) => code === 'bush-runs-out')?.text).toContain('7.0 µm off in its housing');
    expect(solve(swept(20, -15, {}, 'guide-bush', { h: 2, v: 0 }, true)).notes.some(({ code }) => code === 'bush-runs-out')).toBeFalse();
  });
});
