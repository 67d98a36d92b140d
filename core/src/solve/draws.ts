import { settingUpOf } from '../judging/budget.js';
import { monteCarloOf, type MonteCarloRun } from '../judging/monteCarlo.js';
import { groupReadings } from '../instruments/slots.js';
import { merge, reseatSpreadOf } from './judge.js';
import { solveSets } from './solve.js';
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
    const prior = reseatSpreadOf(check, name, sheet.setup);
    settingUp[name] = settingUpOf(one.estimate.weights, one.bySet, prior, prior > 0 ? sheet.setupSpread : undefined).u;
    return one;
  });
  const slots = merged[0]?.slots ?? [];
  return monteCarloOf({ estimates: merged.map(({ estimate }) => estimate), slots, instrument, settingUp }, draws, seed);
}
