import { solveLinear } from '../../fit/linearSystem.js';
import type { Flat } from './frame.js';

type Colour = readonly [number, number, number];

/** What a face shows: bare iron, engineer's blue, and a contrast dye where one was put on. As the photograph has them. */
export interface Colours {
  readonly iron: Colour;
  readonly blue: Colour;
  readonly dye: Colour | null;
}

/** What is taken for blue: degrees round the colour circle. */
const BLUE = { from: 185, to: 268 } as const;
/** Least part of the brightest of the three that the darkest must lack: iron in a cold light lacks a tenth. */
const LEAST_BLUE = 0.18;
const LEAST_DYE = 0.32;
const MOST_IRON = 0.22;
/** Darker than this nothing can be told, of 255. */
const DARK = 22;
/** Blue must stand out of the noise of bare iron by so many of its own widths. */
const STANDS_OUT = 6;
/** Least area of a spot, mm²: a quarter of it must be surely blue, less is dirt. */
const SURELY = 0.5;

/** Pixels that tell the colours: not all are looked at. */
const SAMPLE = 40_000;

/** Some pixels of a face, spread over it: their three colours. */
interface Sample {
  readonly rgb: Float32Array;
  /** How many pixels of the face each stands for. */
  readonly each: number;
}

function sampleOf({ rgb, seen }: Pick<Flat, 'rgb' | 'seen'>): Sample {
  const each = Math.max(1, Math.floor(seen.length / SAMPLE));
  const found: number[] = [];
  for (let i = 0; i < seen.length; i += each) if (seen[i]) found.push(rgb[3 * i], rgb[3 * i + 1], rgb[3 * i + 2]);
  return { rgb: Float32Array.from(found), each };
}

/** The middle of some values: of many, sorted as bare numbers. */
function middle(values: Iterable<number>): number {
  const sorted = Float32Array.from(values).sort();
  return sorted[sorted.length >> 1] ?? NaN;
}

interface Kind {
  /** Degrees round the colour circle. */
  readonly hue: number;
  /** Depth of colour: 0 grey, 1 full. */
  readonly depth: number;
  /** 0 to 255. */
  readonly light: number;
}

/** What each pixel of a sample is, with the cast of the light taken out. */
function kindsOf({ rgb }: Sample, [gr, gg, gb]: Colour): Kind[] {
  return Array.from({ length: rgb.length / 3 }, (_, i) => {
    const [r, g, b] = [rgb[3 * i] * gr, rgb[3 * i + 1] * gg, rgb[3 * i + 2] * gb];
    const [high, low] = [Math.max(r, g, b), Math.min(r, g, b)];
    const span = high - low;
    const sixth = span <= 0 ? 0 : high === r ? (g - b) / span : high === g ? 2 + (b - r) / span : 4 + (r - g) / span;
    return { hue: (60 * sixth + 360) % 360, depth: high > 0 ? span / high : 0, light: Math.min(255, high) };
  });
}

const PLAIN: Colour = [1, 1, 1];

/** The middle colour of some pixels of a sample. */
function middleColour({ rgb }: Sample, places: readonly number[]): Colour {
  const of = (k: number): number => middle(places.map((i) => rgb[3 * i + k]));
  return [of(0), of(1), of(2)];
}

/** How much each of the three must be raised for the iron to be grey; plain where too little of it is grey to begin with. */
function castOf(sample: Sample): Colour {
  const kinds = kindsOf(sample, PLAIN);
  const grey = [...kinds.keys()].filter((i) => kinds[i].depth < 0.3 && kinds[i].light > 60 && kinds[i].light < 250);
  if (grey.length < kinds.length / 30) return PLAIN;
  const [r, g, b] = middleColour(sample, grey);
  const most = Math.max(r, g, b);
  return [most / r, most / g, most / b];
}

const isBlue = ({ hue }: Kind): boolean => hue >= BLUE.from && hue <= BLUE.to;
const isDye = ({ hue, depth }: Kind): boolean => depth > LEAST_DYE && (hue < 165 || hue > 285);

/**
 * The colours of a face, found in its photograph; null where nothing on it is blue.
 *
 * Iron is what is nearly grey, blue what lies in its part of the colour circle and stands out of the noise, a dye any other
 * full colour. The cast of the light is taken out first, by what is grey. A face that is dyed and rubbed bare, with no blue
 * on it, has none: bare iron is bluer than the dye, and still no blue.
 */
