import type { Said } from '../units/said.js';
import type { Carried, Note } from './define.js';

export const tooFew = (text: string): Note => ({
  code: 'too-few-readings',
  severity: 'warning',
  text: `Not enough has been read yet: ${text}.`,
});

/** A slope over a short base says little. */
export function shortBase(length: number): Note<Said>[] {
  return length < 100
    ? [
        {
          code: 'short-base',
          severity: 'warning',
          text: (size) => `The base is only ${size(length, 'length')}: a slope over less than ${size(100, 'length')} says little.`,
        },
      ]
    : [];
}

/** From the first to the last of some places, mm. */
export function spanOf(places: readonly number[]): number {
  let [low, high] = [Infinity, -Infinity];
  for (const place of places) {
    if (place < low) low = place;
    if (place > high) high = place;
  }
  return high - low;
}

/** A sign depends on which side was read, and nobody said which. */
export const sideAssumed = (what: string): Note => ({
  code: 'side-assumed',
  severity: 'warning',
  text: `Which side was read is not said: ${what} is assumed. From the other side the sign is the other way.`,
});

/** A result carried from the places that were read over a whole length; undefined where they do not span any length. */
export function carriedFrom(over: number, places: readonly number[]): Carried | undefined {
  const base = spanOf(places);
  return base > 0 ? { base, over, factor: over / base } : undefined;
}
