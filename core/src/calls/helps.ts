import type { Dimension } from '../units/dimensions.js';
import type { BudgetLine } from './uncertainty.js';
import type { Instrument } from '../instruments/instrument.js';

/** One thing that would make a call surer, and the doubt that it would leave. */
export interface Help {
  readonly kind: 'repeat' | 'instrument' | 'base' | 'turn' | 'bar' | 'set-up';
  readonly text: string;
  /** ± in the quantity's unit. */
  readonly expanded: number;
}

export interface HelpFacts {
  readonly expanded: number;
  readonly budget: readonly BudgetLine[];
  readonly dimension: Dimension;
  readonly instrument: Instrument;
  /** The least number of readings of a place. */
  readonly repeats: number;
  /** Set-ups so far. */
  readonly sets: number;
  /** The other instruments of the kit that can read the same. */
  readonly kit: readonly { readonly name: string; readonly instrument: Instrument }[];
}

const DIAL = /dial/;
const REPEATING = /repeating/;

/** Parts of a budget that one act of the hand takes out or makes smaller, and what is left of them. */
const ACTS: readonly { readonly kind: Help['kind']; readonly source: RegExp; readonly left: number; readonly text: string }[] = [
  { kind: 'turn', source: /bar straightness/, left: 0, text: 'turn the bar half round and read again' },
  { kind: 'turn', source: /the square/, left: 0, text: 'flip the square over and read again' },
  { kind: 'bar', source: /droop of the bar/, left: 1 / 16, text: 'use a bar half as long' },
  { kind: 'bar', source: /droop of the holder/, left: 1 / 4, text: 'use a shorter holder, and measure its droop' },
  { kind: 'bar', source: /live centre/, left: 0, text: 'use a dead centre' },
  { kind: 'set-up', source: /setting up/, left: Math.SQRT1_2, text: 'take as many set-ups again' },
];

/** U with the lines of the budget multiplied, each by its own factor. */
function scaled({ expanded, budget }: HelpFacts, factor: (source: string) => number): number {
  const u = (factors: (source: string) => number) => Math.sqrt(budget.reduce((sum, line) => sum + (line.u * factors(line.source)) ** 2, 0));
  return (expanded * u(factor)) / u(() => 1);
}

function instrumentHelps(facts: HelpFacts): Help[] {
  const { instrument, kit } = facts;
  return kit.map(({ name, instrument: other }) => {
    const dial = (other.graduation * other.readTo) / (instrument.graduation * instrument.readTo);
    const repeat = other.graduation / instrument.graduation;
    const accuracy = instrument.accuracy > 0 ? other.accuracy / instrument.accuracy : 1;
    const factor = (source: string) =>
      REPEATING.test(source) ? repeat : DIAL.test(source) ? dial : /accuracy/.test(source) ? accuracy : 1;
    return { kind: 'instrument', text: `read it with “${name}”`, expanded: scaled(facts, factor) };
  });
}

/**
 * What would make a call surer, the most helpful first: reading each place more often, a finer
 * instrument of the kit, a longer base, turning the bar, another set-up. What helps by less than a
 * tenth is left out.
 */
export function whatHelps(facts: HelpFacts): Help[] {
  if (!(facts.expanded > 0) || facts.budget.length === 0) return [];
  const helps: Help[] = instrumentHelps(facts);
  const more = Math.max(4, facts.repeats * 2);
  const repeated = Math.max(Math.sqrt(facts.repeats / more), 0.5);
  helps.push({
    kind: 'repeat',
    text: `read each place ${more} times`,
    expanded: scaled(facts, (source) => (REPEATING.test(source) ? repeated : 1)),
  });
  if (facts.dimension === 'slope' || facts.dimension === 'twist')
    helps.push({ kind: 'base', text: 'read over twice the length', expanded: facts.expanded / 2 });
  for (const { kind, source, left, text } of ACTS)
    helps.push({ kind, text, expanded: scaled(facts, (line) => (source.test(line) ? left : 1)) });
  return helps.filter((help) => help.expanded < 0.9 * facts.expanded).sort((a, b) => a.expanded - b.expanded);
}
