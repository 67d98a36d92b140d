import { expose } from 'comlink';
import { FaultError } from '@isometra/core';
import type { Dates, Schedule } from '@isometra/contract';
import { jobRun, layOutJob, roomFor, type LaidOut, type Room } from '@isometra/work';

const STEP = 100;

/** What came out, or what stood in the way: an error of a class does not cross from one thread to another. */
export type PlanAnswer<Answer> = { readonly value: Answer } | { readonly problem: string };

function answer<Answer>(work: () => Answer): PlanAnswer<Answer> {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof FaultError) return { problem: error.faults.map(({ message }) => message).join('; ') };
    throw error;
  }
}

/** A job, and the items whose end is asked for; all of them where none are named. */
export interface Asked {
  readonly job: unknown;
  readonly ends?: readonly string[];
}

/** Draws of a job in steps, telling how far they are, until they are done, told to stop, or another job comes. */
const work = {
  /** Which job is drawn: a later one ends an earlier one. */
  turn: 0,

  stop(): void {
    this.turn += 1;
  },

  async draw(job: unknown, ends: readonly string[], progress: (done: number) => void): Promise<PlanAnswer<Schedule>> {
    const mine = ++this.turn;
    try {
      const run = jobRun(job, ends);
      for (let done = 0; done < run.draws && mine === this.turn;) {
        done = run.step(STEP);
        progress(done / run.draws);
        // Lets a stop, or another job, be heard.
        await new Promise((resolve) => setTimeout(resolve));
      }
      return { value: run.result() };
    } catch (error) {
      return answer(() => {
        throw error;
      });
    }
  },

  /** When some jobs would be done, drawn less often: for comparing them. */
  async finishes(jobs: readonly Asked[]): Promise<readonly (Dates | null)[]> {
    const dates: (Dates | null)[] = [];
    for (const { job, ends } of jobs) {
      const told = answer(() => {
        const run = jobRun(job, ends);
        run.step(run.draws);
        return run.result().finish;
      });
      dates.push('value' in told ? told.value : null);
      await new Promise((resolve) => setTimeout(resolve));
    }
    return dates;
  },

  room: (job: unknown): PlanAnswer<readonly Room[]> => answer(() => roomFor(job)),
  layOut: (job: unknown): PlanAnswer<readonly LaidOut[]> => answer(() => layOutJob(job)),
};

export type PlanWork = typeof work;

expose(work);
