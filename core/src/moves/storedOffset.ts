import * as z from 'zod';
import { choice, count, fieldRegistry, quantitySchema } from '../input/fields.js';
import { readNumber } from '../units/number.js';
import { defineMove } from './define.js';
import type { JobFacts, JobStep } from './jobSteps.js';

const INCH = 25.4;
const INCHES: readonly string[] = ['in', 'inch', 'inches', '"', 'thou', 'thousandth', 'thousandths', 'tenth', 'tenths', 'uin'];
const isInch = (raw: unknown): boolean => typeof raw === 'string' && INCHES.includes(readNumber(raw)?.unit ?? '');

/** An offset in the control's own unit: mm, or inch when it was given in inch. */
const offsetSchema = z.unknown().transform((raw, context) => {
  const parsed = quantitySchema('length', {}, '305.525 mm').safeParse(raw);
  if (parsed.success) return { mm: parsed.data, inch: isInch(raw) };
  context.issues.push({ code: 'custom', input: raw, message: parsed.error.issues[0].message, params: { example: '305.525 mm' } });
  return z.NEVER;
});

const readingSchema = quantitySchema('deviation', {}, '113 um');

const word = (label: string, example: string, max = 40) =>
  z
    .string({ error: 'must be a text' })
    .trim()
    .min(1, 'is missing')
    .max(max, `must have ${max} letters or fewer`)
    .register(fieldRegistry, { label, example });

/** A register of a control, as its machine's card tells it. */
export const registerSchema = z.strictObject({
  name: word('Register', 'work shift X'),
  axis: word('Axis', 'X', 8),
  kind: choice({
    label: 'It is',
    asked: true,
    choices: [
      { value: 'added', label: 'added by the control: tool, work, geometry' },
      { value: 'reference', label: 'a reference: home, grid shift' },
    ],
  }),
  unit: choice({
    label: 'In',
    asked: true,
    choices: [
      { value: 'mm', label: 'mm' },
      { value: 'inch', label: 'inch' },
    ],
  }),
  programming: choice({
    label: 'As a',
    asked: true,
    choices: [
      { value: 'radius', label: 'radius' },
      { value: 'diameter', label: 'diameter' },
    ],
  }),
  digits: count({ label: 'Digits', min: 1, max: 6, example: '3' }),
  scope: choice({
    label: 'It shifts',
    asked: true,
    choices: [
      { value: 'station', label: 'one station' },
      { value: 'turret', label: 'all stations of the turret' },
      { value: 'sub', label: 'the sub-spindle' },
    ],
  }),
  station: z
    .string({ error: 'must be a text' })
    .trim()
    .max(12, 'must have 12 letters or fewer')
    .optional()
    .register(fieldRegistry, { label: 'Which station', example: '3' }),
  kappa: choice({
    label: 'A reference goes, by a jog,',
    rare: true,
    choices: [
      { value: 'unknown', label: 'as the log has learned it' },
      { value: 'with', label: 'the way of the jog' },
      { value: 'against', label: 'against the jog' },
    ],
  }),
  basedOn: z
    .string({ error: 'must be a text' })
    .max(40)
    .optional()
    .register(fieldRegistry, { label: 'Based on register', example: 'home X', rare: true }),
});
export type RegisterCard = z.output<typeof registerSchema>;

function steps(facts: JobFacts): JobStep[] {
  return [
    {
      text: 'Control parameters are for those licensed to change them, by the builder’s manual. What is shown here is never sent to the control.',
      caution: 'A slip of a sign or a unit is a crash: feed override at minimum for the first approach.',
    },
    { text: 'Home the axes as often as the control needs. A round that was read before feeds no register.' },
    { text: 'Read the old value off the screen of the control, write it on the slip, and lock it there before anything is changed.' },
    {
      text: `Jog a little along the slide and watch the needle: that tells the sign for a register that the control adds, and whether its display counts radius or diameter. The centre has to go ${facts.size} ${facts.direction}.`,
      caution: 'Drives at minimum feed and hands clear.',
    },
    { text: 'Enter the new value from the slip, all of its digits, and write down that it was entered.' },
    { text: 'Home again, and switch off and on where the control needs it: before that it is not taken up.' },
    {
      text: 'Sweep again in a new round. What it reads tells whether the value was right; the way back is always from the first old value.',
    },
  ];
}

/** What a ratio of the reading after to the reading before tells of the value that was entered. */
const MEANINGS = [
  { ratio: 0, meaning: 'right', factor: 1 },
  { ratio: 2, meaning: 'wrong-sign', factor: -1 },
  { ratio: -1, meaning: 'doubled', factor: 0.5 },
  { ratio: 3, meaning: 'doubled-wrong-sign', factor: -0.5 },
  { ratio: 0.5, meaning: 'halved', factor: 2 },
  { ratio: 1.5, meaning: 'halved-wrong-sign', factor: -2 },
  { ratio: 1, meaning: 'not-taken-up', factor: 1 },
  { ratio: 1 - 1 / INCH, meaning: 'inch-as-mm', factor: INCH },
  { ratio: 1 - INCH, meaning: 'mm-as-inch', factor: 1 / INCH },
  { ratio: 1 + INCH, meaning: 'mm-as-inch', factor: 1 / INCH },
] as const;
/** How far a ratio may be from what it means: a tenth, or a twentieth of a large one. */
const near = (ratio: number, wanted: number): boolean => Math.abs(ratio - wanted) <= Math.max(0.12, 0.06 * Math.abs(wanted));

