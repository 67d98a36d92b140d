import type { Note } from '../checks/define.js';
import type { BudgetLine, SetupSpread } from './budget.js';
import type { Verdict, Zone } from './verdict.js';

export const FINDING_FORMAT = 'isometra-finding/1';

/** One quantity of a finding, in its own unit. `verdict`, `limit` and `aim` are null when nothing limits it. */
export interface Quantity {
  readonly value: number;
  readonly unit: string;
  /** 95 % uncertainty; null without an instrument. */
  readonly expanded: number | null;
  /** Of a size that its doubts alone could make: it may as well be nothing. */
  readonly interval?: readonly [number, number];
  /** Which way it is out, in words; null for a size, and where the value cannot be told from zero. */
  readonly direction: string | null;
  readonly limit: Zone | null;
  readonly aim: number | null;
  readonly verdict: Verdict | null;
  /** Why it is unsure whatever its figures say: codes of the notes that name it. */
  readonly because?: readonly string[];
  readonly terms: Readonly<Record<string, number>>;
  readonly budget: readonly BudgetLine[];
  /** How far the set-ups of this round lay apart: standard deviation in the unit of the readings, and its degrees of freedom. */
  readonly setUps?: SetupSpread;
  readonly detail?: Readonly<Record<string, number | string>>;
}

/** A correction: what, how much (signed like the quantity) and which way; with the plan of its kind. */
export interface Move {
  readonly kind: string;
  readonly quantity: string;
  readonly amount: number;
  readonly unit: string;
  readonly direction: string;
  readonly indicator?: NeedleTarget;
  readonly [plan: string]: unknown;
}

/** What the needle reads now and where it must stop. */
export interface NeedleTarget {
  readonly now: number;
  readonly target: number;
  readonly unit: string;
  readonly where?: string;
}

/** The answer to a sheet. Numbers unrounded. */
export interface Finding {
  readonly format: typeof FINDING_FORMAT;
  readonly check: string;
  readonly quantities: Readonly<Record<string, Quantity>>;
  readonly moves: readonly Move[];
  readonly notes: readonly Note[];
}
