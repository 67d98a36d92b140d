import { WEEKDAYS, type Job } from '@isometra/contract';
import { dayBegins, daysAfter, daysBetween, weekdayOf } from '../notebook/dates.js';

const MINUTE = 60_000;
/** Days that are looked ahead at most: forty years. */
export const HORIZON = 14_610;

/** Minutes in which some people and things are all there, by the day of the job. */
export type Hours = (day: number) => number;

/** The days of a job: when each begins by the clock of its place, and who works how long on it. */
export class Calendar {
  private readonly begins: number[] = [];
  private readonly weekday: number;
  private readonly offDays = new Map<string, ReadonlySet<number>>();

  constructor(private readonly job: Job) {
    this.weekday = weekdayOf(job.start);
    for (const { id, off } of [...job.people, ...job.things]) this.offDays.set(id, new Set(off.map((date) => this.dayOf(date))));
  }

  /** The number of a date, counted from the first day of the job. */
  private dayOf(date: string): number {
    return daysBetween(this.job.start, date);
  }

  /** When a date begins, ms. */
  beginOf(date: string): number {
    return dayBegins(date, this.job.timeZone).getTime();
  }

  /** When the day of that number begins, ms. */
  begin(day: number): number {
    while (this.begins.length <= day) this.begins.push(dayBegins(this.job.start, this.job.timeZone, this.begins.length).getTime());
    return this.begins[day];
  }

  /** The number of the day that a time is on; the first day for what lies before it. */
  at(time: number): number {
    if (time < this.begin(0)) return 0;
    // Days are 23 to 25 hours long: the guess is one off at most for every half year.
    let day = Math.max(0, Math.floor((time - this.begin(0)) / 86_400_000) - 1);
    while (this.begin(day + 1) <= time) day++;
    while (day > 0 && this.begin(day) > time) day--;
    return day;
  }

  /** The date of the day of that number. */
  date(day: number): string {
    return daysAfter(this.job.start, day);
  }

  /** The hours that some people share on days on which none of them, and none of the things, is off. */
  hoursOf(people: readonly string[], things: readonly string[]): Hours {
    const members = this.job.people.filter(({ id }) => people.includes(id));
    const away = [...people, ...things].map((id) => this.offDays.get(id));
    const known: number[] = [];
    return (day) => {
      known[day] ??= away.some((days) => days?.has(day))
        ? 0
        : Math.min(...members.map(({ hours }) => (hours[WEEKDAYS[(this.weekday + day) % 7]] ?? 0) * 60));
      return known[day];
    };
  }

  /** Whether they ever work together. */
  everTogether(people: readonly string[]): boolean {
    const members = this.job.people.filter(({ id }) => people.includes(id));
    return WEEKDAYS.some((weekday) => members.every(({ hours }) => (hours[weekday] ?? 0) > 0));
  }

  /** The days on which something from a time to a time is worked at, with its minutes. @param hours undefined: by the clock. */
  daysBetween(start: number, end: number, hours: Hours | undefined): readonly { readonly date: string; readonly minutes: number }[] {
    const days: { readonly date: string; readonly minutes: number }[] = [];
    for (let day = this.at(start); this.begin(day) < end; day++) {
      const last = hours ? this.begin(day) + hours(day) * MINUTE : this.begin(day + 1);
      const minutes = (Math.min(end, last) - Math.max(start, this.begin(day))) / MINUTE;
      if (minutes > 0) days.push({ date: this.date(day), minutes });
    }
    return days;
  }

  /**
   * Work of so many minutes begun no earlier than a time: from the beginning of their hours each day, carried on over as many days as it
   * takes. @returns undefined where it is not done within the horizon.
   */
  work(from: number, minutes: number, hours: Hours): { readonly start: number; readonly end: number } | undefined {
    let [left, start] = [minutes * MINUTE, NaN];
    for (let day = this.at(from); day < HORIZON; day++) {
      const begin = Math.max(from, this.begin(day));
      const room = this.begin(day) + hours(day) * MINUTE - begin;
      if (room <= 0) continue;
      if (Number.isNaN(start)) start = begin;
      if (left <= room) return { start, end: begin + left };
      left -= room;
    }
    return undefined;
  }
}
