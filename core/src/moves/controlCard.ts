import * as z from 'zod';
import { choice, count, fieldRegistry, optionalText, quantitySchema } from '../input/fields.js';

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
  station: optionalText(12, { label: 'Which station', example: '3' }),
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

/** What the card of a machine tells of its slide, its control and its turret. */
export const controlCard = {
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
} as const;
