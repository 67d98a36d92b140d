import {
  columnLeanSheet,
  dialInstrument,
  dialReader,
  headTramSheet,
  practiceRound,
  spindleRunoutSheet,
  type PracticeDial,
} from '@isometra/core/practice';
import { LEVER, asRead, demoSheet, levelled, lever, type DemoMachine, type DemoSheet } from './histories.js';

/** Square to what it reads: no lever angle to reckon with. */
const SQUARE: PracticeDial = { ...LEVER, leverAngle: 0 };
const read = dialReader(SQUARE);

/** A straight run of readings: places along it, for a slope in µm/m. */
export const along = (slope: number, places: readonly number[], keys: Readonly<Record<string, unknown>> = {}) =>
  places.map((at) => ({ ...keys, at, value: read((slope * at) / 1000) }));

export const bySquareDial = (check: string, readings: readonly Record<string, unknown>[], setup: object = {}): DemoSheet =>
  asRead({ check, setup, instrument: dialInstrument(SQUARE), readings });

/** Two motions this much more than square, read on a square 10 µm/m acute, and flipped over. */
function motions(squareness: number): DemoSheet {
  const leg = (flip: boolean, slope: number) => [
    ...along(0, [0, 250], { leg: 'reference', flip }),
    ...along(slope, [0, 250], { leg: 'test', flip }),
  ];
  const stylus = { reference: '+B', test: '+A' };
  return bySquareDial('axis-squareness', [...leg(false, squareness - 10), ...leg(true, squareness + 10)], { stylus });
}

/** A head swept over the table; how far its pivot is from the stylus where it nods on one. */
const tram = (x: number, y: number, pivot?: number): DemoSheet => asRead(headTramSheet({ x, y }, 120, [0, 90, 180, 270], SQUARE, pivot));

/** M-03: a turret mill whose head had been knocked; trammed in one move each way. */
export const TURRET_MILL: DemoMachine = {
  card: {
    number: 'M-03',
    nickname: 'the nodding mill',
    kind: 'turret-mill',
    head: { bolts: '4' },
    notes: 'Turret mill with a nodding head.',
  },
  survey: 'After the crash',
  byHand: [{ step: 'clean', at: '2026-09-21T06:50:00.000Z', by: 'EK', note: null }],
  rounds: [
    {
      ...lever,
      plan: { stations: 4 },
      conditions: {},
      at: '2026-09-21T07:30:00.000Z',
      by: 'EK',
      sheet: bySquareDial('table-parallelism-x', along(12, [0, 150, 300, 450])),
    },
    {
      ...lever,
      plan: { stations: 4 },
      conditions: {},
      at: '2026-09-21T08:05:00.000Z',
      by: 'EK',
      sheet: bySquareDial('table-parallelism-y', along(-14, [0, 80, 160, 240])),
    },
    { ...lever, plan: { stations: 2 }, conditions: {}, at: '2026-09-21T09:40:00.000Z', by: 'EK', sheet: motions(28) },
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
      sheet: tram(146, -92, 190),
      moved: { tilt: '', nod: '0.5 div' },
    },
    { ...lever, plan: { angles: '4' }, conditions: {}, at: '2026-09-22T08:35:00.000Z', by: 'EK', sheet: tram(12, -16, 190) },
  ],
};

const dialled = { ...lever, plan: { stations: 4 }, conditions: {} } as const;
const swung = { ...dialled, plan: { angles: '4' } } as const;
const run = { ...dialled, plan: {} } as const;

/** A table set level, along and across, with a block level. */
const level = (seed: number): DemoSheet => demoSheet(practiceRound('table-level', seed, { repeat: 0.15 }).sheet);

