import * as z from 'zod';
import { FaultError, faultsOf, FRAMES, MOVE_FORMAT, parseQuantity, planMove, supports, type Fault } from '@isometra/core';
import { castingSchema, type Casting } from '@isometra/contract';

/** A move that scrapes or shims the faces of a casting, as it stands in a move file. Amounts in µm and µm/m. */
export interface OpenedSupports extends Pick<Casting, 'frame' | 'origin' | 'supports' | 'watch'> {
  readonly want: Readonly<Record<string, number>>;
  readonly prefer: 'least-metal' | 'least-depth';
}

const KIND = supports.kind;
/** Faces as a card keeps them, with what is wanted of them. What else a move may be refused for is the move's business. */
const facesSchema = castingSchema.pick({ frame: true, origin: true, supports: true, watch: true }).extend({
  want: z.record(z.string(), z.unknown()),
  prefer: z.enum(['least-metal', 'least-depth']).optional(),
});

/** A wanted amount in base units. It was read before: whatever is no quantity has been refused. */
function amountOf(frame: Casting['frame'], name: string, raw: unknown): number {
  if (typeof raw === 'number') return raw;
  const shift = FRAMES[frame].components.findIndex(([known]) => known === name) < 3;
  const read = parseQuantity(String(raw), shift ? 'deviation' : 'slope');
  return read.ok ? read.value : 0;
}

/**
 * Open a move file in which a casting is turned on its faces. Whatever the move itself would refuse is refused here, in the same words.
 *
 * Source: docs/sheets.md, Moves.
 */
export function openSupports(raw: unknown): { readonly opened: OpenedSupports } | { readonly faults: readonly Fault[] } {
  const { format, move, ...input } = (typeof raw === 'object' && raw !== null ? raw : {}) as Readonly<Record<string, unknown>>;
  if (format !== MOVE_FORMAT) return { faults: [{ path: 'format', message: `must be "${MOVE_FORMAT}"`, example: `"${MOVE_FORMAT}"` }] };
  if (move !== KIND)
    return { faults: [{ path: 'move', message: `must be "${KIND}": only a move of faces is opened here`, example: `"${KIND}"` }] };
  try {
    planMove(raw);
  } catch (error) {
    if (error instanceof FaultError) return { faults: error.faults };
    throw error;
  }
  const read = facesSchema.safeParse({ ...input, watch: input['watch'] ?? [] });
  if (!read.success) return { faults: faultsOf(read.error, []) };
  const { want, prefer = 'least-metal', ...faces } = read.data;
  const amounts = Object.entries(want).map(([name, amount]) => [name, amountOf(faces.frame, name, amount)] as const);
  return { opened: { ...faces, prefer, want: Object.fromEntries(amounts) } };
}

/** The same as a file: what `isometra move` answers. */
export const supportsFile = ({
  frame,
  origin,
  supports: faces,
  watch,
  want,
  prefer,
}: OpenedSupports): Readonly<Record<string, unknown>> => ({
  ...{ format: MOVE_FORMAT, move: KIND, frame, origin, supports: faces },
  ...(watch.length && { watch }),
  ...{ want, prefer },
});
