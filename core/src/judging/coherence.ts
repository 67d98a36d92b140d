import type { Fit, Observation } from '../checks/fits.js';
import { formValue } from '../checks/estimate.js';
import { dot } from '../fit/line.js';
import { solveLinear } from '../fit/linearSystem.js';

/** A reading stands out when its residual is more than this many of its own uncertainties … */
const STANDS_OUT = 5;
/** … and leaving it out brings all the others to within this many of theirs. */
const TOGETHER = 3;
/** Normal quantile of the largest χ² that chance makes in one round of a thousand. */
const RARE = 3.09;
/** How many of the worst observations are tried: one wild reading is always among the first. */
const TRIED = 8;

/** Residual of one observation against a fit of the others. */
interface Residual {
  /** In its own standard uncertainties. */
  readonly size: number;
  /** What to add to the observation so that it agrees with the others, in its own unit, and the standard uncertainty of that. */
  readonly change: number;
  readonly u: number;
}

/** Places that explain a contradiction by themselves: indices of observations with what each would have to change by. */
export interface Suspect {
  readonly observation: number;
  readonly change: number;
  readonly u: number;
}

/** What the residuals of a fit say. */
export interface Coherence {
  readonly fit: Fit;
  /** Whether the readings contradict the model. */
  readonly contradicts: boolean;
  /** Single observations that explain the contradiction. */
  readonly suspects: readonly Suspect[];
  /** √(χ²/ν), at least 1, and ν: by how much the uncertainty of what is fitted grows where the shape is real. */
  readonly factor: number;
  readonly degreesOfFreedom: number;
}

interface Weighed {
  readonly row: readonly number[];
  readonly value: number;
  readonly u: number;
}

/** A weighted least-squares fit, its rows and residuals in units of each observation's own uncertainty. */
interface Fitted {
  readonly rows: readonly (readonly number[])[];
  /** Inverse of the normal matrix of the rows. */
  readonly inverse: readonly (readonly number[])[];
  /** Observed minus fitted. */
  readonly residuals: readonly number[];
  /** Part of its own variance that the fit takes from each observation. */
  readonly leverages: readonly number[];
}

/** Fit all observations; undefined where they do not fix the model. */
function fitted(all: readonly Weighed[]): Fitted | undefined {
  const p = all[0].row.length;
  const scale = new Array<number>(p).fill(1e-300);
  for (const { row } of all) row.forEach((entry, k) => (scale[k] = Math.max(scale[k], Math.abs(entry))));
  // Scaled to the size of each column, so that places in mm and a constant of 1 weigh alike.
  const rows = all.map(({ row, u }) => row.map((entry, k) => entry / scale[k] / u));
  const normal = scale.map(() => new Array<number>(p).fill(0));
  const right = new Array<number>(p).fill(0);
  rows.forEach((row, i) => {
    const value = all[i].value / all[i].u;
    for (let a = 0; a < p; a++) {
      right[a] += row[a] * value;
      for (let b = 0; b < p; b++) normal[a][b] += row[a] * row[b];
    }
  });
  const identity = normal.map((_, a) => normal.map((_, b) => (a === b ? 1 : 0)));
  const inverse = p > 0 ? solveLinear(normal, identity) : [];
  if (!inverse || inverse.some((line) => line.some((entry) => !Number.isFinite(entry)))) return undefined;
  const parameters = inverse.map((line) => dot(line, right));
  return {
    rows,
    inverse,
    residuals: rows.map((row, i) => all[i].value / all[i].u - dot(row, parameters)),
    leverages: rows.map((row) => dot(row, times(inverse, row))),
  };
}

const times = (matrix: readonly (readonly number[])[], vector: readonly number[]): number[] => matrix.map((line) => dot(line, vector));

/** Below this the others do not fix the model without an observation. */
const NOTHING_LEFT = 1e-9;

/** Residual of every observation against the others. */
const againstOthers = ({ residuals, leverages }: Fitted, all: readonly Weighed[]): readonly Residual[] =>
  all.map(({ u }, i) => {
    const left = 1 - leverages[i];
    if (left < NOTHING_LEFT) return { size: 0, change: 0, u };
    return { size: Math.abs(residuals[i]) / Math.sqrt(left), change: (-residuals[i] * u) / left, u: u / Math.sqrt(left) };
  });

