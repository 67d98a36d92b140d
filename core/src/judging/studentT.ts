const TABLE = [
  12.71, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23, 2.2, 2.18, 2.16, 2.14, 2.13, 2.12, 2.11, 2.1, 2.09, 2.09, 2.08, 2.07, 2.07,
  2.06, 2.06, 2.06, 2.05, 2.05, 2.05, 2.04,
];

/**
 * Two-sided 95 % coverage factor for ν degrees of freedom; 2 when they are many (above 30),
 * as the usual guide to uncertainty rounds it.
 */
export function coverageFactor(degreesOfFreedom: number): number {
  if (!(degreesOfFreedom < 31)) return 2;
  return TABLE[Math.max(0, Math.floor(degreesOfFreedom) - 1)];
}
