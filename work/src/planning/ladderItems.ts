import { CHECKS, MOVES, upsets, type CheckDefinition } from '@isometra/core';
import type { PlanItem, RoundHead } from '@isometra/contract';
import { handStaleWords } from '../ladder/handRungs.js';
import { doable } from '../judging/doable.js';
import { NEXT_WORDS } from '../ladder/nextRung.js';
import { staleWords } from '../ladder/reasons.js';
import type { Rung } from '../ladder/rungs.js';
import { inARow, times, wholeMinutes } from './durations.js';
import { looksAt, outByLook, toLookAt } from './roughLooks.js';
import { item, learned, moveTakes, moveTitle, quantityLabel, readingTakes, titleOf, untimed, type KnownToDo } from './toDo.js';

/** One move that a rung wants: of a quantity, by the first kind that the machine can do. */
interface Wanted {
  readonly quantity: string;
  readonly kind: string;
  /** How far it is from where it is wanted, in its unit. */
  readonly by: number;
  readonly unit: string;
}

/** What a rung wants moved: everything that is out and that a move is known for. */
export function wantedMoves({ check, found, state }: Rung, machineKind: string): readonly Wanted[] {
  if (state !== 'out') return [];
  return Object.entries(found).flatMap(([quantity, { verdict, aim, value, unit }]) => {
    if (verdict !== 'out') return [];
    const correction = check.corrections[quantity];
    const kinds = correction ? ((aim ?? 0) > value ? correction.plus : correction.minus) : [];
    const kind = kinds.find((one) => doable(one, machineKind, check.id));
    return kind === undefined ? [] : [{ quantity, kind, by: Math.abs((aim ?? 0) - value), unit }];
  });
}

/** A rung on which something is moved, and the last key that has to be done before what it upsets is read. */
interface Mover {
  readonly check: CheckDefinition;
  readonly last: string;
}

/** A plan of the ladder as it grows, from the first rung down. */
interface Grown {
  readonly items: PlanItem[];
  readonly movers: Mover[];
  /** The last key of each rung that has something to be done. */
  readonly lastOf: Map<string, string>;
}

/** Why a rung is read: undefined where nothing asks for it. */
function whyRead(rung: Rung): string | undefined {
  const { state, stale, overdue } = rung;
  if (state === 'left') return undefined;
  if (stale) return `${staleWords(stale)}.`;
  if (state === 'none') return 'Not measured yet.';
  if (state === 'unsure') return NEXT_WORDS.unsure;
  return overdue === undefined ? undefined : NEXT_WORDS.overdue;
}

/** The instrument that a rung was read with last: it is in one place at a time. */
const instrumentOf = (rounds: readonly RoundHead[], check: string): readonly string[] => {
  const name = rounds.findLast((round) => round.check === check)?.instrumentName;
  return name ? [name] : [];
};

/** An item for one reading of a rung. */
function read(
  known: KnownToDo,
  check: string,
  part: { readonly key: string; readonly why: string; readonly after: readonly string[] },
): PlanItem {
  const things = instrumentOf(known.rounds, check);
  const certified = known.due.filter(({ name }) => things.includes(name)).map(({ id }) => `kit ${id}`);
  return item('read', check, {
    ...part,
    title: `Read “${titleOf(check)}”`,
    after: [...new Set([...part.after, ...certified])],
    things,
    cautions: CHECKS.get(check)?.cautions ?? [],
    path: ['/machines', known.machineId, 'bench', check],
    ...learned(readingTakes(known, check)),
  });
}

/** What may still come of a rung: with a share of the chance, a move and another reading. */
function perhaps(
  known: KnownToDo,
  check: string,
  part: { readonly after: readonly string[]; readonly share: number; readonly move: string; readonly why: string },
): PlanItem {
  const [, whole, longest] = inARow([moveTakes(known, part.move).minutes, ...readingTakes(known, check).map(({ minutes }) => minutes)]);
  const [, likely, most] = wholeMinutes([0, part.share * whole, longest]);
  return item('perhaps', check, {
    title: `Perhaps correct “${titleOf(check)}”`,
    why: part.why,
    after: part.after,
    minutes: [0, likely, most],
    path: ['/machines', known.machineId, 'bench', check],
  });
}

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** Whether a move of one check makes another be read again. */
const disturbs = ({ fromTheTop }: KnownToDo, moved: CheckDefinition, check: string): boolean =>
  moved.id !== check && (fromTheTop || upsets(moved, check));

