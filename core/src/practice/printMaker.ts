/** A place on a face, mm, or on a photograph, px. */
interface Place {
  readonly x: number;
  readonly y: number;
}

export interface MadePrint {
  /** The face, mm. */
  readonly width: number;
  readonly height: number;
  /** High places: where, how wide, how high (µm over the lowest). */
  readonly bumps: readonly (Place & { readonly radius: number; readonly height: number })[];
  /** Thickness of the blue, µm: what lies within it of the highest place is blue. */
  readonly film: number;
  /** A contrast dye under the blue, or bare iron. */
  readonly dye?: boolean;
  /** Part of the light that is lost from one corner to the other. */
  readonly shade?: number;
  /** A bright round glare in the middle of the photograph: its radius, part of the width. */
  readonly glare?: number;
  /** Colour of the light: 1 as it should be, above it warm, below it cold. */
  readonly warmth?: number;
  /** px of the photograph that one is spread over. */
  readonly blur?: number;
  /** Grain of the camera, of 255. */
  readonly grain?: number;
  /** What iron, dye and blue look like in plain light; left out, the usual. */
  readonly looks?: Partial<Record<'iron' | 'dye' | 'blue', readonly [number, number, number]>>;
  /** How unevenly scraped iron throws the light back: part of it, from flake to flake. */
  readonly flakes?: number;
  /** An oil groove across the face, mm from its left edge, and how wide. */
  readonly groove?: { readonly at: number; readonly width: number };
}

/** A photograph and what is true of it. */
export interface PhotoOfPrint {
  readonly width: number;
  readonly height: number;
  /** Four bytes to a pixel. */
  readonly data: Uint8ClampedArray;
  /** Corners of the face on it, px, round from its top left. */
  readonly corners: readonly Place[];
  /** Counted when it is asked for. */
  readonly truth: { readonly spots: number; readonly share: number };
}

/** Numbers that look thrown and are the same every time. */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Height of the face at a place, µm: the highest of its bumps there. */
const heightAt = ({ bumps }: MadePrint, x: number, y: number): number =>
  bumps.reduce((high, bump) => Math.max(high, bump.height - bump.height * (((x - bump.x) ** 2 + (y - bump.y) ** 2) / bump.radius ** 2)), 0);

const FINE = 12;

/** Blue or not, on a grid of 12 to the mm. */
function trueMask(made: MadePrint): { readonly mask: Uint8Array; readonly w: number; readonly h: number } {
  const [w, h] = [Math.round(made.width * FINE), Math.round(made.height * FINE)];
  const mask = new Uint8Array(w * h);
  const top = Math.max(...made.bumps.map(({ height }) => height), 0);
  for (const bump of made.bumps) {
    const floor = top - made.film;
    if (bump.height <= floor || bump.height <= 0) continue;
    const reach = bump.radius * Math.sqrt(1 - Math.max(0, floor) / bump.height) * FINE;
    for (let y = Math.max(0, Math.floor(bump.y * FINE - reach)); y < Math.min(h, bump.y * FINE + reach); y++)
      for (let x = Math.max(0, Math.floor(bump.x * FINE - reach)); x < Math.min(w, bump.x * FINE + reach); x++)
        if (heightAt({ ...made, bumps: [bump] }, (x + 0.5) / FINE, (y + 0.5) / FINE) > floor) mask[y * w + x] = 1;
  }
  const { groove } = made;
  if (groove)
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) if (Math.abs((x + 0.5) / FINE - groove.at) < groove.width / 2) mask[y * w + x] = 0;
  return { mask, w, h };
}

/** Patches of at least half a square mm, by flooding each with its eight neighbours. */
function trueSpots(mask: Uint8Array, w: number, h: number): number {
  const left = mask.slice();
  let spots = 0;
  for (let start = 0; start < left.length; start++) {
    if (!left[start]) continue;
    const heap = [start];
    left[start] = 0;
    let size = 0;
    for (let i = heap.pop(); i !== undefined; i = heap.pop()) {
      size++;
      const [x, y] = [i % w, Math.floor(i / w)];
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          const [u, v] = [x + dx, y + dy];
          if (u < 0 || v < 0 || u >= w || v >= h || !left[v * w + u]) continue;
          left[v * w + u] = 0;
          heap.push(v * w + u);
        }
    }
    if (size >= 0.5 * FINE ** 2) spots++;
  }
  return spots;
}

const LOOKS = { iron: [142, 143, 140], dye: [206, 98, 52], blue: [30, 66, 128] } as const;
const GROOVE = [24, 23, 22] as const;
const BENCH = [88, 74, 60] as const;

/** What a photograph is taken with: its size, and where the corners of the face lie on it. */
export interface Camera {
  readonly width: number;
  readonly height: number;
  readonly corners: readonly [Place, Place, Place, Place];
}

