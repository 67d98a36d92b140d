import { minutesWords, type JobRef, type LaidOut } from '@isometra/work';

/** One piece of work in a lane on one day. */
export interface Piece {
  readonly machineId: string;
  readonly key: string;
  /** The other lane that it is in: the machine in the lane of a person, the people in the lane of a machine. */
  readonly beside: string;
  readonly title: string;
  readonly minutes: string;
  readonly path: readonly string[] | null;
}

/** Something that runs by the clock on a day: it needs nobody. */
export interface Wait extends Omit<Piece, 'minutes'> {
  /** The day on which it is over. */
  readonly until: string;
}

/** What one lane has on one day. */
export interface Cell {
  readonly date: string;
  readonly pieces: readonly Piece[];
  readonly waits: readonly Wait[];
  readonly hours: string;
}

export interface Lane {
  readonly id: string;
  readonly cells: readonly Cell[];
}

/** An item of a plan as a lane tells it. */
export interface Told {
  readonly number: string;
  readonly title: string;
  readonly path: readonly string[] | null;
}

/** One piece with where it lies. */
interface Lying extends Piece {
  readonly lane: string;
  readonly date: string;
  readonly worked: number;
}

/** The lane of what nobody works at, where lanes are those of people. */
export const WAITS = 'Waits';

/** A wait with the day on which it begins. */
interface Waiting extends Wait {
  readonly lane: string;
  readonly from: string;
}

function cellOf(date: string, pieces: readonly Lying[], waits: readonly Waiting[]): Cell {
  const own = pieces.filter((piece) => piece.date === date);
  const minutes = own.reduce((sum, { worked }) => sum + worked, 0);
  const here = waits.filter(({ from, until }) => from <= date && date <= until);
  return { date, pieces: own, waits: here, hours: own.length ? minutesWords(minutes) : '' };
}

/**
 * A laid-out job as lanes, by person or by machine: days on which anybody works, and in each lane what is done on them and what is waited
 * for. By person what is waited for has a lane of its own.
 *
 * @param told what an item is called, by its place in the job. @param lanes ids in their order; one that nothing lies in is shown as well.
 */
export function lanesOf(
  laidOut: readonly LaidOut[],
  refs: readonly JobRef[],
  {
    by,
    told,
    lanes,
  }: { readonly by: 'person' | 'machine'; readonly told: (ref: JobRef) => Told | undefined; readonly lanes: readonly string[] },
): { readonly days: readonly string[]; readonly lanes: readonly Lane[] } {
  const pieces = laidOut.flatMap(({ id, crew, days }): Lying[] => {
    const ref = refs[Number(id)];
    const item = told(ref);
    if (!item) return [];
    const own = by === 'person' ? crew : [item.number];
    const beside = by === 'person' ? item.number : crew.join(', ');
    return own.flatMap((lane) =>
      days.map(({ date, minutes }) => ({ ...ref, ...item, beside, lane, date, worked: minutes, minutes: minutesWords(minutes) })),
    );
  });
  const waits = laidOut.flatMap(({ id, start, end, days }): Waiting[] => {
    const ref = refs[Number(id)];
    const item = days.length === 0 && end > start ? told(ref) : undefined;
    if (!item) return [];
    const lane = by === 'person' ? WAITS : item.number;
    return [{ ...ref, ...item, beside: by === 'person' ? item.number : '', lane, from: start, until: end }];
  });
  const days = [...new Set(pieces.map(({ date }) => date))].sort();
  const all = by === 'person' && waits.length ? [WAITS, ...lanes] : lanes;
  return {
    days,
    lanes: all.map((id) => {
      const own = pieces.filter(({ lane }) => lane === id);
      const waiting = waits.filter(({ lane }) => lane === id);
      return { id, cells: days.map((date) => cellOf(date, own, waiting)) };
    }),
  };
}
