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

/** What one lane has on one day. */
export interface Cell {
  readonly date: string;
  readonly pieces: readonly Piece[];
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

function cellOf(date: string, pieces: readonly Lying[]): Cell {
  const own = pieces.filter((piece) => piece.date === date);
  const minutes = own.reduce((sum, { worked }) => sum + worked, 0);
  return { date, pieces: own, hours: own.length ? minutesWords(minutes) : '' };
}

/**
 * A laid-out job as lanes, by person or by machine: days on which anybody works, and in each lane what is done on them.
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
  const days = [...new Set(pieces.map(({ date }) => date))].sort();
  return {
    days,
    lanes: lanes.map((id) => {
      const own = pieces.filter(({ lane }) => lane === id);
      return { id, cells: days.map((date) => cellOf(date, own)) };
    }),
  };
}
