import {
  CHECKS,
  FaultError,
  judgedBy,
  MOVES,
  reseats,
  SHEET_FORMAT,
  solve,
  wayProfile,
  type AxisEffect,
  type Fault,
  type Finding,
  type LimitSheet,
  type SetupSpread,
  type SolveContext,
} from '@isometra/core';
import { featuresOf, WITHDRAWN } from '@isometra/contract';
import type { FindingHead, MachineCardText, ReadingWrite, RoundWrite } from '@isometra/contract';
import { placesRead, readCard } from './machines.js';

/** What stands for a figure where something is felt: leaves that bound a gap, drag. */
const FELT: ReadonlySet<string> = new Set(
  [...CHECKS.values()].flatMap(({ beside = [] }) => beside.flatMap(({ key, instead }) => (instead ? [key] : []))),
);
type Taken = Pick<ReadingWrite, 'value' | 'supersedes' | 'keys'> & Partial<Pick<ReadingWrite, 'why'>>;

/** Whether a reading takes another one back and puts nothing in its place. What is felt has no figure and stands all the same. */
export function isWithdrawn({ value, supersedes, keys, why }: Taken): boolean {
  if (value !== null || !supersedes) return false;
  return WITHDRAWN.includes(why ?? '') || !Object.keys(keys).some((key) => FELT.has(key));
}

/**
 * The readings that count: each superseded one gives its place to the one that superseded it,
 * withdrawn ones are left out. Order is that of the first taking.
 */
export function standingReadings<R extends Taken & Pick<ReadingWrite, 'id'>>(readings: readonly R[]): R[] {
  const replacement = new Map<string, R>();
  for (const reading of readings) if (reading.supersedes) replacement.set(reading.supersedes, reading);
  if (replacement.size === 0) return [...readings];
  return readings
    .filter((reading) => !reading.supersedes)
    .map((reading) => {
      let standing = reading;
      for (let next = replacement.get(standing.id); next; next = replacement.get(standing.id)) standing = next;
      return standing;
    })
    .filter((reading) => !isWithdrawn(reading));
}

/** Shop facts that a plan of moves and a judgement need. */
export interface ShopFacts {
  readonly card?: MachineCardText;
  readonly stock?: readonly unknown[];
  /** Learned gain of a screw, when it was accepted. */
  readonly gain?: number | null;
  /** The limit sheet of the survey; the catalogue's zones where there is none. */
  readonly limits?: LimitSheet;
  /** What planned changes will do: zones and aims of what follows the axis shift by minus that. */
  readonly pending?: AxisEffect;
  /** What earlier rounds of this check have taught of setting up on this machine, in the unit of its readings. */
  readonly setupSpread?: SetupSpread;
}

/** The hardware of a sheet from a machine card and the shim drawers: what each kind of move can make of them. */
export function hardwareOf(checkId: string, facts: ShopFacts): Record<string, unknown> {
  const { card, stock, gain } = facts;
  if (!card) return hardwareFrom(checkId, facts);
  const ofCard = lastHardware.get(card) ?? new Map<string, CachedHardware>();
  const told = ofCard.get(checkId);
  if (told && told.stock === stock && told.gain === gain) return told.hardware;
  const hardware = hardwareFrom(checkId, facts);
  lastHardware.set(card, ofCard.set(checkId, { stock, gain, hardware }));
  return hardware;
}

type CachedHardware = Pick<ShopFacts, 'stock' | 'gain'> & { readonly hardware: Record<string, unknown> };
/** The same object from key to key as long as card, drawers and gain are the same: a solve knows it again. */
const lastHardware = new WeakMap<object, Map<string, CachedHardware>>();