type Meaning = Pick<(typeof MEANINGS)[number], 'meaning' | 'factor'>;

function meaningOf(ratio: number): Meaning | undefined {
  const [nearest] = [...MEANINGS].sort((a, b) => Math.abs(ratio - a.ratio) - Math.abs(ratio - b.ratio));
  return near(ratio, nearest.ratio) ? nearest : undefined;
}

/**
 * Everything that a ratio may mean: the nearest, what its doubt reaches beside it, and the same of the opposite where its sign
 * is not known. Each once.
 */
function meaningsOf(ratio: number, doubt: number, signed: boolean): Meaning[] {
  const signs = signed ? [ratio] : [Math.abs(ratio), -Math.abs(ratio)];
  const found = signs.flatMap((value) => [
    ...(meaningOf(value) ? [meaningOf(value) as Meaning] : []),
    ...MEANINGS.filter((entry) => Math.abs(value - entry.ratio) <= doubt),
  ]);
  return found.filter((entry, i) => found.findIndex(({ meaning }) => meaning === entry.meaning) === i);
}

/** More than this, mm, is asked about: a slip of a unit is a crash. */
const LARGE = 0.5;

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
  }),
  plan: ({
    old,
    totalReading,
    programming = 'radius',
    jog,
    register = 'added',
    kappa,
    recheck,
    recheckSigned = true,
    doubt = 0,
    entered,
  }) => {
    const unit = old.inch ? INCH : 1;
    const change = ((programming === 'diameter' ? 2 : 1) * totalReading) / 2000 / unit;
    const now = old.mm / unit;
    const [plus, minus] = [now + change, now - change];
    const cure = jog && jog.by !== 0 && jog.reading.after !== jog.reading.before ? cureOf(jog) : 0;
    const sign = register === 'reference' ? (kappa ?? 0) * cure : cure;
    const chosen = sign === 0 ? null : now + sign * Math.abs(change);
    const asks = [
      ...(Math.abs(change * unit) > LARGE ? ['large-change'] : []),
      ...(entered && isOdd(entered.mm / unit - now, change) ? ['not-half'] : []),
    ];
    return {
      change,
      plus,
      minus,
      chosen,
      ifWrong: 2 * Math.abs(totalReading),
      ...(asks.length && { asks }),
      ...(recheck !== undefined &&
        rechecked(
          recheck / totalReading,
          (doubt * Math.hypot(1, recheck / totalReading)) / Math.abs(totalReading),
          recheckSigned,
          now,
          entered ? entered.mm / unit - now : (chosen ?? plus) - now,
        )),
    };
  },
  card: {
    slide: z
      .strictObject({
        rises: choice({
          label: 'The slide rises toward',
          asked: true,
          choices: [
            { value: 'rear', label: 'the rear' },
            { value: 'operator', label: 'the operator' },
            { value: 'flat', label: 'neither: it lies level' },
          ],
        }),
        degrees: quantitySchema('angle', { min: 0, max: 90 }, '45').optional().register(fieldRegistry, {
          label: 'by, degrees',
          dimension: 'angle',
          example: '45',
        }),
      })
      .optional()
      .register(fieldRegistry, { label: 'Slide', group: true }),
    registers: z
      .array(registerSchema)
      .max(30, 'must be 30 registers or fewer')
      .refine((rows) => new Set(rows.map(({ name }) => name)).size === rows.length, { message: 'names a register twice' })
      .optional()
      .register(fieldRegistry, {
        label: 'Registers of the control',
        help: 'Those that a reading may change: one for each axis and station.',
      }),
    homing: z
      .strictObject({
        times: count({ label: 'To be homed, times', min: 1, max: 5, example: '2' }),
        power: count({ label: 'Power off and on, times', min: 0, max: 5, example: '1' }),
      })
      .optional()
      .register(fieldRegistry, { label: 'Until a register is taken up', group: true }),
    stations: z
      .array(
        z.strictObject({
          station: z.string({ error: 'must be a text' }).min(1).max(12).register(fieldRegistry, { label: 'Station', example: '3' }),
          plate: z.string({ error: 'must be a text' }).min(1).max(24).register(fieldRegistry, { label: 'Its plate', example: '3' }),
        }),
      )
      .max(40)
      .optional()
      .register(fieldRegistry, { label: 'Stations and their plates', help: 'Each plate back to its own place.', rare: true }),
  },
  machines: ['turning-centre'],
  panel: 'register',
  curedBy: 'control',
  steps,
  example: { old: 305.525, totalReading: '113 um' },
});

/** +1 or −1: which way a jog takes the error out. A + jog that brings the reading toward zero is +. */
function cureOf(jog: { readonly by: number; readonly reading: { readonly before: number; readonly after: number } }): 1 | -1 {
  const slope = (jog.reading.after - jog.reading.before) / jog.by;
  return -jog.reading.before / slope > 0 ? 1 : -1;
}

const isOdd = (made: number, change: number): boolean => Math.abs(Math.abs(made) - Math.abs(change)) > 0.02 * Math.abs(change);

/** What the reading after tells, and the value to enter next: always from the first old value. */
function rechecked(ratio: number, doubt: number, signed: boolean, old: number, made: number) {
  if (!Number.isFinite(ratio)) return { ratio: null, meaning: 'unclear', next: null };
  const may = meaningsOf(ratio, doubt, signed);
  if (may.length === 1) return { ratio, meaning: may[0].meaning, next: old + may[0].factor * made };
  return { ratio, meaning: 'unclear', next: null, ...(may.length > 1 && { may: may.map(({ meaning }) => meaning) }) };
}
