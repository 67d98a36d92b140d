import { readsOf, type Correction, type Note, type QuantityInfo } from '../checks/define.js';
import { FaultError } from '../input/faults.js';
import type { Move, NeedleTarget, Quantity } from '../judging/finding.js';
import { dialFactor } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import type { MoveDefinition, MovePlan } from '../moves/define.js';
import { MOVE_FORMAT, MOVES, notFinite } from '../moves/registry.js';
import type { Said } from '../units/said.js';
import type { Sheet } from './sheet.js';

/** What the user wants done instead of what the round asks for: nearer although it is in, or what suits other places too. */
export interface WantedMove {
  /** How much, signed like the quantity, in its unit. */
  readonly amount: number;
  /** Whether metal may be taken or built up for it. Left out, it may where the round itself asks for it. */
  readonly metal?: boolean;
}

interface CorrectionInput {
  readonly sheet: Sheet;
  /** What the user wants of this quantity. */
  readonly wanted?: WantedMove;
  readonly name: string;
  readonly info: QuantityInfo;
  readonly quantity: Quantity;
  /** Aim − value of every quantity of the check; 0 for those that are in. */
  readonly amounts: Readonly<Record<string, number>>;
  readonly slots: readonly Slot[];
  /** All quantities of the round. */
  readonly wholes: Readonly<Record<string, Quantity>>;
}

/** A move that a round asks for as a file of its own (docs/sheets.md, Moves): bare numbers are in base units. */
export interface MoveFile {
  readonly format: typeof MOVE_FORMAT;
  readonly move: string;
  readonly [input: string]: unknown;
}

interface Planned {
  readonly moves: readonly Move[];
  readonly notes: readonly Note<Said>[];
  /** What each of the moves that have arithmetic of their own was worked out from. */
  readonly files: ReadonlyMap<Move, MoveFile>;
}

const NOTHING: Planned = { moves: [], notes: [], files: new Map() };

/** What may be done about a quantity; nothing where it is no part of anything in this set-up: a side pair on a slide that leans. */
function correctionOf({ sheet: { check, setup }, name, slots }: CorrectionInput): Correction | undefined {
  if (check.partOf && check.partOf(name, setup) === undefined) return undefined;
  return check.asRead?.(name, slots)?.correction ?? check.corrections[name];
}

/**
 * The moves that bring one quantity to its aim, or a note why it is better left alone.
 * Amounts are aim − value, signed like the quantity. Metal comes off only on *out*; what waits has no move.
 *
 * @throws FaultError when the hardware given lacks something the plan needs.
 */
export function planCorrection(input: CorrectionInput): Planned {
  const { sheet, name, info, quantity } = input;
  const correction = correctionOf(input);
  if (!correction || quantity.because) return NOTHING;
  if (quantity.limit === null) return planPart(input, correction);
  if (quantity.aim === null) return NOTHING;
  const amount = input.wanted?.amount ?? quantity.aim - leastValue(quantity);
  const leave = leaveNote(input, quantity.aim, amount);
  if (leave || amount === 0) return { ...NOTHING, notes: leave ? [leave] : [] };
  const kinds = kindsFor(correction, amount).filter(({ kind, ifEquipped }) => !ifEquipped || sheet.hardware[kind] !== undefined);
  if (kinds.length === 0) return NOTHING;
  const allowed = (input.wanted?.metal ?? quantity.verdict === 'out') ? kinds : kinds.filter((kind) => !kind.metal);
  if (allowed.length === 0) return { ...NOTHING, notes: [metalWaits(name, info)] };
  const planned = chosenOf(allowed, sheet).map((kind) => planMoveOf(kind, { ...input, amount, direction: directionOfMove(info, amount) }));
  return { ...together(planned), notes: planned.flatMap(({ notes }) => notes) };
}

/** Several moves with their files. */
const together = (planned: readonly PlannedMove[]): Pick<Planned, 'moves' | 'files'> => ({
  moves: planned.map(({ move }) => move),
  files: new Map(planned.flatMap(({ move, file }) => (file ? [[move, file]] : []))),
});

