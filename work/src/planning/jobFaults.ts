import type { Fault } from '@isometra/core';
import type { Job, JobItem } from '@isometra/contract';
import { Calendar } from './calendar.js';
import { crews } from './crews.js';

const unknown = (path: string, name: string, known: readonly string[]): Fault => ({
  path,
  message: `"${name}" is not known in this job`,
  example: known[0] ?? 'a name of this job',
});

const twice = (names: readonly string[], path: (i: number) => string): Fault[] =>
  names.flatMap((name, i) =>
    names.indexOf(name) < i ? [{ path: path(i), message: `"${name}" is there twice: give each its own name`, example: `${name} 2` }] : [],
  );

/** A circle in what comes after what, by names; undefined where there is none. */
function circleOf(items: readonly JobItem[]): readonly string[] | undefined {
  const after = new Map(items.map((item) => [item.id, item.after ?? []]));
  const done = new Set<string>();
  const walk = (id: string, path: readonly string[]): readonly string[] | undefined => {
    if (path.includes(id)) return [...path.slice(path.indexOf(id)), id];
    if (done.has(id)) return undefined;
    for (const before of after.get(id) ?? []) {
      const circle = walk(before, [...path, id]);
      if (circle) return circle;
    }
    done.add(id);
    return undefined;
  };
  for (const { id } of items) {
    const circle = walk(id, []);
    if (circle) return circle;
  }
  return undefined;
}

function namesFaults(job: Job): Fault[] {
  const [people, things, items] = [job.people, job.things, job.items].map((list) => list.map(({ id }) => id));
  const all = (list: readonly string[] | undefined, known: readonly string[], path: string): Fault[] =>
    (list ?? []).flatMap((name, k) => (known.includes(name) ? [] : [unknown(`${path}[${k}]`, name, known)]));
  return [
    ...twice(people, (i) => `people[${i}].id`),
    ...twice(things, (i) => `things[${i}].id`),
    ...twice(items, (i) => `items[${i}].id`),
    ...job.items.flatMap((item, i) => [
      ...all(item.who, people, `items[${i}].who`),
      ...all(item.things, things, `items[${i}].things`),
      ...all(item.after, items, `items[${i}].after`),
    ]),
  ];
}

/** Work that nobody can ever do: too few people, or people who never work on one day. */
function handsFaults(job: Job): Fault[] {
  const calendar = new Calendar(job);
  return job.items.flatMap((item, i): Fault[] => {
    const path = `items[${i}].${item.who?.length ? 'who' : 'people'}`;
    if (item.wait && (item.who?.length || item.people)) {
      return [{ path, message: `"${item.id}" waits: nobody is needed for that`, example: 'leave it out' }];
    }
    const possible = crews(job, item);
    if (possible.length === 0)
      return [
        { path, message: `nobody can ever do "${item.id}": it needs more people than there are`, example: String(job.people.length) },
      ];
    if (possible.some((crew) => crew.length === 0 || calendar.everTogether(crew))) return [];
    return [
      { path, message: `nobody can ever do "${item.id}": those it needs have no hours on one day`, example: 'hours on the same day' },
    ];
  });
}

/** What is wrong with a job that its schema does not see, every fault with its path. */
export function jobFaults(job: Job): Fault[] {
  const names = namesFaults(job);
  if (names.length) return names;
  const circle = circleOf(job.items);
  if (circle) {
    const i = job.items.findIndex(({ id }) => id === circle[0]);
    return [{ path: `items[${i}].after`, message: `goes in a circle: ${circle.join(' after ')}`, example: 'take one of them out' }];
  }
  return handsFaults(job);
}
