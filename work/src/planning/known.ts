import {
  WEEKDAYS,
  WEEKDAY_NAMES,
  isTakenBack,
  minutesOfClock,
  type KitItem,
  type Machine,
  type PlannedPerson,
  type RoughLook,
  type Remark,
  type RoundHead,
  type ShopCard,
  type StoredStripDown,
  type StoredSurface,
  type Working,
} from '@isometra/contract';
import { daysUntilDue } from '../kit/kit.js';
import { running, type Campaign } from '../ladder/campaign.js';
import { eventsOf } from '../ladder/events.js';
import { handRungsOf, passesOf } from '../ladder/handRungs.js';
import { ladderFacts } from '../ladder/overdue.js';
import { rungsOf } from '../ladder/rungs.js';
import { shopDay } from '../notebook/dates.js';
import { isMade } from '../notebook/doneMoves.js';
import { ruling } from '../notebook/ruling.js';
import { noteLines } from '../notebook/todos.js';
import { deskOf, scrapedOf } from '../scraping/desk.js';
import { readCard } from '../sheets/machines.js';
import type { FaceToDo, KnownToDo, NoteToDo } from './toDo.js';

/** What the notebook has of a machine. */
export interface MachineRecords {
  readonly machine: Pick<Machine, 'id' | 'card'>;
  /** Rounds of all its surveys, oldest first. */
  readonly heads: readonly RoundHead[];
  readonly surveys: readonly Campaign[];
  readonly surfaces: readonly StoredSurface[];
  readonly stripDowns: readonly StoredStripDown[];
  /** Notes as they stand. */
  readonly notes: readonly Remark[];
  readonly looks: readonly RoughLook[];
}

/** Of rounds that were the first of a check in a survey, how many were out. */
export interface Firsts {
  readonly out: number;
  readonly all: number;
}

/** What holds for the whole shop. */
export interface ShopRecords {
  readonly kit: readonly KitItem[];
  /** What a kind of work takes in this shop: `durationsIn`. */
  readonly takes: KnownToDo['takes'];
  /** ISO time. */
  readonly now: string;
  readonly zone: string | null;
  /** What first rounds on such machines said, by check. */
  readonly firsts: ReadonlyMap<string, Firsts>;
}

const OBSERVATIONS = 4;
/** A share as it was counted, with a prior that counts as four. */
const shareOf = (some: number, all: number, prior: number): number => (OBSERVATIONS * prior + some) / (OBSERVATIONS + all);

/** Of moves that were made, those that the same quantity needed another one after, in the same survey. */
function secondMoves(heads: readonly RoundHead[]): { readonly second: number; readonly all: number } {
  const many = new Map<string, number>();
  for (const { check, surveyId, moves } of heads)
    for (const move of moves.filter(isMade)) {
      const key = `${surveyId} ${check} ${move.quantity}`;
      many.set(key, (many.get(key) ?? 0) + 1);
    }
  return { second: [...many.values()].filter((count) => count > 1).length, all: many.size };
}

function faceToDo(surface: StoredSurface): FaceToDo {
  const { id, name, aim, evening } = surface;
  const { forecast } = deskOf(surface, surface.entries);
  return { id, name, check: aim?.check ?? null, forecast, cycle: evening.cycle, setUp: evening.setUp };
}

const notesToDo = (notes: readonly Remark[]): readonly NoteToDo[] =>
  notes
    .filter((note) => !isTakenBack(note))
    .flatMap(({ id, text, place }) =>
      noteLines(text).flatMap(({ line, text: words, done }) => (done === false ? [{ id, line, text: words, path: place.path }] : [])),
    );

