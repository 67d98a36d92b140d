import type { PlanItem } from '@isometra/contract';

/** One thing for tonight, and how much of it. */
export interface ForTonight {
  readonly item: PlanItem;
  /** Likely minutes of it tonight. */
  readonly minutes: number;
  /** It will not be finished tonight. */
  readonly carriedOn: boolean;
}

/** An evening as it fits. */
export interface Tonight {
  readonly items: readonly ForTonight[];
  /** Instruments and other kit to lay out. */
  readonly layOut: readonly string[];
  /** How many people are needed at most. */
  readonly people: number;
  /** Those who are named for something of it. */
  readonly who: readonly string[];
  readonly cautions: readonly string[];
  /** Minutes that are left over. */
  readonly over: number;
}

/** What an evening is planned with. */
export interface Evening {
  readonly minutes: number;
  /** How many hands there are. */
  readonly people: number;
  /** As 2026-11-29. */
  readonly today: string;
}

/** What may never be needed is not laid out for tonight, and a wait is nothing to do. */
const isWork = ({ kind, wait }: PlanItem): boolean => kind !== 'perhaps' && wait === null;

/** An evening is not begun for less than so much of a long piece of work. */
const WORTH_BEGINNING = 20;

/**
 * What fits into an evening: in the order of the plan, whatever everything before it is done or stands before it tonight, for as many hands
 * as there are. A piece of work that is longer than what is left is begun only where it can be worked on for a while, and then it is the
 * last.
 *
 * @param items in the order of the plan.
 */
export function tonight(items: readonly PlanItem[], { minutes, people, today }: Evening): Tonight {
  const open = new Set(items.map(({ key }) => key));
  const chosen: ForTonight[] = [];
  let left = minutes;
  for (const item of items) {
    const likely = item.minutes?.[1] ?? 0;
    const ready = item.after.every((key) => !open.has(key)) && (item.notBefore === null || item.notBefore <= today);
    if (!isWork(item) || !ready || item.people > people) continue;
    if (likely <= left) {
      chosen.push({ item, minutes: likely, carriedOn: false });
      open.delete(item.key);
      left -= likely;
      continue;
    }
    if (left < WORTH_BEGINNING || chosen.some(({ carriedOn }) => carriedOn)) continue;
    chosen.push({ item, minutes: left, carriedOn: true });
    left = 0;
  }
  const all = chosen.map(({ item }) => item);
  return {
    items: chosen,
    layOut: [...new Set(all.flatMap(({ things }) => things))],
    people: Math.max(0, ...all.map((item) => Math.max(item.people, item.who.length))),
    who: [...new Set(all.flatMap(({ who }) => who))],
    cautions: [...new Set(all.flatMap(({ cautions }) => cautions))],
    over: left,
  };
}
