import {
  CHECKS,
  FaultError,
  SHEET_FORMAT,
  judgedBy,
  parseQuantity,
  solve,
  type AxisEffect,
  type Fault,
  type Finding,
  type LimitSheet,
} from '@isometra/core';
import { machineCardSchema, type MachineCardText } from './machine.js';
import type { ReadingWrite, RoundWrite } from './round.js';

/**
 * The readings that count: each superseded one gives its place to the one that superseded it,
 * withdrawn ones are left out. Order is that of the first taking.
 */
export function standingReadings<R extends Pick<ReadingWrite, 'id' | 'supersedes' | 'value'>>(readings: readonly R[]): R[] {
  const replacement = new Map<string, R>();
  for (const reading of readings) if (reading.supersedes) replacement.set(reading.supersedes, reading);
  return readings
    .filter((reading) => !reading.supersedes)
    .map((reading) => {
      let standing = reading;
      for (let next = replacement.get(standing.id); next; next = replacement.get(standing.id)) standing = next;
      return standing;
    })
    .filter((reading) => reading.value !== null);
}

/** Shop facts that a plan of moves needs. */
export interface ShopFacts {
  readonly card?: MachineCardText;
  readonly stock?: readonly unknown[];
  /** Learned gain of the sideways adjuster, when it was accepted. */
  readonly gain?: number | null;
  /** The limit sheet of the survey; the catalogue's zones where there is none. */
  readonly limits?: LimitSheet;
  /** What planned changes will do: zones and aims of what follows the axis shift by minus that. */
  readonly pending?: AxisEffect;
}

/** The hardware of a sheet from a machine card and the shim drawer. */
export function hardwareOf({ card, stock, gain }: ShopFacts): Record<string, unknown> {
  const parsed = card && machineCardSchema.safeParse(card);
  const known = parsed?.success ? parsed.data : undefined;
  return {
    ...(known?.adjuster && { adjuster: { pitch: known.adjuster.pitch, ...(gain && { gain }) } }),
    ...(known?.eccentric && !known.adjuster && { eccentric: { throw: known.eccentric.throw, angle: known.eccentric.angle } }),
    ...(known?.feet && { feet: { ...known.feet, ...(gain && { gain }) } }),
    ...(known?.feet && { 'feet-shims': { track: known.feet.track, stock } }),
    ...(known?.jacks && { pull: { ...known.jacks, offset: 0 } }),
    ...(known?.capShims && { 'bearing-shims': known.capShims }),
    ...(stock && { 'shim-leaves': { stock } }),
  };
}

/** The sheet of a round: the same that a person would write by hand. */
export function sheetOf(
  round: Pick<RoundWrite, 'check' | 'setup' | 'instrument' | 'conditions'>,
  readings: readonly Pick<ReadingWrite, 'id' | 'supersedes' | 'value' | 'keys' | 'set'>[],
  facts: ShopFacts = {},
): Record<string, unknown> {
  const standing = standingReadings(readings);
  return {
    format: SHEET_FORMAT,
    check: round.check,
    ...(round.instrument && { instrument: frozenCopy(round.instrument) }),
    setup: round.setup,
    readings: standing.map((reading) => sheetReading(reading, round.conditions)),
    ...(facts.limits && zonesOf(facts.limits, round, standing, facts.pending)),
    hardware: { ...hardwareOf(facts), ...castingOf(round.check, facts.card) },
  };
}

/** The faces that a check's casting sits on, for the plan of its correction. */
function castingOf(checkId: string, card: MachineCardText | undefined): Record<string, unknown> {
  const parsed = card && machineCardSchema.safeParse(card);
  const casting = parsed?.success ? parsed.data.castings?.find((entry) => entry.id === CHECKS.get(checkId)?.casting) : undefined;
  if (!casting) return {};
  const { frame, origin, supports, watch } = casting;
  return { supports: { frame, origin, supports, watch } };
}

/** Places (`at`) of readings as typed, mm. */
export function placesRead(readings: readonly Pick<ReadingWrite, 'keys'>[]): number[] {
  return readings.flatMap(({ keys }) => {
    const at = keys['at'] === undefined ? undefined : parseQuantity(keys['at'], 'length');
    return at?.ok ? [at.value] : [];
  });
}

/** Limits and aims of a sheet, from the limit sheet of the survey. */
function zonesOf(
  limits: LimitSheet,
  round: Pick<RoundWrite, 'check' | 'setup'>,
  readings: readonly Pick<ReadingWrite, 'keys'>[],
  pending?: AxisEffect,
) {
  const check = CHECKS.get(round.check);
  const setup = check?.setup.safeParse(round.setup);
  if (!check || !setup?.success) return {};
  return judgedBy(limits, check, setup.data, placesRead(readings), pending);
}

type SheetReading = Readonly<Record<string, unknown>>;
const sheetReadings = new WeakMap<object, { readonly conditions: object; readonly reading: SheetReading }>();
const copies = new WeakMap<object, object>();

/** A frozen copy, the same for the same object: the core reads it once (a row that was read is never changed in place). */
function frozenCopy<T extends object>(row: T): T {
  const copy = copies.get(row) ?? Object.freeze({ ...row });
  copies.set(row, copy);
  return copy as T;
}

/** One reading as a sheet has it, frozen, the same object for the same row. */
function sheetReading(row: Pick<ReadingWrite, 'keys' | 'value' | 'set'>, conditions: RoundWrite['conditions']): SheetReading {
  const known = sheetReadings.get(row);
  if (known?.conditions === conditions) return known.reading;
  const reading = Object.freeze({ ...row.keys, value: row.value, set: row.set, ...(Object.keys(conditions).length > 0 && { conditions }) });
  sheetReadings.set(row, { conditions, reading });
  return reading;
}

/** Solve, or the faults that stand in the way. */
export function trySolve(sheet: unknown): { readonly finding: Finding | null; readonly faults: readonly Fault[] } {
  try {
    return { finding: solve(sheet), faults: [] };
  } catch (error) {
    if (error instanceof FaultError) return { finding: null, faults: error.faults };
    throw error;
  }
}
