import * as z from 'zod';
import { optionalText } from '../input/fields.js';
import { ISOLATE } from './cautions.js';
import { defineCheck, type CheckDefinition } from './define.js';
import { MORE_SET_UPS, SHORTER_HOLDER } from './helps.js';
import type { Part } from './parts.js';
import { sizeUpTo, unlimited } from './quantities.js';
import { bushNotes, boltedSweepSetup, centreSweepReading, centreSweepSetup, sweepEstimates, sweepWatch } from './sweepCheck.js';
import { bushPlan, bushSlots, slideSweepPlan, sweepSlots } from './sweepPlans.js';
import { viewQuantities } from './tailstock.js';
import { homedField } from './setupFields.js';
import { HEIGHT, LATERAL } from './words.js';

/** Parts of an offset: on a bed that lies level, and on one that leans. */
const FLAT: readonly string[] = ['offsetHorizontal', 'offsetVertical'];
const LEANING: readonly string[] = ['alongSlide', 'acrossSlide'];

const BOLTED = { plus: ['nudge'], minus: ['nudge'] };
const STORED = { plus: ['stored-offset', 'nudge'], minus: ['stored-offset', 'nudge'] };
const BOLTS: CheckDefinition['corrections'] = { offsetHorizontal: BOLTED, offsetVertical: BOLTED };
/** Along the slide the control can cure it, square to it bolts must; on a flat bed the slide lies level. */
const PARTED: CheckDefinition['corrections'] = {
  alongSlide: STORED,
  acrossSlide: BOLTED,
  offsetHorizontal: STORED,
  offsetVertical: BOLTED,
};

/** A sweep of a pocket, a bush or the other spindle of a turning centre: bores unless said otherwise. */
export function centreSweep({
  subject,
  radial,
  cautions,
  part,
  bolted,
  known,
  stations,
  carried,
  against,
  ...facts
}: Pick<CheckDefinition, 'id' | 'title' | 'question' | 'choose' | 'hangsOn' | 'after' | 'goodFor' | 'needs'> & {
  readonly subject: string;
  /** The most it may stand off the axis altogether, µm. */
  readonly radial: number;
  readonly cautions: readonly string[];
  readonly part: Part;
  /** Under which name it is known where it stands: "turret". */
  readonly known: string;
  /** It has stations with plates of their own. */
  readonly stations?: true;
  /** Whose registers of the control shift it; left out where it is bolted. */
  readonly carried?: CheckDefinition['carried'];
  /** What else it may be swept against than the main spindle: rounds of each stand for themselves. */
  readonly against?: z.ZodType;
  /** It stands on bolts alone: no slide carries it and no register moves it. A bush in it can be turned half round. */
  readonly bolted?: true;
}): CheckDefinition {
  const sideways = (label: string) => unlimited(label, 'deviation', 'um', { words: LATERAL, subject, swings: 2 });
  const upright = (label: string) => unlimited(label, 'deviation', 'um', { words: HEIGHT, subject, swings: 2 });
  return defineCheck({
    ...facts,
    family: 'sweep',
    machines: ['turning-centre'],
    setup: bolted ? boltedSweepSetup : centreSweepSetup,
    reading: centreSweepReading,
    plan: bolted ? bushPlan : slideSweepPlan,
    conditions: z.strictObject({
      homed: homedField(),
      ...(against && { against }),
      ...(stations && {
        station: optionalText(24, { label: 'Station that is swept', example: '3' }),
        plate: optionalText(24, { label: 'Number on its plate', example: '3' }),
      }),
    }),
    ...(against && { usually: ['against'] }),
    ...((stations || against) && { apart: [...(stations ? ['station'] : []), ...(against ? ['against'] : [])] }),
    ...(carried && { carried }),
    slotKeys: ['angle', 'at', 'bush', 'zero'],
    reads: 'indicator',
    quantities: {
      offsetHorizontal: sideways(`${subject} sideways`),
      offsetVertical: upright(`${subject} in height`),
      offsetRadial: { ...sizeUpTo(`${subject} off the axis`, radial), swings: 2 },
      total: unlimited('Total indicator reading (TIR)', 'deviation', 'um', { magnitude: true }),
      alongSlide: { ...sideways(`${subject}, along the slide`), subject: `${subject} along the slide` },
      acrossSlide: { ...upright(`${subject}, across the slide`), subject: `${subject} across the slide` },
      housingHorizontal: sideways('The housing sideways'),
      housingVertical: upright('The housing in height'),
      bushHorizontal: sideways('The bush in its housing, sideways'),
      bushVertical: upright('The bush in its housing, in height'),
      ...viewQuantities('carriage'),
      slopeH: unlimited('Slope sideways', 'slope', 'um/m'),
      slopeV: unlimited('Slope in height', 'slope', 'um/m'),
      closure: unlimited('Closure of the sweep', 'deviation', 'um'),
    },
    slots: bolted ? bushSlots : sweepSlots,
    estimate: (input) => {
      const found = sweepEstimates(input, 'bore', radial);
      return bolted ? { ...found, notes: [...found.notes, ...bushNotes(input, found.estimates, radial)] } : found;
    },
    corrections: bolted ? BOLTS : PARTED,
    partOf: (quantity, { slant = 0 }) => ((bolted || slant === 0 ? FLAT : LEANING).includes(quantity) ? 'offsetRadial' : undefined),
    part,
    knows: [
      { quantity: 'offsetHorizontal', name: `${known}H` },
      { quantity: 'offsetVertical', name: `${known}V` },
      { quantity: 'offsetRadial', name: `${known}Off` },
    ],
    watch: (quantity, ...rest) => (FLAT.includes(quantity) ? sweepWatch('bore')(quantity, ...rest) : undefined),
    picture: { drawing: 'swept-circle', bore: true, bends: { h: 'offsetHorizontal', v: 'offsetVertical' } },
    helps: [SHORTER_HOLDER, MORE_SET_UPS],
    counting: 'Half the difference counts: the sweep goes round the axis and shows an offset twice.',
    cautions: [ISOLATE, ...cautions],
    cannotSee: ['Where the slide goes: the spindle axis may point off it.', 'What the axis does when it is warm.'],
    advice: [
      'Turn the spindle by hand; short stiff holder.',
      'Nudge the part both ways: a needle that does not come back is pegged.',
      'Sweep the bore at two depths to see its slope as well.',
    ],
  });
}
