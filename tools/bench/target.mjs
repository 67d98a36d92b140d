// What a measurement is held against: printed beside it, and the run fails where one is missed.
let missed = 0;

/** Print a figure with its target; `good` says whether it is met. */
export function report(what, figure, target, good) {
  console.log(`${good ? 'met   ' : 'MISSED'}  ${what}: ${figure} (wanted ${target})`);
  if (!good) missed += 1;
}

/** Middle and 95th percentile of some times. */
export function spread(times) {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (part) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))];
  return { median: at(0.5), p95: at(0.95), worst: sorted.at(-1) };
}

export const ms = (time) => `${time.toFixed(1)} ms`;
export const missedTargets = () => missed;
