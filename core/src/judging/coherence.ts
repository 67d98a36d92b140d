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

/** Weighted least squares: residual of every observation; undefined where the observations do not fix the model. */
function residuals(all: readonly Weighed[], used: readonly number[]): readonly Residual[] | undefined {
  const p = all[0].row.length;
  let inverse: number[][] = [];
  const parameters = new Array<number>(p).fill(0);
  // Scaled to the size of each column, so that places in mm and a constant of 1 weigh alike.
  const scale = Array.from({ length: p }, (_, k) => Math.max(1e-300, ...used.map((i) => Math.abs(all[i].row[k]))));
  const rows = all.map(({ row, u }) => row.map((entry, k) => entry / scale[k] / u));
  if (p > 0) {
    const normal = Array.from({ length: p }, (_, a) =>
      Array.from({ length: p }, (_, b) => used.reduce((sum, i) => sum + rows[i][a] * rows[i][b], 0)),
    );
    const identity = normal.map((_, a) => normal.map((_, b) => (a === b ? 1 : 0)));
    const solved = solveLinear(normal, identity);
    if (!solved || solved.some((line) => line.some((entry) => !Number.isFinite(entry)))) return undefined;
    inverse = solved;
    const right = normal.map((_, a) => used.reduce((sum, i) => sum + (rows[i][a] * all[i].value) / all[i].u, 0));
    inverse.forEach((line, a) => (parameters[a] = line.reduce((sum, entry, b) => sum + entry * right[b], 0)));
  }
  const inside = new Set(used);
  return all.map(({ value, u }, i): Residual => {
    const own = rows[i];
    const fitted = dot(own, parameters) * u;
    // Part of its own variance that the fit takes from it, or adds to it where it was left out.
    let leverage = 0;
    for (let a = 0; a < p; a++) leverage += own[a] * dot(inverse[a], own);
    const residual = value - fitted;
    if (!inside.has(i))
      return { size: Math.abs(residual) / (u * Math.sqrt(1 + leverage)), change: -residual, u: u * Math.sqrt(1 + leverage) };
    const left = 1 - leverage;
    if (left < 1e-9) return { size: 0, change: 0, u };
    return { size: Math.abs(residual) / (u * Math.sqrt(left)), change: -residual / left, u: u / Math.sqrt(left) };
  });
}

/** Two-sided 99.9 % points of Student's t for 1, 2, … degrees of freedom. */
const SURELY = [636.6, 31.6, 12.92, 8.61, 6.87, 5.96, 5.41, 5.04];

/** What was measured may have a shape of its own: then a reading is held against how the others scatter, not against their doubts. */
function standsAlone({ size }: Residual, others: readonly Residual[], nu: number): boolean {
  if (nu < 1) return false;
  const scatter = Math.sqrt(others.reduce((sum, other) => sum + other.size ** 2, 0) / others.length);
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
  const everyone = all.map((_, i) => i);
  const found = residuals(all, everyone);
  if (!found) return calm;
  const chiSquare = found.reduce((sum, { change, u }, i) => sum + residualShare(change, u, all[i].u), 0);
  if (!found.some(({ size }) => size > STANDS_OUT) && !(chiSquare > rareChiSquare(nu))) return calm;
  const worst = found.map(({ size }, i) => ({ size, i })).sort((a, b) => b.size - a.size);
  const suspects = worst.slice(0, TRIED).flatMap(({ size, i }): Suspect[] => {
    if (!(size > STANDS_OUT)) return [];
    const others = everyone.filter((k) => k !== i);
    const without = residuals(all, others);
    if (!without) return [];
    if (
      others.some((k) => without[k].size > TOGETHER) &&
      !standsAlone(
        without[i],
        others.map((k) => without[k]),
        nu - 1,
      )
    )
      return [];
    return [{ observation: i, change: without[i].change, u: without[i].u }];
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