/**
 * Sizes of the residuals of the others where one observation is left out of the fit, each in its own standard uncertainty. The fit is not
 * made again: without row i residuals grow by h_ki/(1 − h_ii) of that of i, and leverages by h_ki²/(1 − h_ii). Undefined where the others
 * do not fix the model.
 */
function sizesWithout({ rows, inverse, residuals, leverages }: Fitted, out: number): readonly number[] | undefined {
  const left = 1 - leverages[out];
  if (left < NOTHING_LEFT) return undefined;
  const reach = times(inverse, rows[out]);
  const sizes: number[] = [];
  for (let k = 0; k < rows.length; k++) {
    if (k === out) continue;
    const shared = dot(rows[k], reach);
    const own = 1 - leverages[k] - (shared * shared) / left;
    sizes.push(own < NOTHING_LEFT ? 0 : Math.abs(residuals[k] + (shared * residuals[out]) / left) / Math.sqrt(own));
  }
  return sizes;
}

/** Two-sided 99.9 % points of Student's t for 1, 2, … degrees of freedom. */
const SURELY = [636.6, 31.6, 12.92, 8.61, 6.87, 5.96, 5.41, 5.04];

/** What was measured may have a shape of its own: then a reading is held against how the others scatter, not against their doubts. */
function standsAlone(size: number, others: readonly number[], nu: number): boolean {
  if (nu < 1) return false;
  const scatter = Math.sqrt(others.reduce((sum, other) => sum + other ** 2, 0) / others.length);
  return size > Math.max(STANDS_OUT, SURELY[Math.min(nu, SURELY.length) - 1]) * scatter;
}

/** The χ² of ν degrees of freedom that chance exceeds once in a thousand (Wilson and Hilferty). */
function rareChiSquare(nu: number): number {
  const part = 2 / (9 * nu);
  return nu * (1 - part + RARE * Math.sqrt(part)) ** 3;
}

/**
 * Hold every residual of a fit against its own uncertainty. With one observation more than unknowns all residuals are alike:
 * then each of them is a suspect. Nothing is contradicted by a fit without observations to spare.
 *
 * @param values of the slots. @param uncertainty of reading a slot, in the unit of the values.
 * Source: docs/methods/uncertainty.md, "A round that contradicts itself".
 */
export function coherenceOf(fit: Fit, values: ArrayLike<number>, uncertainty: (slot: number) => number): Coherence {
  const all = fit.observations.map((observation) => weighed(observation, fit.form ?? 0, values, uncertainty));
  const nu = all.length - (all[0]?.row.length ?? 0);
  const calm: Coherence = { fit, contradicts: false, suspects: [], factor: 1, degreesOfFreedom: nu };
  if (nu < 1) return calm;
  const model = fitted(all);
  if (!model) return calm;
  const found = againstOthers(model, all);
  const chiSquare = found.reduce((sum, { change, u }, i) => sum + residualShare(change, u, all[i].u), 0);
  if (!found.some(({ size }) => size > STANDS_OUT) && !(chiSquare > rareChiSquare(nu))) return calm;
  const worst = found.map(({ size }, i) => ({ size, i })).sort((a, b) => b.size - a.size);
  const suspects = worst.slice(0, TRIED).flatMap(({ size, i }): Suspect[] => {
    if (!(size > STANDS_OUT)) return [];
    const others = sizesWithout(model, i);
    if (!others || (others.some((other) => other > TOGETHER) && !standsAlone(size, others, nu - 1))) return [];
    return [{ observation: i, change: found[i].change, u: found[i].u }];
  });
  return { ...calm, contradicts: true, suspects, factor: Math.max(1, Math.sqrt(chiSquare / nu)) };
}

/** (residual/u)² of an observation from what it would have to change by: r = −change·(1 − h), u(change) = u/√(1 − h). */
const residualShare = (change: number, uChange: number, u: number): number => ((change * u) / uChange ** 2) ** 2;

function weighed(
  { form, row, added = 0, u }: Observation,
  ofForm: number,
  values: ArrayLike<number>,
  uncertainty: (slot: number) => number,
): Weighed {
  let squares = 0;
  for (const [slot, weight] of form) squares += (weight * uncertainty(slot)) ** 2;
  const read = u ?? Math.sqrt(squares);
  return { row, value: formValue(form, values) + added, u: Math.hypot(read, ofForm) };
}
