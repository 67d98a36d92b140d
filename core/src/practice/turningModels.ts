import { dialInstrument, dialReader } from './dial.js';
import { anyDial, hidden, honesty, sheetOf, type PracticeModel } from './model.js';

/** Distance from an axis to the wall of a round bore or pin whose middle stands off it, along a ray, mm. */
function wall(radius: number, h: number, v: number, angle: number): number {
  const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const along = h * c + v * s;
  return along + Math.sqrt(radius ** 2 - (h ** 2 + v ** 2 - along ** 2));
}

/**
 * A bore swept by the spindle it should be in line with, or by the other one; its slide may lean, and a bush in it
 * may be off its housing and be turned half round.
 */
const boreModel =
  (check: string, { bush = false, carried = false } = {}): PracticeModel =>
  (chance) => {
    const dial = anyDial(chance, { leverAngle: 0, holderSag: -8 });
    const read = dialReader(dial, honesty(chance, dial));
    const [h, v, radius] = [hidden(chance, 60) / 1000, hidden(chance, 60) / 1000, 12];
    const off = bush ? [chance.random.between(-15, 15) / 1000, chance.random.between(-15, 15) / 1000] : [0, 0];
    const sub = carried && chance.random.even() < 0.5;
    const slant = chance.random.even() < 0.5 ? 45 : -30;
    const turns = bush ? ([0, 180] as const) : ([undefined] as const);
    const readings = turns.flatMap((turn) =>
      [0, 90, 180, 270].map((angle) => {
        const sign = turn === 180 ? -1 : 1;
        const [x, y] = [h + sign * off[0], v + sign * off[1]];
        // Carried by the part itself, the stylus sweeps the other one: that stands off the other way.
        const surface = wall(radius, sub ? -x : x, sub ? -y : y, angle);
        const droop = (-(dial.holderSag ?? 0) * (1 - Math.sin((angle * Math.PI) / 180))) / 2;
        // In a bore the wall comes nearer where the middle stands away.
        return { angle, ...(turn !== undefined && { bush: turn }), value: read(-1000 * (surface - radius) + droop) };
      }),
    );
    const [c, s] = [Math.cos((slant * Math.PI) / 180), Math.sin((slant * Math.PI) / 180)];
    const parts: Record<string, number> = bush
      ? { bushHorizontal: 1000 * off[0], bushVertical: 1000 * off[1], housingHorizontal: 1000 * h, housingVertical: 1000 * v }
      : {};
    return {
      sheet: sheetOf(check, dialInstrument(dial), { slant, ...(sub && { carrier: 'sub' }) }, readings),
      truth: {
        offsetHorizontal: 1000 * h,
        offsetVertical: 1000 * v,
        alongSlide: 1000 * (h * c - v * s),
        acrossSlide: 1000 * (v * c + h * s),
        ...parts,
      },
    };
  };

/**
 * A turret that stands turned in the plane of its slide and tipped square to it, as a rigid body: z away from the headstock,
 * x along the slide toward the operator, y square to it. One of its ground flats is read, from either side of it.
 */
const turretModel: PracticeModel = (chance) => {
  const dial = anyDial(chance, { leverAngle: 0 });
  const read = dialReader(dial, honesty(chance, dial));
  const [turned, tipped] = [hidden(chance, 120), hidden(chance, 120)];
  const places = [0, 40, 80, 120];
  /** How far a point of the flat comes toward the stylus, µm, at mm along it. */
  const toward: Readonly<Record<string, (at: number) => number>> = {
    operator: (z) => (turned * z) / 1000,
    rear: (z) => (-turned * z) / 1000,
    // The operator's end goes toward the headstock as the far end comes toward the operator.
    headstock: (x) => (turned * x) / 1000,
    tail: (x) => (-turned * x) / 1000,
    above: (z) => (tipped * z) / 1000,
  };
  const sides = Object.keys(toward);
  const side = sides[Math.min(sides.length - 1, Math.floor(chance.random.between(0, sides.length)))];
  const readings = places.map((at) => ({ at, value: read(toward[side](at)) }));
  const truth: Readonly<Record<string, number>> =
    side === 'above' ? { tipSlope: tipped } : side === 'headstock' || side === 'tail' ? { faceSlope: turned } : { slope: turned };
  return { sheet: sheetOf('turret-face', dialInstrument(dial), { side }, readings), truth };
};

export const turningModels: Readonly<Record<string, PracticeModel>> = {
  'turret-face': turretModel,
  'turret-bore': boreModel('turret-bore'),
  'guide-bush': boreModel('guide-bush', { bush: true }),
  'sub-spindle': boreModel('sub-spindle', { carried: true }),
};
