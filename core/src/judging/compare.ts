import type { CheckDefinition } from '../checks/define.js';
import type { Conditions } from '../instruments/slots.js';
import type { Quantity } from './finding.js';
import { showSize } from '../units/format.js';

/** How a condition is called in a sentence. */
export const CONDITION_NAMES: Readonly<Record<string, string>> = {
  bedClamp: 'bed clamp',
  quillLock: 'quill lock',
  quillOut: 'quill extension',
  place: 'place along the bed',
  indicatorOn: 'what carries the indicator',
  locks: 'locks',
  force: 'push force',
  swept: 'what was swept',
  homed: 'axes homed',
  station: 'station',
  plate: 'plate',
  flat: 'ground flat',
  way: 'which way',
  casting: 'casting',
};

/** A condition as it is said: on, off, not noted. */
export const say = (value: string | number | boolean | undefined): string =>
  value === undefined ? 'not noted' : value === true ? 'on' : value === false ? 'off' : String(value);

/**
 * How two rounds differ in their conditions, in words. Empty when they may be compared.
 *
 * @example differences({ quillLock: true }, { quillLock: false }) // ['quill lock on, then off']
 */
export function differences(before: Conditions, after: Conditions): string[] {
  return [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .filter((key) => before[key] !== after[key])
    .map((key) => `${CONDITION_NAMES[key] ?? key} ${say(before[key])}, then ${say(after[key])}`);
}

/** One method's latest word on the same thing. */
/** What of a finding is compared: its values with their doubts. */
export interface Told {
  readonly quantities: Readonly<Record<string, Pick<Quantity, 'value' | 'expanded' | 'verdict'>>>;
}

export interface MethodResult {
  readonly check: CheckDefinition;
  readonly finding: Told;
}

export interface Disagreement {
  readonly quantity: string;
  readonly difference: number;
  /** √(U₁² + U₂²): what the two doubts allow. */
  readonly allowed: number;
  readonly text: string;
}

/**
 * Where two methods disagree beyond their doubts, with the likely cause: either they speak of
 * different things (the carriage's line, the spindle's axis) or one of the things they trust is off.
 */
export function disagreements(a: MethodResult, b: MethodResult): Disagreement[] {
  return Object.keys(a.finding.quantities).flatMap((name) => {
    const [one, two] = [a.finding.quantities[name], b.finding.quantities[name]];
    const info = a.check.quantities[name];
    if (!two || one.verdict === null || two.verdict === null || !info) return [];
    const difference = two.value - one.value;
    const allowed = Math.hypot(one.expanded ?? 0, two.expanded ?? 0);
    if (Math.abs(difference) <= allowed) return [];
    const show = (value: number) => showSize(value, info.dimension, 'mm', 'fine', allowed);
    const head = `${info.label}: "${a.check.title}" and "${b.check.title}" differ by ${show(difference)}, more than the ±${show(allowed)} their doubts allow.`;
    return [{ quantity: name, difference, allowed, text: `${head} ${likelyCause(a.check, b.check)}` }];
  });
}

function likelyCause(a: CheckDefinition, b: CheckDefinition): string {
  const trusted = [...new Set([...(a.trusts ?? []), ...(b.trusts ?? [])])].join('; ');
  if (a.view !== b.view) {
    return 'Neither need be wrong: one speaks of the carriage, the other of the spindle, and they part when the spindle axis points off the carriage’s line. Check the spindle axis before moving anything.';
  }
  return `Look at what each one trusts: ${trusted}.`;
}

/** Eccentricity of the taper to the quill: sweep of the centre minus sweep of the quill, µm. */
export function taperEccentricity(quill: Told, centre: Told): { horizontal: number; vertical: number; radial: number } | undefined {
  const offset = (finding: Told, name: string) => finding.quantities[name]?.value;
  const [h1, h2, v1, v2] = [
    offset(quill, 'offsetHorizontal'),
    offset(centre, 'offsetHorizontal'),
    offset(quill, 'offsetVertical'),
    offset(centre, 'offsetVertical'),
  ];
  if (h1 === undefined || h2 === undefined || v1 === undefined || v2 === undefined) return undefined;
  return { horizontal: h2 - h1, vertical: v2 - v1, radial: Math.hypot(h2 - h1, v2 - v1) };
}
