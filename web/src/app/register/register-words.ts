import type { RegisterUse } from '@isometra/contract';
import { registerValue, stillOwed, type homingOf, type Recheck, type RegisterMeaning } from '@isometra/work';

/** What a re-check means, and what to do: the value is always counted from the first old one. */
const MEANINGS: Readonly<Record<RegisterMeaning, (next: string) => string>> = {
  right: () => 'The value was right. Leave it.',
  'wrong-sign': (next) => `It had the wrong sign: the error has doubled. Enter ${next}.`,
  doubled: (next) => `It was changed by twice what it should be: a diameter for a radius. Enter ${next}.`,
  'doubled-wrong-sign': (next) => `Twice too much, and the wrong sign. Enter ${next}.`,
  halved: (next) => `It was changed by half of what it should be: a radius for a diameter. Enter ${next}.`,
  'halved-wrong-sign': (next) => `Half of what it should be, and the wrong sign. Enter ${next}.`,
  'fell-short': (next) =>
    `It changed by less than it should, by no factor that a typing mistake explains. Look at what the control shows, then enter ${next}.`,
  mistyped: (next) => `The control does not show what was meant: it was mistyped. Enter ${next}.`,
  'not-taken-up': () =>
    'Nothing has changed: it was not homed, or it is another register. Home it and read again before anything is entered.',
  'inch-as-mm': (next) => `A value in inch was taken for millimetres. Enter ${next}.`,
  'mm-as-inch': (next) =>
    next
      ? `Stop. A value in millimetres was taken for inches: do not run the slide. Enter ${next}.`
      : 'Stop. A value in millimetres was taken for inches: do not run the slide. Check the unit of the control, and what it shows.',
  unclear: () => 'It fits none of the usual typing mistakes: go back to the first old value, home, and read again.',
};

const NOT_CALLED =
  'Nothing has changed: it is another register, it was not called up, or the control was not homed. Look which one the program uses, and read again.';

/** What a re-check would mean, short: where it may be one of several. */
const SHORT: Readonly<Record<RegisterMeaning, string>> = {
  right: 'it was right',
  'wrong-sign': 'the wrong sign',
  doubled: 'changed by twice too much',
  'doubled-wrong-sign': 'twice too much and the wrong sign',
  halved: 'changed by half of it',
  'halved-wrong-sign': 'half of it and the wrong sign',
  'fell-short': 'changed by too little',
  mistyped: 'a typing mistake',
  'not-taken-up': 'not taken up',
  'inch-as-mm': 'an inch taken for a millimetre',
  'mm-as-inch': 'a millimetre taken for an inch',
  unclear: 'something else',
};

/** Why a re-check tells nothing yet, and what to do: nothing is entered before it does. */
const WHY: Readonly<Record<NonNullable<Recheck['why']>, (may: string) => string>> = {
  sign: (may) =>
    `It may be ${may}: without its sign the two look alike. Push the part toward the stylus, say on the bench which way the needle went, and this says which. Enter nothing before.`,
  doubt: (may) => `It may be ${may}: the change is too small against the ±. Read it again finer before you enter anything.`,
  trust: () => 'This round contradicts itself, so it does not judge the value. Sweep again before you enter anything.',
  pending: () =>
    'The value before it had not been taken up, so this reading may belong to either. Go back to the first old value, home as often as the control needs, and sweep again.',
  corrected: () =>
    'The round that this value was worked out from has been corrected since. Go back to the first old value, home, and sweep again.',
  moved: () =>
    'Something else was moved since the value was entered, so this round does not judge it. Go back to the first old value, home, sweep again, and start from that round.',
};

/** What a control still wants before it takes a value up: "home it once more, and switch it off and on twice more"; empty where nothing. */
export function owedWords({ homings, power }: ReturnType<typeof stillOwed>): string {
  const times = (count: number) => (count === 1 ? 'once' : `${count} times`);
  const left = [homings ? `home it ${times(homings)} more` : '', power ? `switch it off and on ${times(power)} more` : ''];
  return left.filter(Boolean).join(', and ');
}

/** What a re-check means, without the register's name. */
export function meaningWords(
  { meaning, next, why, may = [] }: Recheck,
  use: Pick<RegisterUse, 'digits' | 'unit' | 'homings' | 'power' | 'kind'>,
  homing?: ReturnType<typeof homingOf>,
): string {
  if (why) return WHY[why](may.map((entry) => SHORT[entry]).join(', or '));
  const words =
    meaning === 'not-taken-up' && use.kind === 'added' ? NOT_CALLED : MEANINGS[meaning](next === null ? '' : registerValue(next, use));
  const owed = meaning === 'not-taken-up' && homing ? owedWords(stillOwed(use, homing)) : '';
  return owed ? `${words} By the change sheet the control still needs this: ${owed}.` : words;
}

/** A re-check in words. */
export const recheckWords = (
  recheck: Recheck,
  use: Pick<RegisterUse, 'digits' | 'unit' | 'name' | 'homings' | 'power' | 'kind'>,
  homing?: ReturnType<typeof homingOf>,
): { readonly text: string } => ({ text: `${use.name}: ${meaningWords(recheck, use, homing)}` });
