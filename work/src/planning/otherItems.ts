import { readPart, type Part, type PlanItem, type StoredStripDown } from '@isometra/contract';
import { partTitle } from '@isometra/contract';
import { conditionOf, needOf } from '../stripdown/needs.js';
import { inOrder } from '../stripdown/assembly.js';
import { partCautions } from '../stripdown/partWords.js';
import { times, wholeMinutes } from './durations.js';
import { changeTitle, item, learned, untimed, type FaceToDo, type KnownToDo } from './toDo.js';

/** Hours that a certificate takes, where nobody told otherwise: two weeks. */
const CERTIFICATE = 14 * 24;

/** A face: the cycles that are left of its plan, by its own forecast. */
function scrapeItem({ machineId }: KnownToDo, face: FaceToDo): PlanItem | undefined {
  const { forecast, cycle, setUp } = face;
  if (!forecast || forecast.cycles.expected <= 0) return undefined;
  const checks = forecast.checks?.minutes ?? 0;
  const minutes = (['low', 'expected', 'high'] as const).map(
    (end) => forecast.cycles[end] * cycle + forecast.evenings[end] * setUp + checks,
  );
  return item('scrape', face.id, {
    title: `Scrape “${face.name}”`,
    why: `About ${Math.max(1, Math.round(forecast.cycles.expected))} cycles are left of its plan.`,
    minutes: wholeMinutes([minutes[0], minutes[1], minutes[2]]),
    from: 'forecast',
    path: ['/machines', machineId, 'scraping', face.id],
  });
}

/** What has to be done to a part before it goes back; undefined where nothing has. */
function needItem({ machineId }: KnownToDo, part: Part): PlanItem | undefined {
  const [condition, need] = [conditionOf(part), needOf(part)];
  // What was sent out and is here again was done there.
  if (!condition || !need || need.state === 'done' || need.state === 'here') return undefined;
  const path = ['/machines', machineId, 'parts', part.stripDownId];
  const title = partTitle(part);
  if (need.state === 'ordered' || condition === 'order') {
    const wait = { wait: 0, people: 0, notBefore: need.expected ?? null, path };
    const why = need.state === 'ordered' ? 'On order.' : 'Nobody has ordered it yet.';
    return item('part', part.id, {
      title: `Wait for ${title}`,
      why: need.expected === undefined ? `${why} Give the day on which it is expected.` : why,
      ...wait,
    });
  }
  const verb = { clean: 'Clean', mend: 'Mend', make: 'Make' }[condition];
  return item('part', part.id, { title: `${verb} ${title}`, why: 'It cannot go back before.', path, ...untimed(condition) });
}

/** Whether a part is put back by itself in a plan: somebody has to help with it, or something has to be done to it first. */
const apart = (part: Part): boolean => needOf(part) !== undefined || readPart(part)?.lift === 'two' || readPart(part)?.lift === 'gear';

const cautionsOf = (part: Part): readonly string[] => {
  const details = readPart(part);
  return details ? partCautions(details, 'on') : [];
};

/** Parts one after another that ask for nothing: one item together. */
function inStretches(parts: readonly Part[]): readonly (readonly Part[])[] {
  const stretches: Part[][] = [];
  for (const part of parts) {
    const last = stretches.at(-1);
    if (!last || apart(part) || apart(last[0])) stretches.push([part]);
    else last.push(part);
  }
  return stretches;
}

/** What was taken apart goes back in the order backwards: what is needed first, then part after part. */
function assemblyItems(known: KnownToDo, stripDown: StoredStripDown, scraped: readonly string[]): readonly PlanItem[] {
  const off = [...inOrder(stripDown.parts)].reverse().filter(({ fitted }) => fitted === null);
  const needs = new Map(
    off.flatMap((part) => {
      const need = needItem(known, part);
      return need ? [[part.id, need] as const] : [];
    }),
  );
  const one = known.takes({ work: 'part', machineKind: known.kind });
  let before: readonly string[] = scraped;
  const back = inStretches(off).map((parts) => {
    const details = readPart(parts[0]);
    const two = details?.lift === 'two';
    const numbers = parts.map(({ number }) => number);
    const fit = item('assemble', parts[0].id, {
      title: parts.length === 1 ? `Put back ${partTitle(parts[0])}` : `Put back parts ${numbers[0]} to ${numbers[numbers.length - 1]}`,
      why: `“${stripDown.name}” is apart.`,
      after: [...before, ...parts.flatMap(({ id }) => needs.get(id)?.key ?? [])],
      people: two ? 2 : 1,
      cautions: parts.flatMap(cautionsOf),
      path: ['/machines', known.machineId, 'parts', stripDown.id],
      ...learned([one]),
      minutes: wholeMinutes(times(one.minutes, parts.length)),
    });
    before = [fit.key];
    return fit;
  });
  return [...needs.values(), ...back];
}

/** Faces, planned changes, parts, notes and certificates: what is left to do beside the rungs. */
export function otherItems(known: KnownToDo): {
  readonly before: readonly PlanItem[];
  readonly beside: readonly PlanItem[];
  readonly together: readonly string[];
} {
  const faces = known.faces.flatMap((face) => scrapeItem(known, face) ?? []);
  const parts = known.stripDowns.flatMap((stripDown) => assemblyItems(known, stripDown, []));
  const changes = known.planned
    .filter(({ doneAt }) => doneAt === null)
    .map((planned) =>
      item('change', planned.id, {
        title: changeTitle(planned),
        why: 'A planned change that is still to be made.',
        path: ['/machines', known.machineId, 'to-come'],
        ...untimed('change'),
      }),
    );
  const kit = known.due.map(({ id, name }) =>
    item('kit', id, {
      title: `Have “${name}” certified`,
      why: 'Its certificate has run out. Two weeks are a starting value.',
      ...{ wait: CERTIFICATE, people: 0, path: ['/kit'] },
    }),
  );
  const notes = known.notes.map(({ id, line, text, path }) =>
    item('to-do', `${id} ${line}`, { title: text, why: 'From a note.', path: [path], ...untimed('toDo') }),
  );
  const fits = parts.filter(({ kind }) => kind === 'assemble');
  const followed = new Set(fits.flatMap(({ after }) => after));
  const together = fits.filter(({ key }) => !followed.has(key)).map(({ key }) => key);
  return { before: [...kit, ...faces, ...changes, ...parts], beside: notes, together };
}
