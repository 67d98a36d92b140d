import {
  choice,
  fieldInfo,
  KINDS_FOR,
  parseQuantity,
  plannedKind,
  optionalMeasure,
  prettyUnit,
  DIMENSIONS,
  type CheckDefinition,
  type FieldInfo,
  type ValueKind,
  instrumentSchemaFor,
} from '@isometra/core';
import type { KitItem, MachineCardText, RoundHead, RoundWrite, StoredRound } from '@isometra/contract';
import { factOf, knownSense, learnedPivot, mountingOf, type Rung, slantOf } from '@isometra/work';
import * as z from 'zod';
import { newId } from '../data/id';
import { asInFile, formSchema, withBaseUnit, withField, type FormValue } from '../ui/form-model';
import { partsSchema } from './check-parts';
import { senseSchema } from './nudge';

/** What has been filled in before a round begins. */
export const beginSchema = z.object({
  ...partsSchema.shape,
  /** The round it will be: begun once, however often the button is pressed. */
  id: z.string(),
  purpose: formSchema,
  kitId: z.string().nullable(),
  /** Holder out of the kit, whose droop goes into the instrument. */
  holderId: z.string().nullable().optional(),
  own: formSchema,
  /** Which way the needle went when the part was pushed toward the stylus; null when nobody tried. */
  sense: senseSchema,
  read: z.boolean(),
});
export type BeginDraft = z.infer<typeof beginSchema>;

export const emptyDraft = (): BeginDraft => ({
  ...{ setup: {}, plan: {}, conditions: {}, purpose: {}, own: { kind: 'lever' } },
  ...{ id: newId(), kitId: null, sense: null, read: false },
});

