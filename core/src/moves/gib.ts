import * as z from 'zod';
import { measure, optionalMeasure, plainNumber } from '../fields.js';
import { defineMove } from './define.js';

/**
 * Drive a taper gib 1:k by its screw of pitch s: clearance per turn s/(k·sin α) across the slide,
 * turns = excess·sin(α)·k/s, told in whole eighths; never more than two eighths before the drag is felt again.
 *
 * @returns `turns`, `eighths` (whole), `perTurn` µm.
 */
export const gib = defineMove({
  kind: 'gib',
  title: 'Take up the gib',
  amountKey: 'excess',
  input: z.strictObject({
    excess: measure('deviation', { label: 'Clearance to lose', min: 0, example: '16 um' }),
    taper: plainNumber({ label: 'Taper of the gib 1:', above: 0, example: '60' }),
    pitch: measure('length', { label: 'Gib screw pitch', above: 0, example: '1.5 mm' }),
    angle: optionalMeasure('angle', { label: 'Dovetail angle', above: 0, max: 90, example: '55' }),
  }),
  plan: ({ excess, taper, pitch, angle = 90 }) => {
    const perTurn = (pitch * 1000) / (taper * Math.sin((angle * Math.PI) / 180));
    const turns = excess / perTurn;
    return { turns, eighths: Math.round(turns * 8), perTurn };
  },
});

/**
 * Peel shims of a split bearing: take out lift − clearance, the same on both sides of the cap, in whole
 * peel layers. When that leaves less than one layer the joint faces must come down first.
 *
 * @returns `remove` µm, whole `layers`, `shim` mm left, `jointMustComeDown`.
 */
export const bearingShims = defineMove({
  kind: 'bearing-shims',
  title: 'Peel the bearing shims',
  fill: ({ value, aim }) => ({ lift: value, clearance: aim }),
  input: z.strictObject({
    lift: measure('deviation', { label: 'Lift measured', min: 0, example: '64 um' }),
    clearance: measure('deviation', { label: 'Clearance wanted', min: 0, example: '20 um' }),
    shim: measure('length', { label: 'Shim thickness now', min: 0, example: '0.3 mm' }),
    layer: measure('deviation', { label: 'Peel layer', above: 0, example: '25 um' }),
  }),
  plan: ({ lift, clearance, shim, layer }) => {
    const remove = Math.max(0, lift - clearance);
    const left = shim - remove / 1000;
    return { remove, layers: Math.floor(remove / layer + 1e-9), shim: left, jointMustComeDown: left * 1000 < layer - 1e-9 };
  },
});
