import { WEEKDAYS, type PlannedPerson } from '@isometra/contract';
import type { Circumstances, PlanToSchedule } from './jobOf.js';

/** What would make a job shorter. */
export type HelpCode = 'person' | 'evening' | 'waits' | 'nothing-more';

/** A job as it would be if one thing were otherwise. */
export interface Help {
  readonly code: HelpCode;
  readonly plans: readonly PlanToSchedule[];
  readonly circumstances: Circumstances;
}

/** Hours of one more evening a week. */
const EVENING = 2;

/** Somebody with one more evening: on the first day of the week on which nothing is worked yet. */
function withEvening(person: PlannedPerson): PlannedPerson {
  const free = WEEKDAYS.find((day) => !person.hours[day]);
  return free ? { ...person, hours: { ...person.hours, [free]: EVENING } } : person;
}

/**
 * Ways in which a job would be done sooner, each as the whole job otherwise: another pair of hands at the same hours, one more evening a
 * week, nothing to wait for, nothing more that turns out to be wrong. Only those that change something.
 */
export function helps(plans: readonly PlanToSchedule[], circumstances: Circumstances): readonly Help[] {
  const { people } = circumstances;
  const [first] = people;
  if (!first) return [];
  const items = plans.flatMap((plan) => plan.items);
  const where = (keep: (item: PlanToSchedule['items'][number]) => PlanToSchedule['items'][number]): readonly PlanToSchedule[] =>
    plans.map((plan) => ({ ...plan, items: plan.items.map(keep) }));
  const waits = items.some(({ wait, notBefore }) => wait !== null || notBefore !== null);
  return [
    { code: 'person', plans, circumstances: { ...circumstances, people: [...people, { ...first, id: `${first.id}’`, off: [] }] } },
    { code: 'evening', plans, circumstances: { ...circumstances, people: [withEvening(first), ...people.slice(1)] } },
    ...(waits
      ? [
          {
            code: 'waits' as const,
            plans: where((item) => ({ ...item, notBefore: null, ...(item.wait !== null && { wait: 0 }) })),
            circumstances,
          },
        ]
      : []),
    ...(items.some(({ kind }) => kind === 'perhaps')
      ? [
          {
            code: 'nothing-more' as const,
            plans: where((item) => (item.kind === 'perhaps' ? { ...item, minutes: [0, 0, 0] } : item)),
            circumstances,
          },
        ]
      : []),
  ];
}
