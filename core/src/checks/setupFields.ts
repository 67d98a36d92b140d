import * as z from 'zod';
import { choice, fieldRegistry, optionalMeasure, measure, quantitySchema, type FieldInfo } from '../input/fields.js';
import type { RoundBar } from '../gravity/bars.js';
import type { SpokenBase } from '../instruments/reading.js';
import { parseQuantity } from '../units/parse.js';
import type { Beside } from './define.js';

/** Side from which a level or an indicator looks. */
export const sideField = () =>
  choice({
    label: 'Read from',
    choices: [
      { value: 'operator', label: "the operator's side" },
      { value: 'rear', label: 'the rear' },
    ],
  });

/** An angle round a circle: 360 is 0 again, so that it closes. */
export const roundAngle = (info: Omit<FieldInfo, 'dimension'>) =>
  quantitySchema('angle', { min: -360, max: 360 }, info.example)
    .transform((degrees) => ((degrees % 360) + 360) % 360)
    .register(fieldRegistry, { ...info, dimension: 'angle' });

/** Locks of what does not move meanwhile: locking moves what it holds, so that rounds are like only where these are. */
export const locksField = (label: string, help: string) =>
  choice({
    label,
    choices: [
      { value: 'on', label: 'locked, as in work' },
      { value: 'off', label: 'free' },
    ],
    help,
  });

/** Whether the axes had been homed when it was read: what was read before feeds no register. */
export const homedField = () =>
  choice({
    label: 'Axes homed, the slide at its stored zero',
    choices: [
      { value: 'yes', label: 'yes, before this reading' },
      { value: 'no', label: 'not yet' },
    ],
    help: 'A reading taken before homing says nothing about a register.',
    anew: true,
    asked: true,
  });

export const planeKey = () => z.enum(['h', 'v'], { error: 'must be "h" (side) or "v" (top)' });
export const extremeKey = () => z.enum(['high', 'low'], { error: 'must be "high" or "low"' });
export const turnKey = () => z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180' }).optional();
/** On which of two sides a stylus stands: a sheet may leave it out, the screen asks, because it turns the sign. */
export const askedSide = <const T extends readonly [string, string]>(
  label: string,
  values: T,
  words: readonly [string, string],
  help: string,
  when: Pick<FieldInfo, 'asked' | 'askedWith'> = { asked: true },
) =>
  z
    .enum(values, { error: `must be "${values[0]}" or "${values[1]}"` })
    .optional()
    .register(fieldRegistry, { label, help, ...when, choices: values.map((value, i) => ({ value, label: words[i] })) });
/** Where the high place of a turn lies, degrees from a mark on the spindle. */
export const highAtKey = () =>
  optionalMeasure('angle', {
    label: 'High place at',
    min: -360,
    max: 360,
    example: '90',
    help: 'Degrees from a chalk mark on the spindle to the high place of the turn, counted the same way each time.',
  });
/** Asked where the highest of a turn is read with the bar in one of its two ways round. */
export const HIGH_AT: Beside = { key: 'highAt', when: ({ extreme, turn }) => extreme === 'high' && turn !== undefined };
/** Number of the zero of a dial: only readings of one zero are compared. */
export const zeroKey = () => z.int({ error: 'must be the number of the zero: 1, 2, …' }).min(1, { error: 'must be 1 or more' }).optional();
export const flipKey = () => z.boolean({ error: 'must be true or false' }).optional();

const INCHES: readonly string[] = ['in', 'inch', 'inches', '"', 'ft', 'thou', 'thousandth', 'thousandths', 'tenth', 'tenths', 'uin'];

/** A size that others are spoken over: digits alone are thou over a base in inch, hundredths over one in mm. */
export const baseSize = () =>
  z
    .unknown()
    .transform((raw, context): SpokenBase => {
      const parsed = parseQuantity(raw, 'length');
      if (parsed.ok && parsed.value > 0) return { size: parsed.value, step: INCHES.includes(parsed.unit) ? 0.0254 : 0.01 };
      const message = parsed.ok ? 'must be more than 0 mm' : parsed.message;
      context.issues.push({ code: 'custom', message, input: raw, params: { example: '0.8 in' } });
      return z.NEVER;
    })
    .optional()
    .register(fieldRegistry, {
      label: 'Sizes are spoken over',
      dimension: 'length',
      example: '0.8 in',
      rare: true,
      help: 'Digits alone are then thou over it (hundredths, for a base in mm): 62 over 0.8 in is 0.862 in.',
    });

/** What a bar is made of: its weight and stiffness follow. */
export const material = () =>
  choice({
    label: 'Material',
    choices: [
      { value: 'steel', label: 'steel' },
      { value: 'cast-iron', label: 'cast iron' },
      { value: 'aluminium', label: 'aluminium' },
    ],
  });

export const diameters = () =>
  z
    .array(
      z.strictObject({
        at: measure('length', { label: 'At', example: '20 mm', usual: 'anything' }),
        diameter: measure('length', { label: 'Diameter', above: 0, example: '25.002 mm' }),
      }),
    )
    .optional()
    .register(fieldRegistry, {
      label: 'Measured diameters, or lands and their step',
      rare: true,
      help: 'Where the bar is not even, or where it is read on the spindle’s own lands: half of the difference is taken out.',
    });

