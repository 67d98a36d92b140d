import type { Machine } from '@isometra/contract';
import type { BoardPlate } from '@isometra/contract/board';

/** How a machine stands on the board, the most urgent first. */
export const STANDINGS = ['mine', 'due', 'work', 'open', 'done'] as const;
export type Standing = (typeof STANDINGS)[number];

export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  mine: 'Waiting for you',
  due: 'Due for a new check',
  work: 'In work',
  open: 'To be checked',
  done: 'Done',
};

/** Something was begun and not ended: a round, a move that is to be made, a face with passes left. */
const isBegun = ({ begun, next, faces }: BoardPlate): boolean =>
  begun.length > 0 || (next?.round ?? null) !== null || faces.some(({ left }) => left > 0);

/** Where a machine belongs: what somebody left half way waits for whoever was at it last. */
export function standingOf(plate: BoardPlate | undefined, who: string): Standing {
  if (!plate) return 'open';
  const begun = isBegun(plate);
  if (begun && who !== '' && plate.last?.by === who) return 'mine';
  if (plate.due.length) return 'due';
  if (begun) return 'work';
  return plate.next ? 'open' : 'done';
}

/** Machines on the board under one heading; none where they are few. */
export interface BoardGroup {
  readonly name: string;
  readonly rows: readonly { readonly machine: Machine; readonly place: number }[];
}

/** From so many machines on they stand in groups; fewer are seen at a glance. */
const MANY = 9;

/** The machines in the order in which the board shows them, each with its place on it. */
export function boardGroups(machines: readonly Machine[], standing: (machine: Machine) => Standing): readonly BoardGroup[] {
  if (machines.length <= MANY) return [{ name: '', rows: machines.map((machine, place) => ({ machine, place })) }];
  let place = 0;
  return STANDINGS.flatMap((name) => {
    const rows = machines.filter((machine) => standing(machine) === name).map((machine) => ({ machine, place: place++ }));
    return rows.length ? [{ name: STANDING_WORDS[name], rows }] : [];
  });
}
