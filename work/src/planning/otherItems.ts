import { readPart, type Need, type Part, type PlanItem, type StoredStripDown } from '@isometra/contract';
import { conditionOf, daysOverdue, needOf } from '../stripdown/needs.js';
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

/** A part as a sentence calls it: "part 6, Apron casting". */
function partWords(part: Part): string {
  const name = readPart(part)?.name;
  return name ? `part ${part.number}, ${name}` : `part ${part.number}`;
}

/** Why a part is waited for, and what is missing to plan with it. @param late days since it was expected. */
function waitWhy({ state, expected }: Need, late: number): string {
  if (late > 0) return `It was expected ${late === 1 ? '1 day' : `${late} days`} ago. It is planned as if it came today: give a new day.`;
  const why = state === 'ordered' ? 'On order.' : 'Nobody has ordered it yet.';
  return expected === undefined ? `${why} It is planned as if it came today: give the day on which it is expected.` : why;
}

/** What has to be done to a part before it goes back; undefined where nothing has. */
function needItem({ machineId, today }: KnownToDo, part: Part): PlanItem | undefined {
  const [condition, need] = [conditionOf(part), needOf(part)];
  // What was sent out and is here again was done there.
  if (!condition || !need || need.state === 'done' || need.state === 'here') return undefined;
  const path = ['/machines', machineId, 'parts', part.stripDownId];
  const title = partWords(part);
  if (need.state === 'ordered' || condition === 'order') {
    const wait = { wait: 0, people: 0, notBefore: need.expected ?? null, path };
    const late = daysOverdue(need, today);
    return item('part', part.id, {
      title: `Wait for ${title}`,
      why: waitWhy(need, late),
      ...wait,
      buys: { what: title, price: need.price ?? null },
    });
  }
  const verb = { clean: 'Clean', mend: 'Mend', make: 'Make' }[condition];
  return item('part', part.id, {
    title: `${verb} ${title}`,
    why: 'It cannot go back before.',
    path,
    ...untimed(condition),
    ...(need.price !== undefined && { buys: { what: title, price: need.price } }),
  });
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
function assemblyItems(known: KnownToDo, stripDown: StoredStripDown): readonly PlanItem[] {
  const off = [...inOrder(stripDown.parts)].reverse().filter(({ fitted }) => fitted === null);
  const needs = new Map(
    off.flatMap((part) => {
      const need = needItem(known, part);
      return need ? [[part.id, need] as const] : [];
    }),
  );
  const one = known.takes({ work: 'part', machineKind: known.kind });
  let before: readonly string[] = [];
  const back = inStretches(off).map((parts) => {
    const details = readPart(parts[0]);
    const two = details?.lift === 'two';
    const numbers = parts.map(({ number }) => number);
    const fit = item('assemble', parts[0].id, {
      title: parts.length === 1 ? `Put back ${partWords(parts[0])}` : `Put back parts ${numbers[0]} to ${numbers[numbers.length - 1]}`,
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

/** Parts, planned changes and faces that no rung of the plan asks for; what comes with a rung stands apart, by its check. */
export function otherItems(known: KnownToDo): {
  readonly before: readonly PlanItem[];
  readonly faces: ReadonlyMap<string | null, readonly PlanItem[]>;
  readonly kit: readonly PlanItem[];
  readonly beside: readonly PlanItem[];
  /** The last parts of what is apart: only after them a machine is read. */
  readonly together: readonly string[];
} {
  const parts = known.stripDowns.flatMap((stripDown) => assemblyItems(known, stripDown));
  const faces = new Map<string | null, PlanItem[]>();
  for (const face of known.faces) {
    const one = scrapeItem(known, face);
    if (one) faces.set(face.check, [...(faces.get(face.check) ?? []), one]);
  }
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
  const kit = known.due.map(({ id, name, care }) =>
    item('kit', id, {
      title: `Have “${name}” certified`,
      why: 'Its certificate has run out, and it is read with. Two weeks are a starting value.',
      ...{ wait: CERTIFICATE, people: 0, path: ['/kit'], buys: { what: `certificate of ${name}`, price: care.price ?? null } },
    }),
  );
  const beside = known.notes.map(({ id, line, text, path }) =>
    item('to-do', `${id} ${line}`, { title: text, why: 'From a note.', path: [path], ...untimed('toDo') }),
  );
  const fits = parts.filter(({ kind }) => kind === 'assemble');
  const followed = new Set(fits.flatMap(({ after }) => after));
  const together = fits.filter(({ key }) => !followed.has(key)).map(({ key }) => key);
  return { before: [...parts, ...changes], faces, kit, beside, together };
}
