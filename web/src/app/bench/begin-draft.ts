import {
  choice,
  fieldInfo,
  optionalMeasure,
  parseQuantity,
  prettyUnit,
  DIMENSIONS,
  type CheckDefinition,
  type ValueKind,
} from '@isometra/core';
import type { KitItem, MachineCardText, Round, RoundWrite, Rung } from '@isometra/contract';
import * as z from 'zod';
import { withField, type FormValue } from '../ui/form-model';
import type { PartsDraft } from './check-parts';

/** What has been filled in before a round begins. */
export interface BeginDraft extends PartsDraft {
  readonly purpose: FormValue;
  readonly kitId: string | null;
  /** Holder out of the kit, whose droop goes into the instrument. */
  readonly holderId?: string | null;
  readonly own: FormValue;
  /** Which way the needle went when the part was pushed toward the stylus; null when nobody tried. */
  readonly sense: 1 | -1 | null;
  readonly read: boolean;
}

/** What the tailstock is for: the call then says what an error does to that work. */
export const purposeSchemaForm = z.strictObject({
  kind: choice({
    label: 'This tailstock is for',
    choices: [
      { value: 'unsaid', label: 'not said' },
      { value: 'turning', label: 'turning parallel' },
      { value: 'drilling', label: 'drilling, reaming' },
    ],
    help: 'The call then says what is left of an error in the work.',
  }),
  length: optionalMeasure('length', { label: 'Longest parallel length', above: 0, example: '250 mm' }),
  diameter: optionalMeasure('length', { label: 'Usual diameter', above: 0, example: '30 mm' }),
});

export function purposeOf(purpose: FormValue): RoundWrite['purpose'] {
  const kind = purpose['kind'];
  if (kind !== 'turning' && kind !== 'drilling') return null;
  const { length, diameter } = purpose as { length?: string; diameter?: string };
  return { kind, ...(length && { length }), ...(diameter && { diameter }) };
}

/** Whether a piece of kit can read this check. */
export function suitable(item: KitItem, valueKind: ValueKind): boolean {
  if (item.kind !== 'instrument') return false;
  const kind = String(item.data['kind']);
  if (valueKind === 'size') return kind === 'micrometer';
  if (valueKind === 'level') return kind === 'level';
  return kind === 'lever' || kind === 'plunger';
}

/** Numbers of stored conditions as a person would type them. */
export function asTyped(conditions: Round['conditions'], schema: z.ZodObject): FormValue {
  return Object.fromEntries(
    Object.entries(conditions)
      .filter(([key]) => key in schema.shape)
      .map(([key, value]) => {
        const dimension = fieldInfo(schema.shape[key] as z.ZodType)?.dimension;
        return [key, dimension && typeof value === 'number' ? `${value} ${prettyUnit(DIMENSIONS[dimension].base)}` : value];
      }),
  );
}

/** How a dial counted when this check was last read with it from the same side. */
export interface LearnedSense {
  readonly sense: 1 | -1;
  readonly number: number;
}

/** The last nudge test of a dial in this check, from the same side; undefined when there was none. */
export function learnedSense(rounds: readonly Round[], check: string, dial: string | null, setup: FormValue): LearnedSense | undefined {
  const side = (round: { readonly setup: FormValue }) => round.setup['side'] ?? 'operator';
  const last = rounds
    .filter((round) => round.check === check && dial !== null && round.instrumentName === dial && side(round) === side({ setup }))
    .filter((round) => round.instrument?.['sense'] === 1 || round.instrument?.['sense'] === -1)
    .at(-1);
  return last && { sense: last.instrument?.['sense'] as 1 | -1, number: last.number };
}

const OWN_KIND: Readonly<Record<ValueKind, string>> = { size: 'micrometer', level: 'level', indicator: 'lever' };

/** Fields of a set-up that the latest result of another rung fills in: what it found, as typed. */
export function filledFrom(check: CheckDefinition, rungs: readonly Rung[]): Readonly<Record<string, string>> {
  return Object.fromEntries(
    Object.entries(check.setup.shape).flatMap(([key, schema]) => {
      const info = fieldInfo(schema as z.ZodType);
      const [checkId, quantity] = info?.from?.split('/') ?? [];
      const rung = rungs.find((entry) => entry.check.id === checkId);
      const found = rung?.state === 'stale' ? undefined : rung?.round?.finding?.quantities[quantity];
      return found && info?.dimension ? [[key, `${Number(found.value.toFixed(1))} ${prettyUnit(DIMENSIONS[info.dimension].base)}`]] : [];
    }),
  );
}

/** The spindle stands half the swing above the ways. */
function spindleHeight(card: MachineCardText | undefined): { readonly heightAboveWays?: string } {
  const swing = card?.swing === undefined ? undefined : parseQuantity(card.swing, 'length');
  return swing?.ok ? { heightAboveWays: `${Number((swing.value / 2).toFixed(1))} mm` } : {};
}

/** A first draft: the last round of this check, or what other rounds and the machine card know. */
export function firstDraft(
  check: CheckDefinition,
  card: MachineCardText | undefined,
  rounds: readonly Round[],
  dials: readonly KitItem[],
  own: string,
  rungs: readonly Rung[] = [],
): BeginDraft {
  const last = rounds.filter((round) => round.check === check.id).at(-1);
  const other = rounds.at(-1);
  const distance = other?.setup['centreDistance'] ?? card?.centreDistance;
  const known = {
    ...(distance !== undefined && 'centreDistance' in check.setup.shape && { centreDistance: distance }),
    ...('heightAboveWays' in check.setup.shape && spindleHeight(card)),
  };
  const described = last?.instrument && last.instrumentName === null ? last.instrument : undefined;
  // What other rungs know by now goes before what was typed last time.
  const setup = { ...(last?.setup ?? known), ...filledFrom(check, rungs) };
  const dial = described ? undefined : (dials.find((item) => item.name === last?.instrumentName) ?? dials[0]);
  return {
    setup,
    plan: last?.plan ?? {},
    conditions: asTyped(last?.conditions ?? other?.conditions ?? {}, check.conditions),
    purpose: (last?.purpose as FormValue | null) ?? {},
    kitId: dial?.id ?? own,
    own: described ? withField(described, 'sense', undefined) : { kind: OWN_KIND[check.valueKind] },
    // As it counted last time from the same side; the screen says so and asks for the nudge again.
    sense: learnedSense(rounds, check.id, dial?.name ?? null, setup)?.sense ?? null,
    read: false,
  };
}
