import { seededRandom } from '../fit/random.js';
import { contactModels } from './contactModels.js';
import { latheModels } from './latheModels.js';
import { millModels } from './millModels.js';
import type { PracticeChance, PracticeModel, PracticeRound } from './model.js';
import { spindleModels } from './spindleModels.js';
import { turningModels } from './turningModels.js';

/** A model for every check, by its id. */
export const MODELS: Readonly<Record<string, PracticeModel>> = {
  ...latheModels,
  ...spindleModels,
  ...turningModels,
  ...millModels,
  ...contactModels,
};

/** One round of a check by its model, the same for the same seed. */
export function practiceRound(
  check: string,
  seed: number,
  { repeat = 0, perfect = false, ...more }: Partial<Omit<PracticeChance, 'random'>> = {},
): PracticeRound {
  return MODELS[check]({ random: seededRandom(seed), repeat, perfect, ...more });
}
