import type { FlankFound } from '@isometra/work';

/** Widths over pins as they were read on the bench: proud places, µm across, and how surely. */
export interface PinsRead {
  readonly places: readonly { readonly at: number; readonly over: number }[];
  readonly doubt: number;
  readonly round: number;
  /** When it was read, ISO. */
  readonly at: string;
}

type Say = (value: number, dimension: 'length' | 'deviation') => string;

/** Which flank is off, in words; `other` is what the other one is called. */
export function flankWords({ call, untried }: FlankFound, other: string, doubt: number, say: Say): string {
  const where = call.at === 'ends' ? 'at its ends' : `at ${say(call.at, 'length')}`;
  const proud = `The pins read it proud ${where}, by ${say(call.bow, 'deviation')}`;
  const tapers = Math.abs(call.taper) > doubt;
  const besides = tapers
    ? ` It tapers by ${say(Math.abs(call.taper), 'deviation')} besides: that is left, the squareness says which flank it is to go from.`
    : '';
  switch (call.guilt) {
    case 'here':
      return `${proud}, and the straightedge is high there on this flank; ${other} bears evenly. All of it comes off this one.${besides}`;
    case 'other':
      return `${proud}, and the straightedge is high there on ${other}; this flank bears evenly. Leave this one alone: scrape ${other}.`;
    case 'both':
      return `${proud}, and both flanks are high there: half comes off each. Work the other half off ${other}.${besides}`;
    case 'straight':
      return tapers
        ? `It tapers by ${say(Math.abs(call.taper), 'deviation')} and does not bow: a straightedge sees no taper. The squareness of the saddle says which flank is to go.`
        : `It is the same width all along, as surely as it was read (± ${say(doubt, 'deviation')}). Nothing is to come off for it.`;
    case 'even':
      return `${proud}, yet both flanks bear evenly: a burr under a pin, or a straightedge that is too short. Read both again before metal comes off.`;
    case 'untold':
      return untried.length
        ? `${proud}. Pins measure the sum of both flanks: push the straightedge on ${untried.length === 2 ? `this flank and on ${other}` : untried[0] === 'here' ? 'this flank' : other} first, as ${untried.length === 2 ? 'they are' : 'it is'} now.`
        : `${proud}, but the straightedge is high somewhere else. Read both again: no flank is named on that.`;
  }
}
