import { dialInstrument, dialReader } from './dial.js';
import { centreRunoutSheet, seatSheet, spindlePlaySheet, spindleRunoutSheet } from './headstock.js';
import { spindleAxisSheet } from './lathe.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeModel } from './model.js';

const spindleAxis: PracticeModel = (chance) => {
  const dial = anyDial(chance, { contactForce: 0.2 });
  const truth = { slopeH: hidden(chance, 90), slopeV: hidden(chance, 90) };
  const sheet = spindleAxisSheet(
    { ...truth, bend: chance.random.between(2, 20), twistPerMetre: chance.random.between(-20, 20) || 1 },
    {
      bar: { diameter: chance.random.between(18, 40), freeLength: 300, finish: 'ground' },
      places: [20, 280],
      side: chance.random.even() < 0.5 ? 'operator' : 'rear',
      heightAboveWays: 210,
      dial,
      imperfection: honesty(chance, dial),
    },
  );
  return { sheet, truth };
};

const seat: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const give = (most: number) => Math.abs(hidden(chance, most));
  const names = ['front left', 'front right', 'rear left', 'rear right'];
  const corners = Object.fromEntries(names.map((name) => [name, { pressed: give(12), clamped: give(9) }]));
  const all = Object.values(corners);
  return {
    sheet: seatSheet({ corners }, dial, honesty(chance, dial)),
    truth: { rock: Math.max(...all.map(({ pressed }) => pressed)), clampShift: Math.max(...all.map(({ clamped }) => clamped)) },
  };
};

const spindlePlay: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const truth = { front: chance.perfect ? 20 : chance.random.between(4, 70), rear: chance.perfect ? 20 : chance.random.between(4, 70) };
  const at = { span: chance.random.between(250, 450), overhang: chance.random.between(20, 90) };
  return { sheet: spindlePlaySheet(truth, dial, at, honesty(chance, dial)), truth: { liftFront: truth.front, liftRear: truth.rear } };
};

const spindleRunout: PracticeModel = (chance) => {
  const dial = anyDial(chance, { leverAngle: 0 });
  const spindle = { radius: Math.abs(hidden(chance, 10)), at: chance.random.between(0, 360) };
  const bar = { radius: chance.random.between(1, 8), at: chance.random.between(0, 360) };
  return {
    sheet: spindleRunoutSheet({ spindle, bar }, dial, honesty(chance, dial), chance.repeat > 0 ? chance.random : undefined),
    truth: { taperNear: 2 * spindle.radius, taperNearBar: 2 * bar.radius },
  };
};

const centreRunout: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const radius = Math.abs(hidden(chance, 6));
  return { sheet: centreRunoutSheet(radius, dial, honesty(chance, dial)), truth: { radial: 2 * radius } };
};

/** A round piece of a radius lying in a vee: how high its middle stands over the bottom of the vee, by trying. */
function restsAt(radius: number, half: number): number {
  let [low, high] = [0, 100 * radius];
  const touches = (height: number) => height * Math.sin(half) <= radius;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (touches(middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** A bar of uneven diameter in two vees, a dial over its crown: the vees lift it where it is thick. */
const barQualification: PracticeModel = (chance) => {
  const dial = anyDial(chance);
  const read = dialReader(dial, honesty(chance, dial));
  const veeAngle = chance.random.even() < 0.5 ? 90 : 120;
  const half = (veeAngle * Math.PI) / 360;
  const vees = [50, 250] as const;
  const places = [50, 100, 150, 200, 250];
  const nominal = 16_000;
  const radii = new Map(places.map((at) => [at, nominal + hidden(chance, 4)]));
  const bends = new Map(places.map((at) => [at, Math.abs(hidden(chance, 6))]));
  const at = (place: number) => radii.get(place) as number;
  const axis = (place: number) => {
    const [near, far] = vees.map((vee) => restsAt(at(vee), half));
    return near + ((far - near) * (place - vees[0])) / (vees[1] - vees[0]);
  };
  const base = axis(vees[0]) + nominal;
  const readings = places.flatMap((place) => {
    const top = axis(place) + at(place) - base;
    const bend = bends.get(place) as number;
    const [one, other] = [read(top + bend), read(top - bend)];
    const inOrder = (one - other) * dial.sense >= 0;
    return [
      { at: place, extreme: 'high', value: inOrder ? one : other },
      { at: place, extreme: 'low', value: inOrder ? other : one },
    ];
  });
  const all = [...radii.values()];
  return {
    sheet: sheetOf('bar-qualification', dialInstrument(dial), { vees, veeAngle }, readings),
    truth: { diameterRange: 2 * (Math.max(...all) - Math.min(...all)), bend: Math.max(...bends.values()) },
  };
};

export const spindleModels: Readonly<Record<string, PracticeModel>> = {
  seat,
  'spindle-play': spindlePlay,
  'spindle-runout': spindleRunout,
  'spindle-axis': spindleAxis,
  'centre-runout': centreRunout,
  'bar-qualification': barQualification,
};
