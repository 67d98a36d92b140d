import { createHash } from 'node:crypto';
import ical, { ICalEventTransparency } from 'ical-generator';
import { minutesOfClock, WEEKDAY_NAMES, type Due, type ShopPlan } from '@isometra/contract';
import { clockOn, daysAfter, jobOf, minutesWords, planToSchedule, weekdayOf, type LaidOut } from '@isometra/work';
import { CalendarRow } from '../db/planModels.js';
import { shopDue } from './due.js';
import type { Shelf } from './logbook.js';
import { secretsIn } from './secrets.js';
import { shopPlan } from './plans.js';
import { readShopCard } from './shop.js';

/** Days ahead that a calendar holds. */
const AHEAD = 180;
/** When an evening begins, and a day at the weekend, where the page of the shop does not tell, minutes after midnight. */
const EVENING = 18 * 60;
const MORNING = 9 * 60;

const printOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** The same for the same entry, whenever it is written: a calendar that reads it again moves it. */
const uidOf = (...about: readonly string[]): string => `${printOf(about.join(' ')).slice(0, 32)}@isometra`;
/** Addresses under which the calendar is read. */
export const calendars = secretsIn(CalendarRow, {
  ...{ called: 'calendar address', what: 'shop' },
  made: (name) => `Calendar address for ${name} made`,
  revoked: (name) => `Calendar address for ${name} revoked`,
});

/** When work begins on a day, minutes after midnight: as the page of the shop tells it, else in the evening, at the weekend in the morning. */
async function beginnings(): Promise<(date: string) => number> {
  const { hours = [] } = await readShopCard();
  return (date) => {
    const weekday = weekdayOf(date);
    const own = hours.filter(({ day }) => day === WEEKDAY_NAMES[weekday]).map(({ from }) => minutesOfClock(from));
    return own.length ? Math.min(...own) : weekday > 4 ? MORNING : EVENING;
  };
}

/** What is done in one go: on one day, by the same people, at one machine. */
interface Session {
  readonly date: string;
  readonly crew: string;
  readonly number: string;
  /** What is done first. */
  readonly title: string;
  readonly lines: string[];
  minutes: number;
}

function sessionsOf(
  laidOut: readonly LaidOut[],
  item: (id: string) => { readonly number: string; readonly title: string },
): readonly Session[] {
  const sessions = new Map<string, Session>();
  for (const { id, crew, days } of laidOut)
    for (const { date, minutes } of days) {
      const { number, title } = item(id);
      const key = `${date} ${number} ${crew.join(' ')}`;
      const session = sessions.get(key) ?? { date, crew: crew.join(', '), number, title, lines: [], minutes: 0 };
      session.lines.push(`${title}, ${minutesWords(minutes)}`);
      session.minutes += minutes;
      sessions.set(key, session);
    }
  return [...sessions.values()];
}

async function laidOutPlan({ solver }: Shelf, plan: ShopPlan) {
  const plans = plan.machines.map((one) => planToSchedule(one, plan.today));
  const made = jobOf(plans, { start: plan.today, timeZone: plan.timeZone, people: plan.people });
  if (!made) return { laidOut: [], item: () => ({ number: '', title: '' }), waits: [] };
  const told = new Map(
    plans.flatMap(({ machineId, number, items }) => items.map((one) => [`${machineId} ${one.key}`, { number, item: one }] as const)),
  );
  const of = (id: string) => {
    const { machineId, key } = made.refs[Number(id)];
    const found = told.get(`${machineId} ${key}`);
    return { number: found?.number ?? '', title: found?.item.title ?? '', wait: found?.item.wait ?? null };
  };
  const laidOut = (await solver.answer('layOut', made.job)) as readonly LaidOut[];
  return { laidOut, item: of, waits: laidOut.filter(({ id, start, end }) => of(id).wait !== null && end > start) };
}

/** A day after another, as a date that stands for itself. */
const nextDay = (day: string): Date => new Date(daysAfter(day, 1));

/**
 * The calendar of the shop as iCalendar: sessions as they are planned, what is waited for, and what is due. Sessions in UTC, so that they
 * are right when the clock is put forward or back; waits and what is due as whole days.
 */
export async function calendarText(shelf: Shelf, now = new Date()): Promise<string> {
  const [plan, due, begins] = await Promise.all([
    shopPlan(shelf, undefined, now.toISOString()),
    shopDue(shelf.sequelize, shelf.solver, now.toISOString()),
    beginnings(),
  ]);
  const { laidOut, item, waits } = await laidOutPlan(shelf, plan);
  const last = daysAfter(plan.today, AHEAD);
  const calendar = ical({ name: 'Isometra', prodId: { company: 'Isometra', product: 'Planner', language: 'EN' } });
  const stamp = now;
  // Sessions of the same people on one day follow one another.
  const taken = new Map<string, number>();
  for (const { date, crew, number, title, lines, minutes } of sessionsOf(laidOut, item)) {
    if (date > last) continue;
    const key = `${date} ${crew}`;
    const from = taken.get(key) ?? begins(date);
    taken.set(key, from + minutes);
    calendar.createEvent({
      ...{ id: uidOf(date, number, crew), stamp },
      ...{ start: clockOn(date, from, plan.timeZone), end: clockOn(date, from + minutes, plan.timeZone) },
      ...{ summary: `${number}: ${title}${lines.length > 1 ? ` and ${lines.length - 1} more` : ''}` },
      description: [crew, ...lines].filter(Boolean).join('\n'),
    });
  }
  for (const { id, start, end } of waits) {
    const { number, title } = item(id);
    calendar.createEvent({
      ...{ id: uidOf(number, title), stamp, allDay: true },
      ...{ start: new Date(start), end: nextDay(end), summary: `${number}: ${title}`, transparency: ICalEventTransparency.TRANSPARENT },
    });
  }
  for (const entry of dueIn(due, last))
    calendar.createEvent({
      ...{ id: uidOf(entry.path.join('/'), entry.title), stamp, allDay: true },
      ...{ start: new Date(entry.day), end: nextDay(entry.day), transparency: ICalEventTransparency.TRANSPARENT },
      summary: [entry.number, entry.title].filter(Boolean).join(': '),
    });
  return calendar.toString();
}

/** What is due; what was missed is due today. */
const dueIn = ({ today, items }: Due, last: string): Due['items'] =>
  items.filter(({ day }) => day <= last).map((entry) => (entry.day < today ? { ...entry, day: today } : entry));
