import { expose } from 'comlink';
import { monteCarlo, type DrawnUncertainty } from '@isometra/core';

const STEP = 5000;

/** Draws in steps, telling how far it is, until it is done or told to stop. */
const work = {
  stopped: false,

  stop(): void {
    this.stopped = true;
  },

  async draw(sheet: unknown, draws: number, progress: (done: number) => void): Promise<Readonly<Record<string, DrawnUncertainty>>> {
    this.stopped = false;
    const run = monteCarlo(sheet, draws, Math.floor(Math.random() * 2 ** 31));
    for (let done = 0; done < draws && !this.stopped;) {
      done = run.step(STEP);
      progress(done);
      // Lets a stop that has come meanwhile be heard.
      await new Promise((resolve) => setTimeout(resolve));
    }
    return run.result();
  },
};

export type MonteCarloWork = typeof work;

expose(work);