/** µm that one pass takes, and the length over which a slope is taken out, m: starting values where no face tells its own. */
const PASS = 8;
const OVER = 0.4;
const PASSES = { least: 3, most: 80 } as const;

/** What taking metal off takes, where no face of it is laid out yet: as many passes as its depth asks for. */
function metalTakes(
  { kind, takes }: KnownToDo,
  by: number,
  unit: string,
  reason: string,
): Pick<PlanItem, 'minutes' | 'from' | 'timings' | 'why' | 'metal'> {
  const depth = unit.endsWith('/m') ? by * OVER : by;
  const passes = Math.min(PASSES.most, Math.max(PASSES.least, Math.ceil(depth / PASS)));
  const one = takes({ work: 'pass', machineKind: kind });
  return {
    ...learned([one]),
    ...{ minutes: wholeMinutes(times(one.minutes, passes)), metal: true },
    why: `${reason} By metal: about ${passes} passes, until its face is laid out at the desk.`,
  };
}

/** The moves of a rung that is out, each after the one before it, and the reading after them. @param why it is out. */
function corrected(known: KnownToDo, rung: Rung, wanted: readonly Wanted[], before: readonly string[], grown: Grown, why: string): void {
  const { check, said } = rung;
  let after = before;
  for (const { quantity, kind, by, unit } of wanted) {
    const metal = MOVES.get(kind)?.metal ? metalTakes(known, by, unit, why) : undefined;
    const face = known.faces.find((one) => one.check === check.id && one.forecast);
    const moved = item('move', `${check.id} ${quantity}`, {
      title: `${moveTitle(kind)}: ${quantityLabel(check, quantity)}`,
      why,
      after: [...after, ...(face ? [`scrape ${face.id}`] : [])],
      cautions: check.cautions,
      path: said ? ['/machines', known.machineId, 'move', said.id, quantity] : ['/machines', known.machineId, 'bench', check.id],
      ...learned([moveTakes(known, kind)]),
      ...metal,
      // What is scraped is worked at the desk: its passes are planned there.
      ...(face && { minutes: [1, 1, 1], why: `${why} It is scraped true on “${face.name}”.` }),
    });
    grown.items.push(moved);
    after = [moved.key];
  }
  const again = `again ${check.id}`;
  grown.items.push(read(known, check.id, { key: again, why: NEXT_WORDS.moved, after }));
  const more = perhaps(known, check.id, {
    after: [again],
    share: known.second,
    move: wanted[0].kind,
    why: `About ${percent(known.second)} of moves need a second one.`,
  });
  grown.items.push(more);
  grown.lastOf.set(check.id, more.key);
  grown.movers.push({ check, last: again });
}

/** One rung: read, corrected, or read again because one before it is moved. */
function grow(known: KnownToDo, rung: Rung, first: readonly string[], grown: Grown): void {
  const { check, state } = rung;
  if (state === 'left') return;
  const hangsOn = check.hangsOn.flatMap((id) => grown.lastOf.get(id) ?? []);
  const upsetBy = grown.movers.filter((mover) => disturbs(known, mover.check, check.id));
  const before = [...new Set([...first, ...hangsOn, ...upsetBy.map(({ last }) => last)])];
  const wanted = wantedMoves(rung, known.kind);
  if (wanted.length && !rung.stale) return corrected(known, rung, wanted, before, grown, `“${check.title}” is out.`);
  const upset = upsetBy.length ? `A move of “${upsetBy[upsetBy.length - 1].check.title}” upsets it.` : undefined;
  const noMove = state === 'out' ? 'It is out, and no move of a screw or a shim cures it.' : undefined;
  const why = whyRead(rung) ?? noMove ?? upset;
  if (why === undefined) return;
  const key = `read ${check.id}`;
  grown.items.push(read(known, check.id, { key, why, after: before }));
  grown.lastOf.set(check.id, key);
  if (state === 'none') notMeasured(known, rung, key, grown);
}