/** Why it is left alone: nothing is to be done, or nothing can be taken out where it is least. What the user wants is not called needless. */
function leaveNote({ name, info, quantity, wanted }: CorrectionInput, aim: number, amount: number): Note<Said> | undefined {
  const needless = wanted ? undefined : reasonToLeave(name, info, quantity, amount);
  const uneven = leastOf(quantity) !== undefined && quantity.value > aim && amount >= 0;
  return needless ?? (uneven ? unevenNote(name, info) : undefined);
}

/** The kinds of move that take a quantity up, or down. */
const kindsFor = ({ plus, minus }: Correction, amount: number): MoveDefinition[] =>
  (amount > 0 ? plus : minus).flatMap((kind) => MOVES.get(kind) ?? []);

/** All that the sheet has hardware for. What wants nothing but a hand comes first where the check names it first, whatever lies in the drawer. */
function chosenOf(allowed: readonly MoveDefinition[], sheet: Sheet): readonly MoveDefinition[] {
  const equipped = allowed.filter((kind) => sheet.hardware[kind.kind] !== undefined);
  const byHand = allowed[0].plan ? [] : [allowed[0]];
  return equipped.length ? [...new Set([...byHand, ...equipped])] : allowed.slice(0, 1);
}

const directionOfMove = ({ words }: QuantityInfo, amount: number): string => (words ? (amount > 0 ? words.movePlus : words.moveMinus) : '');

/** The move of a part of a size that is out: what of it lies along a slide, or square to it. Nothing that its doubt could be. */
function planPart({ sheet, name, info, quantity, wholes, ...rest }: CorrectionInput, correction: Correction): Planned {
  const of = sheet.check.partOf?.(name, sheet.setup) ?? '';
  const whole = wholes[of];
  const size = Math.abs(quantity.value);
  const doubt = quantity.expanded ?? 0;
  if (whole?.verdict !== 'out' || whole.because || size <= doubt) return NOTHING;
  // What would be in by itself stays as it is, once the largest part has been put right.
  const parts = Object.keys(wholes).filter((part) => sheet.check.partOf?.(part, sheet.setup) === of);
  const largest = parts.every((part) => Math.abs(wholes[part].value) <= size);
  if (!largest && size + doubt <= (whole.limit?.[1] ?? 0)) return NOTHING;
  const amount = -quantity.value;
  const context = { ...rest, sheet, name, info, quantity, wholes, amount, direction: directionOfMove(info, amount) };
  const planned = kindsFor(correction, amount)
    .slice(0, 1)
    .map((kind) => planMoveOf(kind, context));
  return { ...together(planned), notes: [] };
}

/** The least of several values that one move changes alike: a shim comes out of all of a turn, so that the tightest place decides. */
const leastOf = ({ detail }: Quantity): number | undefined => (typeof detail?.['least'] === 'number' ? detail['least'] : undefined);

const leastValue = (quantity: Quantity): number => leastOf(quantity) ?? quantity.value;

const unevenNote = (name: string, info: QuantityInfo): Note => ({
  code: 'uneven-lift',
  severity: 'warning',
  quantity: name,
  text: `${info.label} changes over the turn, and at its tightest place there is nothing to take out. An oval journal or bearing is not cured by shims: find which one it is first.`,
});

const metalWaits = (name: string, info: QuantityInfo): Note => ({
  code: 'metal-waits',
  severity: 'info',
  quantity: name,
  text: `${info.label} is too close to call, and metal cannot be put back: read finer first. Repeat readings, a finer dial or another set-up will settle it.`,
});

function reasonToLeave(name: string, info: QuantityInfo, quantity: Quantity, amount: number): Note<Said> | undefined {
  const code = 'not-worth-moving';
  if (quantity.verdict === 'in') {
    return { code, severity: 'info', quantity: name, text: `${info.label} is in. Leave it alone: every move can upset something.` };
  }
  const { expanded } = quantity;
  if (expanded !== null && Math.abs(amount) < expanded) {
    return {
      code,
      severity: 'info',
      quantity: name,
      text: (size) =>
        `${info.label}: the move would be smaller than the doubt of the reading (±${size(expanded, info.dimension, expanded)}). Moving it would be guessing; read it finer first.`,
    };
  }
  return undefined;
}

interface PlanContext extends CorrectionInput {
  readonly amount: number;
  readonly direction: string;
}

interface PlannedMove {
  readonly move: Move;
  readonly notes: readonly Note<Said>[];
  readonly file?: MoveFile;
}