/** A round bar between centres or held: what it is made of, and how it was finished. */
export const centresBar = () =>
  z
    .strictObject({
      diameter: measure('length', { label: 'Bar diameter', above: 0, example: '25 mm' }),
      bore: optionalMeasure('length', {
        label: 'Bore of the bar',
        min: 0,
        example: '0',
        rare: true,
        help: 'For a hollow bar; 0 when solid.',
      }),
      material: material(),
      finish: choice({
        label: 'Bar finished',
        choices: [
          { value: 'ground', label: 'ground' },
          { value: 'turned-elsewhere', label: 'turned elsewhere' },
          { value: 'turned-here', label: 'turned in this lathe and not moved since' },
        ],
      }),
      diameters: diameters(),
    })
    .refine((bar) => bar.bore === undefined || bar.bore < bar.diameter, {
      path: ['bore'],
      message: 'must be less than the diameter',
      params: { example: '0' },
    })
    .optional()
    .register(fieldRegistry, { label: 'Bar', group: true, kit: 'test-bar' });

/** The bar of a test cut: its size, and what it is made of for the temperature. */
export const cutBar = () =>
  z
    .strictObject({
      diameter: measure('length', {
        label: 'Bar diameter',
        above: 0,
        example: '38 mm',
        help: 'Roughly: for its stiffness under the tool.',
      }),
      material: material(),
    })
    .optional()
    .register(fieldRegistry, { label: 'Bar', group: true });

export const centreDistance = () =>
  measure('length', {
    label: 'Distance between centres',
    above: 0,
    max: 50_000,
    example: '420 mm',
    help: 'From the headstock centre to the tail centre, as it is now.',
  });

export const centreKind = () =>
  choice({
    label: 'Tail centre',
    choices: [
      { value: 'dead', label: 'dead centre' },
      { value: 'live', label: 'live centre' },
      { value: 'turned', label: 'turned where it stands' },
    ],
    help: 'A live centre brings the runout of its own bearings into the result.',
  });

const axisSlope = (label: string, from: string) =>
  optionalMeasure('slope', { label, from, example: '12 um/m', rare: true, help: 'From the spindle-axis check, when it is known.' });

/** Distance and axis slopes that carry a result between the spindle's view and the carriage's. */
export const axisFields = () => ({
  distance: optionalMeasure('length', {
    label: 'Spindle nose to the place',
    min: 0,
    max: 50_000,
    example: '660 mm',
    rare: true,
    help: 'From the spindle nose to what is swept or to the tail centre.',
  }),
  axisSlopeH: axisSlope('Spindle axis, toward the operator, as the carriage sees it', 'axisApparentH'),
  axisSlopeV: axisSlope('Spindle axis, free end up', 'axisSlopeV'),
});

interface Axis {
  readonly distance?: number;
  readonly axisSlopeH?: number;
  readonly axisSlopeV?: number;
}

/** ± µm on radius that a bar may hide at each place, and by which it may be bent between its ends. */
export const barError = (finish: 'ground' | 'drawn' | 'turned-elsewhere' | 'turned-here'): number => (finish === 'ground' ? 0.5 : 3);

/** Whether the diameter of a bar was measured at every place that was read, to 1 mm. */
export function measuredAt(diameters: readonly { readonly at: number }[] | undefined, places: readonly number[]): boolean {
  return !!diameters?.length && places.every((place) => diameters.some(({ at }) => Math.abs(at - place) <= 1));
}

/** µm that the spindle axis is off the carriage's line at `distance`: what parts the two views. */
export function axisShift({ distance, axisSlopeH, axisSlopeV }: Axis, plane: 'h' | 'v'): number | undefined {
  const slope = plane === 'h' ? axisSlopeH : axisSlopeV;
  return distance === undefined || slope === undefined ? undefined : (slope * distance) / 1000;
}

/**
 * Diameter difference of a measured bar at z, from its first measured place: mm.
 * Straight lines between the measured places, level beyond them.
 */
export function diameterDifference(measured: readonly { readonly at: number; readonly diameter: number }[] | undefined, z: number): number {
  if (!measured || measured.length === 0) return 0;
  const sorted = [...measured].sort((a, b) => a.at - b.at);
  const base = sorted[0].diameter;
  if (z <= sorted[0].at) return 0;
  for (let i = 1; i < sorted.length; i++) {
    const [left, right] = [sorted[i - 1], sorted[i]];
    if (z <= right.at) return left.diameter - base + ((right.diameter - left.diameter) * (z - left.at)) / (right.at - left.at);
  }
  return sorted[sorted.length - 1].diameter - base;
}

/** The bar of a setup as the gravity formulas want it. */
export function roundBar(
  bar: { readonly diameter: number; readonly bore?: number; readonly material?: RoundBar['material'] } | undefined,
): RoundBar | undefined {
  return bar && { diameter: bar.diameter, bore: bar.bore, material: bar.material };
}

/** On which side of the work the tool stands. */
export const toolField = () =>
  choice({
    label: 'Tool stands',
    choices: [
      { value: 'operator', label: "on the operator's side" },
      { value: 'rear', label: 'behind the work' },
    ],
  });

/** How the cross dial counts: what a re-set tool was moved by. */
export const dialField = () =>
  choice({
    label: 'Cross dial counts on',
    choices: [
      { value: 'diameter', label: 'diameter' },
      { value: 'radius', label: 'radius' },
    ],
    help: 'Only where the tool was re-set between the pads. A radius dial counts twice.',
  });

/** Which way round a level stands: forward is the way round in which + means what the check says. */
export const levelEnd = () =>
  choice({
    label: 'Level',
    choices: [
      { value: 'forward', label: 'this way round' },
      { value: 'reversed', label: 'turned end for end' },
    ],
  });

export const levelZeroField = () =>
  optionalMeasure('slope', {
    label: 'Zero error of the level',
    example: '0',
    rare: true,
    help: 'Only when the level is not turned end for end at each place.',
  });