function hardwareFrom(checkId: string, { card, stock, gain }: ShopFacts): Record<string, unknown> {
  const known = readCard(card);
  const part = CHECKS.get(checkId)?.part;
  const facts = { card: known ?? {}, stock, gain, part, has: featuresOf(known?.kind ?? '') };
  const kinds = [...MOVES.values()].flatMap(({ kind, hardware }) => {
    const own = hardware?.(facts);
    return own ? [[kind, own] as const] : [];
  });
  return { ...Object.fromEntries(kinds), ...castingOf(checkId, card) };
}

/** The faces that a check's casting sits on, for the plan of its correction. */
function castingOf(checkId: string, card: MachineCardText | undefined): Record<string, unknown> {
  const casting = readCard(card)?.castings?.find((entry) => entry.id === CHECKS.get(checkId)?.casting);
  if (!casting) return {};
  const { frame, origin, supports, watch } = casting;
  return { supports: { frame, origin, supports, watch } };
}

/** The sheet of a round: the same that a person would write by hand. */
export function sheetOf(
  round: Pick<RoundWrite, 'check' | 'setup' | 'instrument' | 'conditions'>,
  readings: readonly Pick<ReadingWrite, 'id' | 'supersedes' | 'value' | 'keys' | 'set'>[],
  facts: ShopFacts = {},
): Record<string, unknown> {
  const standing = standingReadings(readings);
  const check = CHECKS.get(round.check);
  return {
    format: SHEET_FORMAT,
    check: round.check,
    ...(round.instrument && { instrument: frozenCopy(round.instrument) }),
    setup: round.setup,
    readings: standing.map((reading) => sheetReading(reading, round.conditions)),
    ...(facts.limits && zonesOf(facts.limits, round, standing, facts.pending)),
    hardware: hardwareOf(round.check, facts),
    ...(facts.setupSpread && check && reseats(check) && { setupSpread: facts.setupSpread }),
  };
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
  const reading = Object.freeze({
    ...row.keys,
    ...(row.value !== null && { value: row.value }),
    set: row.set,
    ...(Object.keys(conditions).length > 0 && { conditions }),
  });
  sheetReadings.set(row, { conditions, reading });
  return reading;
}

/** Which reading of a sheet a fault is about: `readings[3].value` → 3. */
function readingOf({ path }: Fault): number | undefined {
  const found = /^readings\[(\d+)\]/.exec(path);
  return found ? Number(found[1]) : undefined;
}

export interface Solved {
  readonly finding: Finding | null;
  readonly faults: readonly Fault[];
}

/** Solve, or the faults that stand in the way. */
export function trySolve(sheet: unknown, context: SolveContext = {}): Solved {
  try {
    return { finding: solve(sheet, context), faults: [] };
  } catch (error) {
    if (error instanceof FaultError) return { finding: null, faults: error.faults };
    throw error;
  }
}

/** Rounds of leaving faulty readings out before a sheet is given up: each finds what the last one hid. */
const TRIES = 4;

