import { alongModel } from './alongModels.js';
import { dialInstrument, dialReader } from './dial.js';
import { chuckCutSheet, facedDiscSheet, quillSheet } from './headstock.js';
import { bedTwistSheet, levelStepsSheet } from './lathe.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeChance, type PracticeModel } from './model.js';
import { bestLine } from './alongModels.js';
import { squareModel } from './squareModel.js';
import { cutSheet, sweepSheet, traverseSheet } from './tailstock.js';

const level = (chance: PracticeChance) => {
  const graduation = chance.random.even() < 0.5 ? 10 : 20;
  return {
    graduation,
    zero: chance.random.between(-60, 60),
    imperfection: chance.repeat > 0 ? honesty(chance, { graduation }) : undefined,
  };
};

const bedTwist: PracticeModel = (chance) => {
  const [perMetre, at0] = [hidden(chance, 60), chance.random.between(-80, 80)];
  const places = [80, 500, 1000, 1400];
  return {
    sheet: bedTwistSheet((z) => at0 + (perMetre * z) / 1000, places, level(chance)),
    truth: { twistPerMetre: perMetre, twist: (perMetre * (places[3] - places[0])) / 1000 },
  };
};

const wayStraightness: PracticeModel = (chance) => {
  const [sag, base, steps] = [hidden(chance, 14), 150, 8];
  const tilt = chance.random.between(-50, 50);
  const height = (z: number) => sag * Math.sin((Math.PI * z) / (base * steps)) + (tilt * z) / 1000;
  const at = Array.from({ length: steps + 1 }, (_, i) => i * base);
  const heights = at.map(height);
  const line = bestLine(at, heights);
  const left = heights.map((y, i) => y - line.at0 - line.slope * at[i]);
  return {
    sheet: levelStepsSheet(height, base, steps, level(chance)),
    truth: { straightness: Math.max(...left) - Math.min(...left) },
  };
};

const tailTruth = (chance: PracticeChance) => ({
  offsetHorizontal: hidden(chance, 60),
  offsetVertical: hidden(chance, 60),
  axisSlopeH: hidden(chance, 60),
  axisSlopeV: hidden(chance, 60),
});

const tailstockTraverse: PracticeModel = (chance) => {
  const dial = anyDial(chance, { contactForce: 0.2 });
  const truth = tailTruth(chance);
  const centreDistance = chance.random.between(350, 900);
  const sheet = traverseSheet(truth, {
    centreDistance,
    stations: [0.05, 0.4, 0.95].map((part) => Math.round(part * centreDistance)),
    bar: { diameter: 32 },
    bow: chance.random.between(-15, 15),
    turned: true,
    side: chance.random.even() < 0.5 ? 'operator' : 'rear',
    dial,
    imperfection: honesty(chance, dial),
  });
  return { sheet, truth: { offsetHorizontal: truth.offsetHorizontal, offsetVertical: truth.offsetVertical } };
};

const tailstockSweep: PracticeModel = (chance) => {
  const dial = anyDial(chance, { leverAngle: 0, holderSag: -12 });
  const truth = tailTruth(chance);
  const distance = chance.random.between(200, 700);
  const sheet = sweepSheet(truth, {
    feature: chance.random.even() < 0.5 ? 'outside' : 'bore',
    radius: 30,
    angles: [0, 90, 180, 270],
    distance,
    axisKnown: true,
    dial,
    imperfection: honesty(chance, dial),
  });
  return {
    sheet,
    truth: {
      offsetHorizontal: truth.offsetHorizontal - (truth.axisSlopeH * distance) / 1000,
      offsetVertical: truth.offsetVertical - (truth.axisSlopeV * distance) / 1000,
    },
  };
};

