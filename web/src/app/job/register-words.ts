import type { RegisterUse } from '@isometra/contract';
import { registerValue, type Recheck, type RegisterMeaning } from '@isometra/work';

/** What a re-check means, and what to do: the value is always counted from the first old one. */
const MEANINGS: Readonly<Record<RegisterMeaning, (next: string) => string>> = {
  right: () => 'The value was right. Leave it.',
  'wrong-sign': (next) => `It had the wrong sign: the error has doubled. Enter ${next}.`,
  doubled: (next) => `It was changed by twice what it should be: a diameter for a radius. Enter ${next}.`,
  'doubled-wrong-sign': (next) => `Twice too much, and the wrong sign. Enter ${next}.`,
  halved: (next) => `It was changed by half of what it should be: a radius for a diameter. Enter ${next}.`,
  'halved-wrong-sign': (next) => `Half of what it should be, and the wrong sign. Enter ${next}.`,
  'not-taken-up': () =>
    'Nothing has changed: it was not homed, or it is another register. Home it and read again before anything is entered.',
  'inch-as-mm': (next) => `A value in inch was taken for millimetres. Enter ${next}.`,
  'mm-as-inch': (next) => `Stop. A value in millimetres was taken for inches: do not run the slide. Enter ${next}.`,
  unclear: () => 'It fits none of the usual slips: go back to the first old value, home, and read again.',
};

/** What a re-check means, without the register's name. */
export const meaningWords = ({ meaning, next }: Recheck, use: Pick<RegisterUse, 'digits' | 'unit'>): string =>
  MEANINGS[meaning](next === null ? '' : registerValue(next, use));

/** A re-check in words. */
export const recheckWords = (recheck: Recheck, use: Pick<RegisterUse, 'digits' | 'unit' | 'name'>): { readonly text: string } => ({
  text: `${use.name}: ${meaningWords(recheck, use)}`,
});
