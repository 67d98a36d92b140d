import { CHECKS, CHANGE_KINDS, MOVES, type CheckDefinition } from '@isometra/core';
import type { KitItem, PlanItem, PlanKind, RoughLook, RoundHead, Span, StoredStripDown } from '@isometra/contract';
import type { Planned } from '../ladder/campaign.js';
import type { HandRung } from '../ladder/handRungs.js';
import type { Rung } from '../ladder/rungs.js';
import { turnsScrew } from '../judging/moves.js';
import type { Forecast } from '../scraping/forecast.js';
import { inARow, wholeMinutes, type Duration, type TimeAsked } from './durations.js';

/** A face that is being scraped, as far as its work is planned. */
export interface FaceToDo {
  readonly id: string;
  readonly name: string;
  /** The check that it is scraped true by. */
  readonly check: string | null;
  readonly forecast: Forecast | null;
  /** Minutes of one cycle, and of laying out for an evening, as its card tells them. */
  readonly cycle: number;
  readonly setUp: number;
}

/** A line of a note that is still to be done. */
export interface NoteToDo {
  readonly id: string;
  readonly line: number;
  readonly text: string;
  /** Address of the screen that it was written on. */
  readonly path: string;
}

/** What is known of a machine and left to do on it. */
export interface KnownToDo {
  readonly machineId: string;
  readonly kind: string;
  /** As 2026-11-29. */
  readonly today: string;
  /** The running survey's; empty where none runs. */
  readonly rungs: readonly Rung[];
  readonly byHand: readonly HandRung[];
  /** After a move every check is read again. */
  readonly fromTheTop: boolean;
  /** Rounds of the survey, oldest first. */
  readonly rounds: readonly RoundHead[];
  readonly faces: readonly FaceToDo[];
  readonly planned: readonly Planned[];
  readonly stripDowns: readonly StoredStripDown[];
  readonly notes: readonly NoteToDo[];
  /** Instruments and artefacts whose certificate has run out. */
  readonly due: readonly Pick<KitItem, 'id' | 'name' | 'care'>[];
  /** What a kind of work takes in this shop. */
  readonly takes: (asked: TimeAsked) => Duration;
  /** Share of moves that needed a second one. */
  readonly second: number;
  /** Share of machines of this kind on which a check was out when it was first read. */
  readonly outShare: (check: string) => number;
  /** What rough looks said of what is not measured yet. */
  readonly looks: readonly RoughLook[];
}

/** Minutes of work that nobody times, as starting values. */
const UNTIMED: Readonly<Record<'byHand' | 'clean' | 'mend' | 'make' | 'change' | 'toDo', Span>> = {
  byHand: [15, 30, 60],
  clean: [10, 30, 60],
  mend: [40, 120, 300],
  make: [90, 240, 600],
  change: [120, 240, 480],
  toDo: [10, 30, 60],
};
export const untimed = (what: keyof typeof UNTIMED): Pick<PlanItem, 'minutes' | 'from' | 'timings'> => ({
  minutes: [...UNTIMED[what]],
  from: 'starting',
  timings: 0,
});

/** An item with what most of them have. Its key is its kind and what it is about, where it has none of its own. */
export function item(kind: PlanKind, about: string, part: Pick<PlanItem, 'title' | 'why'> & Partial<Omit<PlanItem, 'kind'>>): PlanItem {
  return {
    key: `${kind} ${about}`,
    kind,
    ...{ minutes: null, wait: null, people: 1, who: [], things: [], after: [], notBefore: null },
    ...{ from: 'starting', timings: 0, cautions: [], path: null, told: null },
    ...part,
  };
}

/** The minutes of several learned pieces of work in a row. */
export function learned(durations: readonly Duration[]): Pick<PlanItem, 'minutes' | 'from' | 'timings'> {
  const timings = Math.min(...durations.map((one) => one.timings));
  return {
    minutes: wholeMinutes(inARow(durations.map(({ minutes }) => minutes))),
    from: durations.some((one) => one.timings > 0) ? 'learned' : 'starting',
    timings: timings > 0 ? timings : Math.max(...durations.map((one) => one.timings)),
  };
}

/** What reading a check takes: setting it up and reading it. */
export const readingTakes = ({ kind, takes }: KnownToDo, check: string): readonly Duration[] => [
  takes({ work: 'setUp', detail: check, machineKind: kind }),
  takes({ work: 'round', detail: check, machineKind: kind }),
];

/** What a move takes: a screw is quick, anything else is opened, fitted and closed. */
export const moveTakes = ({ kind, takes }: KnownToDo, move: string): Duration =>
  takes({ work: turnsScrew(move) ? 'screw' : 'shim', detail: move, machineKind: kind });

export const titleOf = (check: string): string => CHECKS.get(check)?.title ?? check;
export const moveTitle = (move: string): string => MOVES.get(move)?.title ?? move;
export const changeTitle = ({ change }: Planned): string => CHANGE_KINDS.find(({ id }) => id === change.kind)?.title ?? change.kind;
export const quantityLabel = (check: CheckDefinition, quantity: string): string => check.quantities[quantity]?.label ?? quantity;
