import type { Values } from '../instruments/slots.js';
import type { CheckDefinition, HelpAct } from './define.js';
import { spanOf } from './notes.js';

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
export const longerBase = (text: string, possible?: HelpAct['possible']): HelpAct => ({
  ...{ kind: 'base', doubt: 'dial', left: 0.5, text },
  ...(possible && { possible }),
});

/** What helps a check and can be done: nobody reads beyond the end of a bar. */
export const helpsFor = (check: Pick<CheckDefinition, 'helps'>, setup: Values, places: readonly number[]): readonly HelpAct[] =>
  (check.helps ?? []).filter(({ possible }) => possible?.(setup, places) ?? true);

/** A bar that is read over less than half its free length has room for twice as much. */
export const roomOnBar: NonNullable<HelpAct['possible']> = ({ bar }, places) => {
  const free = (bar as { readonly freeLength?: number } | undefined)?.freeLength;
  return free === undefined || 2 * spanOf(places) <= free;
};
