import { nearest, type Fault } from '../input/faults.js';
import { readMoveInput } from '../moves/define.js';
import { MOVES, unknownMove } from '../moves/registry.js';

/** What a file holds before it has been read. */
export type Raw = Record<string, unknown>;
export const isObject = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);

type ReadInput = ReturnType<typeof readMoveInput>;
/** Screws of a machine stay the same object from key to key: read once, told from then on. */
const knownHardware = new WeakMap<object, Map<string, ReadInput>>();

function readOnce(definition: Parameters<typeof readMoveInput>[0], value: Record<string, unknown>, kind: string): ReadInput {
  const known = knownHardware.get(value) ?? new Map<string, ReadInput>();
  const read = known.get(kind) ?? readMoveInput(definition, value, ['hardware', kind], true);
  knownHardware.set(value, known.set(kind, read));
  return read;
}

/** The inputs of moves that a sheet tells, in base units; faults are added to `faults`. */
export function readHardware(raw: unknown, faults: Fault[]): Record<string, Raw> {
  const hardware: Record<string, Raw> = {};
  if (raw === undefined) return hardware;
  if (!isObject(raw)) {
    faults.push({ path: 'hardware', message: 'must be an object of move kinds', example: '{ "adjuster": { "pitch": 1.5 } }' });
    return hardware;
  }
  for (const [kind, value] of Object.entries(raw)) {
    const definition = MOVES.get(kind);
    if (!definition) {
      faults.push({ path: `hardware.${kind}`, message: unknownMove(kind), example: nearest(kind, [...MOVES.keys()]) ?? 'adjuster' });
    } else if (!isObject(value)) {
      faults.push({ path: `hardware.${kind}`, message: 'must be an object', example: '{ "pitch": 1.5 }' });
    } else {
      const read = readOnce(definition, value, kind);
      faults.push(...read.faults);
      if (read.input) hardware[kind] = read.input;
    }
  }
  return hardware;
}
