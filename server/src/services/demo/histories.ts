import {
  bedTwistSheet,
  centreRunoutSheet,
  cutSheet,
  dovetailSheet,
  facedDiscSheet,
  levelStepsSheet,
  quillSheet,
  seatSheet,
  spindlePlaySheet,
  spindleRunoutSheet,
  spindleAxisSheet,
  seededRandom,
  sweepSheet,
  traverseSheet,
  type PracticeDial,
  type TailstockTruth,
} from '@isometra/core/practice';
import { footprint, lineName, startingSheet, type LimitLine, type LimitSheet } from '@isometra/core';
import type { MachineCardText } from '@isometra/contract';
import type { BearingNote, ByHand } from '@isometra/work';

export interface DemoSheet {
  readonly check: string;
  readonly setup: Record<string, unknown>;
  readonly instrument: Record<string, unknown>;
  readonly readings: readonly Record<string, unknown>[];
}

export interface DemoRound {
  readonly sheet: DemoSheet;
  readonly plan: Record<string, unknown>;
  readonly at: string;
  readonly by: string;
  readonly conditions: Record<string, string | number | boolean>;
  readonly instrumentName: string;
  /** In which its readings are written down. */
  readonly unit: 'div' | 'mm';
  /** Moves that were made after it: quantity → shift seen on tightening. */
  readonly moved?: Readonly<Record<string, string>>;
  /** A register of the card that was changed after it, as it was entered on its change sheet. */
  readonly changeSheet?: {
    readonly register: string;
    readonly old: string;
    readonly entered: string;
    readonly how: 'plus' | 'minus' | 'next';
  };
}

export interface DemoMachine {
  readonly card: MachineCardText;
  /** What its survey is called, and the rungs left out of it. */
  readonly survey: string;
  readonly skipped?: Readonly<Record<string, string>>;
  /** How its bearings felt. */
  readonly bearings?: readonly Omit<BearingNote, 'id'>[];
  /** What was done by hand at the ends of its ladder. */
  readonly byHand?: readonly Omit<ByHand, 'id'>[];
  readonly rounds: readonly DemoRound[];
  /** Surveys of the years before, oldest first. */
  readonly earlier?: readonly { readonly title: string; readonly rounds: readonly DemoRound[] }[];
}

const BUILDERS: Readonly<Record<string, LimitLine>> = {
  'tailstock-traverse/offsetVertical': {
    check: 'tailstock-traverse',
    quantity: 'offsetVertical',
    zone: [0, 25],
    aim: 12,
    reason: 'set high: the base wears down',
  },
  'spindle-axis/slopeH': { check: 'spindle-axis', quantity: 'slopeH', zone: [0, 40], reason: '0.012 mm in 300 mm, toward the tool' },
};

const random = seededRandom(14);
const AXIS = { axisSlopeH: 24, axisSlopeV: 12 };
export const LEVER: PracticeDial = { kind: 'lever', graduation: 2, sense: -1, leverAngle: 12, accuracy: 1, contactForce: 0.15 };
export const PLUNGER: PracticeDial = { kind: 'plunger', graduation: 2, sense: 1, accuracy: 1, holderSag: -9 };
const BAR = { diameter: 32, material: 'steel', finish: 'ground' } as const;

const stands = (offsetHorizontal: number, offsetVertical: number): TailstockTruth => ({ offsetHorizontal, offsetVertical, ...AXIS });

function bar(truth: TailstockTruth, centreDistance: number): DemoSheet {
  const stations = [0.05, 0.95].map((part) => Math.round(centreDistance * part));
  return demoSheet(
    traverseSheet(truth, {
      centreDistance,
      stations,
      bar: BAR,
      dial: LEVER,
      imperfection: { random, repeat: 0.4 },
    }),
  );
}

function sweep(truth: TailstockTruth): DemoSheet {
  return demoSheet(
    sweepSheet(truth, {
      feature: 'outside',
      radius: 30,
      angles: [0, 90, 180, 270],
      distance: 620,
      dial: PLUNGER,
      imperfection: { random, repeat: 0.4 },
    }),
  );
}

