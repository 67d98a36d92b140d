import { JOB_FORMAT, WEEKDAYS, type MachinePlan, type PlanItem, type PlannedPerson } from '@isometra/contract';
import { arranged } from './arranged.js';
import { widened } from './durations.js';

/** The arranged plan of one machine. */
export interface PlanToSchedule {
  readonly machineId: string;
  readonly number: string;
  readonly items: readonly PlanItem[];
}

/** A plan as it is scheduled: what people settled of it laid over what is known. @param today as 2026-11-29. */
export const planToSchedule = ({ machineId, number, items, settled }: MachinePlan, today: string): PlanToSchedule => ({
  machineId,
  number,
  items: arranged(items, settled, today),
});

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

/** Whether so many people share a day of the week, those who are named among them. */
function together(people: readonly PlannedPerson[], who: readonly string[], many: number): boolean {
  return WEEKDAYS.some((day) => {
    const there = people.filter(({ hours }) => (hours[day] ?? 0) > 0).map(({ id }) => id);
    return there.length >= many && who.every((id) => there.includes(id));
  });
}

/** A job file, what each of its items stands for, and what needs more hands than there are on one day. */
export interface MadeJob {
  readonly job: Readonly<Record<string, unknown>>;
  readonly refs: readonly JobRef[];
  /** Planned as if somebody came to help: with one person of the shop. */
  readonly helped: readonly JobRef[];
}

/**
 * The job file of some plans together: people and kit are shared between the machines. Items are called by their place in it. Who is not
 * among the people is passed over. What needs more hands than ever work on one day is planned with one, as if somebody came to help.
 *
 * @returns undefined where nobody has hours, or nothing is left to do.
 */
export function jobOf(
  plans: readonly PlanToSchedule[],
  { start, timeZone, people, widen = 1, draws = 10_000, seed = 1 }: Circumstances,
): MadeJob | undefined {
  const able = people.filter(works);
  const all = plans.flatMap(({ machineId, number, items }) => items.map((one) => ({ machineId, number, one })));
  if (all.length === 0 || able.length === 0) return undefined;
  const place = new Map(all.map(({ machineId, one }, i) => [`${machineId} ${one.key}`, String(i)]));
  const known = new Set(able.map(({ id }) => id));
  const things = [...new Set(all.flatMap(({ one }) => one.things))];
  const helped: JobRef[] = [];
  const items = all.map(({ machineId, number, one }) => {
    const named = one.who.filter((id) => known.has(id));
    const wanted = Math.max(one.people, named.length);
    const alone = wanted > 1 && one.wait === null && !together(able, named, wanted);
    if (alone) helped.push({ machineId, key: one.key });
    const [who, crew] = alone ? [named.slice(0, 1), 1] : [named, wanted];
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
    helped,
  };
}
