import fc from 'fast-check';
import { readMoveInput, type MoveDefinition } from './define.js';
import { MOVES } from './registry.js';

/** Moves that say what their plan does, with the key of the amount that it is asked for. */
const FORWARD = [...MOVES.values()].flatMap((move) => {
  const key = move.slopeKey && move.example && move.slopeKey in move.example ? move.slopeKey : (move.amountKey ?? move.slopeKey);
  return move.does && move.plan && key ? [{ move, key }] : [];
});

/** Its example with another amount, read as a file is read. */
function inputFor(move: MoveDefinition, key: string, amount: number): Record<string, unknown> {
  const { input, faults } = readMoveInput(move, { ...move.example, [key]: amount }, []);
  if (!input) throw new Error(`${move.kind}: ${JSON.stringify(faults)}`);
  return input;
}

/** How far a plan may be from its amount: whole passes and whole leaves are no nearer than half of one. */
const STEPS: Readonly<Record<string, number>> = { 'step-scrape': 4 };

describe('a plan that is followed exactly', () => {
  it('is asked of every move that works an amount out', () => {
    const silent = [...MOVES.values()].filter(({ plan, amountKey, slopeKey, does }) => plan && (amountKey ?? slopeKey) && !does);
    expect(silent.map(({ kind }) => kind)).toEqual([]);
    expect(FORWARD.length).toBeGreaterThan(11);
  });

  for (const { move, key } of FORWARD)
    it(`${move.kind} does the amount that it was asked for`, () => {
      const sizes = fc.double({ min: 0.5, max: 300, noNaN: true });
      fc.assert(
        fc.property(sizes, fc.boolean(), (size, plus) => {
          const amount = move.signed && !plus ? -size : size;
          let input: Record<string, unknown>;
          let plan: Readonly<Record<string, unknown>> | undefined;
          try {
            input = inputFor(move, key, amount);
            plan = move.plan?.(input);
          } catch (error) {
            // A shim cannot lower, leaves that come out are no thicker than they are: refused, never planned wrong.
            expect((error as { readonly faults?: unknown }).faults)
              .withContext(`${move.kind} ${amount}: ${String(error)}`)
              .toBeDefined();
            return;
          }
          if (plan?.['reach'] !== undefined || (plan?.['thickness'] === 0 && key === 'by')) return;
          const done = move.does?.(input, plan ?? {}) ?? NaN;
          const near = Math.max(1e-6, STEPS[move.kind] ?? 0);
          expect(Math.abs(done - amount))
            .withContext(`${move.kind}: asked ${amount}, does ${done}`)
            .toBeLessThanOrEqual(near);
        }),
        { numRuns: 200 },
      );
    });

  it('of an older version is read figure by figure', () => {
    const steps = MOVES.get('trucks')?.steps?.({
      ...{ size: '', direction: '', plus: true, card: {}, plan: { truck: 'middle', shim: 40 } },
      words: { size: (um: number) => `${um} µm`, slope: String, length: String },
    });
    expect(steps?.some(({ text }) => text.includes('Lay in 40 µm between the one truck'))).toBeTrue();
  });
});
