import type { Random } from '../fit/random.js';

/** A dial as it hangs in a practice shop. µm, degrees. */
export interface PracticeDial {
  readonly kind: 'plunger' | 'lever';
  readonly graduation: number;
  readonly sense: 1 | -1;
  readonly leverAngle?: number;
  readonly readTo?: number;
  readonly accuracy?: number;
  readonly holderSag?: number;
  readonly contactForce?: number;
}

/** How honest a practice reading is: without a source of chance it is exact. */
export interface Imperfection {
  readonly random: Random;
  /** Standard deviation of re-reading one place, µm. */
  readonly repeat: number;
}

/** The instrument of a sheet. */
export function dialInstrument(dial: PracticeDial): Record<string, unknown> {
  return {
    kind: dial.kind,
    graduation: `${dial.graduation} um`,
    sense: dial.sense,
    leverAngle: dial.leverAngle ?? 0,
    readTo: dial.readTo ?? 0.5,
    accuracy: `${dial.accuracy ?? dial.graduation / 2} um`,
    holderSag: `${dial.holderSag ?? 0} um`,
    contactForce: dial.contactForce ?? 0,
  };
}

/**
 * A dial that is read: surface movement toward the instrument (µm) → divisions. Imperfect dials
 * have one smooth error of their own within ± accuracy, scatter, and are rounded to what can be read.
 */
export function dialReader(dial: PracticeDial, imperfection?: Imperfection): (movement: number) => number {
  const cosine = Math.cos(((dial.leverAngle ?? 0) * Math.PI) / 180);
  const exact = (movement: number): number => (dial.sense * movement) / cosine / dial.graduation;
  if (!imperfection) return exact;
  const { random, repeat } = imperfection;
  const accuracy = dial.accuracy ?? dial.graduation / 2;
  const size = random.between(0, accuracy);
  const phase = random.between(0, 2 * Math.PI);
  const period = dial.graduation * 60;
  const zero = random.between(-3, 3) * dial.graduation;
  const step = dial.readTo ?? 0.5;
  return (movement) => {
    const own = size * Math.sin((2 * Math.PI * movement) / period + phase);
    const divisions = exact(movement + zero + own + repeat * random.normal());
    return Math.round(divisions / step) * step;
  };
}
