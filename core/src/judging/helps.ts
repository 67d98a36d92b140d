import type { HelpAct } from '../checks/define.js';
import type { DoubtCode } from '../checks/doubts.js';
import type { Instrument } from '../instruments/instrument.js';
import type { BudgetLine } from './budget.js';

/** One thing that would make a call surer, and the doubt that it would leave. */
export interface Help {
  readonly kind: 'repeat' | 'instrument' | HelpAct['kind'];
  readonly text: string;
  /** ± in the quantity's unit. */
  readonly expanded: number;
}

/** What is left of each doubt when something is done about it: 1 is all of it. */
export type Factors = (source: DoubtCode) => number;

/** Reading each place `more` times instead of `now`. No oftener than s is trusted: to half. */
export const oftener =
  (now: number, more: number): Factors =>
  (source) =>
    source === 'repeating' ? Math.max(Math.sqrt(now / more), 0.5) : 1;

/** A dial of another division. */
export const fineness =
  (division: number): Factors =>
  (source) =>
    source === 'dial' || source === 'repeating' || source === 'accuracy' ? division : 1;

/** What a longer base makes smaller: all that comes from the places that were read. */
const OF_PLACES: readonly DoubtCode[] = [
  'dial',
  'repeating',
  'accuracy',
  'wandering',
  'bar-straightness',
  'bar-diameter',
  'leaves',
  'setting-up',
];

/** What one act of the hand leaves. */
export const actFactor =
  ({ kind, doubt, left }: HelpAct): Factors =>
  (source) =>
    kind === 'base' ? (OF_PLACES.includes(source) ? left : 1) : source === doubt ? left : 1;

export interface HelpFacts {
  readonly expanded: number;
  readonly budget: readonly BudgetLine[];
  readonly instrument: Instrument;
  /** The least number of readings of a place. */
  readonly repeats: number;
  /** What else helps this check. */
  readonly acts: readonly HelpAct[];
  /** The other instruments of the kit that can read the same. */
  readonly kit: readonly { readonly name: string; readonly instrument: Instrument }[];
}

/** U with the lines of the budget multiplied, each by its own factor. */
function scaled({ expanded, budget }: HelpFacts, factors: Factors): number {
  const u = (own: Factors) => Math.sqrt(budget.reduce((sum, line) => sum + (line.u * own(line.source)) ** 2, 0));
  return (expanded * u(factors)) / u(() => 1);
}

function instrumentHelps(facts: HelpFacts): Help[] {
  const { instrument, kit } = facts;
  return kit.map(({ name, instrument: other }) => {
    const by: Readonly<Partial<Record<DoubtCode, number>>> = {
      dial: (other.graduation * other.readTo) / (instrument.graduation * instrument.readTo),
      repeating: other.graduation / instrument.graduation,
      accuracy: instrument.accuracy > 0 ? other.accuracy / instrument.accuracy : 1,
    };
    return { kind: 'instrument', text: `read it with “${name}”`, expanded: scaled(facts, (source) => by[source] ?? 1) };
  });
}

/**
 * What would make a call surer, the most helpful first: reading each place more often, a finer
 * instrument of the kit, and the acts of the check. What helps by less than a tenth is left out.
 */
export function whatHelps(facts: HelpFacts): Help[] {
  if (!(facts.expanded > 0) || facts.budget.length === 0) return [];
  const more = Math.max(4, facts.repeats * 2);
  const helps: Help[] = [
    ...instrumentHelps(facts),
    { kind: 'repeat', text: `read each place ${more} times`, expanded: scaled(facts, oftener(facts.repeats, more)) },
    ...facts.acts.map((act): Help => ({ kind: act.kind, text: act.text, expanded: scaled(facts, actFactor(act)) })),
  ];
  return helps.filter((help) => help.expanded < 0.9 * facts.expanded).sort((a, b) => a.expanded - b.expanded);
}