function cut(truth: TailstockTruth, centreDistance: number): DemoSheet {
  const stations = [0.05, 0.95].map((part) => Math.round(centreDistance * part));
  return demoSheet(
    cutSheet(truth, {
      centreDistance,
      stations,
      diameter: 42,
      graduation: 1,
      imperfection: { random, repeat: 0.6 },
    }),
  );
}

export function twist(perMetre: number): DemoSheet {
  return demoSheet(
    bedTwistSheet((z) => 12 + (perMetre * z) / 1000, [100, 700, 1300], {
      graduation: 20,
      zero: 14,
      imperfection: { random, repeat: 2 },
    }),
  );
}

export function axis(truth: { slopeH: number; slopeV: number } = { slopeH: AXIS.axisSlopeH, slopeV: AXIS.axisSlopeV }): DemoSheet {
  const practice = {
    bar: { diameter: 30, freeLength: 300, material: 'steel', finish: 'ground' } as const,
    places: [20, 290],
    heightAboveWays: 210,
    dial: LEVER,
    imperfection: { random, repeat: 0.4 },
  };
  return demoSheet(spindleAxisSheet({ ...truth, bend: 7, twistPerMetre: 4 }, practice));
}

/** A headstock that sits well: no corner moves by more than a third of the limit. */
export function seated(): DemoSheet {
  const corner = (pressed: number, clamped: number) => ({ pressed, clamped });
  const corners = { 'front left': corner(1, 1.5), 'front right': corner(1, 1), 'rear left': corner(1.5, 1), 'rear right': corner(1, 1) };
  return demoSheet(seatSheet({ corners }, PLUNGER, { random, repeat: 0.2 }));
}

export function play(front: number, rear: number): DemoSheet {
  return demoSheet(spindlePlaySheet({ front, rear }, PLUNGER, { span: 340, overhang: 60 }, { random, repeat: 0.4 }));
}

/** A sheet of a practice machine, as the demo keeps it. */
export const demoSheet = (sheet: object): DemoSheet => sheet as DemoSheet;

/** A sheet as somebody read it: to half a division. */
export function asRead(sheet: unknown): DemoSheet {
  const { readings, ...rest } = sheet as DemoSheet;
  return { ...rest, readings: readings.map((reading) => ({ ...reading, value: Math.round(2 * Number(reading['value'])) / 2 + 0 })) };
}
/** The same read twice, taken out and put back in between. */
const setUpTwice = (sheet: DemoSheet): DemoSheet => ({
  ...sheet,
  readings: [1, 2].flatMap((set) => sheet.readings.map((reading) => ({ ...reading, set }))),
});
export const RUNOUT = { spindle: { radius: 2, at: 40 }, bar: { radius: 3, at: 200 } };

/** A bar in the quill, read at two places; it stands a little up and toward the tool, as it should. */
function quill(): DemoSheet {
  const bar = { diameter: 24, material: 'steel', finish: 'ground' } as const;
  const practice = { bar, freeLength: 180, places: [20, 160], side: 'operator', dial: LEVER } as const;
  return asRead(quillSheet({ slopeH: 44, slopeV: 58 }, practice));
}

function way(): DemoSheet {
  return demoSheet(
    levelStepsSheet((z) => -5 * Math.sin((Math.PI * z) / 1400), 200, 7, {
      graduation: 20,
      zero: 14,
      imperfection: { random, repeat: 1 },
    }),
  );
}

