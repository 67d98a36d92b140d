import { STARTING_DURATIONS, type ShopCard, type Span } from '@isometra/contract';

/** Kinds of work whose minutes are learned. */
export type Work = (typeof STARTING_DURATIONS)[number]['key'];

/** One piece of work that was timed. */
export interface Timing {
  readonly work: Work;
  /** The check that was read, or the kind of move. */
  readonly detail: string;
  readonly machineKind: string;
  readonly by: string;
  readonly minutes: number;
}

/** What is to be done, as far as its minutes depend on it. */
export type TimeAsked = Pick<Timing, 'work'> & Partial<Pick<Timing, 'detail' | 'machineKind' | 'by'>>;

/** Minutes that something takes, and what they come from. */
export interface Duration {
  /** Least (5 %), likely (the median) and most (95 %). */
  readonly minutes: Span;
  /** How many timings of this shop they come from; 0 for a starting value alone. */
  readonly timings: number;
}

/** A starting value counts as so many observations, with this factor as their spread. */
const PRIOR = 4;
const PRIOR_SPREAD = Math.log(1.8);
/** A narrower group of timings than all of a kind of work is taken once it has so many. */
const ENOUGH = 4;

/** One-sided 95 % points of Student's t, for 3 degrees of freedom and more. */
const T95 = [2.353, 2.132, 2.015, 1.943, 1.895, 1.86, 1.833, 1.812, 1.796, 1.782, 1.771, 1.761, 1.753, 1.746, 1.74, 1.734, 1.729, 1.725];
const NORMAL95 = 1.645;
/** Beyond the table: the first term of the expansion of t in 1/ν about the normal. */
const t95 = (degrees: number): number => T95[degrees - 3] ?? NORMAL95 + (NORMAL95 ** 3 + NORMAL95) / (4 * degrees);

/** The starting value of a kind of work: the shop's own where its page tells one, minutes. */
export function startingMinutes(work: Work, card: Pick<ShopCard, 'durations'> | undefined): number {
  const own = card?.durations?.[work];
  return typeof own === 'number' ? own : (STARTING_DURATIONS.find(({ key }) => key === work)?.minutes ?? 30);
}

/** The narrowest group of timings that is large enough: of this very thing, machine and person; and the widest otherwise. */
function groupFor({ work, detail, machineKind, by }: TimeAsked, timings: readonly Timing[]): readonly Timing[] {
  const of = timings.filter((timing) => timing.work === work && timing.minutes > 0);
  const same = (wanted: Partial<Timing>) =>
    of.filter((timing) => Object.entries(wanted).every(([key, value]) => value === undefined || timing[key as keyof Timing] === value));
  const groups = [same({ detail, machineKind, by }), same({ detail, machineKind }), same({ detail }), same({ machineKind })];
  return groups.find((group) => group.length >= ENOUGH) ?? of;
}

/**
 * What a kind of work takes: log-normal, from the starting value (as four observations whose spread is a factor 1.8) and every timing of
 * this shop. Least, likely and most are the 5, 50 and 95 % points of the next one (predictive, by Student's t).
 *
 * @param starting minutes. @example durationOf({ work: 'round' }, [], 15).minutes[1] // 15
 */
export function durationOf(asked: TimeAsked, timings: readonly Timing[], starting: number): Duration {
  const logs = groupFor(asked, timings).map(({ minutes }) => Math.log(minutes));
  const n = PRIOR + logs.length;
  const start = Math.log(starting);
  const mean = (PRIOR * start + sum(logs)) / n;
  // The prior's own scatter about its mean, and every difference from the mean of all.
  const squares = (PRIOR - 1) * PRIOR_SPREAD ** 2 + PRIOR * (start - mean) ** 2 + sum(logs.map((log) => (log - mean) ** 2));
  const spread = Math.sqrt(squares / (n - 1)) * Math.sqrt(1 + 1 / n) * t95(n - 1);
  return { minutes: [Math.exp(mean - spread), Math.exp(mean), Math.exp(mean + spread)], timings: logs.length };
}

/** What work takes in a shop, by its timings and its page. The same is asked of every machine: each is worked out once. */
export function durationsIn(timings: readonly Timing[], card: Pick<ShopCard, 'durations'> | undefined): (asked: TimeAsked) => Duration {
  const known = new Map<string, Duration>();
  return (asked) => {
    const key = [asked.work, asked.detail, asked.machineKind, asked.by].join(' ');
    const duration = known.get(key) ?? durationOf(asked, timings, startingMinutes(asked.work, card));
    known.set(key, duration);
    return duration;
  };
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** Several pieces of work in a row: their likely minutes add, their spreads in quadrature. Never less than nothing. */
export function inARow(spans: readonly Span[]): Span {
  const likely = sum(spans.map(([, middle]) => middle));
  const spread = (end: 0 | 2): number => Math.hypot(...spans.map((span) => span[end] - span[1]));
  return [Math.max(0, likely - spread(0)), likely, likely + spread(2)];
}

/** So many times the same piece of work, each time anew. */
export const times = ([least, likely, most]: Span, many: number): Span => {
  const root = Math.sqrt(many);
  return [Math.max(0, many * likely - root * (likely - least)), many * likely, many * likely + root * (most - likely)];
};

/** Whole minutes, and at least one. */
export const wholeMinutes = (span: Span): Span => span.map((minutes) => Math.max(1, Math.round(minutes))) as Span;

/** A spread that has turned out too narrow, made wider by a factor about its likely value: by ratios, as the minutes are log-normal. */
export function widened([least, likely, most]: Span, by: number): Span {
  if (by === 1 || likely <= 0) return [least, likely, most];
  return [likely * (least / likely) ** by, likely, likely * (most / likely) ** by];
}
