import { CHECKS, parseQuantity, type CheckDefinition } from '@isometra/core';
import { isFor, machineCardSchema, type MachineCard, type MachineCardText } from '@isometra/contract';

/** Checks that a machine of this kind can be asked. */
export function checksFor(kind: string): CheckDefinition[] {
  return [...CHECKS.values()].filter((check) => isFor(kind, check));
}

const cards = new WeakMap<object, { readonly card: MachineCard | undefined }>();

/** A card in base units; undefined when it does not make sense. Read once for each card. */
export function readCard(text: MachineCardText | undefined): MachineCard | undefined {
  if (!text) return undefined;
  const known = cards.get(text);
  if (known) return known.card;
  const parsed = machineCardSchema.safeParse(text);
  const card = parsed.success ? (parsed.data as MachineCard) : undefined;
  cards.set(text, { card });
  return card;
}

/** Places (`at`) of readings as typed, mm. */
export function placesRead(readings: readonly { readonly keys: Readonly<Record<string, unknown>> }[]): number[] {
  return readings.flatMap(({ keys }) => {
    const at = keys['at'] === undefined ? undefined : parseQuantity(keys['at'], 'length');
    return at?.ok ? [at.value] : [];
  });
}
