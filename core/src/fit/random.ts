/** A source of random numbers that can be started again: same seed, same numbers. */
export interface Random {
  /** Evenly between 0 and 1. */
  readonly even: () => number;
  /** Evenly between low and high. */
  readonly between: (low: number, high: number) => number;
  /** Normal with mean 0 and standard deviation 1. */
  readonly normal: () => number;
}

/** A small seeded generator, good enough for practice and for draws of an uncertainty. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const even = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
  // The polar method gives two at a time: the second is kept for the next call.
  let spare = 0;
  let kept = false;
  const normal = (): number => {
    if (kept) {
      kept = false;
      return spare;
    }
    let x: number;
    let y: number;
    let size: number;
    do {
      x = 2 * even() - 1;
      y = 2 * even() - 1;
      size = x * x + y * y;
    } while (size >= 1 || size === 0);
    const factor = Math.sqrt((-2 * Math.log(size)) / size);
    spare = y * factor;
    kept = true;
    return x * factor;
  };
  return { even, between: (low, high) => low + (high - low) * even(), normal };
}

/** Many random numbers at once, for draws by the hundred thousand. */
export interface BulkRandom {
  /** Put into each place: `scale` times an even number between −½ and ½, to one part in 65,536. */
  readonly even: (places: Float64Array, scale: number) => void;
  /** Add to each place: `scale` times a normal number with mean 0 and standard deviation 1. */
  readonly addNormal: (places: Float64Array, scale: number) => void;
}

/** Layers of the ziggurat: a pile of strips of one area under the bell curve, its tail begins at TAIL. */
const LAYERS = 128;
const TAIL = 3.442619855899;
const AREA = 9.91256303526217e-3;
const bell = (x: number): number => Math.exp(-0.5 * x * x);

/** Where each strip ends, and which part of it lies wholly under the curve. */
function ziggurat(): { readonly ends: Float64Array; readonly sure: Float64Array } {
  const ends = new Float64Array(LAYERS + 1);
  ends[0] = AREA / bell(TAIL);
  ends[1] = TAIL;
  for (let i = 2; i < LAYERS; i++) ends[i] = Math.sqrt(-2 * Math.log(AREA / ends[i - 1] + bell(ends[i - 1])));
  const sure = Float64Array.from({ length: LAYERS }, (_, i) => ends[i + 1] / ends[i]);
  return { ends, sure };
}

const { ends: ENDS, sure: SURE } = ziggurat();
const PART = 1 / 4_294_967_296;
const PLACE = 1 / 16_777_216;
const STRIDE = 0x6d2b79f5;

/** 32 bits stirred so that neighbours have nothing in common: with a counter they make a random sequence. */
function stirred(count: number): number {
  let bits = Math.imul(count ^ (count >>> 15), count | 1);
  bits ^= bits + Math.imul(bits ^ (bits >>> 7), bits | 61);
  return bits ^ (bits >>> 14);
}

/** A seeded source of many numbers: a stirred counter, normal numbers by the ziggurat, strip and place from different bits. */
export function bulkRandom(seed: number): BulkRandom {
  let count = Math.imul(seed, 0x9e3779b9);

  /** What lies over the curve in a strip, and the tail beyond them: one in a hundred. Adds to the counter. */
  const seldom = (layer: number, x: number, u: number): number | undefined => {
    const positive = (): number => {
      count = (count + STRIDE) | 0;
      return ((stirred(count) >>> 0) + 0.5) * PART;
    };
    if (layer === 0) {
      let out: number;
      do out = Math.log(positive()) / TAIL;
      while (-2 * Math.log(positive()) < out * out);
      return u < 0 ? out - TAIL : TAIL - out;
    }
    const [high, low] = [Math.exp(-0.5 * (ENDS[layer] ** 2 - x * x)), Math.exp(-0.5 * (ENDS[layer + 1] ** 2 - x * x))];
    return low + positive() * (high - low) < 1 ? x : undefined;
  };
  return {
    even: (places, scale) => {
      let at = count;
      const part = scale / 65_536;
      for (let k = 0; k < places.length; k += 2) {
        at = (at + STRIDE) | 0;
        const bits = stirred(at);
        places[k] = part * ((bits >> 16) + 0.5);
        // Past the end of an odd number of places this is written nowhere.
        places[k + 1] = part * (((bits << 16) >> 16) + 0.5);
      }
      count = at;
    },
    addNormal: (places, scale) => {
      if (scale === 0) return;
      let at = count;
      for (let k = 0; k < places.length;) {
        at = (at + STRIDE) | 0;
        const bits = stirred(at);
        // Low bits choose the strip, the others the place in it.
        const layer = bits & (LAYERS - 1);
        const u = (bits >> 7) * PLACE;
        const x = u * ENDS[layer];
        if (Math.abs(u) < SURE[layer]) {
          places[k++] += scale * x;
          continue;
        }
        count = at;
        const rare = seldom(layer, x, u);
        at = count;
        if (rare !== undefined) places[k++] += scale * rare;
      }
      count = at;
    },
  };
}
