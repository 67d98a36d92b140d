import type { WorkedHours } from '@isometra/contract';
import { minutesWords } from '@isometra/work';

/** Hours by person, those with most first: "HB 5 h, EK 3 h 20"; '' where nothing was timed. */
export function hoursWords(worked: readonly WorkedHours[]): string {
  const sums = new Map<string, number>();
  for (const { by, minutes } of worked) sums.set(by, (sums.get(by) ?? 0) + minutes);
  return [...sums]
    .filter(([, minutes]) => minutes >= 1)
    .sort(([, one], [, other]) => other - one)
    .map(([by, minutes]) => `${by} ${minutesWords(minutes)}`)
    .join(', ');
}