/** What is left to do on a machine, out of everything that the notebook has of it. */
export function knownToDo(
  { machine, heads, surveys, surfaces, stripDowns, notes, looks }: MachineRecords,
  { kit, takes, now, zone, firsts }: ShopRecords,
): KnownToDo {
  const kind = String(machine.card.kind);
  const survey = running(surveys);
  const open = survey?.endedAt === null ? survey : undefined;
  const current = ruling(heads).filter(({ surveyId }) => surveyId === open?.id);
  const standing = surfaces.filter(({ putAway }) => !putAway);
  const facts = { now, zone, scraped: scrapedOf(surfaces), events: eventsOf(kind, surveys), ...ladderFacts(readCard(machine.card)) };
  const changes = surveys.flatMap(({ planned }) => planned.flatMap(({ doneAt }) => doneAt ?? []));
  const moves = secondMoves(heads);
  const today = shopDay(now, zone);
  return {
    machineId: machine.id,
    kind,
    today,
    rungs: open ? rungsOf(kind, current, open, facts) : [],
    byHand: open ? handRungsOf(kind, current, open.byHand, { passes: passesOf(surfaces), changes }) : [],
    fromTheTop: open?.school === 'top',
    rounds: current,
    faces: standing.map(faceToDo),
    planned: open?.planned ?? [],
    stripDowns: stripDowns.filter(({ archived }) => !archived),
    notes: notesToDo(notes),
    due: kit.filter(({ care, archived }) => !archived && (daysUntilDue(care, today) ?? 0) < 0),
    takes,
    second: shareOf(moves.second, moves.all, 0.4),
    outShare: (check) => shareOf(firsts.get(check)?.out ?? 0, firsts.get(check)?.all ?? 0, 0.5),
    looks,
  };
}

/** Hours of an evening or day that a plan begins with where nobody has told any: two evenings and half a Saturday. */
const STARTING_HOURS: PlannedPerson['hours'] = { tue: 2, thu: 2, sat: 4 };

/** The hours that the page of the shop tells, by weekday; undefined where it tells none. */
export function shopHours(hours: ShopCard['hours']): PlannedPerson['hours'] | undefined {
  if (!hours?.length) return undefined;
  return Object.fromEntries(
    WEEKDAYS.flatMap((weekday, i) => {
      const own = hours.filter(({ day }) => day === WEEKDAY_NAMES[i]);
      const minutes = own.reduce((total, { from, to }) => total + minutesOfClock(to) - minutesOfClock(from), 0);
      return minutes > 0 ? [[weekday, minutes / 60]] : [];
    }),
  );
}

/**
 * With whom a plan is made: those whose own hours are told; where nobody's are, the one who wrote most, at the hours of the shop.
 *
 * @param people of the shop, with how much each has written. @param hours of the shop, as its page tells them.
 */
export function plannedPeople(
  people: readonly { readonly initials: string; readonly name: string; readonly entries: number; readonly working?: Working | null }[],
  hours: ShopCard['hours'],
): readonly PlannedPerson[] {
  const told = people.flatMap(({ initials, name, working }) => (working ? [{ id: initials, name, ...working, from: 'own' as const }] : []));
  if (told.length) return told;
  const most = [...people].sort((one, other) => other.entries - one.entries).at(0);
  const usual = shopHours(hours);
  const who = most ? { id: most.initials, name: most.name } : { id: 'you', name: '' };
  return [{ ...who, hours: usual ?? STARTING_HOURS, off: [], from: usual ? 'shop' : 'starting' }];
}

/** How many dates must have come before the spreads are judged by them, and the share that should have lain in their ranges. */
const ENOUGH_DATES = 10;
const SHARE = 0.8;
const LEAST_SHARE = 0.6;

/**
 * How good dates that were named before have been: the share of those that came within their range, and by what factor spreads would have
 * had to be wider for eight in ten. Nothing is said of fewer than ten.
 *
 * @param named with what came, days from the day on which it was named.
 */
export function howGood(
  named: readonly { readonly p10: number; readonly p50: number; readonly p90: number; readonly came: number }[],
): { readonly share: number; readonly widen: number } | undefined {
  if (named.length < ENOUGH_DATES) return undefined;
  const within = named.filter(({ p10, p90, came }) => came >= p10 && came <= p90).length;
  const share = within / named.length;
  if (share >= LEAST_SHARE) return { share, widen: 1 };
  // By how much each range would have had to be wider about its middle to hold what came.
  const factors = named
    .map(({ p10, p50, p90, came }) => {
      const room = came < p50 ? p50 - p10 : p90 - p50;
      return Math.abs(came - p50) / Math.max(room, 0.5);
    })
    .sort((one, other) => one - other);
  return { share, widen: Math.max(1, factors[Math.ceil(SHARE * factors.length) - 1]) };
}
