import type { Note } from '../checks/define.js';
import { readableStep, type Instrument } from '../instruments/instrument.js';
import { dialDivisions } from '../instruments/reading.js';
import type { Reading, Return } from '../instruments/slots.js';

/** Kinds whose needle can count either way. */
const NEEDLES: readonly string[] = ['plunger', 'lever'];

/** Note that nobody has nudged the part to see which way the needle counts. */
export function directionNote(instrument: Instrument | undefined): Note[] {
  if (!instrument || !NEEDLES.includes(instrument.kind) || instrument.sense !== undefined) return [];
  return [
    {
      code: 'direction-assumed',
      severity: 'warning',
      text: 'The direction is assumed: nobody has pushed the part toward the stylus to see which way the needle goes. Some lever indicators count backwards on one side.',
    },
  ];
}

/** Warn when a needle may have been at the end of its travel. */
export function peggedNote(readings: readonly Reading[], instrument: Instrument | undefined): Note[] {
  if (!instrument?.range || !NEEDLES.includes(instrument.kind) || readings.length === 0) return [];
  const shown = readings.map((reading) => dialDivisions(reading.value, instrument));
  const [low, high] = [Math.min(...shown), Math.max(...shown)];
  const end = instrument.kind === 'lever' ? instrument.range / 2 : instrument.range;
  const nearEnd = Math.max(Math.abs(low), Math.abs(high)) >= end - 0.05 * instrument.range;
  if (high - low <= 0.9 * instrument.range && !nearEnd) return [];
  return [
    {
      code: 'pegged',
      severity: 'warning',
      text: `The needle may be pegged: the readings go from ${low.toFixed(1)} to ${high.toFixed(1)} of ${instrument.range} divisions. Nudge it both ways; if it does not move freely, re-set the indicator and start again.`,
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