const tailstockTestCut: PracticeModel = (chance) => {
  const truth = tailTruth(chance);
  const centreDistance = chance.random.between(300, 700);
  const graduation = 2;
  const sheet = cutSheet(truth, {
    centreDistance,
    stations: [0.05, 0.5, 0.95].map((part) => Math.round(part * centreDistance)),
    diameter: chance.random.between(30, 60),
    held: chance.random.even() < 0.5 ? 'centres' : 'chuck',
    tool: chance.random.even() < 0.5 ? 'operator' : 'rear',
    heightKnown: true,
    graduation,
    imperfection: honesty(chance, { graduation }),
  });
  return { sheet, truth: { offsetHorizontal: truth.offsetHorizontal } };
};

const chuckTestCut: PracticeModel = (chance) => {
  const slopeH = hidden(chance, 80);
  const sheet = chuckCutSheet(
    { slopeH, twistPerMetre: chance.random.between(-30, 30) },
    {
      places: [10, 80, 160],
      diameter: chance.random.between(30, 60),
      tool: chance.random.even() < 0.5 ? 'operator' : 'rear',
      heightAboveWays: 210,
    },
  );
  const readings = (sheet['readings'] as { at: number; value: number }[]).map((reading) => {
    if (chance.repeat === 0) return reading;
    const off = chance.repeat * chance.random.normal();
    return { ...reading, value: Math.round(2 * (reading.value * 1000 + off)) / 2000 };
  });
  return { sheet: { ...sheet, readings }, truth: { slopeH } };
};

const quillParallelism: PracticeModel = (chance) => {
  const dial = anyDial(chance, { contactForce: 0.2 });
  const truth = { slopeH: hidden(chance, 120), slopeV: hidden(chance, 120) };
  const sheet = quillSheet(truth, {
    bar: { diameter: 25 },
    freeLength: 220,
    places: [10, 200],
    side: chance.random.even() < 0.5 ? 'operator' : 'rear',
    dial,
    imperfection: honesty(chance, dial),
  });
  return { sheet, truth };
};

/** A disc that wobbles, swept by its own slide at two positions of the spindle half a turn apart. */
const crossSlideSquareness: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const slope = hidden(chance, 80);
  if (chance.random.even() < 0.5) {
    return { sheet: facedDiscSheet(slope, [0, 50, 100], dial, honesty(chance, dial)), truth: { slope } };
  }
  const read = dialReader(dial, honesty(chance, dial));
  const wobble = chance.random.between(-120, 120);
  const readings = ([0, 180] as const).flatMap((turn) =>
    [-60, 0, 60].map((at) => ({ at, turn, value: read(((slope + (turn === 0 ? wobble : -wobble)) * at) / 1000) })),
  );
  return { sheet: sheetOf('cross-slide-squareness', dialInstrument(dial), { method: 'reversed-disc' }, readings), truth: { slope } };
};

/** A slide or a machine that a hand pushes and pulls: it gives by so much for each newton. */
const stiffness: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const read = dialReader(dial, honesty(chance, dial));
  const force = chance.random.between(40, 200);
  const perNewton = chance.random.between(0.02, 0.4);
  const readings = [
    { stroke: 'push', value: read(perNewton * force) },
    { stroke: 'pull', value: read(-perNewton * force) },
  ];
  return { sheet: sheetOf('stiffness', dialInstrument(dial), { force }, readings), truth: { compliance: 100 * perNewton } };
};

export const latheModels: Readonly<Record<string, PracticeModel>> = {
  stiffness,
  'bed-twist': bedTwist,
  'way-straightness': wayStraightness,
  'tailstock-way-parallelism': alongModel('tailstock-way-parallelism', { slope: 40, wave: 5, length: 900 }),
  'tailstock-traverse': tailstockTraverse,
  'tailstock-sweep': tailstockSweep,
  'tailstock-test-cut': tailstockTestCut,
  'chuck-test-cut': chuckTestCut,
  'quill-parallelism': quillParallelism,
  'saddle-squareness': squareModel('saddle-squareness'),
  'cross-slide-squareness': crossSlideSquareness,
};
