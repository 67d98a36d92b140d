import * as z from 'zod';
import { choice, optionalMeasure, type FieldInfo } from '../input/fields.js';
import { dot } from '../fit/line.js';
import type { Instrument } from '../instruments/instrument.js';
import type { Slot } from '../instruments/slots.js';
import type { Said } from '../units/said.js';
import { spot } from './persons.js';
import type { CheckInput, Estimates, JobRules, Note, Watch } from './define.js';
import { linearEstimate, scaledEstimate, vectorEstimate, type Estimate } from './estimate.js';
import { namesOf, roundFit } from './fits.js';
import { halvesOf, openText } from './reversal.js';
import { axisFields, roundAngle, zeroKey } from './setupFields.js';
import { sweepClosure, sweepFit, sweepOffsets, type SweepFit, type SweepKeys } from './sweep.js';
import { linePair, onSlide } from './slideLines.js';
import { say } from './sums.js';
import { otherView } from './tailstock.js';

const OUTSIDE = { value: 'outside', label: 'an outside: quill, centre, ground pin' } as const;
const BORE = { value: 'bore', label: 'a bore: pocket, taper or bush' } as const;

export const sweepSetup = z.strictObject({
  feature: choice({ label: 'Swept', choices: [OUTSIDE, BORE] }),
  coneAngle: optionalMeasure('angle', {
    label: 'Half the cone angle',
    min: 0,
    below: 80,
    example: '30',
    rare: true,
    help: '30 for a stylus square to a 60° centre; 0 on a cylinder.',
  }),
  ...axisFields(),
});

const slantField = (more: Pick<FieldInfo, 'asked' | 'hidden'>) =>
  optionalMeasure('angle', {
    label: 'Slant of the slide',
    min: -90,
    max: 90,
    example: '30',
    help: '0 where it is level; + when its rear end is the higher, the usual way.',
    ...more,
  });

/** What a turning centre's sweep is asked beside: who carries the indicator, and how the slide leans. */
export const centreSweepSetup = z.strictObject({
  ...sweepSetup.shape,
  // What is left out is the first of them: here a bore, which turns the sign.
  feature: choice({ label: 'Swept', choices: [BORE, OUTSIDE] }),
  carrier: choice({
    label: 'Indicator carried by',
    choices: [
      { value: 'main', label: 'the main spindle' },
      { value: 'sub', label: 'the sub-spindle' },
    ],
  }),
  // Taken for level it would turn what the control can cure into what it cannot: the screen asks.
  slant: slantField({ asked: true }),
});
/** What stands on bolts alone has no slide: nobody is asked how it leans. */
export const boltedSweepSetup = z.strictObject({ ...centreSweepSetup.shape, slant: slantField({ hidden: true }) });

export const sweepReading = z.strictObject({
  angle: roundAngle({ label: 'Angle round the spindle', example: '90' }),
  at: optionalMeasure('length', { label: 'Depth', example: '0 mm' }),
  zero: zeroKey(),
});
export const centreSweepReading = z.strictObject({
  ...sweepReading.shape,
  bush: z.union([z.literal(0), z.literal(180)], { error: 'must be 0 or 180: how the bush was turned in its housing' }).optional(),
});

export type SweepSetup = z.output<typeof sweepSetup> & Partial<Pick<z.output<typeof centreSweepSetup>, 'carrier' | 'slant'>>;
type Slots = readonly Slot<SweepKeys>[];

/** Slots by depth, the mouth first. */
function depthsOf(slots: Slots): { at: number; indices: number[] }[] {
  const found = new Map<number, number[]>();
  slots.forEach(({ keys: { at = 0 } }, i) => {
    const here = found.get(at);
    if (here) here.push(i);
    else found.set(at, [i]);
  });
  return [...found].map(([at, indices]) => ({ at, indices })).sort((a, b) => a.at - b.at);
}

function slopes(near: readonly Estimate[], far: readonly Estimate[], distance: number): Estimate[] {
  return near.flatMap((estimate, k) => {
    const other = far[k];
    if (!other) return [];
    const factor = 1000 / distance;
    return [
      linearEstimate(
        estimate.name === 'offsetHorizontal' ? 'slopeH' : 'slopeV',
        estimate.weights.map((weight, i) => (other.weights[i] - weight) * factor),
      ),
    ];
  });
}

function roundNotes(
  fit: SweepFit,
  closure: readonly number[] | undefined,
  { slots, instrument }: CheckInput<SweepSetup, SweepKeys>,
): Note<Said>[] {
  if (!instrument) return [];
  const gap = closure
    ? Math.abs(
        dot(
          closure,
          slots.map((slot) => slot.value),
        ),
      )
    : 0;
  if (gap <= 2 * instrument.graduation && fit.worst <= instrument.graduation) return [];
  return [
    {
      code: 'out-of-round',
      severity: 'warning',
      text: (size) =>
        `What was swept does not close as a circle (${size(Math.max(gap, fit.worst), 'deviation')}): it is out of round, a keyway was read, the indicator moved, or the dial was zeroed again on the way. Sweep it again clear of the keyway, every place on one zero.`,
    },
  ];
}

