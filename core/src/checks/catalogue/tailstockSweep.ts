import * as z from 'zod';
import { RESEATED } from '../reseating.js';
import { choice } from '../../input/fields.js';
import { defineCheck } from '../define.js';
import { MORE_SET_UPS, SHORTER_HOLDER } from '../helps.js';
import { TAILSTOCK } from '../parts.js';
import { unlimited } from '../quantities.js';
import { REAMED, sweepEstimates, sweepReading, sweepSetup, sweepWatch } from '../sweepCheck.js';
import { sweepPlan, sweepSlots } from '../sweepPlans.js';
import {
  taperBetweenCentres,
  TAILSTOCK_CAUTIONS,
  TAILSTOCK_CORRECTIONS,
  TAILSTOCK_QUANTITIES,
  tailstockConditions,
  viewQuantities,
} from '../tailstock.js';

export const tailstockSweep = defineCheck({
  id: 'tailstock-sweep',
  family: 'sweep',
  title: 'Sweep from the spindle',
  question: 'Is the tail centre or quill in line with the spindle axis, where it is now?',
  choose:
    'Both planes without a bar. It relies on the centre and the indicator holder, and measures against the spindle, not the carriage.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  setup: sweepSetup,
  reading: sweepReading,
  plan: sweepPlan,
  conditions: z.strictObject({
    ...tailstockConditions('spindle'),
    swept: choice({
      label: 'What is swept',
      choices: [
        { value: 'quill', label: 'the quill' },
        { value: 'centre', label: 'a centre' },
        { value: 'other', label: 'something else' },
      ],
      help: 'Sweep the quill and a good centre: their difference is the eccentricity of the taper. Mind the keyway of a quill.',
    }),
  }),
  drawnApart: ['swept'],
  slotKeys: ['angle', 'at', 'zero'],
  reads: 'indicator',
  quantities: {
    ...TAILSTOCK_QUANTITIES,
    offsetRadial: unlimited('Off the axis altogether', 'deviation', 'um', { magnitude: true }),
    total: unlimited('Total indicator reading (TIR)', 'deviation', 'um', { magnitude: true }),
    ...viewQuantities('carriage'),
    slopeH: unlimited('Slope sideways', 'slope', 'um/m'),
    slopeV: unlimited('Slope in height', 'slope', 'um/m'),
    closure: unlimited('Closure of the sweep', 'deviation', 'um'),
  },
  slots: sweepSlots,
  estimate: (input) => sweepEstimates(input, 'outside'),
  corrections: TAILSTOCK_CORRECTIONS,
  part: TAILSTOCK,
  watch: sweepWatch('outside'),
  view: 'spindle',
  picture: { drawing: 'swept-circle', bends: { h: 'offsetHorizontal', v: 'offsetVertical' } },
  hangsOn: ['bed-twist', 'way-straightness', 'tailstock-way-parallelism', 'centre-runout', 'spindle-axis', 'quill-parallelism'],
  rests: ['headstock', 'tailstock'],
  after: ['tailstock-traverse'],
  // As the carriage sees it, where the axis is known; else as the spindle does.
  knows: [
    { quantity: 'carriageOffsetHorizontal', name: 'tailH' },
    { quantity: 'offsetHorizontal', name: 'tailH' },
    { quantity: 'carriageOffsetVertical', name: 'tailV' },
    { quantity: 'offsetVertical', name: 'tailV' },
  ],
  sameQuestion: 'tailstock',
  fromJob: { taper: taperBetweenCentres, 'reamed-hole': REAMED },
  helps: [SHORTER_HOLDER, MORE_SET_UPS],
  // A bore is swept where it is; a centre sits in a taper.
  reseatSpreadFor: (_quantity, { feature = 'outside' }) => (feature === 'bore' ? 0 : RESEATED),
  reseat: 'Take the holder off, set it up again and sweep once more',
  trusts: ['the holder sag is right', 'the centre is true in its taper', 'no keyway was read'],
  counting: 'Half the difference counts: the sweep goes round the axis and shows an offset twice.',
  cautions: TAILSTOCK_CAUTIONS,
  cannotSee: [
    'Where the carriage goes: the spindle axis may point off it.',
    'The eccentricity of the taper, unless quill and centre are both swept.',
    'Wear of the bed: the result holds only where the tailstock is now.',
  ],
  advice: [
    'Turn the spindle by hand; carry the indicator on the spindle with a short stiff holder.',
    'When a quill is swept keep the stylus clear of the keyway: it reads as a dip. Front, top and rear are enough.',
    'Sweep the quill, then a good centre: the difference is the eccentricity of the taper.',
  ],
});
