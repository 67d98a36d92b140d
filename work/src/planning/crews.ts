import type { Job, JobItem } from '@isometra/contract';

/** As many ways to choose people as are looked at. */
const MOST = 400;

/** Every choice of so many out of a list, in its order. */
function choices(list: readonly string[], many: number): readonly (readonly string[])[] {
  if (many === 0) return [[]];
  const found: (readonly string[])[] = [];
  for (let i = 0; i + many <= list.length && found.length < MOST; i++)
    for (const rest of choices(list.slice(i + 1), many - 1)) found.push([list[i], ...rest]);
  return found.slice(0, MOST);
}

/**
 * Who may do an item: those that it names, with as many of any besides as it asks for. Of a wait, and of what asks for nobody, the one
 * empty crew; none where there are too few people.
 */
export function crews(job: Job, { who = [], people, wait }: JobItem): readonly (readonly string[])[] {
  if (wait) return [[]];
  const named = [...new Set(who)];
  const besides = Math.max(0, (people ?? (named.length ? 0 : 1)) - named.length);
  const others = job.people.map(({ id }) => id).filter((id) => !named.includes(id));
  return choices(others, besides).map((more) => [...named, ...more]);
}
