import { columnLeanSheet, dialInstrument, dialReader, headTramSheet, type PracticeDial } from '@isometra/core/practice';
import { LEVER, asRead, lever, type DemoMachine, type DemoSheet } from './histories.js';

/** Square to what it reads: no lever angle to reckon with. */
const SQUARE: PracticeDial = { ...LEVER, leverAngle: 0 };
const read = dialReader(SQUARE);

/** A straight run of readings: places along it, for a slope in µm/m. */
const along = (slope: number, places: readonly number[], keys: Readonly<Record<string, unknown>> = {}) =>
  places.map((at) => ({ ...keys, at, value: read((slope * at) / 1000) }));

const mill = (check: string, readings: readonly Record<string, unknown>[]): DemoSheet =>
  asRead({ check, setup: {}, instrument: dialInstrument(SQUARE), readings });

/** Two motions 28 µm/m more than square, read on a square of its own error, and flipped over. */
function motions(): DemoSheet {
  const leg = (flip: boolean, slope: number) => [
    ...along(0, [0, 250], { leg: 'reference', flip }),
    ...along(slope, [0, 250], { leg: 'test', flip }),
  ];
  return mill('axis-squareness', [...leg(false, 18), ...leg(true, 38)]);
}

const tram = (x: number, y: number): DemoSheet => asRead(headTramSheet({ x, y }, 120, [0, 90, 180, 270], SQUARE, 190));

/** M-03: a turret mill whose head had been knocked; trammed in one move each way. */
export const TURRET_MILL: DemoMachine = {
  card: { number: 'M-03', nickname: 'the nodding mill', kind: 'turret-mill', notes: 'Turret mill with a nodding head.' },
  survey: 'After the crash',
  byHand: [{ step: 'clean', at: '2026-09-21T06:50:00.000Z', by: 'EK', note: null }],
  rounds: [
    {
      ...lever,
      plan: { stations: 4 },
      conditions: {},
      at: '2026-09-21T07:30:00.000Z',
      by: 'EK',
      sheet: mill('table-parallelism-x', along(12, [0, 150, 300, 450])),
    },
    {
      ...lever,
      plan: { stations: 4 },
      conditions: {},
      at: '2026-09-21T08:05:00.000Z',
      by: 'EK',
      sheet: mill('table-parallelism-y', along(-14, [0, 80, 160, 240])),
    },
    { ...lever, plan: { stations: 2 }, conditions: {}, at: '2026-09-21T09:40:00.000Z', by: 'EK', sheet: motions() },
    {
      ...lever,
      plan: { stations: 2 },
      conditions: {},
      at: '2026-09-21T11:10:00.000Z',
      by: 'EK',
      sheet: asRead(columnLeanSheet({ x: 18, y: -30 }, 6, [0, 250], SQUARE, { x: 'right', y: 'operator' }, true)),
    },
    {
      ...lever,
      plan: { angles: '4' },
      conditions: {},
      at: '2026-09-22T07:20:00.000Z',
      by: 'EK',
      sheet: tram(146, -92),
      moved: { tilt: '', nod: '0.5 div' },
    },
    { ...lever, plan: { angles: '4' }, conditions: {}, at: '2026-09-22T08:35:00.000Z', by: 'EK', sheet: tram(12, -16) },
  ],
};
