import { RESEATED } from '../reseating.js';
import { defineCheck } from '../define.js';
import { sizeUpTo } from '../quantities.js';
import { barParts, runoutShared, runoutSlots } from '../runoutCheck.js';

export const centreRunout = defineCheck({
  ...runoutShared,
  id: 'centre-runout',
  title: 'Headstock centre',
  question: 'Does the point in the headstock run true?',
  choose: 'Before a bar between centres: its runout adds straight to that result.',
  machines: ['lathe'],
  quantities: { radial: sizeUpTo('Point of the centre', 5), radialBar: barParts['radialBar'] },
  knows: [{ quantity: 'radial', name: 'centreRunout' }],
  slots: (_setup, plan) => runoutSlots(['radial'], plan),
  hangsOn: ['bed-twist', 'spindle-runout'],
  after: ['chuck-test-cut'],
  reseatSpread: RESEATED,
  reseat: 'Take the centre out, wipe the taper, put it back and read again',
  cannotSee: ['A sleeve or a dirty taper that seats differently next time.'],
  advice: ['A shop-turned point must be turned in this spindle and never re-chucked.', 'Adapter sleeves and dirty tapers add their own.'],
});
