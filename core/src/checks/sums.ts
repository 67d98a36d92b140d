/** A figure of a sum as it is done on paper: at most three figures after the point, no zeros behind. */
export const say = (value: number): string => String(Number(value.toFixed(3)));
