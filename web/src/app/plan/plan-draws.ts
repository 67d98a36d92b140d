import { Injectable, type OnDestroy, signal } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Dates, Schedule } from '@isometra/contract';
import type { LaidOut, Room } from '@isometra/work';
import type { Asked, PlanAnswer, PlanWork } from '../workers/plan.worker';

/** Draws of a plan, in a worker: how far they are, stopped when they are told to, ended by the next ones. */
@Injectable()
export class PlanDraws implements OnDestroy {
  private worker: Worker | undefined;
  private work: Remote<PlanWork> | undefined;
  private turn = 0;
  /** How far they are, 0 to 1; null while nothing is drawn. */
  readonly progress = signal<number | null>(null);

  protected get remote(): Remote<PlanWork> {
    this.worker ??= new Worker(new URL('../workers/plan.worker', import.meta.url), { type: 'module' });
    return (this.work ??= wrap<PlanWork>(this.worker));
  }

  /** @param ends ids of the items whose end is asked for; all of them where none are named. */
  async draw(job: unknown, ends: readonly string[]): Promise<PlanAnswer<Schedule>> {
    const mine = ++this.turn;
    this.progress.set(0);
    try {
      return await this.remote.draw(
        job,
        ends,
        proxy((done: number) => mine === this.turn && this.progress.set(done)),
      );
    } finally {
      // Progress comes by a channel of its own, and may come after the answer. Nor does an earlier job end the progress of a later one.
      if (mine === this.turn) {
        this.turn++;
        this.progress.set(null);
      }
    }
  }

  finishes(jobs: readonly Asked[]): Promise<readonly (Dates | null)[]> {
    return this.remote.finishes(jobs);
  }

  layOut(job: unknown): Promise<PlanAnswer<readonly LaidOut[]>> {
    return this.remote.layOut(job);
  }

  room(job: unknown): Promise<PlanAnswer<readonly Room[]>> {
    return this.remote.room(job);
  }

  stop(): void {
    void this.work?.stop();
  }

  ngOnDestroy(): void {
    this.worker?.terminate();
  }
}
