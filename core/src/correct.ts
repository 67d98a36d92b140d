import { prettyUnit } from './units/format.js';
import { valueKindOf, type Note, type QuantityInfo } from './checks/define.js';
import { FaultError } from './faults.js';
import type { Move, NeedleTarget, Quantity } from './finding.js';
import { dialFactor } from './instruments/instrument.js';
import type { Slot } from './instruments/slots.js';
import type { MoveKind } from './moves/kinds.js';
import { MOVES } from './moves/registry.js';
import type { Sheet } from './sheet.js';

interface CorrectionInput {
  readonly sheet: Sheet;
  readonly name: string;
  readonly info: QuantityInfo;
  readonly quantity: Quantity;
  readonly trusted: boolean;
  /** Aim − value of every quantity of the check; 0 for those that are in. */
  readonly amounts: Readonly<Record<string, number>>;
  readonly slots: readonly Slot[];
}

/**
 * The moves that bring one quantity to its aim, or a note why it is better left alone.
 * Amounts are aim − value, signed like the quantity.
 *
 * @throws FaultError when the hardware given lacks something the plan needs.
 */
export function planCorrection({ sheet, name, info, quantity, trusted, slots, amounts }: CorrectionInput): {
  moves: Move[];
  notes: Note[];
} {
  const correction = sheet.check.corrections[name];
  if (!correction || quantity.aim === null || quantity.limit === null || !trusted) return { moves: [], notes: [] };
  const amount = quantity.aim - quantity.value;
  const leave = reasonToLeave(name, info, quantity, amount);
  if (leave) return { moves: [], notes: [leave] };
  const kinds = amount > 0 ? correction.plus : correction.minus;
  const equipped = kinds.filter((kind) => sheet.hardware[kind] !== undefined);
  const direction = info.words ? (amount > 0 ? info.words.movePlus : info.words.moveMinus) : '';
  const chosen = equipped.length ? equipped : kinds.slice(0, 1);
  const context: PlanContext = { sheet, name, info, quantity, amounts, amount, direction, slots };
  const planned = chosen.map((kind) => planMoveOf(kind, context));
  return { moves: planned.map(({ move }) => move), notes: planned.flatMap(({ notes }) => notes) };
}

function reasonToLeave(name: string, info: QuantityInfo, quantity: Quantity, amount: number): Note | undefined {
  const code = 'not-worth-moving';
  if (quantity.verdict === 'in') {
    return { code, severity: 'info', quantity: name, text: `${info.label} is in. Leave it alone: every move can upset something.` };
  }
  if (quantity.expanded !== null && Math.abs(amount) < quantity.expanded) {
    return {
      code,
      severity: 'info',
      quantity: name,
      text: `${info.label}: the move would be smaller than the doubt of the reading (±${quantity.expanded.toFixed(1)} ${prettyUnit(quantity.unit)}). Moving it would be guessing; read it finer first.`,
    };
  }
  return undefined;
}

interface PlanContext {
  readonly sheet: Sheet;
  readonly name: string;
  readonly info: QuantityInfo;
  readonly quantity: Quantity;
  readonly amounts: Readonly<Record<string, number>>;
  readonly amount: number;
  readonly direction: string;
  readonly slots: readonly Slot[];
}

function planMoveOf(
  kind: MoveKind,
  { sheet, name, info, quantity, amounts, amount, direction, slots }: PlanContext,
): { readonly move: Move; readonly notes: readonly Note[] } {
  const definition = MOVES.get(kind);
  const given = sheet.hardware[kind];
  const needle = needleTarget(sheet, name, amount, slots);
  const base = { kind, quantity: name, amount, unit: info.unit, direction, ...(needle && { indicator: needle }) };
  if (!definition || !given) return { move: base, notes: [] };
  const converted = sheet.check.amountFor?.(kind, amount, sheet.setup, slots, name);
  // Where nothing turned an angle into an amount the move is given the angle, and needs the distance it acts over.
  const slopeKey = converted === undefined && info.dimension === 'slope' ? definition.slopeKey : undefined;
  if (slopeKey && definition.input.shape['over'] && given['over'] === undefined)
    return { move: base, notes: [distanceNote(kind, name, info)] };
  const facts = { quantity: name, value: quantity.value, aim: quantity.aim ?? 0, amounts, given };
  const filled: Record<string, unknown> = { ...given, ...definition.fill?.(facts) };
  const key = slopeKey ?? definition.amountKey;
  const wanted = converted ?? amount;
  if (key) filled[key] = definition.signed ? wanted : Math.abs(wanted);
  const missing = Object.keys(definition.input.shape).filter(
    (key) => filled[key] === undefined && !definition.input.shape[key].safeParse(undefined).success,
  );
  if (missing.length) {
    throw new FaultError(
      missing.map((key) => ({
        path: `hardware.${kind}.${key}`,
        message: `is missing: the plan of this move needs it`,
        example: EXAMPLES[key] ?? '1',
      })),
    );
  }
  try {
    return { move: { ...definition.plan(filled), ...base }, notes: [] };
  } catch (error) {
    if (!(error instanceof FaultError)) throw error;
    throw new FaultError(error.faults.map((fault) => ({ ...fault, path: `hardware.${kind}.${fault.path}` })));
  }
}

function distanceNote(kind: MoveKind, name: string, info: QuantityInfo): Note {
  const text = `${info.label}: the move is an angle. Give hardware.${kind}.over, the distance it acts over (for example 320 mm), to have it as a thickness or as turns.`;
  return { code: 'distance-missing', severity: 'info', quantity: name, text };
}

const EXAMPLES: Readonly<Record<string, string>> = {
  pitch: '1.5 mm',
  throw: '0.4 mm',
  angle: '0 deg',
  stock: '[{ "thickness": "0.05 mm", "count": 4 }]',
  length: '160 mm',
  over: '320 mm',
};

/** What the needle must go to: from where it stands now, by the amount, in divisions of the instrument. */
function needleTarget(sheet: Sheet, name: string, amount: number, slots: readonly Slot[]): NeedleTarget | undefined {
  const { instrument, check, setup } = sheet;
  const watch = check.watch?.(name, setup, slots);
  if (!watch) return undefined;
  const sized = valueKindOf(check, setup) !== 'indicator' || !instrument;
  const division = sized ? 1 : dialFactor(instrument) * instrument.graduation;
  const now = watch.now === 0 ? 0 : watch.now / division;
  return { now, target: now + (watch.sense * watch.scale * amount) / division, unit: sized ? 'um' : 'div', where: watch.where };
}
