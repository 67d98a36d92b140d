import type { Job, JobItem } from '@isometra/contract';
import { Calendar, type Hours } from './calendar.js';
import { crews } from './crews.js';

const HOUR = 3_600_000;

/** An item as it was scheduled, ms; and the place of the item whose end it had to wait for, -1 where there was none. */
export interface Placed {
  readonly start: number;
  readonly end: number;
  readonly cause: number;
  /** Who does it. */
  readonly crew: readonly string[];
}

interface Busy {
  readonly start: number;
  readonly end: number;
  readonly item: number;
}

/** One way to do an item: what it takes hold of, and when those are there. */
interface Way {
  readonly crew: readonly string[];
  readonly holds: readonly number[];
  readonly hours: Hours | undefined;
}

interface Ready {
  readonly after: readonly number[];
  readonly earliest: number;
  readonly ways: readonly Way[];
  readonly item: JobItem;
}

/** An item that is not done within the horizon. */
export class NeverDone extends Error {
  constructor(readonly item: number) {
    super('never done');
  }
}

/**
 * Serial schedule generation: items in the order given, each as soon as everything that it needs is free. What can be known before any
 * duration is drawn is worked out once.
 */
export class Scheduler {
  private readonly calendar: Calendar;
  private readonly items: readonly Ready[];
  /** In which items are taken: the order given, each after what it comes after. */
  readonly order: readonly number[];
  private readonly holders: number;

  constructor(job: Job) {
    this.calendar = new Calendar(job);
    const places = new Map(job.items.map(({ id }, i) => [id, i]));
    const holders = new Map<string, number>();
    const hold = (kind: string, id: string): number => {
      const key = `${kind} ${id}`;
      if (!holders.has(key)) holders.set(key, holders.size);
      return holders.get(key) ?? 0;
    };
    this.items = job.items.map((item): Ready => {
      const things = item.things ?? [];
      const held = [...things.map((id) => hold('thing', id)), ...(item.machine === undefined ? [] : [hold('machine', item.machine)])];
      return {
        item,
        after: (item.after ?? []).map((id) => places.get(id) ?? -1),
        earliest: Math.max(this.calendar.begin(0), item.notBefore === undefined ? 0 : this.calendar.beginOf(item.notBefore)),
        // A crew that never works on one day does nothing.
        ways: crews(job, item)
          .filter((crew) => crew.length === 0 || this.calendar.everTogether(crew))
          .map((crew) => ({
            crew,
            holds: [...crew.map((id) => hold('person', id)), ...held],
            hours: crew.length ? this.calendar.hoursOf(crew, things) : undefined,
          })),
      };
    });
    this.holders = holders.size;
    this.order = orderOf(this.items);
  }

  /** What each holder is busy with in the schedule that is being made, in order. */
  private busy: Busy[][] = [];

  /** The schedule for so many minutes of each item (hours of a wait are its own). @throws NeverDone */
  run(minutes: readonly number[]): readonly Placed[] {
    this.busy = Array.from({ length: this.holders }, () => []);
    const placed: Placed[] = [];
    for (const at of this.order) {
      const { after, earliest, ways } = this.items[at];
      let [from, cause] = [earliest, -1];
      for (const before of after) {
        if (placed[before].end < from || (cause >= 0 && placed[before].end === from)) continue;
        from = placed[before].end;
        cause = before;
      }
      let best: Placed | undefined;
      let chosen: Way | undefined;
      for (const way of ways) {
        const found = this.earliest(at, minutes[at], way, { start: from, end: from, cause, crew: way.crew });
        if (best && (found.start > best.start || (found.start === best.start && found.end >= best.end))) continue;
        best = found;
        chosen = way;
      }
      if (!best || !chosen) throw new NeverDone(at);
      placed[at] = best;
      for (const holder of chosen.holds) insert(this.busy[holder], { start: best.start, end: best.end, item: at });
    }
    return placed;
  }

