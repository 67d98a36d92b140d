import { FaultError, nearest, type Fault } from '../faults.js';
import { adjuster } from './adjuster.js';
import { baseShims } from './baseShims.js';
import { eccentric } from './eccentric.js';
import { readMoveInput, type MoveDefinition, type MovePlan } from './define.js';
import { feet, feetShims, pull } from './feet.js';
import { bearingShims, gib } from './gib.js';
import { sineStack, stepScrape } from './scraping.js';
import { shimLeaves } from './shimLeaves.js';
import { supports } from './supports.js';
import { storedOffset } from './storedOffset.js';

const ALL: readonly MoveDefinition[] = [
  adjuster,
  shimLeaves,
  baseShims,
  eccentric,
  feet,
  feetShims,
  pull,
  stepScrape,
  sineStack,
  gib,
  bearingShims,
  storedOffset,
  supports,
];

/** Every move that can be worked out, by kind. */
export const MOVES: ReadonlyMap<string, MoveDefinition> = new Map(ALL.map((move) => [move.kind, move]));

export const MOVE_FORMAT = 'isometra-move/1';
export const PLAN_FORMAT = 'isometra-move-plan/1';

/**
 * Work out a move sheet (docs/sheets.md).
 *
 * @throws FaultError with every fault at once.
 */
export function planMove(raw: unknown): MovePlan {
  const faults: Fault[] = [];
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new FaultError([
      { path: '', message: 'must be a move sheet: an object', example: `{ "format": "${MOVE_FORMAT}", "move": "adjuster", … }` },
    ]);
  }
  const { format, move: kind, ...rest } = raw as Record<string, unknown>;
  if (format !== MOVE_FORMAT) faults.push({ path: 'format', message: `must be "${MOVE_FORMAT}"`, example: MOVE_FORMAT });
  const definition = typeof kind === 'string' ? MOVES.get(kind) : undefined;
  if (!definition) {
    faults.push({
      path: 'move',
      message: unknownMove(kind),
      example: (typeof kind === 'string' && nearest(kind, [...MOVES.keys()])) || 'adjuster',
    });
    throw new FaultError(faults);
  }
  const { input, faults: inputFaults } = readMoveInput(definition, rest, []);
  faults.push(...inputFaults);
  if (faults.length || !input) throw new FaultError(faults);
  return { format: PLAN_FORMAT, move: definition.kind, ...definition.plan(input) };
}

export function unknownMove(kind: unknown): string {
  const known = [...MOVES.keys()].join(', ');
  return typeof kind === 'string'
    ? `"${kind}" is not a move worked out here; there are ${known}`
    : `is missing: name the move, one of ${known}`;
}
