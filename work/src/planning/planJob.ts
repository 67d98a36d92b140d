import { randomBeta, randomLcg } from 'd3-random';
import { FaultError, faultsOf } from '@isometra/core';
import { jobSchema, SCHEDULE_FORMAT, type Dates, type Job, type Schedule } from '@isometra/contract';
import { jobFaults } from './jobFaults.js';
import { NeverDone, Scheduler, type Placed } from './schedule.js';

/** How much the likely value weighs against the ends, in a beta-PERT distribution. */
const LIKELY = 4;

/** Minutes of an item, drawn anew each time: beta-PERT between least and most; exact where they are the same. */
function drawerOf([least, likely, most]: readonly [number, number, number], random: () => number): () => number {
  const span = most - least;
  if (span === 0) return () => least;
  const beta = randomBeta.source(random)(1 + (LIKELY * (likely - least)) / span, 1 + (LIKELY * (most - likely)) / span);
  return () => least + span * beta();
}

/** The value that so much of the draws does not exceed: the nearest of them. */
const quantile = (sorted: Float64Array, share: number): number => sorted[Math.max(0, Math.ceil(share * sorted.length) - 1)];

function datesOf(times: Float64Array, date: (time: number) => string): Dates {
  const sorted = times.sort();
  const [p10, p50, p90] = [0.1, 0.5, 0.9].map((share) => date(quantile(sorted, share)));
  return { p10, p50, p90 };
}

/**
 * The items that decide the end of a schedule, from the last one back: each had to wait for the one before it.
 *
 * @param ends places of the items of which the last one is the end; all of them where none are named.
 */
function chainOf(placed: readonly Placed[], ends: readonly number[]): readonly number[] {
  const chain: number[] = [];
  let at = ends.reduce((last, i) => (placed[i].end > placed[last].end ? i : last), ends[0]);
  for (; at >= 0; at = placed[at].cause) chain.push(at);
  return chain.reverse();
}

/** What decides the end in most draws: of each item its share, and of none where no item does, the chain that came most often. */
function decidingChain(shares: readonly number[], chains: ReadonlyMap<string, number>, middle: readonly number[]): readonly number[] {
  const most = shares.flatMap((share, i) => (share > 0.5 ? [i] : [])).sort((one, other) => middle[one] - middle[other] || one - other);
  if (most.length) return most;
  const [often] = [...chains].sort(([, one], [, other]) => other - one);
  return often ? often[0].split(' ').map(Number) : [];
}

/** The draws of a job, made in steps: it can be shown how far it is, and stopped. */
class JobRun {
  private readonly scheduler: Scheduler;
  private readonly drawers: readonly (() => number)[];
  /** How many draws are made at most: where nothing is drawn, one run says all. */
  readonly draws: number;
  private readonly starts: readonly Float64Array[];
  private readonly ends: readonly Float64Array[];
  private readonly finish: Float64Array;
  private readonly decides: number[];
  private readonly chains = new Map<string, number>();
  private done = 0;

  /** Places of the items whose last end is the end. */
  private readonly of: readonly number[];

  constructor(
    private readonly job: Job,
    ends: readonly string[] = [],
  ) {
    const wanted = new Set(ends);
    const named = job.items.flatMap(({ id }, i) => (wanted.has(id) ? [i] : []));
    this.of = named.length ? named : job.items.map((_item, i) => i);
    this.scheduler = new Scheduler(job);
    const random = randomLcg(job.seed);
    this.drawers = job.items.map(({ minutes }) => (minutes ? drawerOf(minutes, random) : () => 0));
    this.draws = job.items.every(({ minutes }) => !minutes || minutes[0] === minutes[2]) ? 1 : job.draws;
    const each = (): readonly Float64Array[] => job.items.map(() => new Float64Array(this.draws));
    [this.starts, this.ends, this.finish] = [each(), each(), new Float64Array(this.draws)];
    this.decides = job.items.map(() => 0);
  }

  /** Make so many more draws. @returns how many are made in all. @throws NeverDone */
  step(many: number): number {
    for (const end = Math.min(this.draws, this.done + many); this.done < end; this.done++) this.draw();
    return this.done;
  }

