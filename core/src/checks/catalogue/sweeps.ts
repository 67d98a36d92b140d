import { tailstockSweep } from './tailstockSweep.js';
import { defineCheck, type CheckDefinition } from '../define.js';
import { TAILSTOCK_QUANTITIES } from '../tailstock.js';

/** A sweep of another bore or pin: the same readings, its own subject, zone and place in the order. */
function sweepOf(
  facts: Pick<CheckDefinition, 'id' | 'title' | 'question' | 'choose' | 'upsets'> & {
    readonly subject: string;
    readonly radial: number;
    readonly cautions: readonly string[];
  },
): CheckDefinition {
  const { subject, radial, cautions, ...own } = facts;
  const { view: _view, trusts: _trusts, sameQuestion: _same, ...base } = tailstockSweep;
  const sideways = { ...TAILSTOCK_QUANTITIES.offsetHorizontal, label: `${subject} sideways`, subject, limit: undefined };
  const height = { ...TAILSTOCK_QUANTITIES.offsetVertical, label: `${subject} in height`, subject, limit: undefined, aim: undefined };
  return defineCheck({
    ...base,
    ...own,
    machines: ['turning-centre'],
    quantities: {
      ...base.quantities,
      offsetHorizontal: sideways,
      offsetVertical: height,
      offsetRadial: { label: `${subject} off the axis`, dimension: 'deviation', unit: 'um', limit: [null, radial], magnitude: true },
    },
    corrections: {},
    cautions: [...tailstockSweep.cautions.slice(0, 1), ...cautions],
    cannotSee: ['Where the carriage goes: the spindle axis may point off it.', 'What the axis does when it is warm.'],
    advice: ['Turn the spindle by hand; short stiff holder.', 'Sweep the bore at two depths to see its slope as well.'],
  });
}

const POWERED = 'Drives at minimum feed and hands clear; isolate before hands go in.';

export const turretBore = sweepOf({
  id: 'turret-bore',
  title: 'Turret pocket',
  question: 'Is the pocket on the spindle axis?',
  choose: 'After the face of the turret.',
  upsets: [],
  subject: 'The pocket',
  radial: 10,
  cautions: ['A turret indexes without warning: lock out.', POWERED],
});
export const guideBush = sweepOf({
  id: 'guide-bush',
  title: 'Guide bush',
  question: 'Is the guide bush on the spindle axis?',
  choose: 'Before the sub-spindle.',
  upsets: ['sub-spindle'],
  subject: 'The bush',
  radial: 8,
  cautions: [POWERED],
});
export const subSpindle = sweepOf({
  id: 'sub-spindle',
  title: 'Sub-spindle',
  question: 'Does the sub-spindle meet the main spindle?',
  choose: 'After the guide bush; every station based on it follows.',
  upsets: [],
  subject: 'The sub-spindle',
  radial: 8,
  cautions: [POWERED],
});