function viewNote(setup: SweepSetup): Note<Said>[] {
  if (setup.distance !== undefined && setup.axisSlopeH !== undefined && setup.axisSlopeV !== undefined) return [];
  const reach = setup.distance ?? 300;
  return [
    {
      code: 'axis-unknown',
      severity: 'info',
      text: (size) =>
        `A sweep measures against the spindle, not the carriage. The spindle axis is not known: within its usual limits it could make ${size(0.05 * reach, 'deviation')} sideways and ${size(0.067 * reach, 'deviation')} in height of difference ${setup.distance === undefined ? 'for every' : 'at'} ${size(reach, 'length')} from the nose.`,
    },
  ];
}

const TOO_FEW: Note = {
  code: 'too-few-readings',
  severity: 'warning',
  text: 'Not enough has been read yet: front and rear give the side, top and bottom the height.',
};

const ONE_LINE: Note = {
  code: 'one-line',
  severity: 'info',
  text: 'Only one line was read: the error square to it is not known. Read the other line too.',
};

/** A bush turned half round in its housing: the housing is half the sum of the two sweeps, the bush half their difference. */
function parted(slots: Slots, halves: readonly (readonly Estimate[])[]): Estimate[] {
  const [one, other] = halves;
  return one.flatMap((first, k) => {
    const second = other[k];
    if (!second) return [];
    const way = first.name === 'offsetHorizontal' ? 'Horizontal' : 'Vertical';
    const combined = (name: string, sign: 1 | -1): Estimate =>
      linearEstimate(
        name,
        slots.map((_, i) => (first.weights[i] + sign * second.weights[i]) / 2),
        { terms: sign === 1 ? first.terms : {}, doubts: sign === 1 ? first.doubts : [] },
      );
    return [combined(`housing${way}`, 1), combined(`bush${way}`, -1)];
  });
}

/** Slots of each depth that was swept, for each way round of the bush. @param turned the bush was swept turned half round too. */
function sweptDepths(slots: readonly Slot<SweepKeys>[], turned: boolean) {
  const ways = turned ? ([0, 180] as const).map((turn) => slotsOf(slots, ({ bush = 0 }) => bush === turn)) : [slots.map((_, i) => i)];
  return ways.map((way) => depthsOf(way.map((i) => slots[i])).map(({ at, indices }) => ({ at, indices: indices.map((k) => way[k]) })));
}

/** How the axis goes from the mouth to the deepest place that was swept; nothing where that is one place, or was not read whole. */
function depthSlopes(
  slots: readonly Slot<SweepKeys>[],
  atMouth: readonly Estimate[],
  mouth: number,
  deepest: { readonly at: number; readonly indices: readonly number[] } | undefined,
  offsets: (fit: SweepFit) => Estimate[],
): Estimate[] {
  const fit = deepest && sweepFit(slots, deepest.indices);
  return fit ? slopes(atMouth, offsets(fit), deepest.at - mouth) : [];
}

/** Both offsets taken together: how far the axis is off, what the dial swings in all, and the same along a slide that leans. */
function altogether(
  offsets: readonly Estimate[],
  slots: readonly Slot<SweepKeys>[],
  { slant }: Pick<SweepSetup, 'slant'>,
  open: ReturnType<typeof openText>,
): Estimate[] {
  const length = vectorEstimate(
    'offsetRadial',
    offsets[0],
    offsets[1],
    slots.map(({ value }) => value),
  );
  return [length, scaledEstimate('total', length, 2), ...(slant === undefined ? [] : onSlide(offsets, slant, open))];
}

/**
 * A sweep by the spindle: offsets of what was swept, their length, what the dial swings in all, and what two
 * depths, a bush turned in its housing or a slide that leans tell beside.
 *
 * @param radial the most the offset may be altogether: where only one line was read, it limits that line.
 */
export function sweepEstimates(input: CheckInput<SweepSetup, SweepKeys>, usual: 'outside' | 'bore', radial?: number): Estimates {
  const { slots, instrument } = input;
  const setup = { ...input.setup, feature: input.setup.feature ?? usual };
  const sag = instrument?.holderSag ?? 0;
  const bush = halvesOf(slots, 'bush', [0, 180], ['angle', 'at']);
  const open = openText(bush, 'turn the bush half round in its housing and sweep there again');
  const depths = sweptDepths(slots, bush.reversed);
  const fits = depths.flatMap(([mouth]) => (mouth ? (sweepFit(slots, mouth.indices) ?? []) : []));
  const [fit] = fits;
  // The mouth of the way round that was swept: the other one may not have been begun.
  const [mouth, ...deeper] = depths.find(([first]) => first !== undefined) ?? [];
  if (!fit || !mouth) return fromOneLine(slots, depths[0]?.[0]?.indices ?? [], setup, { sag, radial });
  const byWay = fits.map((entry) => sweepOffsets(entry, setup, sag));
  const both = fits.length === 2 && byWay[0].length === byWay[1].length;
  const offsets = byWay[0].map((estimate, k) => halfway(estimate, both ? byWay[1][k] : undefined, open));
  const estimates: Estimate[] = offsets.length === 2 ? [...offsets, ...altogether(offsets, slots, setup, open)] : within(offsets, radial);
  if (both) estimates.push(...parted(slots, byWay));
  const closure = sweepClosure(slots, mouth.indices);
  if (closure) estimates.push(linearEstimate('closure', closure));
  estimates.push(...depthSlopes(slots, byWay[0], mouth.at, deeper.at(-1), (entry) => sweepOffsets(entry, setup, sag)));
  estimates.push(...otherView(offsets, setup, 'carriage'));
  const widens = namesOf(estimates.filter(({ name }) => name !== 'closure'));
  const fitted = depths.flatMap((way) => way.flatMap(({ indices }) => roundFit('circle', indices, (i) => slots[i].keys, widens)));
  return {
    estimates,
    notes: [...roundNotes(fit, closure, input), ...viewNote(setup), ...heightNotes(offsets.length === 2, instrument)],
    fits: fitted,
  };
}

