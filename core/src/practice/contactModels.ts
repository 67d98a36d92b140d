import { hidden, sheetOf, type PracticeModel } from './model.js';

/** Two pins in the corners of a dovetail: where each touches its flat and its flank, by trying. mm. */
function pinReach(diameter: number, angle: number): number {
  const radius = diameter / 2;
  const alpha = (angle * Math.PI) / 180;
  // Distance of a middle (x along the flat from the sharp corner, at the pin's own height) to the flank.
  const gap = (x: number) => x * Math.sin(alpha) - radius * Math.cos(alpha);
  let [low, high] = [0, 100 * diameter];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (gap(middle) < radius) low = middle;
    else high = middle;
  }
  return (low + high) / 2 + radius;
}

/**
 * A dovetail over its pins, read with a micrometer to a µm: its width at the sharp corner, mm, and what its two flanks stand
 * proud of that, µm square to them.
 *
 * @param pin diameter, mm. @param angle degrees. @param places mm along it.
 */
export function dovetailSheet(
  { width, pin, angle }: { readonly width: number; readonly pin: number; readonly angle: number },
  places: readonly number[],
  ...flanks: readonly ((at: number) => number)[]
) {
  const across = (at: number) => flanks.reduce((sum, flank) => sum + flank(at), 0) / Math.sin((angle * Math.PI) / 180);
  const readings = places.map((at) => ({ at, value: Math.round(1000 * (width + 2 * pinReach(pin, angle)) + across(at)) / 1000 }));
  return sheetOf('dovetail-over-pins', { kind: 'micrometer', graduation: '1 um' }, { pin, angle, side: 'outside' }, readings);
}

/** A dovetail that widens along its length, measured over pins. */
const dovetailOverPins: PracticeModel = (chance) => {
  const [pin, angle] = [chance.random.even() < 0.5 ? 8 : 10, chance.random.even() < 0.5 ? 55 : 60];
  const [width, taper, waist] = [chance.random.between(70, 120), hidden(chance, 60), hidden(chance, 6)];
  const at = (z: number) => width + (taper * z) / 1e6 + (waist * Math.sin((Math.PI * z) / 240)) / 1000;
  const places = [0, 60, 120, 180, 240];
  const graduation = 1;
  const readings = places.map((z) => {
    const exact = at(z) + 2 * pinReach(pin, angle);
    const seen = exact * 1000 + chance.repeat * chance.random.normal();
    return { at: z, value: chance.repeat > 0 ? Math.round((2 * seen) / graduation) / 2000 : exact };
  });
  const widths = places.map(at);
  return {
    sheet: sheetOf('dovetail-over-pins', { kind: 'micrometer', graduation: `${graduation} um` }, { pin, angle }, readings),
    truth: { widthRange: 1000 * (Math.max(...widths) - Math.min(...widths)) },
  };
};

/** Where a straightedge turns when it is pushed at one end: friction on each side of the pivot balances, by adding up. */
function turnsAt(pressure: (x: number) => number, length: number): number {
  const steps = 4000;
  const dx = length / steps;
  const moments = Array.from({ length: steps }, (_, i) => (i + 0.5) * dx * pressure((i + 0.5) * dx) * dx);
  const half = moments.reduce((sum, moment) => sum + moment, 0) / 2;
  let sum = 0;
  for (let i = 0; i < steps; i++) {
    if (sum + moments[i] >= half) return (i + (half - sum) / moments[i]) * dx;
    sum += moments[i];
  }
  return length;
}

/** A face that bears with some pressure along its length, and a straightedge pushed twice at each end. */
const hinge: PracticeModel = (chance) => {
  const length = chance.random.between(200, 600);
  const [middle, breadth, even] = [
    chance.random.between(0.35, 0.65) * length,
    chance.random.between(0.05, 0.4) * length,
    chance.random.between(0, 1),
  ];
  const pressure = (x: number) => (chance.perfect ? 1 : even + Math.exp(-(((x - middle) / breadth) ** 2)));
  // The moment is taken about the pushed end.
  const a = turnsAt(pressure, length);
  const b = length - turnsAt((x) => pressure(length - x), length);
  const noise = () => (chance.repeat > 0 ? 0.01 * length * chance.random.normal() : 0);
  const readings = [
    { push: 'A', pivot: a + noise() },
    { push: 'A', pivot: a + noise() },
    { push: 'B', pivot: b + noise() },
    { push: 'B', pivot: b + noise() },
  ];
  return { sheet: sheetOf('hinge', undefined, { length }, readings), truth: { grip: (a - b) / length, centre: (a + b) / 2 } };
};

export const contactModels: Readonly<Record<string, PracticeModel>> = { 'dovetail-over-pins': dovetailOverPins, hinge };
