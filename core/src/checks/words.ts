import type { Words } from './define.js';
import { inBothPersons } from './persons.js';

/** Toward or away from the operator (h). */
export const LATERAL: Words = inBothPersons(({ who }) => ({
  plus: `toward ${who}`,
  minus: `away from ${who}`,
  movePlus: `toward ${who}`,
  moveMinus: `away from ${who}`,
  arrow: ['toward', 'away'],
}));

/** High or low (v). */
export const HEIGHT: Words = { plus: 'high', minus: 'low', movePlus: 'up', moveMinus: 'down', arrow: ['up', 'down'] };

/** Where an axis points, sideways (h). */
export const AXIS: Words = inBothPersons(({ who }) => ({
  plus: `pointing toward ${who}`,
  minus: `pointing away from ${who}`,
  movePlus: `toward ${who} at its free end`,
  moveMinus: `away from ${who} at its free end`,
  arrow: ['toward', 'away'],
}));

/** Where an axis points, in height (v). */
export const AXIS_HEIGHT: Words = {
  plus: 'pointing up at its free end',
  minus: 'pointing down at its free end',
  movePlus: 'up at its free end',
  moveMinus: 'down at its free end',
  arrow: ['up', 'down'],
};

/** How a machine faces. */
export const FACING: Words = {
  plus: 'facing hollow',
  minus: 'facing crowned',
  movePlus: 'so that it faces more hollow',
  moveMinus: 'so that it faces less hollow',
};

/** A height along a travel. */
export const ALONG: Words = {
  plus: 'rising along the travel',
  minus: 'falling along the travel',
  movePlus: 'raise the far end',
  moveMinus: 'lower the far end',
  arrow: ['up', 'down'],
};

/** A side that comes toward the stylus along the travel, or goes from it: nothing is raised. */
export const ACROSS: Words = inBothPersons(({ who }) => ({
  plus: `with its right end toward ${who}`,
  minus: `with its right end away from ${who}`,
  movePlus: `toward ${who} at its right end`,
  moveMinus: `away from ${who} at its right end`,
  arrow: ['toward', 'away'],
}));
