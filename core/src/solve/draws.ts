import { spanOfWeights, RESEAT_SPREAD } from '../judging/budget.js';
import { monteCarloOf, type MonteCarloRun } from '../judging/monteCarlo.js';
import { groupReadings, mean } from '../instruments/slots.js';
import { merge, solveSets } from './solve.js';
import { readSheet } from './sheet.js';

/**
 * A Monte Carlo of a sheet: the same model as the call, set-ups included, drawn many times. Runs in steps, so that
 * it can show progress and be stopped.
 *
 * @param raw a sheet with an instrument. @param draws how many at most.
 * @throws FaultError when the sheet makes no sense.
 */
export function monteCarlo(raw: unknown, draws: number, seed = 1): MonteCarloRun {
  const sheet = readSheet(raw);
  const { check, instrument } = sheet;
  const sets = solveSets(sheet, groupReadings(sheet.readings, check.slotKeys).slots);
  const settingUp: Record<string, number> = {};
  const merged = sets[0].estimates.map(({ name }) => {
    const one = merge(
      sets.flatMap(({ estimates, slots }) => estimates.filter((entry) => entry.name === name).map((estimate) => ({ estimate, slots }))),
    );
    const n = one.bySet.length;
    const middle = mean(one.bySet);
    const usual = (check.reseatSpread ?? RESEAT_SPREAD) * spanOfWeights(one.estimate.weights);
    if (n > 1) settingUp[name] = Math.sqrt(usual ** 2 + one.bySet.reduce((sum, value) => sum + (value - middle) ** 2, 0)) / n;
    return one;
  });
  const slots = merged[0]?.slots ?? [];
  return monteCarloOf({ estimates: merged.map(({ estimate }) => estimate), slots, instrument, settingUp }, draws, seed);
}
