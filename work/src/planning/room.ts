import type { Job } from '@isometra/contract';
import { laidOut, readJob } from './planJob.js';

/** How much later something that is waited for may come. */
export interface Room {
  readonly id: string;
  /** Days; `MOST_ROOM` stands for that many or more. */
  readonly days: number;
}

/** Beyond so many days nobody asks. */
export const MOST_ROOM = 60;
const DAY = 24;

function finishOf(job: Job): string {
  return laidOut(job).reduce((last, { end }) => (end > last ? end : last), '');
}

const later = (job: Job, id: string, days: number): Job => ({
  ...job,
  items: job.items.map((item) => (item.id === id ? { ...item, wait: { hours: (item.wait?.hours ?? 0) + days * DAY } } : item)),
});

/**
 * Of each thing that a job waits for, how many days later it may come without moving the day on which the job is done, by its likely
 * minutes. The job is laid out anew for each: what people do meanwhile in its place counts.
 *
 * @param raw a job file. @throws FaultError as `layOutJob`.
 */
export function roomFor(raw: unknown): readonly Room[] {
  const job = readJob(raw);
  const finish = finishOf(job);
  const fits = (id: string, days: number): boolean => finishOf(later(job, id, days)) <= finish;
  return job.items.flatMap(({ id, wait }) => {
    if (wait === undefined) return [];
    let [least, most] = [0, 1];
    while (most <= MOST_ROOM && fits(id, most)) [least, most] = [most, most * 2];
    if (least > 0) most = Math.min(most, MOST_ROOM + 1);
    while (most - least > 1) {
      const middle = Math.floor((least + most) / 2);
      if (fits(id, middle)) least = middle;
      else most = middle;
    }
    return [{ id, days: Math.min(least, MOST_ROOM) }];
  });
}
