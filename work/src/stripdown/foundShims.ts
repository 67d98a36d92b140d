import { readPart, type FoundShim, type Part, type ShimJoint, type StoredStripDown } from '@isometra/contract';
import { inOrder } from './assembly.js';

/** The joint in which the shims of a move lie, by the part that it moves; undefined where no shim lies in one. */
export function jointOf(part: string | undefined, move: string): ShimJoint | undefined {
  return move === 'bearing-shims' ? 'bearing-cap' : JOINTS[part ?? ''];
}

const JOINTS: Readonly<Record<string, ShimJoint | undefined>> = {
  ...{ headstock: 'headstock', tailstock: 'tailstock', column: 'column', saddle: 'saddle', table: 'table' },
  ...{ bed: 'feet', machine: 'feet' },
};

/** A shim that was found when something was taken apart. */
export interface ShimFound {
  readonly shim: FoundShim;
  readonly part: Part;
  readonly stripDown: StoredStripDown;
}

/** Shims that were found in a joint of a machine, in the order in which their parts came off. Those of archived strip-downs are left out. */
export function foundShims(stripDowns: readonly StoredStripDown[], joint: ShimJoint): readonly ShimFound[] {
  return stripDowns
    .filter(({ archived }) => !archived)
    .flatMap((stripDown) =>
      inOrder(stripDown.parts).flatMap((part) =>
        (readPart(part)?.shims ?? []).filter((shim) => shim.joint === joint).map((shim) => ({ shim, part, stripDown })),
      ),
    );
}
