/** What a move of the headstock does to the rest of the lathe, µm and µm/m. */
export interface AfterHead {
  /** Of the axis after it. */
  readonly slopeH?: number;
  readonly slopeV?: number;
  /** Tail centre against the headstock centre after it: + toward the operator, + high. */
  readonly tailH?: number;
  readonly tailV?: number;
  /** How a face will come out: + hollow, µm/m. */
  readonly facing?: number;
}

export interface BeforeHead {
  readonly slopeH?: number;
  readonly slopeV?: number;
  readonly tailH?: number;
  readonly tailV?: number;
  /** Squareness of the saddle: cross slide against the bed, µm/m. */
  readonly saddle?: number;
}

/** How far the headstock centre moves, µm: up and toward the operator. */
export interface NoseShift {
  readonly v: number;
  readonly h: number;
}

const plus = (value: number | undefined, by: number): number | undefined => (value === undefined ? undefined : value + by);

/**
 * The rest of the lathe after the headstock has been moved: the tail centre stands higher by as much as
 * the headstock centre has come down, and faces come out by axis minus saddle (docs/methods/headstock.md).
 */
export function afterHead(before: BeforeHead, pose: { readonly slopeH: number; readonly slopeV: number }, nose: NoseShift): AfterHead {
  const slopeH = plus(before.slopeH, pose.slopeH);
  return {
    slopeH,
    slopeV: plus(before.slopeV, pose.slopeV),
    tailH: plus(before.tailH, -nose.h),
    tailV: plus(before.tailV, -nose.v),
    facing: slopeH === undefined || before.saddle === undefined ? undefined : slopeH - before.saddle,
  };
}
