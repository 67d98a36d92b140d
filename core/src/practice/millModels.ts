import { alongModel } from './alongModels.js';
import { dialInstrument, dialReader } from './dial.js';
import { columnLeanSheet, headTramSheet } from './mill.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeModel } from './model.js';
import { squareModel } from './squareModel.js';

/** A level of its own zero set along both axes of a table, each way round. */
const tableLevel: PracticeModel = (chance) => {
  const graduation = chance.random.even() < 0.5 ? 10 : 20;
  const zero = chance.random.between(-60, 60);
  const truth = { levelX: hidden(chance, 90), levelY: hidden(chance, 90) };
  const noise = () => chance.repeat * graduation * chance.random.normal();
  const vial = (tilt: number) => {
    const exact = (tilt + zero + noise()) / graduation;
    return chance.repeat > 0 ? Math.round(2 * exact) / 2 : exact;
  };
  const readings = (['x', 'y'] as const).flatMap((axis) => {
    const tilt = axis === 'x' ? truth.levelX : truth.levelY;
    return [
      { axis, end: 'forward', value: vial(tilt) },
      { axis, end: 'reversed', value: vial(-tilt) },
    ];
  });
  return { sheet: sheetOf('table-level', { kind: 'level', graduation: `${graduation} um/m` }, {}, readings), truth };
};

/** A body of a length in a guide with so much room: pushed beyond its end it turns in the guide, corner to corner. */
const gibModel =
  (part: string): PracticeModel =>
  (chance) => {
    const dial = anyDial(chance);
    const read = dialReader(dial, honesty(chance, dial));
    const [guideLength, distance] = [chance.random.between(120, 260), chance.random.between(20, 400)];
    const room = chance.perfect ? (20 * guideLength) / (2 * Math.max(distance, guideLength / 2)) : chance.random.between(10, 90);
    const bends = chance.random.between(0, 8);
    // Corner to corner the two ends of the guide stand apart by the room on either side.
    const turns = (2 * room) / guideLength;
    const swing = Math.max(room, turns * distance) + bends;
    const rest = chance.random.between(0.35, 0.65);
    const readings = [
      { stroke: 'push', locks: 'off', value: read(swing * rest) },
      { stroke: 'pull', locks: 'off', value: read(-swing * (1 - rest)) },
      { stroke: 'push', locks: 'on', value: read(bends / 2) },
      { stroke: 'pull', locks: 'on', value: read(-bends / 2) },
    ];
    return {
      sheet: sheetOf(`${part}-gib-play`, dialInstrument(dial), { guideLength, distance }, readings),
      truth: { swing, swingLocked: bends, clearance: room },
    };
  };

const columnLean: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const truth = { x: hidden(chance, 90), y: hidden(chance, 90) };
  const square = chance.random.between(-30, 30);
  const sides = { x: chance.random.even() < 0.5 ? 'right' : 'left', y: chance.random.even() < 0.5 ? 'operator' : 'column' } as const;
  const sheet = columnLeanSheet(truth, square, [0, 150, 300], dial, sides, true, honesty(chance, dial));
  return { sheet, truth: { leanX: truth.x, leanY: truth.y } };
};

const headTram: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const truth = { x: hidden(chance, 200), y: hidden(chance, 200) };
  const sheet = headTramSheet(truth, chance.random.between(80, 180), [0, 90, 180, 270], dial, undefined, honesty(chance, dial));
  return { sheet, truth: { tilt: truth.x, nod: truth.y } };
};

export const millModels: Readonly<Record<string, PracticeModel>> = {
  'table-level': tableLevel,
  'knee-gib-play': gibModel('knee'),
  'saddle-gib-play': gibModel('saddle'),
  'table-gib-play': gibModel('table'),
  'table-parallelism-x': alongModel('table-parallelism-x'),
  'table-parallelism-y': alongModel('table-parallelism-y', { length: 240 }),
  'motion-straightness-x': alongModel('motion-straightness-x', { length: 300, wave: 8 }),
  'motion-straightness-y': alongModel('motion-straightness-y', { length: 240, wave: 8 }),
  'axis-squareness': squareModel('axis-squareness'),
  'slot-parallelism': alongModel('slot-parallelism', { slope: 90, wave: 3 }),
  'column-lean': columnLean,
  'head-tram': headTram,
  'vice-parallelism': alongModel('vice-parallelism', { slope: 90, wave: 1, length: 150, places: 4 }),
};
