import * as z from 'zod';
import { count, fieldRegistry, measure, optionalMeasure, placeList } from '../../input/fields.js';
import type { Fault } from '../../input/faults.js';
import { dot, slopeWeights } from '../../fit/line.js';
import { otherBars } from '../../gravity/otherBars.js';
import type { Instrument } from '../../instruments/instrument.js';
import { placesOf, type Reading, type Slot } from '../../instruments/slots.js';
import { sentence, type Said } from '../../units/said.js';
import { ISOLATE } from '../cautions.js';
import { defineCheck, type CheckInput, type Estimates, type Note, type PlannedSlot } from '../define.js';
import { diameterDoubt } from '../barDiameters.js';
import { redundant, type Fit } from '../fits.js';
import { linearEstimate, swingEstimate, type Doubt, type Estimate } from '../estimate.js';
import { barPush, barRadius, barSag, beyondBar, heldBar } from '../heldBar.js';
import { MEASURE_BAR, MORE_SET_UPS, SHORTER_BAR, longerBase, roomOnBar } from '../helps.js';
import { shortBase, spanOf, tooFew } from '../notes.js';
import { HEADSTOCK } from '../parts.js';
import { APPARENT_SLOPE, AXIS_IN_HEIGHT, AXIS_SIDEWAYS, unlimited } from '../quantities.js';
import { halvesOf, openText } from '../reversal.js';
import { meanFormOf, partedRunouts, swappedExtremes, swingForm } from '../runout.js';
import { barError, extremeKey, HIGH_AT, highAtKey, measuredAt, planeKey, sideField, turnKey } from '../setupFields.js';
import { evenly } from '../stations.js';
import { taperInChuck } from '../tailstock.js';

const setup = z.strictObject({
  bar: heldBar(),
  side: sideField(),
  twistPerMetre: optionalMeasure('twist', { label: 'Bed twist', from: 'twistPerMetre', example: '0', help: 'From the bed-twist check.' }),
  heightAboveWays: optionalMeasure('length', { label: 'Spindle above the ways', min: 0, example: '180 mm' }),
});
const reading = z.strictObject({
  plane: planeKey(),
  at: measure('length', { label: 'From where the bar is held', min: 0, example: '20 mm' }),
  extreme: extremeKey(),
  turn: turnKey(),
  highAt: highAtKey(),
});
const plan = z.strictObject({
  stations: count({ label: 'How many places along the bar', min: 2, max: 8, example: '2' }),
  places: placeList({ label: 'Their places', example: '20, 290 mm', min: 2 }),
  near: optionalMeasure('length', { label: 'First place', min: 0, example: '20 mm', usual: 'anything' }),
  turned: z.boolean().optional().register(fieldRegistry, {
    label: 'Put the bar back half round and read again',
    help: 'Parts how the spindle runs from how the bar runs.',
  }),
});
type Setup = z.output<typeof setup>;
type Keys = z.output<typeof reading>;
type Plane = Keys['plane'];
type Slots = readonly Slot<Keys>[];

const PUT_BACK = 'take the bar out, turn it half round, put it back and read there again';

/** What a known twist of the bed makes of the slope to the side, µm/m; 0 where either figure is missing. */
const bedRoll = ({ twistPerMetre, heightAboveWays }: Setup): number => -((twistPerMetre ?? 0) * (heightAboveWays ?? 0)) / 1000;

