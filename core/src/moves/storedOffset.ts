import * as z from 'zod';
import { choice, quantitySchema } from '../input/fields.js';
import { isInchUnit } from '../units/dimensions.js';
import { readNumber } from '../units/number.js';
import { controlCard } from './controlCard.js';
import { defineMove } from './define.js';
import { registerAnswer } from './registerAnswer.js';
import type { JobFacts, JobStep } from './jobSteps.js';
import { INCH, recheckOf } from './rechecks.js';

const isInch = (raw: unknown): boolean => typeof raw === 'string' && isInchUnit(readNumber(raw)?.unit ?? '');

/** An offset in the control's own unit: mm, or inch when it was given in inch. */
const offsetSchema = z.unknown().transform((raw, context) => {
  const parsed = quantitySchema('length', {}, '305.525 mm').safeParse(raw);
  if (parsed.success) return { mm: parsed.data, inch: isInch(raw) };
  context.issues.push({ code: 'custom', input: raw, message: parsed.error.issues[0].message, params: { example: '305.525 mm' } });
  return z.NEVER;
});

const readingSchema = quantitySchema('deviation', {}, '113 um');

function steps(facts: JobFacts): JobStep[] {
  return [
    {
      text: 'Control parameters are for those licensed to change them, by the builder’s manual. What is shown here is never sent to the control.',
      caution: 'A wrong sign or unit is a crash: set the feed override to minimum for the first approach.',
    },
    { text: 'Home the axes as often as the control needs. A round that was read before feeds no register.' },
    {
      text: 'Read the old value off the screen of the control, write it on the offset change sheet, and lock it there before you change anything.',
    },
    {
      text: `Jog a little along the slide and watch the needle: this gives the sign for a register that the control adds, and whether its display counts radius or diameter. The centre has to go ${facts.size} ${facts.direction}.`,
      caution: 'Drives at minimum feed and hands clear.',
    },
    { text: 'Enter the new value from the offset change sheet with all its digits, and record that you entered it.' },
    { text: 'Home again, and switch off and on where the control needs it: before that it is not taken up.' },
    {
      text: 'Sweep again in a new round. It shows whether the value was right. Any way back is counted from the first old value.',
    },
  ];
}

/** Sign of the change that cures; a reference goes by κ of its axis, and as long as that is not learned no sign is known. */
const signOf = (cure: number, register: 'added' | 'reference' | undefined, kappa: number | undefined): number =>
  register === 'reference' ? (kappa ?? 0) * cure : cure;

/** Half the total reading, mm, as the register counts it. */
const changeOf = (totalReading: number, programming: 'radius' | 'diameter' | undefined): number =>
  ((programming === 'diameter' ? 2 : 1) * totalReading) / 2000;

/** More than half a millimetre, whatever it counts, is asked about: a mistaken unit is a crash. */
export const isLargeChange = (mm: number): boolean => Math.abs(mm) > 0.5;

/**
 * New value of a stored offset of a turning centre. The radial error is half the difference of the two
 * readings on that axis's own line, half a turn apart; in diameter programming the number changes by
 * twice that. For a register that the control adds, a small jog tells which sign is right; for a reference (home,
 * grid shift) it does not, until κ has been learned once for the axis: new = old + κ·jog. A wrong guess reads twice
 * the error next time. After a re-check the ratio of the two readings tells what went wrong, and the way back is
 * always from the first old value.
 *
 * @returns `change`, `plus` and `minus` in the control's unit (mm or inch); `chosen` (null where the sign is not
 *   known); `ifWrong` total reading in µm; with `recheck`: `ratio`, `meaning` and the `next` value, and, where its `doubt`
 *   (µm, of each total reading) or a sign that is not known (`recheckSigned` false) leaves more than one, what it `may` mean;
 *   `asks` what has to be made sure of before it is entered. Source: docs/methods/turning.md.
 */
export const storedOffset = defineMove({
  kind: 'stored-offset',
  title: 'Re-enter a stored offset',
  name: 're-enter the stored offset',
  verb: 'Re-enter it, changed by',
  input: z.strictObject({
    old: offsetSchema,
    totalReading: readingSchema,
    programming: choice({
      label: 'Programming',
      choices: [
        { value: 'radius', label: 'radius' },
        { value: 'diameter', label: 'diameter' },
      ],
    }),
    jog: z
      .strictObject({
        by: quantitySchema('length', {}, '0.02 mm'),
        reading: z.union([
          z.strictObject({ before: readingSchema, after: readingSchema }),
          z.tuple([readingSchema, readingSchema]).transform(([before, after]) => ({ before, after })),
        ]),
      })
      .optional(),
    register: choice({
      label: 'Register',
      choices: [
        { value: 'added', label: 'one that the control adds: tool, work, geometry' },
        { value: 'reference', label: 'a reference: home, grid shift' },
      ],
    }),
    kappa: z.union([z.literal(1), z.literal(-1)], { error: 'must be 1 or -1, as it was learned for this axis' }).optional(),
    recheck: readingSchema.optional(),
    recheckSigned: z.boolean({ error: 'must be true or false' }).optional(),
    doubt: quantitySchema('deviation', { min: 0 }, '2 um').optional(),
    entered: offsetSchema.optional(),
    shown: offsetSchema.optional(),
  }),
  answer: registerAnswer,
  plan: ({ old, totalReading, programming, jog, register, kappa, recheck, recheckSigned = true, doubt = 0, entered, shown }) => {
    const unit = old.inch ? INCH : 1;
    const change = changeOf(totalReading, programming) / unit;
    const now = old.mm / unit;
    const [plus, minus] = [now + change, now - change];
    const sign = signOf(jog ? cureOf(jog) : 0, register, kappa);
    const chosen = sign === 0 ? null : now + sign * Math.abs(change);
    const asks = [
      ...(isLargeChange(change * unit) ? ['large-change'] : []),
      ...(entered && isOdd(entered.mm / unit - now, change) ? ['not-half'] : []),
    ];
    return {
      change,
      plus,
      minus,
      chosen,
      ifWrong: 2 * Math.abs(totalReading),
      ...(asks.length && { asks }),
      ...((recheck !== undefined || shown) &&
        recheckOf({
          ...ratioOf(recheck, totalReading, doubt),
          signed: recheckSigned,
          old: now,
          meant: chosen === null ? [plus, minus] : [chosen],
          entered: entered && entered.mm / unit,
          shown: shown && shown.mm / unit,
          step: Math.abs(change),
        })),
    };
  },
  card: controlCard,
  machines: ['turning-centre'],
  panel: 'register',
  curedBy: 'control',
  steps,
  example: { old: 305.525, totalReading: '113 um' },
});

/** What is left of a total reading, as a part of it, with the doubt of that. @param doubt of either reading, µm. */
const ratioOf = (recheck: number | undefined, total: number, doubt: number) =>
  recheck === undefined
    ? { ratio: undefined, doubt: 0 }
    : { ratio: recheck / total, doubt: (doubt * Math.hypot(1, recheck / total)) / Math.abs(total) };

/** +1 or −1: which way a jog takes the error out; 0 where it tells nothing. A + jog that brings the reading toward zero is +. */
function cureOf(jog: { readonly by: number; readonly reading: { readonly before: number; readonly after: number } }): 1 | 0 | -1 {
  if (jog.by === 0 || jog.reading.after === jog.reading.before) return 0;
  const slope = (jog.reading.after - jog.reading.before) / jog.by;
  return -jog.reading.before / slope > 0 ? 1 : -1;
}

const isOdd = (made: number, change: number): boolean => Math.abs(Math.abs(made) - Math.abs(change)) > 0.02 * Math.abs(change);