export const levelled = { unit: 'div', instrumentName: 'Level, 20 µm/m', conditions: {}, plan: { stations: 3 } } as const;
export const plunger = { unit: 'div', instrumentName: 'Plunger on the short holder', conditions: {}, plan: {} } as const;
const BED = { bedClamp: 'on', quillLock: 'on', quillOut: 40, place: 600 };
export const lever = {
  unit: 'div',
  instrumentName: 'Lever dial, 2 µm',
  conditions: { ...BED, indicatorOn: 'carriage' },
  plan: { stations: 2, planes: 'both' },
} as const;
const swept = {
  unit: 'div',
  instrumentName: 'Plunger on the short holder',
  conditions: { ...BED, indicatorOn: 'spindle', swept: 'quill' },
  plan: { angles: '4' },
} as const;
const turned = { unit: 'mm', instrumentName: 'Micrometer 25–50', conditions: BED, plan: { stations: 2, reach: 'whole' } } as const;

/** The front flank of the cross slide of L-14: what it stands proud, µm, at seven places of its 400 mm. */
export const DOVETAIL = { length: 400, places: [29, 86, 143, 200, 257, 314, 371], proud: [0, 9, 24, 15, 0, 0, 0] } as const;
const dovetailAt = (z: number): number => DOVETAIL.proud[DOVETAIL.places.findIndex((place) => place === z)] ?? 0;

/** L-14: found toward the operator, moved the wrong way, brought back, fell short, then in; scraped down in between. */
export const LONG_LATHE: DemoMachine = {
  card: {
    number: 'L-14',
    nickname: 'the long lathe',
    kind: 'engine-lathe',
    swing: '420 mm',
    centreDistance: '1500 mm',
    base: { length: '230 mm', width: '150 mm', overhang: '70 mm', bolt: '20 mm', bolts: 1, handleWidth: '28 mm', handleDepth: '18 mm' },
    adjuster: { pitch: '1.5 mm', layout: 'opposed-screws' },
    feet: { track: '520 mm', pitch: '2 mm' },
    castings: [
      {
        id: 'headstock',
        name: 'Headstock',
        frame: 'lathe',
        origin: [0, 210, 0],
        supports: footprint('vee-flat', { near: 55, length: 330, width: 230, angle: 90 }),
        watch: [
          { id: 'nose', at: [0, 210, 0] },
          { id: 'back gear', at: [-250, 260, -120] },
        ],
      },
    ],
    notes: 'Vee and flat bed, split plain bearings. In the middle of a rebuild.',
  },
  survey: 'Rebuild, summer and autumn',
  bearings: [
    {
      at: '2026-06-18T11:30:00.000Z',
      by: 'HB',
      endFloat: '22 um',
      drag: [0, 90, 180, 270].map((turn, i) => ({ turn, drag: [1, 1, 2, 1][i] })),
      note: 'as found, cold',
    },
    {
      at: '2026-06-29T15:10:00.000Z',
      by: 'HB',
      endFloat: '7 um',
      drag: [0, 90, 180, 270].map((turn) => ({ turn, drag: 1 })),
      note: 'nut to a slight drag and back',
    },
  ],
  byHand: [{ step: 'clean', at: '2026-06-15T07:15:00.000Z', by: 'RM', note: 'ridge of wear near the chuck, no cracks' }],
  skipped: { 'dovetail-over-pins': 'ways of the cross slide are being scraped, see there' },
  rounds: [
    { ...levelled, at: '2026-06-15T08:00:00.000Z', by: 'HB', sheet: twist(-54), moved: { twistPerMetre: '' } },
    { ...levelled, at: '2026-06-16T09:00:00.000Z', by: 'HB', sheet: twist(4) },
    { ...levelled, at: '2026-06-17T09:30:00.000Z', by: 'RM', sheet: way(), plan: { stations: 7 } },
    { ...plunger, conditions: { casting: 'headstock' }, at: '2026-06-18T08:00:00.000Z', by: 'HB', sheet: seated() },
    { ...plunger, at: '2026-06-18T09:10:00.000Z', by: 'HB', sheet: play(24, 18) },
    {
      ...lever,
      plan: { stations: 2 },
      conditions: {},
      at: '2026-06-18T10:30:00.000Z',
      by: 'RM',
      sheet: axis({ slopeH: -42, slopeV: -28 }),
      moved: { slopeH: '1 div', slopeV: '' },
    },
    { ...lever, plan: { stations: 2 }, conditions: {}, at: '2026-06-30T10:00:00.000Z', by: 'RM', sheet: axis() },
    { ...lever, plan: {}, conditions: {}, at: '2026-07-01T08:20:00.000Z', by: 'RM', sheet: asRead(spindleRunoutSheet(RUNOUT, LEVER)) },
    {
      ...lever,
      plan: {},
      conditions: {},
      at: '2026-07-01T10:05:00.000Z',
      by: 'RM',
      sheet: setUpTwice(asRead(centreRunoutSheet(0.5, LEVER))),
    },
    { ...lever, at: '2026-07-06T07:40:00.000Z', by: 'HB', sheet: bar(stands(62, 47), 620), moved: { offsetHorizontal: '0 div' } },
    {
      ...lever,
      at: '2026-07-06T09:15:00.000Z',
      by: 'HB',
      sheet: bar(stands(119, 47), 620),
      moved: { offsetHorizontal: '0.5 div', offsetVertical: '' },
    },
    { ...lever, at: '2026-08-19T08:05:00.000Z', by: 'RM', sheet: bar(stands(29, 19), 620), moved: { offsetHorizontal: '0.5 div' } },
    { ...swept, at: '2026-09-02T13:20:00.000Z', by: 'RM', sheet: sweep(stands(6, 12)) },
    { ...lever, plan: { stations: 2 }, conditions: { quillLock: 'on' }, at: '2026-09-03T08:40:00.000Z', by: 'RM', sheet: quill() },
    { ...turned, at: '2026-10-14T10:30:00.000Z', by: 'HB', sheet: cut(stands(6, 12), 620) },
    {
      ...lever,
      plan: { stations: 3 },
      conditions: {},
      at: '2026-10-21T13:15:00.000Z',
      by: 'HB',
      sheet: asRead(facedDiscSheet(46, [0, 50, 100], LEVER)),
    },
    { ...lever, at: '2026-11-18T08:10:00.000Z', by: 'HB', sheet: bar(stands(6, 12), 620) },
    {
      ...{ unit: 'mm', instrumentName: 'Micrometer 100–125', conditions: {}, plan: { stations: 7 } },
      ...{ at: '2026-11-20T16:30:00.000Z', by: 'HB' },
      sheet: demoSheet(dovetailSheet({ width: 86.42, pin: 8, angle: 55 }, DOVETAIL.places, (z) => dovetailAt(z))),
    },
  ],
};