/** Which kind of move a fault of the hardware is about: `hardware.trucks.shoulder` → `trucks`. */
export const hardwareOfFault = ({ path }: Fault): string | undefined => /^hardware\.([^.[]+)/.exec(path)?.[1];

/**
 * Solve what can be solved: a faulty reading silences itself only, and what is missing for a move takes that move's plan away, never the
 * call. What is wrong is told beside the finding, the path of a reading numbered as in the sheet.
 */
export function solveWhatStands(sheet: Readonly<Record<string, unknown>>, context: SolveContext = {}): Solved {
  const all = sheet['readings'] as readonly unknown[];
  let kept = all.map((_, i) => i);
  let hardware = sheet['hardware'] as Readonly<Record<string, unknown>> | undefined;
  const faults: Fault[] = [];
  for (let k = 0; k < TRIES; k++) {
    const solved = trySolve({ ...sheet, ...(hardware && { hardware }), readings: kept.map((i) => all[i]) }, context);
    if (solved.finding) return { finding: withUnplanned(solved.finding, faults), faults };
    faults.push(...solved.faults.map((fault) => renumbered(fault, kept)));
    const unplanned = new Set(solved.faults.map(hardwareOfFault));
    if (hardware) hardware = Object.fromEntries(Object.entries(hardware).filter(([kind]) => !unplanned.has(kind)));
    const bad = new Set(solved.faults.filter((fault) => hardwareOfFault(fault) === undefined).map(readingOf));
    if (bad.has(undefined)) break;
    kept = kept.filter((_, i) => !bad.has(i));
  }
  return { finding: null, faults };
}

/** Moves whose kind lacks a fact stay among those that are offered, in their place, without a plan. */
function withUnplanned(finding: Finding, faults: readonly Fault[]): Finding {
  const lacking = new Set(faults.flatMap((fault) => hardwareOfFault(fault) ?? []));
  if (lacking.size === 0) return finding;
  const corrections = CHECKS.get(finding.check)?.corrections ?? {};
  const of = [...new Set(finding.moves.map(({ quantity }) => quantity))];
  const moves = of.flatMap((name) => {
    const own = finding.moves.filter(({ quantity }) => quantity === name);
    const [{ quantity, amount, unit, direction, indicator }] = own;
    const { plus = [], minus = [] } = corrections[name] ?? {};
    const kinds = amount > 0 ? plus : minus;
    const unplanned = kinds
      .filter((kind) => lacking.has(kind) && own.every((move) => move.kind !== kind))
      .map((kind) => ({ quantity, amount, unit, direction, kind, ...(indicator && { indicator }) }));
    return [...own, ...unplanned].sort((one, other) => kinds.indexOf(one.kind) - kinds.indexOf(other.kind));
  });
  return { ...finding, moves };
}

function renumbered(fault: Fault, kept: readonly number[]): Fault {
  const at = readingOf(fault);
  return at === undefined ? fault : { ...fault, path: fault.path.replace(`readings[${at}]`, `readings[${kept[at]}]`) };
}

/** What lists need of a finding, with the profile where the survey is drawn from it. */
export function findingHead(finding: Finding, sheet: unknown): FindingHead {
  const { check: id, quantities, notes } = finding;
  const check = CHECKS.get(id);
  const setup = (sheet as { readonly setup: Readonly<Record<string, unknown>> }).setup;
  const profile =
    check?.knowsProfile && (check.knowsProfile.when?.(setup) ?? true) ? profileOf(sheet, check.knowsProfile.asRead) : undefined;
  return {
    quantities: Object.fromEntries(
      Object.entries(quantities).map(([name, { value, unit, expanded, direction, limit, aim, verdict, because, setUps }]) => [
        name,
        { value, unit, expanded, direction, limit, aim, verdict, ...(because && { because }), ...(setUps && { setUps }) },
      ]),
    ),
    notes: notes
      .filter(({ severity }) => severity !== 'info')
      .map(({ code, severity, quantity, halts }) => ({ code, severity, ...(quantity && { quantity }), ...(halts && { halts }) })),
    ...(profile && { profile }),
  };
}

/** Heights off their line; as they were read where they are sizes. */
function profileOf(sheet: unknown, asRead = false): FindingHead['profile'] {
  try {
    const profile = wayProfile(sheet);
    if (asRead) return profile?.points;
    return profile?.points.map(({ at, height }) => ({ at, height: height - profile.line.at0 - profile.line.slope * at }));
  } catch (error) {
    if (error instanceof FaultError) return undefined;
    throw error;
  }
}

/** What a reading says, as it was typed: its figure, or what was felt instead of one: "0.10 mm to 0.12 mm". */
export function readingTold(check: string, { value, keys }: Pick<ReadingWrite, 'value' | 'keys'>): string {
  if (value !== null) return String(value);
  const felt = (CHECKS.get(check)?.beside ?? []).filter(({ key, instead }) => instead && keys[key] !== undefined);
  return felt.map(({ key }) => String(keys[key])).join(' to ');
}
