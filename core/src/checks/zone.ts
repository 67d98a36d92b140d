/** The zone a quantity must lie in, in its own unit. A null bound is no bound. */
export type Zone = readonly [number | null, number | null];