/** L-02: a light lathe whose tailstock had worn low; shimmed. */
export const LIGHT_LATHE: DemoMachine = {
  card: {
    number: 'L-02',
    nickname: 'the window bench',
    kind: 'bench-lathe',
    swing: '180 mm',
    centreDistance: '420 mm',
    base: { length: '110 mm', width: '76 mm', overhang: '34 mm', bolt: '12 mm', bolts: 1 },
    adjuster: { pitch: '1 mm', layout: 'opposed-screws' },
  },
  survey: 'As found',
  rounds: [
    {
      ...lever,
      conditions: { ...lever.conditions, place: 260 },
      at: '2026-10-05T15:00:00.000Z',
      by: 'EK',
      sheet: bar(stands(-4, -38), 380),
      moved: { offsetVertical: '0 div' },
    },
    { ...lever, conditions: { ...lever.conditions, place: 260 }, at: '2026-10-06T08:30:00.000Z', by: 'EK', sheet: bar(stands(-4, 9), 380) },
  ],
};

/** The builder's own figures for the long lathe: what differs from the general sheet. */
export const BUILDERS_SHEET: LimitSheet = {
  ...startingSheet('general'),
  name: 'L-14, the builder’s sheet',
  lines: startingSheet('general').lines.map((line) => BUILDERS[lineName(line)] ?? line),
};
