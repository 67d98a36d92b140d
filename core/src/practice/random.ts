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
  // Two come at a time: the second is kept for the next call.
  let spare: number | undefined;
  const normal = (): number => {
    if (spare !== undefined) {
      const kept = spare;
      spare = undefined;
      return kept;
    }
    const radius = Math.sqrt(-2 * Math.log(1 - even()));
    const angle = 2 * Math.PI * even();
    spare = radius * Math.sin(angle);
    return radius * Math.cos(angle);
  };
  return { even, between: (low, high) => low + (high - low) * even(), normal };
}