/** What the tailstock is for: the call then says what an error does to that work. */
export const purposeSchemaForm = z.strictObject({
  kind: choice({
    label: 'This tailstock is for',
    choices: [
      { value: 'unsaid', label: 'not said' },
      { value: 'turning', label: 'turning parallel' },
      { value: 'drilling', label: 'drilling, reaming' },
    ],
    help: 'The result then also says how much of the error shows in the work.',
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
export function suitable(item: KitItem, kind: ValueKind): boolean {
  const kinds: readonly string[] = KINDS_FOR[kind];
  return item.kind === 'instrument' && kinds.includes(String(item.data['kind']));
}

/** Numbers of stored conditions as a person would type them. */
export function asTyped(conditions: RoundWrite['conditions'], schema: z.ZodObject): FormValue {
  return Object.fromEntries(
    Object.entries(asInFile(schema, conditions))
      .filter(([key]) => key in schema.shape && !fieldInfo(schema.shape[key] as z.ZodType)?.anew)
      .map(([key, value]) => {
        const info = fieldInfo(schema.shape[key] as z.ZodType);
        return [key, info?.dimension && typeof value === 'number' ? withBaseUnit(value, info) : value];
      }),
  );
}

/** Leaves step by as much, as a rule. */
const FINEST_STEP = '0.01 mm';

/** What a check is read with when nothing in the kit is chosen. */
export const ownInstrument = (kind: ValueKind): FormValue =>
  kind === 'gap'
    ? { kind: KINDS_FOR.gap[0], graduation: FINEST_STEP }
    : { kind: kind === 'indicator' ? 'lever' : (KINDS_FOR[kind][0] ?? 'lever') };

const typed = (value: number, { dimension }: FieldInfo): string | undefined =>
  dimension && `${Number(value.toFixed(1))} ${prettyUnit(DIMENSIONS[dimension].base)}`;

/** Fields of a set-up that say something the machine is already known for, filled in with what its rung last found. */
export function filledFrom(check: CheckDefinition, rungs: readonly Rung[]): Readonly<Record<string, string>> {
  const standing = rungs.flatMap(({ state, round }) => (round && state !== 'stale' ? [round] : []));
  return Object.fromEntries(
    Object.entries(check.setup.shape).flatMap(([key, schema]) => {
      const info = fieldInfo(schema as z.ZodType);
      const fact = info?.from === undefined ? undefined : factOf(standing, info.from);
      const text = info && fact && typed(fact.found.value, info);
      return text === undefined ? [] : [[key, text]];
    }),
  );
}

/** A set-up of before without what a rung once told and tells no longer: the part has been moved since. */
function withoutOldFacts(setup: FormValue, check: CheckDefinition, heads: readonly RoundHead[]): FormValue {
  const told = (key: string): boolean => {
    const from = key in check.setup.shape ? fieldInfo(check.setup.shape[key] as z.ZodType)?.from : undefined;
    return from !== undefined && factOf(heads, from) !== undefined;
  };
  return Object.fromEntries(Object.entries(setup).filter(([key]) => !told(key)));
}

/** Where the nod pivot lies: as its card says, and as strokes on this machine have taught it. */
function nodPivot(check: CheckDefinition, card: MachineCardText | undefined, heads: readonly RoundHead[]) {
  if (!('pivotDistance' in check.setup.shape)) return { onCard: {}, learned: {} };
  const told = (card?.['head'] as { readonly pivotDistance?: unknown } | undefined)?.pivotDistance;
  const learned = learnedPivot(heads);
  return {
    onCard: told === undefined ? {} : { pivotDistance: String(told) },
    learned: learned ? { pivotDistance: `${Number(learned.pivot.toFixed(1))} mm` } : {},
  };
}

/** The slant of the slide, by the machine card. */
function slantFilled(check: CheckDefinition, card: MachineCardText | undefined): { readonly slant?: string } {
  const slant = 'slant' in check.setup.shape ? slantOf(card?.['slide']) : undefined;
  return slant === undefined ? {} : { slant: String(slant) };
}

/** The spindle stands half the swing above the ways. */
function spindleHeight(card: MachineCardText | undefined): { readonly heightAboveWays?: string } {
  const swing = card?.swing === undefined ? undefined : parseQuantity(card.swing, 'length');
  return swing?.ok ? { heightAboveWays: `${Number((swing.value / 2).toFixed(1))} mm` } : {};
}

/** What a first draft is made from. */
export interface Known {
  readonly card: MachineCardText | undefined;
  /** The last round of this check, and the last one of any. */
  readonly last: StoredRound | undefined;
  readonly other: StoredRound | undefined;
  readonly heads: readonly RoundHead[];
  readonly kit: readonly KitItem[];
  readonly rungs: readonly Rung[];
}

/** What the machine card and the round before this one tell a check that was never read. */
function fromElsewhere(check: CheckDefinition, other: StoredRound | undefined, card: MachineCardText | undefined) {
  const distance = other?.setup['centreDistance'] ?? card?.centreDistance;
  return {
    ...(distance !== undefined && 'centreDistance' in check.setup.shape && { centreDistance: distance }),
    ...('heightAboveWays' in check.setup.shape && spindleHeight(card)),
  };
}

/** The instrument of the last time, else the first that would do. */
function likelyDial(kit: readonly KitItem[], kind: ValueKind, lastName: string | null | undefined): KitItem | undefined {
  const dials = kit.filter((item) => suitable(item, kind));
  return dials.find(({ name }) => name === lastName) ?? dials[0];
}

/** What was chosen last time and stays. */
const carried = (check: CheckDefinition, last: StoredRound | undefined): Partial<Pick<BeginDraft, 'plan' | 'purpose'>> =>
  last ? { plan: asInFile(check.plan, last.plan), purpose: asInFile(purposeSchemaForm, last.purpose ?? {}) } : {};

/** A first draft: the last round of this check, or what other rounds and the machine card know. @param own the choice "another one". */
export function firstDraft(check: CheckDefinition, { card, last, other, heads, kit, rungs }: Known, own: string): BeginDraft {
  const pivot = nodPivot(check, card, heads);
  const described = last?.instrument && last.instrumentName === null ? last.instrument : undefined;
  // What other rungs know by now goes before what was typed last time.
  const setup = {
    ...pivot.onCard,
    ...(last ? withoutOldFacts(last.setup, check, heads) : fromElsewhere(check, other, card)),
    ...pivot.learned,
    ...filledFrom(check, rungs),
    ...slantFilled(check, card),
  };
  const kind = plannedKind(check, setup, last?.plan ?? {});
  const dial = described ? undefined : likelyDial(kit, kind, last?.instrumentName);
  return {
    ...emptyDraft(),
    setup: asInFile(check.setup, setup),
    ...carried(check, last),
    conditions: asTyped((last ?? other)?.conditions ?? {}, check.conditions),
    own: described ? asInFile(instrumentSchemaFor(described['kind']), withField(described, 'sense', undefined)) : ownInstrument(kind),
    kitId: dial?.id ?? own,
    sense: senseBefore(heads, check, dial, setup),
  };
}

/** How a dial counted last time from the same side; the screen says so and asks for the nudge again. */
const senseBefore = (
  heads: readonly RoundHead[],
  { id }: CheckDefinition,
  dial: KitItem | undefined,
  setup: FormValue,
): BeginDraft['sense'] => knownSense(heads, id, dial?.name ?? null, mountingOf(id, setup))?.sense ?? null;
