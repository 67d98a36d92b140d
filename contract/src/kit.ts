import * as z from 'zod';
import { faultsOf, readInstrument, stockSchema, type Fault } from '@isometra/core';
import { idSchema, versionSchema } from './common.js';

/** What kit there is so far: dials and micrometers, and the drawer of shim leaves. */
export const KIT_KINDS = ['instrument', 'shim-stock'] as const;

export const kitItemSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(KIT_KINDS, { error: `must be one of ${KIT_KINDS.join(', ')}` }),
  name: z
    .string({ error: (issue) => (issue.input === undefined ? 'is missing: give it a name' : 'must be a text') })
    .trim()
    .min(1, { error: 'is missing: give it a name' })
    .max(60, { error: 'must have at most 60 characters' }),
  data: z.record(z.string(), z.unknown(), { error: 'must be an object' }),
  version: versionSchema,
});

export interface KitItem {
  readonly id: string;
  readonly kind: (typeof KIT_KINDS)[number];
  readonly name: string;
  /** As typed: an instrument of a sheet, or `{ stock: [{ thickness, count }] }`. */
  readonly data: Readonly<Record<string, unknown>>;
  readonly version: number;
}

const shimDataSchema = z.strictObject({ stock: stockSchema });

/** What is wrong with the data of a kit item, with paths that begin at `data`. */
export function kitFaults(item: Pick<KitItem, 'kind' | 'data'>): Fault[] {
  if (item.kind === 'instrument') {
    return readInstrument(item.data).faults.map((fault) => ({ ...fault, path: fault.path.replace(/^instrument/, 'data') }));
  }
  const parsed = shimDataSchema.safeParse(item.data);
  return parsed.success ? [] : faultsOf(parsed.error, ['data'], ['stock']);
}
