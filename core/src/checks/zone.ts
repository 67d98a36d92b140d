/** The zone a quantity must lie in, in its own unit. A null bound is no bound. */
export type Zone = readonly [number | null, number | null];

/** Whether a value, or an aim, lies in its zone; both bounds belong to it. */
export const insideZone = (value: number, [low, high]: Zone): boolean => (low === null || value >= low) && (high === null || value <= high);
