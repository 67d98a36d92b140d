import { JOB_FORMAT, type PlanItem, type PlannedPerson } from '@isometra/contract';
import { widened } from './durations.js';

/** The arranged plan of one machine. */
export interface PlanToSchedule {
  readonly machineId: string;
  readonly number: string;
  readonly items: readonly PlanItem[];
}

/** Who works when, and from which day it is planned. */
export interface Circumstances {
  /** The first day, as 2026-11-29. */
  readonly start: string;
  readonly timeZone: string | null;
  readonly people: readonly PlannedPerson[];
  /** Ratios of least and most to likely are raised to this: dates named before were too narrow. */
  readonly widen?: number;
  readonly draws?: number;
  readonly seed?: number;
}

/** Which item of which machine an item of a job file stands for. */
export interface JobRef {
  readonly machineId: string;
  readonly key: string;
}

/** What is done away from the machine: it keeps nobody else from it. */
const ELSEWHERE: readonly PlanItem['kind'][] = ['scrape', 'part', 'kit', 'to-do', 'own'];

const works = ({ hours }: PlannedPerson): boolean => Object.values(hours).some((each) => (each ?? 0) > 0);

/**
 * The job file of some plans together: people and kit are shared between the machines. Items are called by their place in it. Who is not
 * among the people is passed over; more hands than there are in the shop are asked for as all of them.
 *
 * @returns the file, and what each of its items stands for; undefined where nobody has hours, or nothing is left to do.
 */
export function jobOf(
  plans: readonly PlanToSchedule[],
  { start, timeZone, people, widen = 1, draws = 10_000, seed = 1 }: Circumstances,
): { readonly job: Readonly<Record<string, unknown>>; readonly refs: readonly JobRef[] } | undefined {
  const able = people.filter(works);
  const all = plans.flatMap(({ machineId, number, items }) => items.map((one) => ({ machineId, number, one })));
  if (all.length === 0 || able.length === 0) return undefined;
  const place = new Map(all.map(({ machineId, one }, i) => [`${machineId} ${one.key}`, String(i)]));
  const known = new Set(able.map(({ id }) => id));
  const things = [...new Set(all.flatMap(({ one }) => one.things))];
  const items = all.map(({ machineId, number, one }) => {
    const who = one.who.filter((id) => known.has(id));
    const crew = Math.min(Math.max(one.people, who.length), able.length);
    return {
      id: place.get(`${machineId} ${one.key}`),
      ...(one.wait === null
        ? { minutes: widened(one.minutes ?? [0, 0, 0], widen), people: crew, ...(who.length && { who }), things: one.things }
        : { wait: { hours: one.wait } }),
      ...(!ELSEWHERE.includes(one.kind) && { machine: number }),
      after: one.after.flatMap((key) => place.get(`${machineId} ${key}`) ?? []),
      ...(one.notBefore !== null && { notBefore: one.notBefore }),
    };
  });
  return {
    job: {
      ...{ format: JOB_FORMAT, start, timeZone: timeZone ?? 'UTC', draws, seed },
      people: able.map(({ id, hours, off }) => ({ id, hours, off })),
      things: things.map((id) => ({ id })),
      items,
    },
    refs: all.map(({ machineId, one }) => ({ machineId, key: one.key })),
  };
}
