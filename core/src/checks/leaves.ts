import * as z from 'zod';
import { fieldRegistry, optionalMeasure } from '../input/fields.js';
import type { Fault } from '../input/faults.js';
import type { Reading, Values } from '../instruments/slots.js';
import type { CheckDefinition, PlannedSlot } from './define.js';
import type { Estimate } from './estimate.js';

/** A gap that two leaves bound, mm; and a shim that was laid under, which is taken off. */
export interface LeafKeys {
  readonly go?: number;
  readonly noGo?: number;
  readonly shim?: number;
}

const leaf = (label: string, help?: string) => optionalMeasure('length', { label, min: 0, example: '0.10 mm', help });

/** The keys of a reading that was taken with leaves. */
export const leafKeys = (under: string) => ({
  go: leaf('Thickest leaf that enters', 'A known shim laid in at this place is a gap known exactly: type it in both.'),
  noGo: leaf('Thinnest leaf that does not'),
  shim: leaf(`Shim under ${under}, taken off`),
});

/** Leaves bound a gap: it is their middle, less a shim that was laid under, µm. A leaf that just enters is the gap itself. */
export const gapOf = ({ go, noGo, shim = 0 }: LeafKeys): number | undefined =>
  go !== undefined && noGo !== undefined ? 1000 * ((go + noGo) / 2 - shim) : undefined;

/** What leaves bound, or what is planned for leaves: its place is laid out with a shim of nothing. */
export const isGap = ({ go, noGo, shim }: LeafKeys): boolean => go !== undefined || noGo !== undefined || shim !== undefined;

/** Leaves that bound nothing: one of them alone, or the wrong way round. */
export function leafFaults({ go, noGo, shim }: LeafKeys, path: string): Fault[] {
  const half = (go === undefined) !== (noGo === undefined);
  return [
    ...(half
      ? [{ path: `${path}.${go === undefined ? 'go' : 'noGo'}`, message: 'is missing: two leaves bound a gap', example: '0.10 mm' }]
      : []),
    ...(go !== undefined && noGo !== undefined && noGo < go
      ? [{ path: `${path}.noGo`, message: 'is thinner than the leaf that enters: it would enter too', example: '0.11 mm' }]
      : []),
    ...(shim !== undefined && go === undefined
      ? [{ path: `${path}.shim`, message: 'is for a gap that leaves bound', example: 'leave it out' }]
      : []),
  ];
}

/** Standard doubt of a linear form over gaps: each lies anywhere between its two leaves, (b − a)/√12. */
export const leafDoubt = (weights: readonly number[], keys: readonly LeafKeys[]): number =>
  Math.sqrt(weights.reduce((sum, weight, i) => sum + (weight * 1000 * ((keys[i].noGo ?? 0) - (keys[i].go ?? 0))) ** 2 / 12, 0));

/** What is asked beside a place that leaves are read at. */
export const BESIDE_GAP = [
  { key: 'go', instead: true, when: isGap },
  { key: 'noGo', instead: true, when: isGap },
  { key: 'shim', when: isGap },
] as const;

export const leavesPlan = (label: string, help: string) => z.boolean().optional().register(fieldRegistry, { label, help });

/** How a check is read with leaves. */
export interface WithLeaves {
  /** What the gap lies under: "the edge". */
  readonly under: string;
  /** What is ticked in its plan: "Read the gap under the edge with leaves, without a dial". */
  readonly label: string;
}

/**
 * The same check, read with leaves instead of a dial: a gap that grows is a surface that goes away from what it is read against,
 * so that it counts against the stylus. Every place is bound by leaves of its own: nothing has to close.
 */
export function readWithLeaves(check: CheckDefinition, { under, label }: WithLeaves): CheckDefinition {
  const keysOf = (slots: readonly { readonly keys: Values }[]): LeafKeys[] => slots.map(({ keys }) => keys as LeafKeys);
  const withDoubt = (estimate: Estimate, keys: readonly LeafKeys[]): Estimate => {
    const u = leafDoubt(estimate.weights, keys);
    return u > 0 ? { ...estimate, doubts: [...estimate.doubts, { source: 'leaves', u }] } : estimate;
  };
  return {
    ...check,
    reading: check.reading.extend(leafKeys(under)),
    plan: check.plan.extend({
      leaves: leavesPlan(label, 'At each place the thickest leaf that enters and the thinnest that does not.'),
    }),
    beside: [...(check.beside ?? []), ...BESIDE_GAP],
    alsoReads: [...(check.alsoReads ?? []), 'gap'],
    readsFor: (setup, keys) => (isGap(keys as LeafKeys) ? 'gap' : (check.readsFor?.(setup, keys) ?? check.reads)),
    valueFrom: (keys) => {
      const gap = gapOf(keys as LeafKeys);
      return gap === undefined ? check.valueFrom?.(keys) : -gap;
    },
    faults: (setup, readings: readonly Reading<Values>[], instrument) => [
      ...readings.flatMap((reading, i) => leafFaults(reading as LeafKeys, `readings[${i}]`)),
      ...(check.faults?.(setup, readings, instrument) ?? []),
    ],
    slots: (setup, plan): readonly PlannedSlot[] => {
      const slots = check.slots(setup, plan);
      if ((plan as { readonly leaves?: boolean }).leaves !== true) return slots;
      const seen = new Set<string>();
      const once = slots.filter(({ keys }) => {
        const name = JSON.stringify(keys);
        return !seen.has(name) && !!seen.add(name);
      });
      return once.map((slot) => ({ ...slot, keys: { ...slot.keys, shim: 0 } }));
    },
    estimate: (input) => {
      const found = check.estimate(input);
      const keys = keysOf(input.slots);
      if (!keys.some(isGap)) return found;
      // Between two leaves lies more than a dial would show: what bends less than that contradicts nothing.
      const { fits: _fits, ...told } = found;
      return { ...told, estimates: found.estimates.map((estimate) => withDoubt(estimate, keys)) };
    },
  };
}
