import {
  CHECKS,
  FaultError,
  faultsOf,
  MOVES,
  nearest,
  parseQuantity,
  readLimitSheet,
  readSheet,
  refuseDeep,
  type Fault,
  type LimitSheet,
} from '@isometra/core';
import { historySchema, type HistoryEntry, type HistoryMove, type MachineEvent } from '@isometra/contract';

/** A move of a history in base units. */
export interface ReadMove {
  readonly round: string;
  readonly quantity: string;
  readonly kind: string;
  readonly done: number;
  readonly turns?: number;
  readonly tightening?: number;
  readonly reached?: boolean;
}

/** One entry of a history, read. */
export interface ReadEntry {
  readonly at: string;
  /** Its own time, later than that of every entry before it. */
  readonly time: string;
  readonly id?: string;
  readonly round?: Readonly<Record<string, unknown>>;
  readonly move?: ReadMove;
  readonly event?: MachineEvent;
}

export interface ReadHistory {
  readonly machine: Readonly<Record<string, unknown>>;
  readonly limits?: LimitSheet;
  readonly entries: readonly ReadEntry[];
}

const KINDS = ['round', 'move', 'event'] as const;

/**
 * Read a history file: every entry by itself, every round as a sheet, every move by the round it follows.
 *
 * @throws FaultError with every fault at once.
 */
export function readHistory(raw: unknown): ReadHistory {
  refuseDeep(raw);
  const parsed = historySchema.safeParse(raw);
  if (!parsed.success) throw new FaultError(faultsOf(parsed.error, [], Object.keys(historySchema.shape)));
  const faults: Fault[] = [];
  const limits = limitsOf(parsed.data.limits, faults);
  const rounds = new Map<string, string>();
  let [time, before] = [0, -Infinity];
  const given = (raw as { readonly entries: readonly { readonly round?: Readonly<Record<string, unknown>> }[] }).entries;
  const entries = parsed.data.entries.map((entry, i): ReadEntry => {
    const path = `entries[${i}]`;
    const at = Date.parse(entry.at);
    if (at < before)
      faults.push({
        path: `${path}.at`,
        message: 'is earlier than the entry before it: put the entries in order of time',
        example: new Date(before).toISOString(),
      });
    before = at;
    // Entries of one moment keep their order.
    time = Math.max(at, time + 1);
    const told = KINDS.filter((kind) => entry[kind] !== undefined);
    if (told.length !== 1)
      faults.push({
        path,
        message: told.length ? `is ${told.join(' and ')}: one of them at a time` : 'is missing what happened: a round, a move or an event',
        example: '{ "at": …, "round": { … } }',
      });
    const base = { at: entry.at, time: new Date(time).toISOString() };
    if (entry.round) {
      const id = entry.id ?? `round ${i + 1}`;
      if (rounds.has(id)) faults.push({ path: `${path}.id`, message: `"${id}" is the name of an earlier round`, example: `r${i + 1}` });
      sheetFaults(given[i].round ?? entry.round, `${path}.round`, faults);
      rounds.set(id, String(entry.round['check']));
      return { ...base, id, round: entry.round };
    }
    if (entry.move) return { ...base, ...idOf(entry), move: readMove(entry.move, rounds, `${path}.move`, faults) };
    return { ...base, ...idOf(entry), ...(entry.event && { event: entry.event }) };
  });
  if (faults.length) throw new FaultError(faults);
  return { machine: (raw as { readonly machine: Record<string, unknown> }).machine, ...(limits && { limits }), entries };
}

const idOf = ({ id }: HistoryEntry) => (id === undefined ? {} : { id });

function limitsOf(raw: unknown, faults: Fault[]): LimitSheet | undefined {
  if (raw === undefined) return undefined;
  const { sheet, faults: found } = readLimitSheet(raw);
  faults.push(...found.map((fault) => ({ ...fault, path: fault.path ? `limits.${fault.path}` : 'limits' })));
  return sheet;
}

function sheetFaults(sheet: unknown, path: string, faults: Fault[]): void {
  try {
    readSheet(sheet);
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    faults.push(...error.faults.map((fault) => ({ ...fault, path: fault.path ? `${path}.${fault.path}` : path })));
  }
}

function readMove(move: HistoryMove, rounds: ReadonlyMap<string, string>, path: string, faults: Fault[]): ReadMove {
  const { round, quantity, kind, done, tightening, ...rest } = move;
  const check = CHECKS.get(rounds.get(round) ?? '');
  if (!rounds.has(round))
    faults.push({
      path: `${path}.round`,
      message: `"${round}" is no round before it`,
      example: nearest(round, [...rounds.keys()]) ?? [...rounds.keys()].at(-1) ?? 'r1',
    });
  const info = check?.quantities[quantity];
  if (check && !info)
    faults.push({
      path: `${path}.quantity`,
      message: `"${quantity}" is not told by ${check.id}; it tells ${Object.keys(check.quantities).join(', ')}`,
      example: nearest(quantity, Object.keys(check.quantities)) ?? Object.keys(check.quantities)[0],
    });
  if (!MOVES.has(kind))
    faults.push({
      path: `${path}.kind`,
      message: `"${kind}" is not a move; there are ${[...MOVES.keys()].join(', ')}`,
      example: nearest(kind, [...MOVES.keys()]) ?? 'adjuster',
    });
  const amount = (raw: string | number, key: string): number => {
    const parsed = info ? parseQuantity(raw, info.dimension, info.unit) : undefined;
    if (!parsed) return 0;
    if (parsed.ok && Math.abs(parsed.value) <= 1e7) return parsed.value;
    faults.push({
      path: `${path}.${key}`,
      message: parsed.ok ? 'is beyond any machine' : parsed.message,
      example: parsed.ok ? '21 um' : parsed.example,
    });
    return 0;
  };
  return {
    ...{ round, quantity, kind, ...rest },
    done: amount(done, 'done'),
    ...(tightening !== undefined && { tightening: amount(tightening, 'tightening') }),
  };
}
