import type { HelpAct } from './define.js';

/** What helps the doubts that several checks share: each lists those that are true of it. */
export const TURN_BAR: HelpAct = { kind: 'turn', doubt: 'bar-straightness', left: 0, text: 'turn the bar half round and read again' };
/** Half a turn of the spindle takes its centre's runout out of a bar between centres. */
export const TURN_SPINDLE: HelpAct = {
  kind: 'turn',
  doubt: 'head-centre',
  left: 0,
  text: 'turn the spindle half round with the bar and read again',
};
export const MEASURE_BAR: HelpAct = {
  kind: 'bar',
  doubt: 'bar-diameter',
  left: 0.1,
  text: 'measure the bar at the places that are read and give its diameters',
};
export const FLIP_SQUARE: HelpAct = { kind: 'turn', doubt: 'square', left: 0, text: 'flip the square over and read again' };
export const SHORTER_BAR: HelpAct = { kind: 'bar', doubt: 'bar-droop', left: 1 / 16, text: 'use a bar half as long' };
export const SHORTER_HOLDER: HelpAct = {
  kind: 'bar',
  doubt: 'holder-droop',
  left: 1 / 4,
  text: 'use a shorter holder, and measure its droop',
};
export const DEAD_CENTRE: HelpAct = { kind: 'bar', doubt: 'live-centre', left: 0, text: 'use a dead centre' };
export const MORE_SET_UPS: HelpAct = { kind: 'set-up', doubt: 'setting-up', left: Math.SQRT1_2, text: 'take as many set-ups again' };

/** Twice the length halves everything that comes from reading. */
export const longerBase = (text: string): HelpAct => ({ kind: 'base', doubt: 'dial', left: 0.5, text });