/** Slope in one plane from the means of high and low at each place: any rod serves, straight or not. */
function planeEstimate(
  plane: Plane,
  { setup, slots, instrument }: CheckInput<Setup, Keys>,
): { readonly estimates: readonly Estimate[]; readonly fits: readonly Fit[] } | undefined {
  const places = [...new Set(slots.filter(({ keys }) => keys.plane === plane).map(({ keys }) => keys.at))].sort((a, b) => a - b);
  const stations = places.flatMap((at) => {
    const form = meanFormOf(slots, (keys) => keys.plane === plane && keys.at === at);
    return form ? [{ at, form }] : [];
  });
  if (stations.length < 2) return undefined;
  const { bar } = setup;
  const side = plane === 'h' && setup.side === 'rear' ? -1 : 1;
  const slope = slopeWeights(stations.map((station) => station.at)).map((weight) => 1000 * side * weight);
  const over = (correction: (at: number) => number): number =>
    dot(
      slope,
      stations.map((station) => correction(station.at)),
    );
  const sagAt = (at: number): number => (bar && plane === 'v' ? barSag(bar, at) : 0);
  const pushAt = (at: number): number => (bar ? barPush(bar, instrument?.contactForce, at) : 0);
  const radiusAt = (at: number): number => barRadius(bar, at);
  const [sag, push, diameter] = [over(sagAt), over(pushAt), over(radiusAt)];
  const roll = plane === 'h' ? bedRoll(setup) : 0;
  const uneven = measuredAt(bar?.diameters, places) ? 0.3 : barError(bar?.finish ?? 'drawn');
  const doubts: Doubt[] = [
    { source: 'bar-droop', u: 0.05 * Math.abs(sag) },
    { source: 'stylus-push', u: 0.03 * Math.abs(push) },
    diameterDoubt(
      stations.map(({ at }, k) => ({ place: at, weight: slope[k] })),
      uneven,
    ),
    { source: 'bed-twist', u: Math.abs(roll) * 0.1 },
  ];
  const terms = {
    ...(plane === 'v' && { sag }),
    ...(push !== 0 && { push }),
    ...(diameter !== 0 && { diameter }),
    ...(roll !== 0 && { twist: roll }),
  };
  const halves = halvesOf(slots, 'turn', [0, 180], ['plane', 'at', 'extreme'], ({ keys }) => keys.plane === plane);
  const weights = new Array<number>(slots.length).fill(0);
  stations.forEach(({ form }, k) => form.forEach((weight, i) => (weights[i] += slope[k] * weight)));
  const name = plane === 'h' ? 'slopeH' : 'slopeV';
  const open = openText(halves, PUT_BACK);
  const estimates = [linearEstimate(name, weights, { terms, doubts, open })];
  // What the carriage sees: the roll of a twisted bed is not taken out, because the tail centre rolls with it too.
  if (plane === 'h') {
    const { twist: _twist, ...seen } = { twist: 0, ...terms };
    estimates.push(
      linearEstimate('apparentSlopeH', weights, { terms: seen, doubts: doubts.filter(({ source }) => source !== 'bed-twist'), open }),
    );
  }
  const observations = stations.map(({ at, form }) => ({
    form: form.flatMap((weight, i) => (weight === 0 ? [] : [[i, weight] as const])),
    row: [1, at],
    added: sagAt(at) + pushAt(at) + radiusAt(at),
  }));
  const line: Fit = { shape: 'line', observations, form: uneven / Math.sqrt(3), widens: estimates.map((entry) => entry.name) };
  return { estimates, fits: [line].filter(redundant) };
}

/** A bar swings alike from the side and from the top: places of which both were read tell whether one was misread. */
function sameRunout(slots: Slots): readonly Fit[] {
  const places = [...new Set(slots.map(({ keys }) => `${keys.at}|${keys.turn ?? 0}`))];
  const observations = places.flatMap((place) => {
    const swing = (plane: Plane) => swingForm(slots, (keys) => keys.plane === plane && `${keys.at}|${keys.turn ?? 0}` === place);
    const [side, top] = [swing('h'), swing('v')];
    if (!side || !top) return [];
    return [{ form: side.flatMap((weight, i) => (weight === top[i] ? [] : [[i, weight - top[i]] as const])), row: [] }];
  });
  const fit: Fit = { shape: 'same-runout', observations, widens: ['slopeH', 'slopeV', 'apparentSlopeH'] };
  return observations.length ? [fit] : [];
}

/** Runout at the farthest place; parted into spindle and bar when the bar was put back half round and both directions are known. */
function runoutEstimate(slots: Slots): Estimate[] {
  const far = slots.reduce((most, { keys }) => Math.max(most, keys.at), 0);
  for (const plane of ['h', 'v'] as const) {
    const [first, second] = ([0, 180] as const).map((turn) =>
      swingForm(slots, (keys) => keys.at === far && keys.plane === plane && (keys.turn ?? 0) === turn),
    );
    const one = first ?? second;
    if (!one) continue;
    const highAts = ([0, 180] as const).map(
      (turn) =>
        slots.find(({ keys }) => keys.at === far && keys.plane === plane && (keys.turn ?? 0) === turn && keys.highAt !== undefined)?.keys
          .highAt,
    );
    if (first && second && highAts[0] !== undefined && highAts[1] !== undefined)
      return partedRunouts(
        ['runout', 'runoutBar'],
        [first, second],
        [highAts[0], highAts[1]],
        slots.map((slot) => slot.value),
      );
    return [swingEstimate('runout', one, { detail: { at: far } })];
  }
  return [];
}

function estimate(input: CheckInput<Setup, Keys>): Estimates {
  const { setup, slots, instrument } = input;
  const planes = (['h', 'v'] as const).flatMap((plane) => planeEstimate(plane, input) ?? []);
  if (planes.length === 0) return { estimates: [], notes: [tooFew('the highest and the lowest at two places')], fits: sameRunout(slots) };
  const notes: Note<Said>[] = [];
  const estimates = planes.flatMap((plane) => plane.estimates);
  if (estimates.some((entry) => entry.name === 'slopeH') && (setup.twistPerMetre === undefined || setup.heightAboveWays === undefined)) {
    notes.push({
      code: 'twist-unknown',
      severity: 'info',
      text: 'Bed twist is not known: roll of the carriage leaks into the side reading, by the twist per metre times the height above the ways.',
    });
  }
  if (!setup.bar)
    notes.push({
      code: 'bar-unknown',
      severity: 'warning',
      text: (size) =>
        `The bar is not described: its droop is still in the height. A ${size(12, 'length')} rod ${size(250, 'length')} out of the chuck droops over ${size(20, 'deviation')} and makes a good spindle point down.`,
    });
  return {
    estimates: [...estimates, ...runoutEstimate(slots)],
    notes: [...notes, ...(instrument ? shortBase(spanOf(slots.map(({ keys }) => keys.at))) : [])],
    fits: [...planes.flatMap((plane) => plane.fits), ...sameRunout(slots)],
  };
}