/** Half-way between what was swept and what was swept with the bush turned; the first alone where it was not. */
function halfway({ name, weights, terms, doubts }: Estimate, second: Estimate | undefined, open: string | undefined): Estimate {
  const between = second ? weights.map((weight, i) => (weight + second.weights[i]) / 2) : weights;
  return linearEstimate(name, between, { terms, doubts, open });
}

/** What two opposite readings alone give: the one line that they lie on. @param radial the most it may be out along it. */
function fromOneLine(
  slots: Slots,
  indices: readonly number[],
  setup: SweepSetup,
  { sag, radial }: { readonly sag: number; readonly radial: number | undefined },
): Estimates {
  const estimates = within(linePair(slots, indices, setup, sag), radial);
  if (estimates.length === 0) return { estimates: [], notes: [TOO_FEW] };
  return { estimates, notes: [ONE_LINE, ...viewNote(setup)] };
}

/** The line or lines that were read, limited by the most that the offset may be altogether. */
const within = (estimates: readonly Estimate[], radial: number | undefined): Estimate[] =>
  radial === undefined ? [...estimates] : estimates.map((estimate) => ({ ...estimate, zone: [-radial, radial] as const }));

/** What is not known of the height. */
function heightNotes(read: boolean, instrument: Instrument | undefined): Note[] {
  if (!read) return [{ code: 'no-vertical', severity: 'info', text: 'Only front and rear were read: no height. Read the top too.' }];
  if (instrument?.holderSag !== 0) return [];
  return [
    {
      code: 'holder-sag-unknown',
      severity: 'warning',
      text: 'The holder sag is taken as zero. Clamp the same holder on a stiff true bar, zero it at the top and read the bottom: that is the sag, and half of that adds to the height.',
    },
  ];
}

const slotsOf = (slots: Slots, use: (keys: SweepKeys) => boolean): number[] => slots.flatMap((slot, i) => (use(slot.keys) ? [i] : []));

/** What the bush itself runs out, where it was turned: no bolt of the housing cures that. */
export function bushNotes({ slots }: CheckInput<SweepSetup, SweepKeys>, estimates: readonly Estimate[], radial: number): Note<Said>[] {
  const values = slots.map(({ value }) => value);
  const [h, v] = ['bushHorizontal', 'bushVertical'].map((name) => estimates.find((entry) => entry.name === name)?.evaluate(values));
  if (h === undefined || v === undefined) return [];
  const off = Math.hypot(h, v);
  if (off <= radial / 2) return [];
  return [
    {
      code: 'bush-runs-out',
      severity: 'warning',
      text: (size) =>
        `The bush itself is ${size(off, 'deviation')} off in its housing and turns with it: look at its bearings or its seat, not at the bolts of the housing.`,
    },
  ];
}

const NEAR_SIDE = spot(({ whose }) => `${whose} side`);

/** Watch the front and the top: they must come half-way to where the far side reads. */
export function sweepWatch(usual: 'outside' | 'bore') {
  return (quantity: string, { feature = usual, coneAngle = 0, carrier }: SweepSetup, slots: Slots): Watch | undefined => {
    const place = quantity === 'offsetHorizontal' ? 0 : 90;
    const seen = slots.find((slot) => slot.keys.angle === place);
    if (!seen) return undefined;
    const turned = carrier === 'sub' ? -1 : 1;
    return {
      where: place === 0 ? NEAR_SIDE : 'top',
      sense: (feature === 'bore') === (turned === 1) ? -1 : 1,
      now: seen.value,
      scale: Math.cos((coneAngle * Math.PI) / 180),
    };
  };
}

/** Reamed holes come out big by twice what the tool is held off: h and v take half the square each. */
export const REAMED: NonNullable<JobRules['reamed-hole']> = ({ oversize }) => {
  const each = oversize / 2 / Math.SQRT2;
  const sum = `a reamer held off by r cuts up to 2 r over size: r = ${say(oversize)} / 2 = ${say(oversize / 2)} µm, shared between sideways and height: ${say(oversize / 2)} / √2 = ${say(each)} µm each`;
  return [
    { quantity: 'offsetHorizontal', zone: [-each, each], sum },
    { quantity: 'offsetVertical', zone: [0, each], sum },
  ];
};