/** Where a place of the photograph lies on the face, by the straight lines through four corners (projective, by its unit square). */
function backwards([a, b, c, d]: Camera['corners'], width: number, height: number): (x: number, y: number) => Place {
  const [dx1, dx2, dx3] = [b.x - c.x, d.x - c.x, a.x - b.x + c.x - d.x];
  const [dy1, dy2, dy3] = [b.y - c.y, d.y - c.y, a.y - b.y + c.y - d.y];
  const whole = dx1 * dy2 - dx2 * dy1;
  const [g, h] = [(dx3 * dy2 - dx2 * dy3) / whole, (dx1 * dy3 - dx3 * dy1) / whole];
  const [m11, m12, m13] = [b.x - a.x + g * b.x, d.x - a.x + h * d.x, a.x];
  const [m21, m22, m23] = [b.y - a.y + g * b.y, d.y - a.y + h * d.y, a.y];
  return (x, y) => {
    const [p, q, r, s] = [m11 - x * g, m12 - x * h, m21 - y * g, m22 - y * h];
    const det = p * s - q * r;
    const [u, v] = [((x - m13) * s - (y - m23) * q) / det, ((y - m23) * p - (x - m13) * r) / det];
    return { x: u * width, y: v * height };
  };
}

/** How a photograph looks that nothing is the matter with. */
const PLAIN = { shade: 0, glare: 0, warmth: 1, blur: 1, grain: 4, dye: false, flakes: 0 };

const onFace = ({ width, height }: MadePrint, u: number, v: number): boolean => u >= 0 && v >= 0 && u < width && v < height;

/**
 * A photograph of a blued face whose truth is known: stands in for the camera.
 *
 * @param seed of the grain.
 */
export function photographPrint(made: MadePrint, camera: Camera, seed = 1): PhotoOfPrint {
  const { mask, w, h } = trueMask(made);
  const { shade, glare, warmth, blur, grain, dye, groove, flakes } = { ...PLAIN, ...made };
  const looks = { ...LOOKS, ...made.looks };
  const { width, height, corners } = camera;
  const toFace = backwards(corners, made.width, made.height);
  const light = (x: number, y: number): number => 1 - (shade * (x / width + y / height)) / 2;
  const samples = 2;
  const bare = dye ? looks.dye : looks.iron;
  const colour = (x: number, y: number): readonly number[] => {
    const { x: u, y: v } = toFace(x, y);
    if (!onFace(made, u, v)) return BENCH;
    if (groove && Math.abs(u - groove.at) < groove.width / 2) return GROOVE;
    return mask[Math.min(h - 1, Math.floor(v * FINE)) * w + Math.min(w - 1, Math.floor(u * FINE))] ? looks.blue : bare;
  };
  const thrown = dice(seed);
  const data = new Uint8ClampedArray(4 * width * height);
  const spread = Math.max(1, blur);
  const cast = [Math.min(1, warmth), 1, Math.min(1, 1 / warmth)];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i += 4) {
      const sum = [0, 0, 0];
      for (let k = 0; k < samples; k++)
        for (let j = 0; j < samples; j++) {
          const seen = colour(x + 0.5 + spread * ((j + 0.5) / samples - 0.5), y + 0.5 + spread * ((k + 0.5) / samples - 0.5));
          for (let c = 0; c < 3; c++) sum[c] += seen[c];
        }
      const lit = light(x, y) * (1 + flakes * Math.sin(x / 7 + 2 * Math.sin(y / 11)) * Math.sin(y / 9));
      const shine = glare ? 150 * Math.max(0, 1 - Math.hypot(x - width / 2, y - height / 2) / (glare * width)) : 0;
      for (let c = 0; c < 3; c++) data[i + c] = ((lit * sum[c]) / samples ** 2) * cast[c] + shine + grain * (thrown() + thrown() - 1) * 1.7;
      data[i + 3] = 255;
    }
  const counted = groove ? mask.length * (1 - groove.width / made.width) : mask.length;
  return {
    ...{ width, height, data, corners },
    get truth() {
      return { spots: trueSpots(mask, w, h), share: mask.reduce((total, value) => total + value, 0) / counted };
    },
  };
}

/** Bumps strewn over a face: so many to the square of an inch, of a radius and a scatter of heights. */
export function strewn(
  width: number,
  height: number,
  perSquare: number,
  { seed = 1, radius = 3, low = 4, high = 10 } = {},
): MadePrint['bumps'] {
  const thrown = dice(seed);
  const n = Math.max(1, Math.round((perSquare * width * height) / 645.16));
  return Array.from({ length: n }, () => ({
    x: thrown() * width,
    y: thrown() * height,
    radius: radius * (0.7 + 0.6 * thrown()),
    height: low + (high - low) * thrown(),
  }));
}
