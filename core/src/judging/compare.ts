import type { CheckDefinition } from '../checks/define.js';
import type { Conditions } from '../instruments/slots.js';
import type { Quantity } from './finding.js';
import type { Said, SizeWriter } from '../units/said.js';

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

/** What of a finding is compared: its values with their doubts. */
export interface Compared {
  readonly quantities: Readonly<Record<string, Pick<Quantity, 'value' | 'expanded' | 'verdict'>>>;
}

/** One method's latest word on the same thing. */
export interface MethodResult {
  readonly check: CheckDefinition;
  readonly finding: Compared;
}

export interface Disagreement {
  readonly quantity: string;
  readonly difference: number;
  /** √(U₁² + U₂²): what the two doubts allow. */
  readonly allowed: number;
  readonly text: Said;
  /** The spindle axis, as it was measured, makes the difference: there is nothing to look for. */
  readonly byAxis?: true;
}

/**
 * Where two methods disagree beyond their doubts, with the likely cause: either they speak of different things (the carriage's
 * line, the spindle's axis) or one of the things they trust is off. Where the axis is known the two are held against each other
 * as the carriage sees it, and what the axis makes of the difference is told.
 *
 * @param axisKnown the spindle axis has been measured, whether or not these two rounds were told of it.
 */
export function disagreements(a: MethodResult, b: MethodResult, { axisKnown = false } = {}): Disagreement[] {
  return Object.keys(a.finding.quantities).flatMap((name) => {
    const [one, two] = [a.finding.quantities[name], b.finding.quantities[name]];
    const info = a.check.quantities[name];
    if (!two || one.verdict === null || two.verdict === null || !info) return [];
    const difference = two.value - one.value;
    const allowed = Math.hypot(one.expanded ?? 0, two.expanded ?? 0);
    if (Math.abs(difference) <= allowed) return [];
    const shown = (size: SizeWriter) => (value: number) => size(value, info.dimension, allowed);
    const head = (show: (value: number) => string) =>
      `${info.label}: "${a.check.title}" and "${b.check.title}" differ by ${show(difference)}, more than the ±${show(allowed)} their doubts allow.`;
    const seen = a.check.view === b.check.view ? undefined : sameView(a, b, name);
    if (!seen)
      return [{ quantity: name, difference, allowed, text: (size) => `${head(shown(size))} ${likelyCause(a.check, b.check, axisKnown)}` }];
    const rest = seen.two.value - seen.one.value;
    const byAxis = Math.abs(rest) <= Math.hypot(seen.one.expanded ?? 0, seen.two.expanded ?? 0);
    const text: Said = (size) => {
      const show = shown(size);
      const says = ({ check }: MethodResult, value: number) =>
        `"${check.title}" says ${show(value)} ${(value < 0 ? info.words?.minus : info.words?.plus) ?? ''}`.trimEnd();
      const sum = `Seen from the ${seen.from}, ${says(a, seen.one.value)} and ${says(b, seen.two.value)}`;
      const cause = byAxis
        ? `The spindle axis makes ${show(difference - rest)} of it, and that explains it. ${sum}.`
        : `The spindle axis makes ${show(difference - rest)} of it. ${sum}: ${show(rest)} are left. ${trustWords(a.check, b.check)}`;
      return `${head(show)} ${cause}`;
    };
    return [{ quantity: name, difference, allowed, text, ...(byAxis && { byAxis }) }];
  });
}

type Value = Compared['quantities'][string];

/** What two methods say of one quantity, both seen from the carriage or both from the spindle; undefined where neither round knows the axis. */
function sameView(
  a: MethodResult,
  b: MethodResult,
  name: string,
): { readonly from: 'carriage' | 'spindle'; readonly one: Value; readonly two: Value } | undefined {
  const from = (view: 'carriage' | 'spindle', { check, finding }: MethodResult): Value | undefined =>
    finding.quantities[check.view === view ? name : `${view}${name.charAt(0).toUpperCase()}${name.slice(1)}`];
  for (const view of ['carriage', 'spindle'] as const) {
    const [one, two] = [from(view, a), from(view, b)];
    if (one && two) return { from: view, one, two };
  }
  return undefined;
}

function trustWords(a: CheckDefinition, b: CheckDefinition): string {
  return `Look at what each one trusts: ${[...new Set([...(a.trusts ?? []), ...(b.trusts ?? [])])].join('; ')}.`;
}

function likelyCause(a: CheckDefinition, b: CheckDefinition, axisKnown: boolean): string {
  if (a.view === b.view) return trustWords(a, b);
  const why =
    'Neither need be wrong: one measures against the carriage, the other against the spindle, and they differ when the spindle axis points off the carriage’s line.';
  return axisKnown
    ? `${why} The axis has been measured: edit the set-up of the sweep and give its distance from the spindle nose; the share of the axis is then taken off.`
    : `${why} Check the spindle axis before moving anything.`;
}

/** How far a centre's taper is off the quill, µm; null in the plane that was not swept both times. */
export interface TaperEccentricity {
  readonly horizontal: number | null;
  readonly vertical: number | null;
  /** Both together; null where one is not known. */
  readonly radial: number | null;
}

/** Eccentricity of the taper to the quill: sweep of the centre minus sweep of the quill, µm. Undefined where no plane was swept both times. */
export function taperEccentricity(quill: Compared, centre: Compared): TaperEccentricity | undefined {
  const between = (name: string): number | null => {
    const [one, other] = [quill.quantities[name]?.value, centre.quantities[name]?.value];
    return one === undefined || other === undefined ? null : other - one;
  };
  const [horizontal, vertical] = [between('offsetHorizontal'), between('offsetVertical')];
  if (horizontal === null && vertical === null) return undefined;
  return { horizontal, vertical, radial: horizontal === null || vertical === null ? null : Math.hypot(horizontal, vertical) };
}
