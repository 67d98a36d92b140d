import type { Note } from '../checks/define.js';
import type { Fault } from '../input/faults.js';
import { hasNeedle, readableStep, type Instrument } from '../instruments/instrument.js';
import { dialDivisions } from '../instruments/reading.js';
import type { Conditions, Reading, Return } from '../instruments/slots.js';
import { CONDITION_NAMES, say } from './compare.js';

/** Note that nobody has nudged the part to see which way the needle counts. */
export function directionNote(instrument: Instrument | undefined): Note[] {
  if (!instrument || !hasNeedle(instrument) || instrument.sense !== undefined) return [];
  return [
    {
      code: 'direction-assumed',
      severity: 'warning',
      text: 'The direction is assumed: nobody has pushed the part toward the stylus to see which way the needle goes. Some lever indicators count backwards on one side.',
    },
  ];
}

/** Lowest and highest that the dial showed, divisions. */
function shownRange(readings: readonly Reading<object>[], instrument: Instrument): [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (const { value } of readings) {
    const shown = dialDivisions(value, instrument);
    if (shown < low) low = shown;
    if (shown > high) high = shown;
  }
  return [low, high];
}

/**
 * Warn when a needle may have been at the end of its travel. The bezel can be turned, so that how far a reading lies from zero says
 * nothing: what counts is the travel that the readings used.
 */
export function peggedNote(readings: readonly Reading<object>[], instrument: Instrument | undefined): Note[] {
  if (!instrument?.range || !hasNeedle(instrument) || readings.length === 0) return [];
  const [low, high] = shownRange(readings, instrument);
  if (high - low <= 0.9 * instrument.range) return [];
  return [
    {
      code: 'pegged',
      severity: 'warning',
      text: `The needle may have been at the end of its travel: the readings go from ${low.toFixed(1)} to ${high.toFixed(1)} of ${instrument.range} divisions. Nudge it both ways. If it does not move freely, re-set the indicator and start again.`,
    },
  ];
}

/** Keys that stay as long as a dial hangs where it hangs: readings that share them share its travel. */
const HANGING: readonly string[] = ['set', 'zero', 'plane', 'axis', 'leg', 'feature', 'place', 'corner'];

const hangingKeys = new WeakMap<object, string>();

/** What readings share that share a dial's travel; made once for each reading, whatever the round grows to. */
function hangingKey(reading: Reading): string {
  let key = hangingKeys.get(reading);
  if (key !== undefined) return key;
  key = '';
  for (const name of HANGING) if (reading[name] !== undefined) key += `|${name}=${String(reading[name])}`;
  hangingKeys.set(reading, key);
  return key;
}

/** Readings further apart than the dial, or the micrometer, can travel: one of them cannot have been. */
export function beyondRange(readings: readonly Reading[], instrument: Instrument | undefined): Fault[] {
  const range = instrument?.range;
  if (!instrument || range === undefined) return [];
  if (instrument.kind === 'micrometer') return beyondMicrometer(readings, (range * instrument.graduation) / 1000);
  if (!hasNeedle(instrument)) return [];
  const groups = new Map<string, { low: number; high: number; lowAt: number; highAt: number }>();
  readings.forEach((reading, i) => {
    const key = hangingKey(reading);
    const shown = dialDivisions(reading.value, instrument);
    const known = groups.get(key);
    if (!known) return void groups.set(key, { low: shown, high: shown, lowAt: i, highAt: i });
    if (shown < known.low) [known.low, known.lowAt] = [shown, i];
    if (shown > known.high) [known.high, known.highAt] = [shown, i];
  });
  return [...groups.values()].flatMap(({ low, high, lowAt, highAt }) =>
    high - low > range + 1e-9
      ? [
          {
            path: `readings[${Math.max(lowAt, highAt)}].value`,
            message: `cannot have been: readings from ${Number(low.toFixed(2))} to ${Number(high.toFixed(2))} div are further apart than the ${range} div that this dial travels`,
            example: 'what the dial reads',
          },
        ]
      : [],
  );
}

/** Sizes further apart than one micrometer spans. @param span mm. */
function beyondMicrometer(readings: readonly Reading[], span: number): Fault[] {
  const sizes = readings.map(({ value }) => value / 1000);
  const [low, high] = [Math.min(...sizes), Math.max(...sizes)];
  if (sizes.length === 0 || high - low <= span + 1e-9) return [];
  const middle = [...sizes].sort((a, b) => a - b)[sizes.length >> 1];
  const far = sizes.reduce((worst, size, i) => (Math.abs(size - middle) > Math.abs(sizes[worst] - middle) ? i : worst), 0);
  return [
    {
      path: `readings[${far}].value`,
      message: `is taken for ${Number(sizes[far].toFixed(4))} mm: sizes from ${Number(low.toFixed(3))} to ${Number(high.toFixed(3))} mm are further apart than this micrometer spans (${Number(span.toFixed(2))} mm)`,
      example: `${Number(middle.toFixed(2))} mm`,
    },
  ];
}

/** What coming back to a place tells: fine, worth a word, or not to be trusted. */
export function closureNote(returns: readonly Return[], instrument: Instrument | undefined): { notes: Note[]; trusted: boolean } {
  if (!instrument || returns.length === 0) return { notes: [], trusted: true };
  const worst = returns.reduce((a, b) => (Math.abs(b.difference) > Math.abs(a.difference) ? b : a));
  const size = Math.abs(worst.difference);
  const tolerance = 1e-6;
  if (size <= readableStep(instrument) + tolerance) return { notes: [], trusted: true };
  const divisions = (size / instrument.graduation).toFixed(1);
  const trusted = size <= 2 * instrument.graduation + tolerance;
  return {
    trusted,
    notes: [
      {
        code: 'closure',
        severity: trusted ? 'warning' : 'serious',
        text: trusted
          ? `Read again, a place came back ${divisions} divisions off. Something has moved a little; its doubt is counted.`
          : `Read again, a place came back ${divisions} divisions off: this round is not to be trusted. Look for a loose clamp, a slipped stylus or a knock, and take the round again.`,
      },
    ],
  };
}

/** Conditions that differ among the readings of one round, in words: locked, then free. */
export function conditionsNote(readings: readonly Reading<object>[]): { notes: Note[]; trusted: boolean } {
  const first = new Map<string, Conditions[string]>();
  const differ = new Map<string, string>();
  for (const { conditions } of readings) {
    if (!conditions) continue;
    for (const [key, value] of Object.entries(conditions)) {
      const known = first.get(key);
      if (known === undefined) first.set(key, value);
      else if (known !== value && !differ.has(key)) differ.set(key, `${CONDITION_NAMES[key] ?? key} ${say(known)}, then ${say(value)}`);
    }
  }
  if (differ.size === 0) return { notes: [], trusted: true };
  return {
    trusted: false,
    notes: [
      {
        code: 'conditions-differ',
        severity: 'serious',
        text: `The conditions changed within the round: ${[...differ.values()].join('; ')}. What was read under one does not compare with the other: take it again under one of them.`,
      },
    ],
  };
}