function faults({ bar }: Setup, readings: readonly Reading<Keys>[], instrument: Instrument | undefined): Fault[] {
  return [
    ...beyondBar(bar?.freeLength, readings),
    ...swappedExtremes(readings, (keys) => `${keys.plane}|${keys.at}|${keys.turn ?? 0}`, instrument),
  ];
}

function plannedSlots({ bar }: Setup, { stations = 2, near = 20, turned = false, places: own }: z.output<typeof plan>): PlannedSlot[] {
  const length = bar?.freeLength ?? 300;
  const far = Math.max(Math.min(near + 50, length), length - 10);
  const places = own ?? evenly(near, far, stations);
  const once = (turn?: 0 | 180): PlannedSlot[] =>
    (['h', 'v'] as const).flatMap((plane, p) =>
      places.flatMap((at, k) =>
        (['high', 'low'] as const).map((extreme) => ({
          keys: { plane, at, extreme, ...(turn !== undefined && { turn }) },
          label: (size) => `${plane === 'h' ? 'Side' : 'Top'}, ${size(at, 'length')} out, the ${extreme === 'high' ? 'highest' : 'lowest'}`,
          ask:
            turn === 180 && p + k === 0 && extreme === 'high'
              ? 'Take the bar out, turn it half round and put it back.'
              : extreme === 'high'
                ? 'Turn the spindle by hand through a full turn and call the highest and the lowest.'
                : undefined,
          movable: 'places',
        })),
      ),
    );
  return turned ? [...once(0), ...once(180)] : once();
}

export const spindleAxis = defineCheck({
  id: 'spindle-axis',
  family: 'spindle-bar',
  title: 'Spindle axis',
  question: 'Where does the spindle axis really point?',
  choose: 'With any bar, turned by hand: its own bend and its droop are taken out.',
  machines: ['lathe', 'turning-centre'],
  setup,
  reading,
  plan,
  conditions: z.strictObject({}),
  slotKeys: ['plane', 'at', 'extreme', 'turn'],
  beside: [HIGH_AT],
  reads: 'indicator',
  quantities: {
    slopeH: AXIS_SIDEWAYS,
    slopeV: AXIS_IN_HEIGHT,
    apparentSlopeH: APPARENT_SLOPE,
    runout: unlimited('Runout at the far place', 'deviation', 'um', { magnitude: true }),
    runoutBar: unlimited('Runout there: the bar’s own part', 'deviation', 'um', { magnitude: true }),
  },
  slots: plannedSlots,
  faults,
  estimate,
  casting: 'headstock',
  target: { h: 'slopeH', v: 'slopeV', at: 300, what: (size) => `Free end, ${size(300, 'length')} out` },
  sagHelp: ({ bar }, slots) => {
    const places = placesOf(slots);
    if (!bar || places.length === 0) return [];
    return otherBars(bar, Math.min(...places), Math.max(...places)).map(
      ({ what, slope }): Said =>
        (size) =>
          `${sentence(what, size)}: ${size(slope, 'slope')} to take out`,
    );
  },
  part: HEADSTOCK,
  corrections: {
    slopeH: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] },
    slopeV: { plus: ['supports', 'scrape'], minus: ['supports', 'scrape'] },
  },
  picture: { drawing: 'bar-in-spindle', bends: { h: 'slopeH', v: 'slopeV' } },
  hangsOn: ['bed-twist', 'way-straightness', 'seat', 'spindle-play', 'spindle-runout'],
  rests: ['headstock', 'saddle'],
  knows: [
    { quantity: 'slopeH', name: 'axisSlopeH' },
    { quantity: 'slopeV', name: 'axisSlopeV' },
    { quantity: 'apparentSlopeH', name: 'axisApparentH' },
  ],
  fromJob: { taper: taperInChuck },
  helps: [MEASURE_BAR, SHORTER_BAR, longerBase('read over twice the length of bar', roomOnBar), MORE_SET_UPS],
  reseat: 'Take the bar out, put it back and read again',
  counting: 'The mean of highest and lowest is the axis of rotation. The whole difference between two places counts.',
  cautions: [
    ISOLATE,
    'Turn the spindle by hand only, with the bar and the indicator set up.',
    'Headstocks are lifted with rated gear, never by hand over an edge.',
  ],
  cannotSee: [
    'Roll of the carriage from a twisted bed, unless the twist is known.',
    'A spindle that tips in its bearings under the bar’s weight.',
  ],
  advice: [
    'The droop of the bar is taken out by its size: give diameter and free length.',
    'Never scrape a headstock to cure the droop of a bar.',
  ],
});
