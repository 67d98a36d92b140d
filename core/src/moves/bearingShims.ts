import * as z from 'zod';
import { fieldRegistry, measure } from '../input/fields.js';
import { bare, figure } from './answer.js';
import { defineMove } from './define.js';
import { after, ISOLATE, watch, type JobFacts, type JobStep } from './jobSteps.js';

const steps = (facts: JobFacts): JobStep[] => [
  { text: 'Take the caps off, one at a time, and mark which way round they sat.', caution: ISOLATE },
  {
    text: `Peel ${facts.size} off, in whole layers, the same on both sides of the cap. If less than a layer would be left, the joint faces must come down first.`,
  },
  {
    text: 'Belt on before the caps, seals under the bolts, oil holes clear; draw the caps down in order.',
    caution: 'Caps and spindle are heavy: block the spindle.',
  },
  watch(facts),
  { text: 'Lift again with the same force at several turns, and feel the drag.', needle: true },
  ...after,
];

const NEARLY = 1e-9;

/**
 * Peel shims of a split bearing: take out lift − clearance, the same on both sides of the cap, in whole
 * peel layers, as many as the shim still holds. When that leaves less than one layer, or the shim is thinner
 * than what must go, the joint faces must come down first.
 *
 * @returns `remove` µm, whole `layers`, `shim` mm left, `lift` µm left and with one layer more, `jointMustComeDown`.
 */
export const bearingShims = defineMove({
  kind: 'bearing-shims',
  title: 'Peel the bearing shims',
  name: 'peel the bearing shims',
  verb: 'Take out',
  fill: ({ value, aim }) => ({ lift: value, clearance: aim }),
  input: z.strictObject({
    lift: measure('deviation', { label: 'Lift measured', min: 0, example: '64 um' }),
    clearance: measure('deviation', { label: 'Clearance wanted', min: 0, example: '20 um' }),
    shim: measure('length', { label: 'Shim thickness now', min: 0, example: '0.3 mm' }),
    layer: measure('deviation', { label: 'Peel layer', above: 0, example: '25 um' }),
  }),
  plan: ({ lift, clearance, shim, layer }) => {
    const remove = Math.max(0, lift - clearance);
    const holds = Math.floor((shim * 1000) / layer + NEARLY);
    const layers = Math.min(holds, Math.floor(remove / layer + NEARLY));
    const left = shim - (layers * layer) / 1000;
    return {
      remove,
      layers,
      shim: left,
      lift: lift - layers * layer,
      liftOneMore: Math.max(0, lift - (layers + 1) * layer),
      jointMustComeDown: left * 1000 < layer - NEARLY || remove > shim * 1000 + NEARLY,
    };
  },
  answer: z.object({
    remove: figure('deviation', 'What must come out'),
    layers: bare('Whole layers to peel, as many as the shim holds'),
    shim: figure('length', 'What is left of the shim'),
    lift: figure('deviation', 'Lift that is left'),
    liftOneMore: figure('deviation', 'Lift that one layer more would leave'),
    jointMustComeDown: z.boolean().register(fieldRegistry, { label: 'The joint faces must come down first' }),
  }),
  machines: ['lathe', 'turning-centre'],
  card: {
    capShims: z
      .strictObject({
        shim: measure('length', { label: 'Shim under the cap now', min: 0, max: 20, example: '0.3 mm', help: 'The same on both sides.' }),
        layer: measure('deviation', { label: 'Peel layer', above: 0, max: 1000, example: '25 um' }),
      })
      .optional()
      .register(fieldRegistry, { label: 'Split bearings', group: true, rare: true }),
  },
  hardware: ({ card }) => card.capShims,
  steps,
  example: { lift: '64 um', clearance: '20 um', shim: 0.3, layer: '25 um' },
});