/** M-11: a small column mill; its column leaned to one side and was shimmed at its foot. */
export const COLUMN_MILL: DemoMachine = {
  card: {
    number: 'M-11',
    nickname: 'the little column',
    kind: 'column-mill',
    foot: { across: '180 mm', along: '240 mm' },
    notes: 'Small mill, dovetail column bolted to the base.',
  },
  survey: 'Before the sale',
  byHand: [{ step: 'clean', at: '2026-11-02T13:10:00.000Z', by: 'SD', note: 'packing grease in the column, washed out' }],
  rounds: [
    { ...levelled, plan: {}, at: '2026-11-02T14:00:00.000Z', by: 'SD', sheet: level(11) },
    { ...dialled, at: '2026-11-02T14:40:00.000Z', by: 'SD', sheet: bySquareDial('table-parallelism-x', along(-10, [0, 60, 120, 180])) },
    { ...dialled, at: '2026-11-02T15:05:00.000Z', by: 'SD', sheet: bySquareDial('table-parallelism-y', along(4, [0, 40, 80, 120])) },
    {
      ...dialled,
      plan: { stations: 2 },
      at: '2026-11-03T08:20:00.000Z',
      by: 'SD',
      sheet: asRead(columnLeanSheet({ x: -118, y: 14 }, 6, [0, 200], SQUARE, { x: 'right', y: 'operator' }, true)),
      moved: { leanX: '0.5 div' },
    },
    {
      ...dialled,
      plan: { stations: 2 },
      at: '2026-11-03T11:30:00.000Z',
      by: 'SD',
      sheet: asRead(columnLeanSheet({ x: -9, y: 12 }, 6, [0, 200], SQUARE, { x: 'right', y: 'operator' }, true)),
    },
    { ...run, at: '2026-11-03T13:15:00.000Z', by: 'SD', sheet: bySquareDial('spindle-runout', turned(3)) },
    { ...swung, at: '2026-11-03T14:00:00.000Z', by: 'SD', sheet: tram(-168, 12) },
  ],
};

/** A table and its axes as they were twice a year: along x it goes out of parallel by a little every year, the rest stays. µm/m. */
const YEARS = [
  { title: 'Autumn 2023', day: '2023-11-13', by: 'HB', x: 1, y: -5, square: 12 },
  { title: 'Spring 2024', day: '2024-05-06', by: 'HB', x: 2.4, y: -6, square: 14 },
  { title: 'Autumn 2024', day: '2024-11-11', by: 'EK', x: 3.4, y: -5, square: 11 },
  { title: 'Spring 2025, after the crash', day: '2025-04-07', by: 'EK', x: 4.3, y: -7, square: 13 },
  { title: 'Autumn 2025', day: '2025-11-10', by: 'EK', x: 5.8, y: -6, square: 12 },
  { title: 'Spring 2026', day: '2026-05-11', by: 'SD', x: 6.9, y: -6, square: 14 },
] as const;

const halfYearly = YEARS.map(({ title, day, by, x, y, square }) => ({
  title,
  rounds: [
    { ...dialled, at: `${day}T08:30:00.000Z`, by, sheet: bySquareDial('table-parallelism-x', along(x, [0, 200, 400, 600])) },
    { ...dialled, at: `${day}T09:00:00.000Z`, by, sheet: bySquareDial('table-parallelism-y', along(y, [0, 120, 240, 360])) },
    { ...dialled, plan: { stations: 2 }, at: `${day}T10:20:00.000Z`, by, sheet: motions(square) },
  ],
}));

/** V-20: a machining centre on linear guides, moved to another floor; its second axis has gone out of square. */
export const MACHINING_CENTRE: DemoMachine = {
  card: {
    number: 'V-20',
    nickname: 'the grey box',
    kind: 'machining-centre',
    trucks: { spacing: '320 mm', shoulder: 'left' },
    notes: 'Linear guides, moved across the yard in October.',
  },
  survey: 'After the move',
  earlier: halfYearly,
  byHand: [{ step: 'clean', at: '2026-11-09T06:45:00.000Z', by: 'EK', note: null }],
  rounds: [
    { ...levelled, plan: {}, at: '2026-11-09T07:30:00.000Z', by: 'EK', sheet: level(15) },
    { ...dialled, at: '2026-11-09T08:30:00.000Z', by: 'EK', sheet: bySquareDial('table-parallelism-x', along(8, [0, 200, 400, 600])) },
    { ...dialled, at: '2026-11-09T09:00:00.000Z', by: 'EK', sheet: bySquareDial('table-parallelism-y', along(-6, [0, 120, 240, 360])) },
    { ...dialled, plan: { stations: 2 }, at: '2026-11-09T10:20:00.000Z', by: 'EK', sheet: motions(132) },
  ],
};

/** A spindle turned by hand under a dial, off its axis by so much, µm: read at its face and on a bar. */
function turned(off: number): readonly Record<string, unknown>[] {
  const sheet = asRead(spindleRunoutSheet({ spindle: { radius: off, at: 40 }, bar: { radius: off, at: 200 } }, SQUARE));
  return sheet.readings;
}