export function coloursOf(flat: Pick<Flat, 'rgb' | 'seen' | 'perMm'>): Colours | null {
  const sample = sampleOf(flat);
  const cast = castOf(sample);
  const kinds = kindsOf(sample, cast);
  const lit = [...kinds.keys()].filter((i) => kinds[i].light > DARK);
  const blueish = lit.filter((i) => isBlue(kinds[i]) && kinds[i].depth > LEAST_BLUE);
  const deep = blueish.map((i) => kinds[i].depth).sort((a, b) => a - b);
  // Edges of spots are half blue: what is fully so tells the colour.
  const full = Math.max(LEAST_BLUE, 0.7 * (deep[Math.floor(0.85 * deep.length)] ?? 1));
  const surely = blueish.filter((i) => kinds[i].depth >= full);
  if (surely.length < Math.max(8, (SURELY * (flat.perMm ?? 0) ** 2) / 4 / sample.each)) return null;
  const grey = lit.filter((i) => kinds[i].depth < MOST_IRON && kinds[i].light < 250);
  const noise = grey.length > 50 ? middle(grey.map((i) => kinds[i].depth)) : 0;
  if (middle(surely.map((i) => kinds[i].depth)) <= STANDS_OUT * Math.min(noise, 0.05)) return null;
  const dyed = lit.filter((i) => isDye(kinds[i]));
  const blue = middleColour(sample, surely);
  const dye = dyed.length > Math.max(20, lit.length / 200) ? middleColour(sample, dyed) : null;
  if (!dye) return { iron: grey.length > lit.length / 500 ? middleColour(sample, grey) : greyIn(cast), blue, dye };
  // On a face that is all dye, what is grey is the edge of a spot, half dye and half blue, and no iron.
  const iron = grey.length > lit.length / 20 ? middleColour(sample, grey) : null;
  return iron && !between(iron, blue, dye) ? { iron, blue, dye } : { iron: dye, blue, dye: null };
}

const greyIn = ([r, g, b]: Colour): Colour => [160 / r, 160 / g, 160 / b];

/** Whether a colour is some of two others and nothing else. */
function between(colour: Colour, one: Colour, other: Colour): boolean {
  const normal = crossOf(one, other);
  const dot = normal[0] * colour[0] + normal[1] * colour[1] + normal[2] * colour[2];
  return Math.abs(dot) / (Math.hypot(...normal) * Math.hypot(...colour)) < 0.06;
}

/** Edge of the squares in which the light is taken to be even, px. */
const EDGE = 48;
/** Least part of the usual light by which a pixel is judged: darker, its colour is noise. */
const FAINT = 0.3;

/**
 * How blue each pixel is: 0 bare, 1 fully blue, ½ at the edge of a spot, whatever light falls on it.
 *
 * A pixel is some iron, some blue and some dye in some light: three equations. Blue over the sum of the three does not
 * depend on the light; where a glare adds white to it, blue over the light round about does not depend on the glare. The larger counts.
 */
export function bluenessOf({ width, height, rgb, seen }: Flat, { iron, blue, dye }: Colours): Float32Array {
  const third: Colour = dye ?? crossOf(iron, blue);
  const n = seen.length;
  const [parts, sums] = [new Float32Array(n), new Float32Array(n)];
  const shares = solveLinear(
    [0, 1, 2].map((k) => [iron[k], blue[k], third[k]]),
    UNIT,
  );
  if (!shares) return parts;
  const [[i0, i1, i2], [b0, b1, b2], [d0, d1, d2]] = shares;
  const dyed = dye ? 1 : 0;
  for (let i = 0; i < n; i++) {
    if (!seen[i]) continue;
    const r = rgb[3 * i];
    const g = rgb[3 * i + 1];
    const b = rgb[3 * i + 2];
    const own = b0 * r + b1 * g + b2 * b;
    const bare = i0 * r + i1 * g + i2 * b;
    const under = dyed * (d0 * r + d1 * g + d2 * b);
    parts[i] = own > 0 ? own : 0;
    sums[i] = (bare > 0 ? bare : 0) + parts[i] + (under > 0 ? under : 0);
  }
  const light = lightOf({ width, height, seen }, sums);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (!seen[i]) continue;
      const about = light.values[Math.floor(y / EDGE) * light.across + Math.floor(x / EDGE)];
      const own = parts[i];
      const bySum = own / (sums[i] > FAINT * about ? sums[i] : FAINT * about);
      const byLight = own > about ? 1 : own / about;
      parts[i] = bySum > byLight ? bySum : byLight;
    }
  return parts;
}

const UNIT = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** A direction that is neither of the two. */
function crossOf([a, b, c]: Colour, [d, e, f]: Colour): Colour {
  const cross: Colour = [b * f - c * e, c * d - a * f, a * e - b * d];
  const length = Math.hypot(...cross) || 1;
  const size = Math.hypot(a, b, c);
  return [(cross[0] * size) / length, (cross[1] * size) / length, (cross[2] * size) / length];
}

/** The light round about a pixel, by squares of the face: their upper middle, so that spots do not darken it. */
function lightOf(
  { width, height, seen }: Pick<Flat, 'width' | 'height' | 'seen'>,
  sums: Float32Array,
): { readonly values: readonly number[]; readonly across: number } {
  const [across, down] = [Math.ceil(width / EDGE), Math.ceil(height / EDGE)];
  const values: number[] = [];
  for (let row = 0; row < down; row++)
    for (let column = 0; column < across; column++) {
      const found: number[] = [];
      for (let y = row * EDGE; y < Math.min(height, (row + 1) * EDGE); y += 6)
        for (let x = column * EDGE; x < Math.min(width, (column + 1) * EDGE); x += 6) {
          const i = y * width + x;
          if (seen[i]) found.push(sums[i]);
        }
      found.sort((a, b) => a - b);
      values.push(found.length > 8 ? found[Math.floor(0.6 * found.length)] : 0);
    }
  const usual = middle(values.filter((value) => value > 0)) || 1;
  return { values: values.map((value) => Math.max(0.15 * usual, value || usual)), across };
}