  /**
   * The earliest that one way of doing an item is free for the whole of it. What a holder is busy with never overlaps and stands in order:
   * each is gone through once. A gap that is shorter than the work itself is passed without a look at the hours.
   */
  private earliest(at: number, minutes: number, { crew, holds, hours }: Way, ready: Placed): Placed {
    const { busy } = this;
    const next = holds.map((holder) => firstAfter(busy[holder], ready.start));
    const least = minutes * 60_000;
    let [from, cause] = [ready.start, ready.cause];
    for (;;) {
      const near = inTheWay(busy, holds, next, from, from + least);
      if (near) {
        from = near.end;
        cause = near.item;
        continue;
      }
      const span = this.span(at, from, minutes, hours);
      if (!span) throw new NeverDone(at);
      const held = inTheWay(busy, holds, next, span.start, span.end);
      if (!held) return { start: span.start, end: span.end, cause, crew };
      from = held.end;
      cause = held.item;
    }
  }

  private span(
    at: number,
    from: number,
    minutes: number,
    hours: Hours | undefined,
  ): { readonly start: number; readonly end: number } | undefined {
    const { wait } = this.items[at].item;
    if (wait) return { start: from, end: from + wait.hours * HOUR };
    return hours ? this.calendar.work(from, minutes, hours) : { start: from, end: from + minutes * 60_000 };
  }

  /** The days on which an item is worked at, each with its minutes; of a wait, none. */
  daysOf(at: number, { start, end, crew }: Placed): readonly { readonly date: string; readonly minutes: number }[] {
    const { things = [], wait } = this.items[at].item;
    return wait ? [] : this.calendar.daysBetween(start, end, crew.length ? this.calendar.hoursOf(crew, things) : undefined);
  }

  /** The dates of a start and of an end: what ends with its day belongs to it. */
  startDate = (time: number): string => this.calendar.date(this.calendar.at(time));
  endDate = (time: number): string => this.calendar.date(this.calendar.at(time - 1));

  /** What can be begun on the first day on which anybody who is needed works. */
  first(): readonly string[] {
    const limit = 400;
    for (let day = 0; day < limit; day++) {
      const begin = this.calendar.begin(day);
      const able = this.items.filter(
        ({ after, earliest, ways }) =>
          after.length === 0 && earliest <= begin && ways.some(({ hours }) => hours === undefined || hours(day) > 0),
      );
      if (
        able.some(({ ways }) => ways.some(({ hours }) => hours !== undefined)) ||
        this.items.every(({ ways }) => ways.every(({ hours }) => !hours))
      )
        return able.map(({ item }) => item.id);
    }
    return [];
  }
}

/** The place of the first of what a holder is busy with that ends after a time. */
function firstAfter(list: readonly Busy[], time: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (list[middle].end <= time) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Put one in its place. */
function insert(list: Busy[], one: Busy): void {
  let at = list.length;
  while (at > 0 && list[at - 1].start > one.start) at--;
  list.splice(at, 0, one);
}

/** What stands in the way between two times, of what ends first; `next` moves on past what has ended before. */
function inTheWay(
  busy: readonly (readonly Busy[])[],
  holds: readonly number[],
  next: number[],
  start: number,
  end: number,
): Busy | undefined {
  let found: Busy | undefined;
  for (let i = 0; i < holds.length; i++) {
    const list = busy[holds[i]];
    let k = next[i];
    while (k < list.length && list[k].end <= start) k++;
    next[i] = k;
    if (k < list.length && list[k].start < end && (!found || list[k].end < found.end)) found = list[k];
  }
  return found;
}

function orderOf(items: readonly Ready[]): readonly number[] {
  const order: number[] = [];
  const taken = new Set<number>();
  while (order.length < items.length) {
    const next = items.findIndex(({ after }, i) => !taken.has(i) && after.every((before) => taken.has(before)));
    if (next < 0) break;
    taken.add(next);
    order.push(next);
  }
  return order;
}
