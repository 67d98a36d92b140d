import type { PlanItem, Span } from '@isometra/contract';

/** What can be done about a machine as it was found. */
export type AnswerCode = 'leave' | 'adjust' | 'rebuild';

/** One answer: what would be done, and the hours of work that it takes. */
export interface Answer {
  readonly code: AnswerCode;
  readonly items: readonly PlanItem[];
  /** Hours of work of all hands together: one in ten, as likely as not, nine in ten. */
  readonly hours: { readonly p10: number; readonly p50: number; readonly p90: number };
  readonly bought: Bought;
}

/** What has to be bought: parts, work that is given out, certificates. */
export interface Bought {
  /** Prices that somebody has told, together, in the currency of the shop. */
  readonly price: number;
  /** How many things have one. */
  readonly priced: number;
  /** What has none yet: what is paid for it comes on top. */
  readonly open: readonly string[];
}

/** What some items have to have bought for them. */
export function boughtFor(items: readonly PlanItem[]): Bought {
  const bought = items.flatMap(({ buys }) => buys ?? []);
  const priced = bought.flatMap(({ price }) => price ?? []);
  return {
    price: priced.reduce((sum, price) => sum + price, 0),
    priced: priced.length,
    open: bought.flatMap(({ price, what }) => (price === null ? [what] : [])),
  };
}

const TEN_PERCENT = 1.2816;

/** Mean and variance of a beta-PERT distribution with λ = 4. */
function pert([least, likely, most]: Span): { readonly mean: number; readonly variance: number } {
  const mean = (least + 4 * likely + most) / 6;
  return { mean, variance: ((mean - least) * (most - mean)) / 7 };
}

/** Hours of some items together: minutes of each by as many people as it needs, as a sum of independent distributions. */
export function hoursOfWork(items: readonly PlanItem[]): Answer['hours'] {
  const parts = items.flatMap(({ minutes, people, who }) => {
    const hands = Math.max(people, who.length);
    return minutes && hands > 0 ? [pert(minutes.map((each) => (each * hands) / 60) as Span)] : [];
  });
  const mean = parts.reduce((sum, part) => sum + part.mean, 0);
  const spread = TEN_PERCENT * Math.sqrt(parts.reduce((sum, part) => sum + part.variance, 0));
  return { p10: Math.max(0, mean - spread), p50: mean, p90: mean + spread };
}

/** Whether an item takes metal off. */
const takesMetal = ({ kind, metal }: PlanItem): boolean => kind === 'scrape' || metal === true;

/**
 * Three answers to what was found: leave it and use it so; adjust only, by screws and shims; rebuild, metal and all. What only metal would
 * cure falls out of the second, with what is read because of it.
 *
 * @param items all that is left to do, in the order of the plan.
 */
export function threeAnswers(items: readonly PlanItem[]): readonly Answer[] {
  const metal = new Set(items.filter(takesMetal).map(({ key }) => key));
  const dropped = new Set(metal);
  for (const { key, kind, after } of items) {
    const reads = kind === 'read' || kind === 'perhaps';
    // Read again only because of metal that is not taken off.
    if (reads && after.length > 0 && key.startsWith('again ') && after.every((before) => dropped.has(before))) dropped.add(key);
  }
  const adjusted = items
    .filter(({ key }) => !dropped.has(key))
    .map((item) => ({ ...item, after: item.after.filter((key) => !dropped.has(key)) }));
  return [
    { code: 'leave', items: [], hours: { p10: 0, p50: 0, p90: 0 }, bought: boughtFor([]) },
    { code: 'adjust', items: adjusted, hours: hoursOfWork(adjusted), bought: boughtFor(adjusted) },
    { code: 'rebuild', items, hours: hoursOfWork(items), bought: boughtFor(items) },
  ];
}

/** Checks that a plan of adjusting leaves as they are: what only metal would cure. */
export const curedByMetal = (items: readonly PlanItem[]): readonly string[] => [
  ...new Set(items.flatMap((item) => (item.kind === 'move' && takesMetal(item) ? [item.key.split(' ').slice(1, 3).join(' ')] : []))),
];
