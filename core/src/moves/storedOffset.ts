import * as z from 'zod';
import { choice, quantitySchema } from '../fields.js';
import { readNumber } from '../units/number.js';
import { defineMove } from './define.js';

const INCH = 25.4;
const isInch = (raw: unknown): boolean => typeof raw === 'string' && /^(in|"|thou|tenths?|uin)$/.test(readNumber(raw)?.unit ?? '');

/** An offset in the control's own unit: mm, or inch when it was given in inch. */
const offsetSchema = z.unknown().transform((raw, context) => {
  const parsed = quantitySchema('length', {}, '305.525 mm').safeParse(raw);
  if (parsed.success) return { mm: parsed.data, inch: isInch(raw) };
  context.issues.push({ code: 'custom', input: raw, message: parsed.error.issues[0].message, params: { example: '305.525 mm' } });
  return z.NEVER;
});

const jogReading = quantitySchema('deviation', {}, '113 um');

/**
 * New value of a stored offset of a turning centre. The radial error is half the difference of the two
 * readings on that axis's own line, half a turn apart; in diameter programming the number changes by
 * twice that. Which sign is right is found by a small jog; a wrong guess reads twice the error next time.
 *
 * @returns `change`, `plus` and `minus` in the control's unit (mm or inch); `chosen` (null without a
 *   jog); `ifWrong` total reading in µm.
 */
export const storedOffset = defineMove({
  kind: 'stored-offset',
  title: 'Re-enter a stored offset',
  input: z.strictObject({
    old: offsetSchema,
    totalReading: quantitySchema('deviation', {}, '113 um'),
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
          z.strictObject({ before: jogReading, after: jogReading }),
          z.tuple([jogReading, jogReading]).transform(([before, after]) => ({ before, after })),
        ]),
      })
      .optional(),
  }),
  plan: ({ old, totalReading, programming = 'radius', jog }) => {
    const unit = old.inch ? INCH : 1;
    const change = ((programming === 'diameter' ? 2 : 1) * totalReading) / 2000 / unit;
    const now = old.mm / unit;
    const [plus, minus] = [now + change, now - change];
    let chosen: number | null = null;
    if (jog && jog.by !== 0 && jog.reading.after !== jog.reading.before) {
      // A + jog that made the reading go down takes the error away: go on that way while it is positive.
      const slope = (jog.reading.after - jog.reading.before) / jog.by;
      chosen = -jog.reading.before / slope > 0 ? now + Math.abs(change) : now - Math.abs(change);
    }
    return { change, plus, minus, chosen, ifWrong: 2 * Math.abs(totalReading) };
  },
});
