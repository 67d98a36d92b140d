import { CHECKS, sizesIn, type Fineness, type Finding, type QuantityInfo } from '@isometra/core';
import type { KitItem, Machine, QuantityHead, RoundHead, StoredRound, StoredSurface, StoredSurvey } from '@isometra/contract';
import { shopDate, shopTime } from '../notebook/dates.js';
import { inWords, sizeOf } from '../said/said.js';
import type { ZodType } from 'zod';
import type { Block } from './blocks.js';
import { factsOf } from './factsOf.js';
import { inUnits, type PaperUnits } from './inUnits.js';

/** A round that is told whole, with what it says. */
export interface ToldRound {
  readonly round: StoredRound;
  readonly finding: Finding | null;
}

/** What a report is made from. */
export interface ReportFacts {
  readonly machine: Machine;
  readonly survey: StoredSurvey;
  /** Heads of all rounds of the machine. */
  readonly heads: readonly RoundHead[];
  /** Rounds of the survey that are told whole; empty for one page. */
  readonly rounds: readonly ToldRound[];
  readonly kit: readonly KitItem[];
  /** Faces of the machine, with what was written down at them. */
  readonly surfaces?: readonly StoredSurface[];
  readonly shop: string;
  /** Names by initials. */
  readonly people: ReadonlyMap<string, string>;
  readonly zone: string | null;
  readonly units: PaperUnits;
  readonly fineness: Fineness;
  /** One page for a customer: no moves, no instruments. */
  readonly short?: boolean;
  /** Checks that are told of; all where left out. */
  readonly checks?: readonly string[];
  readonly now: string;
  /** SHA-256 of the data. */
  readonly fingerprint: string;
}

export const heading = (text: string, level: 1 | 2 | 3 = 2): Block => ({ kind: 'heading', level, text });
export const text = (words: string, soft = false): Block => ({ kind: 'text', text: words, soft });
export const title = (check: string): string => CHECKS.get(check)?.title ?? check;

/** Writes of one paper: in its unit, its days, its names. */
export class Pen {
  constructor(private readonly of: ReportFacts) {}

  figure = (write: Parameters<typeof inUnits>[1]): string => inUnits(this.of, write);
  day = (at: string): string => shopDate(at, this.of.zone);
  /** From a day to a day; one day is said once. */
  days = (from: string, to: string): string => [...new Set([this.day(from), this.day(to)])].join(' to ');
  /** A small size, in µm. */
  size = (um: number): string => this.figure((shown) => sizeOf(um, undefined, shown, 1).large);
  /** What was filled in of a form; in both units a length in mm has its inches beside it. */
  facts = (schema: ZodType, value: unknown): readonly (readonly [string, string])[] =>
    factsOf(schema, value, this.of.units === 'mm' ? 'mm' : 'inch');
  /** A length in mm. */
  length = (mm: number): string => this.figure(({ system }) => sizesIn({ system, fineness: 'coarse' })(mm, 'length'));
  time = (at: string): string => shopTime(at, this.of.zone);
  who = (initials: string): string => this.of.people.get(initials) || initials;

  value(quantity: QuantityHead, info: QuantityInfo): string {
    const doubt = quantity.expanded;
    return this.figure((shown) => {
      const own = inWords(quantity, info, shown);
      return doubt === null ? own : `${own} ± ${sizeOf(doubt, info, shown, 1).large}`;
    });
  }
}

/** Whether something of a round was left alone on purpose, and why. */
export type LeftAlone = (check: string, quantity: string) => { readonly why: string; readonly by: string } | undefined;
