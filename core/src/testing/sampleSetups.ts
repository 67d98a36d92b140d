import { readsOf, type CheckDefinition } from '../checks/define.js';

/** A set-up of each check that needs one, as a person would type it. */
export const SAMPLE_SETUPS: Readonly<Record<string, Record<string, unknown>>> = {
  stiffness: { force: '100 N' },
  'way-straightness': { base: '100 mm' },
  'knee-gib-play': { guideLength: '180 mm', distance: '320 mm' },
  'saddle-gib-play': { guideLength: '180 mm', distance: '320 mm' },
  'table-gib-play': { guideLength: '180 mm', distance: '320 mm' },
  'spindle-axis': { bar: { diameter: '25 mm', freeLength: '300 mm' } },
  'tailstock-traverse': { centreDistance: '400 mm' },
  'tailstock-test-cut': { centreDistance: '400 mm' },
  'dovetail-over-pins': { pin: '8 mm', angle: 55 },
  'head-tram': { radius: '110 mm' },
  hinge: { length: '400 mm' },
};

const INSTRUMENTS = {
  indicator: { kind: 'lever', graduation: '0.002 mm', sense: 1 },
  level: { kind: 'level', graduation: '20 um/m' },
  size: { kind: 'micrometer', graduation: '0.001 mm' },
  gap: { kind: 'feeler', graduation: '0.01 mm' },
  none: undefined,
} as const;

/** A sheet with a reading at every planned place of a check. */
export function planCheck(check: CheckDefinition): Record<string, unknown> & { readings: Record<string, unknown>[] } {
  const raw = SAMPLE_SETUPS[check.id] ?? {};
  const setup = check.setup.parse(raw);
  const kind = readsOf(check, setup);
  const instrument = INSTRUMENTS[kind];
  const value = (i: number) => (kind === 'none' ? {} : { value: kind === 'size' ? `${30 + (i % 3) / 1000} mm` : `${(i % 4) / -2} div` });
  const readings = check.slots(setup, check.plan.parse({})).map((slot, i) => ({ ...slot.keys, ...value(i) }));
  return { format: 'isometra-sheet/1', check: check.id, ...(instrument && { instrument }), setup: raw, readings };
}
