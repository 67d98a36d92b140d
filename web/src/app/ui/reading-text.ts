import { prettyUnit } from '@isometra/core';

/** Digits behind the point that no dial and no micrometer shows. */
const BEYOND = /\d+\.\d{6,}/g;

/** A reading as it was typed, its unit as it is printed: "12 um" is "12 µm". What a program wrote is rounded to what can be read. */
export const readingText = (typed: string | number): string =>
  prettyUnit(String(typed).replace(BEYOND, (figure) => String(Number(Number(figure).toFixed(4)))));