function planMoveOf(
  definition: MoveDefinition,
  { sheet, name, info, quantity, wanted, amounts, amount, direction, slots }: PlanContext,
): PlannedMove {
  const { kind } = definition;
  const given = sheet.hardware[kind];
  const needle = needleTarget(sheet, name, amount, slots);
  const base = { kind, quantity: name, amount, unit: info.unit, direction, ...(needle && { indicator: needle }) };
  if (!definition.plan || !given) return { move: base, notes: [] };
  const converted = sheet.check.amountFor?.(kind, amount, sheet.setup, slots, name);
  const key = keyFor(definition, info, converted);
  const value = leastValue(quantity);
  const facts = { quantity: name, value, aim: wanted ? value + amount : (quantity.aim ?? 0), amounts, given };
  const filled: Record<string, unknown> = { ...given, ...definition.fill?.(facts) };
  if (lacksDistance(definition, key, filled)) return { move: base, notes: [distanceNote(definition, name, info)] };
  const asked = converted ?? amount;
  if (key) filled[key] = definition.signed ? asked : Math.abs(asked);
  const move = { ...planOf(definition, filled), ...base };
  // The change of a register is worked out from what is typed at the control.
  if (definition.panel === 'register') return { move, notes: [] };
  return { move, notes: [], file: { format: MOVE_FORMAT, move: kind, ...filled } };
}

/** An angle is no amount until the distance it acts over is known. */
function lacksDistance(
  { slopeKey, twistKey, overKey }: MoveDefinition,
  key: string | undefined,
  filled: Readonly<Record<string, unknown>>,
): boolean {
  return key !== undefined && [slopeKey, twistKey].includes(key) && overKey !== undefined && filled[overKey] === undefined;
}

/** The plan of a move. @throws FaultError with paths under `hardware`. */
function planOf({ kind, input, plan, example }: MoveDefinition, filled: Record<string, unknown>): MovePlan | undefined {
  const missing = Object.keys(input.shape).filter((part) => filled[part] === undefined && !input.shape[part].safeParse(undefined).success);
  if (missing.length) {
    throw new FaultError(
      missing.map((part) => ({
        path: `hardware.${kind}.${part}`,
        message: `is missing: the plan of this move needs it`,
        example: String(example?.[part] ?? '1'),
      })),
    );
  }
  try {
    const planned = plan?.(filled);
    const odd = planned && notFinite(planned);
    if (odd !== undefined)
      throw new FaultError([{ path: odd, message: 'does not come out as a finite number', example: 'figures of a machine' }]);
    return planned;
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    throw new FaultError(error.faults.map((fault) => ({ ...fault, path: `hardware.${kind}.${fault.path}` })));
  }
}

/** The input of a move that a correction fills in, by what it is a measure of; a check may have turned it into an amount. */
function keyFor(definition: MoveDefinition, info: QuantityInfo, converted: number | undefined): string | undefined {
  if (converted !== undefined) return definition.amountKey;
  if (info.dimension === 'slope') return definition.slopeKey ?? definition.amountKey;
  if (info.dimension === 'twist') return definition.twistKey ?? definition.amountKey;
  return definition.amountKey;
}

function distanceNote({ kind, overKey }: MoveDefinition, name: string, info: QuantityInfo): Note<Said> {
  const text: Said = (size) =>
    `${info.label}: the move is an angle. The distance it acts over (for example ${size(320, 'length')}; hardware.${kind}.${overKey} of a sheet) gives it as a thickness or as turns.`;
  return { code: 'distance-missing', severity: 'info', quantity: name, text };
}

/** What the needle must go to: from where it stands now, by the amount, in divisions of the instrument. */
function needleTarget(sheet: Sheet, name: string, amount: number, slots: readonly Slot[]): NeedleTarget | undefined {
  const { instrument, check, setup } = sheet;
  const watch = check.watch?.(name, setup, slots);
  if (!watch) return undefined;
  const sized = readsOf(check, setup) !== 'indicator' || !instrument;
  const division = sized ? 1 : dialFactor(instrument) * instrument.graduation;
  const now = watch.now === 0 ? 0 : watch.now / division;
  return { now, target: now + (watch.sense * watch.scale * amount) / division, unit: sized ? 'um' : 'div', where: watch.where };
}
