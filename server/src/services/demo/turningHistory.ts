import { dialInstrument, dialReader, spindleRunoutSheet } from '@isometra/core/practice';
import { LEVER, PLUNGER, asRead, axis, levelled, lever, plunger, play, twist, type DemoMachine, type DemoSheet } from './histories.js';
import { along, bySquareDial } from './millHistory.js';

const SLANT = 45;

/** A bore swept from the axis it should be in line with: where it stands off, in the plane of the sweep, µm. */
function bore(check: string, right: number, up: number): DemoSheet {
  const read = dialReader(PLUNGER);
  const readings = [0, 90, 180, 270].map((angle) => {
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    // A bore that stands off that way has its wall farther from the axis there; the holder hangs lower than at the top.
    const droop = (-(PLUNGER.holderSag ?? 0) * (1 - s)) / 2;
    return { angle, value: read(-(right * c + up * s) + droop) };
  });
  return asRead({ check, instrument: dialInstrument(PLUNGER), setup: { slant: SLANT }, readings });
}

/** A spindle in rolling bearings: nothing is to be felt, and nothing need be. */
const rolling = (sheet: DemoSheet): DemoSheet => ({ ...sheet, setup: { ...sheet.setup, bearing: 'rolling' } });

/** What shifts one station alone, built on where X is home. */
const geometry = (station: string) =>
  ({
    ...{ name: `geometry X, station ${station}`, axis: 'X', kind: 'added', unit: 'mm', programming: 'diameter', digits: '3' },
    ...{ scope: 'station', station, basedOn: 'home X' },
  }) as const;

const station = (number: string) => ({ homed: 'yes', station: number, plate: number });
const swept = { ...plunger, plan: { angles: '4' }, conditions: { homed: 'yes' } } as const;

/** The main spindle turned by hand under a dial: at its nose and on a bar. */
const MAIN_RUNOUT = { spindle: { radius: 1.5, at: 115 }, bar: { radius: 2.5, at: 310 } };

/** T-06: a slant-bed turning centre with a sub-spindle; its turret was knocked along the slide. */
export const TURNING_CENTRE: DemoMachine = {
  card: {
    number: 'T-06',
    nickname: 'the slant',
    kind: 'turning-centre',
    swing: '260 mm',
    slide: { rises: 'rear', degrees: '45' },
    registers: [
      { name: 'home X', axis: 'X', kind: 'reference', unit: 'mm', programming: 'radius', digits: '4', scope: 'turret' },
      geometry('3'),
      geometry('5'),
      { name: 'sub-spindle X', axis: 'A', kind: 'added', unit: 'mm', programming: 'radius', digits: '4', scope: 'sub' },
    ],
    homing: { times: '2', power: '1' },
    stations: [
      { station: '1', plate: '1' },
      { station: '3', plate: '3' },
      { station: '5', plate: '5' },
    ],
    notes: 'Slant bed, 45°, with a sub-spindle.',
  },
  survey: 'After the knock',
  byHand: [{ step: 'clean', at: '2026-10-26T06:50:00.000Z', by: 'RM', note: 'chips behind the turret' }],
  rounds: [
    { ...levelled, at: '2026-10-26T07:40:00.000Z', by: 'RM', sheet: twist(1) },
    { ...plunger, at: '2026-10-26T09:00:00.000Z', by: 'RM', sheet: rolling(play(3, 2)) },
    { ...lever, plan: {}, conditions: {}, at: '2026-10-26T09:40:00.000Z', by: 'RM', sheet: asRead(spindleRunoutSheet(MAIN_RUNOUT, LEVER)) },
    { ...lever, plan: { stations: 2 }, conditions: {}, at: '2026-10-26T10:30:00.000Z', by: 'RM', sheet: axis({ slopeH: 12, slopeV: 9 }) },
    {
      ...lever,
      plan: { stations: 4 },
      conditions: {},
      at: '2026-10-26T13:05:00.000Z',
      by: 'RM',
      sheet: { ...bySquareDial('turret-face', along(14, [0, 40, 80, 120])), setup: { side: 'operator' } },
    },
    // Its register was changed the wrong way first, and put right from the first old value.
    {
      ...{ ...swept, at: '2026-10-26T14:10:00.000Z', by: 'RM', sheet: bore('sub-spindle', 14, -14) },
      changeSheet: { register: 'sub-spindle X', old: '0.012', entered: '0.0318', how: 'plus' },
    },
    {
      ...{ ...swept, at: '2026-10-26T15:30:00.000Z', by: 'RM', sheet: bore('sub-spindle', 28, -28) },
      changeSheet: { register: 'sub-spindle X', old: '0.012', entered: '-0.0078', how: 'next' },
    },
    { ...swept, at: '2026-10-26T16:40:00.000Z', by: 'RM', sheet: bore('sub-spindle', 0, -3) },
    // One station is in, the other was knocked along the slide.
    { ...swept, conditions: station('5'), at: '2026-10-27T07:00:00.000Z', by: 'RM', sheet: bore('turret-bore', 3, -4) },
    { ...swept, conditions: station('3'), at: '2026-10-27T07:30:00.000Z', by: 'RM', sheet: bore('turret-bore', 38, -33) },
  ],
};