  private draw(): void {
    const placed = this.scheduler.run(this.drawers.map((one) => one()));
    placed.forEach(({ start, end }, i) => {
      this.starts[i][this.done] = start;
      this.ends[i][this.done] = end;
    });
    const chain = chainOf(placed, this.of);
    for (const i of chain) this.decides[i]++;
    this.finish[this.done] = placed[chain[chain.length - 1]].end;
    const key = chain.join(' ');
    this.chains.set(key, (this.chains.get(key) ?? 0) + 1);
  }

  /** What the draws made so far say: one at least. */
  result(): Schedule {
    const { scheduler, job, done } = this;
    const shares = this.decides.map((count) => count / done);
    const made = (all: Float64Array): Float64Array => all.slice(0, done);
    const [starts, ends] = [this.starts.map(made), this.ends.map(made)];
    const items = job.items.map(({ id }, i) => ({
      id,
      start: datesOf(starts[i], scheduler.startDate),
      end: datesOf(ends[i], scheduler.endDate),
      decides: shares[i],
    }));
    const middle = starts.map((times) => quantile(times, 0.5));
    return {
      format: SCHEDULE_FORMAT,
      finish: datesOf(made(this.finish), scheduler.endDate),
      chain: decidingChain(shares, this.chains, middle).map((i) => job.items[i].id),
      items,
      first: scheduler.first(),
    };
  }
}

/** A job as it was read. @throws FaultError with every fault. */
export function readJob(raw: unknown): Job {
  const read = jobSchema.safeParse(raw);
  if (!read.success) throw new FaultError(faultsOf(read.error, []));
  const faults = jobFaults(read.data);
  if (faults.length) throw new FaultError(faults);
  return read.data;
}

/** What is wrong where an item would not be done within the horizon; any other error goes on. */
function neverDone(error: unknown, job: Job): FaultError {
  if (!(error instanceof NeverDone)) throw error;
  const { id } = job.items[error.item];
  return new FaultError([
    { path: `items[${error.item}]`, message: `"${id}" would not be done within forty years`, example: 'more hours, or fewer minutes' },
  ]);
}

/**
 * The draws of a job file, to be made in steps.
 *
 * @param ends ids of the items whose end is asked for, where other work stands in the same file; all of them where none are named.
 * @throws FaultError as `planJob`; `step` throws one where an item is never done.
 */
export function jobRun(raw: unknown, ends: readonly string[] = []): Pick<JobRun, 'draws' | 'step' | 'result'> {
  const job = readJob(raw);
  const run = new JobRun(job, ends);
  return {
    draws: run.draws,
    step: (many) => {
      try {
        return run.step(many);
      } catch (error) {
        throw neverDone(error, job);
      }
    },
    result: () => run.result(),
  };
}

/** One item as it is laid out: who does it, and on which days. */
export interface LaidOut {
  readonly id: string;
  readonly start: string;
  readonly end: string;
  readonly crew: readonly string[];
  /** Days on which it is worked at, with its minutes; none for a wait. */
  readonly days: readonly { readonly date: string; readonly minutes: number }[];
}

/**
 * A job laid out once with its likely minutes: who does what on which day. For a board or a calendar; how sure it is tells `planJob`.
 *
 * @throws FaultError as `planJob`.
 */
export const layOutJob = (raw: unknown): readonly LaidOut[] => laidOut(readJob(raw));

/** The same of a job that was read. @throws FaultError where something of it would never be done. */
export function laidOut(job: Job): readonly LaidOut[] {
  const scheduler = new Scheduler(job);
  try {
    return scheduler.run(job.items.map(({ minutes }) => minutes?.[1] ?? 0)).map((placed, i) => ({
      id: job.items[i].id,
      start: scheduler.startDate(placed.start),
      end: scheduler.endDate(placed.end),
      crew: placed.crew,
      days: scheduler.daysOf(i, placed),
    }));
  } catch (error) {
    throw neverDone(error, job);
  }
}

/**
 * Plan a job: when it is done, with its range, what decides that, and what can be begun first.
 *
 * @param raw a job file. @throws FaultError with every fault: what is not a job, an unknown name, a circle, an item nobody can ever do.
 * Source: docs/sheets.md, Jobs.
 */
export function planJob(raw: unknown): Schedule {
  const run = jobRun(raw);
  run.step(run.draws);
  return run.result();
}