/** What may come of a rung that has not been measured: what a rough look said of it, else the share that is out at first. */
function notMeasured(known: KnownToDo, rung: Rung, read: string, grown: Grown): void {
  const { check } = rung;
  const out = outByLook(rung, known.looks, known.kind);
  if (out.length) {
    const said = out.map(({ look, quantity }) => `${quantityLabel(check, quantity)} about ${look.out} out (${look.by})`);
    return corrected(known, rung, out, [read], grown, `By a rough look: ${said.join(', ')}.`);
  }
  const curable = toLookAt(check, known.kind);
  const seen = looksAt(rung, known.looks);
  // Where all of it looks right it is read, and no more is counted for it.
  const [cure] = curable.filter(({ quantity }) => !seen.some((look) => look.quantity === quantity));
  if (!cure) return;
  const share = known.outShare(check.id);
  const more = perhaps(known, check.id, {
    after: [read],
    share,
    move: cure.kind,
    why: `Not measured yet: on about ${percent(share)} of such machines it is out at first.`,
  });
  grown.items.push(more);
  grown.lastOf.set(check.id, more.key);
}

/** Rungs that a move further down upsets: read once more when all that upset them are done. */
function readOnceMore(known: KnownToDo, grown: Grown): void {
  const place = new Map(known.rungs.map(({ check }, i) => [check.id, i]));
  for (const { check, state } of known.rungs) {
    if (state === 'left') continue;
    const later = grown.movers.filter(
      (mover) => (place.get(mover.check.id) ?? 0) > (place.get(check.id) ?? 0) && disturbs(known, mover.check, check.id),
    );
    const last = later.at(-1);
    if (!last) continue;
    const after = [...new Set([...later.map((mover) => mover.last), ...[grown.lastOf.get(check.id) ?? []].flat()])];
    grown.items.push(read(known, check.id, { key: `recheck ${check.id}`, why: `A move of “${last.check.title}” upsets it.`, after }));
  }
}

/** Steps by hand at one end of the ladder. */
function byHand(known: KnownToDo, place: 'first' | 'last', after: readonly string[]): readonly PlanItem[] {
  let before = after;
  return known.byHand
    .filter(({ step, state }) => step.place === place && state !== 'in')
    .map(({ step, staleBy }) => {
      const one = item('by-hand', step.id, {
        title: step.title,
        why: staleBy ? `${handStaleWords(staleBy)}.` : 'Not done yet.',
        after: before,
        cautions: step.cautions,
        path: ['/machines', known.machineId, 'by-hand', step.id],
        ...untimed('byHand'),
      });
      before = [one.key];
      return one;
    });
}

/**
 * What is left of a survey: rungs to read, what is out moved and read again, what a move upsets read once more, the steps by hand at its
 * ends. Each after what it depends on.
 *
 * @param first what all of it waits for: a machine that is apart is put together.
 */
export function ladderItems(known: KnownToDo, first: readonly string[] = []): readonly PlanItem[] {
  const begin = known.rungs.some(({ round }) => round) ? [] : byHand(known, 'first', first);
  const opened = begin.length ? [begin[begin.length - 1].key] : first;
  const grown: Grown = { items: [...begin], movers: [], lastOf: new Map() };
  for (const rung of known.rungs) grow(known, rung, opened, grown);
  readOnceMore(known, grown);
  const all = grown.items.map(({ key }) => key);
  const leads = new Set(grown.items.flatMap(({ after }) => after));
  const ends = all.filter((key) => !leads.has(key));
  return [...grown.items, ...(known.rungs.length ? byHand(known, 'last', ends.length ? ends : opened) : [])];
}
