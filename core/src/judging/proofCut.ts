import { verdictOf, type Verdict } from './verdict.js';
import type { Zone } from '../checks/zone.js';

/** Two pads of one cut between centres, mm: at the head end and at the tail end of the machine. */
export interface PadSizes {
  readonly head: number;
  readonly tail: number;
}

/** What a bar cut both ways round says. */
export interface ProofCut {
  /** Bigger at the tail end of the machine, on diameter, µm: the mean of both ways round. */
  readonly machine: number;
  /** Bigger at that end of the bar that stood at the tail first, µm: what goes with the bar. */
  readonly bar: number;
  /** Expanded uncertainty of either, µm. */
  readonly expanded: number;
  /** Of the machine, in its zone; of half the difference, as an offset counts. */
  readonly verdict: Verdict;
  /** What goes with the bar is more than its doubt. */
  readonly barTells: boolean;
}

/** Standard doubt of one diameter by a micrometer, µm. */
const SIZE = 1.5;

/**
 * A cut over two pads, and a light one after the bar was turned end for end: what stays at the same end of the machine is the machine,
 * what goes with the bar is the bar or its centres. Each cut is fresh, so that the machine's taper stands in both.
 *
 * @param zone of the tail centre sideways, µm: half of what the diameters differ by.
 */
export function proofCut(first: PadSizes, turned: PadSizes, zone: Zone): ProofCut {
  const [one, two] = [first, turned].map(({ head, tail }) => 1000 * (tail - head));
  const [machine, bar] = [(one + two) / 2, (one - two) / 2];
  // Four diameters, halved: as much as one of them.
  const expanded = 2 * SIZE;
  return { machine, bar, expanded, verdict: verdictOf(-machine / 2, expanded / 2, zone), barTells: Math.abs(bar) > expanded };
}
