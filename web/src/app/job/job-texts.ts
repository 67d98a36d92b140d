import type { MoveWrite } from '@isometra/contract';
import type { Instrument, JobFacts, Move, NeedleTarget, Quantity, QuantityInfo } from '@isometra/core';
import { dialFactor, insideZone } from '@isometra/core';
import * as z from 'zod';
import { callSentence, isZero, sideOf, wayOfMove, type Shown } from '../ui/say';
import { rounded } from './screw-target';

/** How metal or shims are wanted for a correction: all over alike, as a wedge for an angle, or where it stands high for a size. */
export function spreadOf(info: QuantityInfo | undefined): JobFacts['spread'] {
  if (info?.magnitude) return 'high-places';
  return info?.dimension === 'slope' || info?.dimension === 'twist' ? 'wedge' : 'even';
}

interface Pile {
  readonly leaves: readonly number[] | null;
  readonly below?: { readonly leaves: readonly number[]; readonly total: number } | null;
  readonly above?: { readonly leaves: readonly number[]; readonly total: number } | null;
}

const inPlan = z
  .object({
    turns: z.number(),
    angle: z.number(),
    turn: z.number(),
    lift: z.number(),
    reach: z.number(),
    ways: z.number(),
    heightChange: z.number(),
    now: z.number(),
    eighths: z.number(),
    truck: z.string(),
    shim: z.number(),
    stack: z.number(),
    frontLeaves: z.record(z.string(), z.unknown()),
    rearLeaves: z.record(z.string(), z.unknown()),
  })
  .partial();

/** What a plan says, as far as it says it: the words of a job card are made from it. */
export function factsOf(
  plan: Readonly<Record<string, unknown>>,
  amount: number | undefined,
  show: (um: number) => string,
  lands?: (total: number) => boolean,
): Partial<JobFacts> {
  const known = inPlan.safeParse(plan).data ?? {};
  const { lift, heightChange, frontLeaves, rearLeaves, reach, now, turns, angle, turn, eighths } = known;
  const height = heightChange === undefined ? '' : show(heightChange);
  return {
    ...{ turns, angle, turn, eighths, eighthsNow: now, leaves: leavesText(plan, show, lands), faces: facesText(plan, show) },
    centreLift: lift === undefined || lift === amount ? undefined : show(lift),
    truck: known.truck,
    thickness: known.shim === undefined ? undefined : show(known.shim),
    stack: known.stack === undefined ? undefined : show(Math.abs(known.stack)),
    out: Array.isArray(plan['out']) ? (plan['out'] as number[]).map(show).join(' + ') : undefined,
    reach: reach === undefined ? undefined : show(Math.abs(reach)),
    ways: known.ways === undefined ? undefined : show(Math.abs(known.ways)),
    heightChange: height === '' || isZero(height) ? '' : `${height} ${(heightChange ?? 0) > 0 ? 'up' : 'down'}`,
    frontLeaves: frontLeaves && leavesText(frontLeaves, show),
    rearLeaves: rearLeaves && leavesText(rearLeaves, show),
  };
}

/** A move by another amount than the round asks for: its direction and where the needle stops go with it. */
export function movedInstead(move: Move, amount: number, info: QuantityInfo | undefined): Move {
  if (amount === move.amount || move.amount === 0) return move;
  const part = amount / move.amount;
  const { indicator } = move;
  const turned = part < 0 ? wayOfMove(amount, info) : move.direction;
  return {
    ...move,
    amount,
    direction: turned,
    ...(indicator && { indicator: { ...indicator, target: indicator.now + part * (indicator.target - indicator.now) } }),
  };
}

/** The turns of a screw for a part of its move. */
export function scaledScrew(plan: Readonly<Record<string, unknown>>, part: number): Readonly<Record<string, unknown>> {
  if (part === 1) return plan;
  const times = (key: string) => (typeof plan[key] === 'number' ? { [key]: part * plan[key] } : {});
  return { ...plan, ...times('turns'), ...times('degrees') };
}

/** Where something stands once it has been moved so much, by that alone: "Then tailstock is 0.002 mm high: in, by the shims alone." */
export function landingWords(
  quantity: Pick<Quantity, 'value' | 'limit' | 'expanded'>,
  moved: number,
  info: QuantityInfo,
  shown: Shown,
): string {
  const value = quantity.value + moved;
  const inside = insideZone(value, quantity.limit ?? [null, null]);
  const sentence = callSentence({ value, direction: sideOf(value, info), expanded: quantity.expanded }, info, shown).replace(/\.$/, '');
  return `By the shims alone: ${sentence}. That is ${inside ? 'in' : 'out'}; the next round tells.`;
}

/** Leaves in words: "0.100 mm + 0.020 mm"; or the nearest below and above when nothing fits. */
export function leavesText(
  plan: Readonly<Record<string, unknown>>,
  show: (um: number) => string,
  lands?: (total: number) => boolean,
): string | undefined {
  if (!('leaves' in plan)) return undefined;
  const { leaves, below, above } = plan as unknown as Pile;
  const sum = (pile: readonly number[]) => pile.map(show).join(' + ');
  if (leaves) return sum(leaves);
  const inZone = (total: number) => (lands ? (lands(total) ? ': lands in' : ': still out') : '');
  const near = [
    below && `${sum(below.leaves)} (${show(below.total)}, under${inZone(below.total)})`,
    above && `${sum(above.leaves)} (${show(above.total)}, over${inZone(above.total)})`,
  ].filter(Boolean);
  return near.length ? `nothing in the drawer fits; nearest ${near.join(' or ')}` : 'nothing in the drawer fits';
}

/** "from 0 to 10.5 div, counting up": the figure never stands alone with its sign. */
export function needleWords({ now, target }: { now: number; target: number }): string {
  const way = target > now ? 'counting up' : 'counting down';
  return now === 0 ? `${Math.abs(target)} div from zero, ${way}` : `from ${now} to ${target} div, ${way}`;
}

/** The needle's way in divisions of the dial in hand, to what can be read; null for a micrometer. */
export function targetOf(indicator: NeedleTarget, instrument: Instrument | undefined): { now: number; target: number } | null {
  if (!instrument || instrument.kind === 'micrometer') return null;
  const step = instrument.readTo;
  const divisions = (value: number) => (indicator.unit === 'div' ? value : value / (dialFactor(instrument) * instrument.graduation));
  return { now: rounded(divisions(indicator.now), step), target: rounded(divisions(indicator.target), step) };
}

/** Both dials of a way that is pulled over at its two ends, each zeroed there; none for another plan. */
export function targetsOfEnds(
  plan: Readonly<Record<string, unknown>>,
  instrument: Instrument | undefined,
): { readonly where: string; readonly now: number; readonly target: number }[] {
  const ends = [
    { where: 'Dial at the near end', amount: plan['near'] },
    { where: 'Dial at the far end', amount: plan['far'] },
  ];
  return ends.flatMap(({ where, amount }) => {
    const target = typeof amount === 'number' ? targetOf({ now: 0, target: amount, unit: 'um' }, instrument) : null;
    return target ? [{ where, ...target }] : [];
  });
}

/** What is done to each face of a casting, those that are left at the end; nothing for another plan. */
export function facesText(plan: Readonly<Record<string, unknown>>, show: (um: number) => string): string[] | undefined {
  const faces = plan['supports'];
  if (typeof faces !== 'object' || faces === null || Array.isArray(faces)) return undefined;
  const amounts = Object.entries(faces as Record<string, number>);
  // What would be shown as nothing is left as it is: no scraper takes that off.
  const worked = amounts.filter(([, amount]) => !isZero(show(Math.abs(amount))));
  const left = amounts.filter(([, amount]) => isZero(show(Math.abs(amount)))).map(([id]) => id);
  return [
    ...worked.map(([id, amount]) => `${id}: ${amount < 0 ? 'scrape' : 'shim'} ${show(Math.abs(amount))}`),
    ...(left.length ? [`leave ${left.join(', ')} as ${left.length > 1 ? 'they are' : 'it is'}`] : []),
  ];
}

/** A casting has one plan for both planes: what is scraped for the one is what is scraped for the other. */
export const plansAlso = ({ kind, plan }: MoveWrite, quantity: string): boolean =>
  kind === 'supports' && typeof plan['want'] === 'object' && plan['want'] !== null && quantity in plan['want'];

/** Which side of a joint comes up for a move, and which goes down, in the core's words. */
export function raisedFacts(amount: number, info: QuantityInfo | undefined): Pick<JobFacts, 'raise' | 'lower'> {
  const { raised } = info?.words ?? {};
  if (!raised || amount === 0) return {};
  const [up, down] = amount > 0 ? raised : [raised[1], raised[0]];
  return { raise: up, lower: down };
}

const zonesInPlan = z.object({ zones: z.array(z.object({ from: z.number(), to: z.number(), passes: z.number() })) });

/** Strips of a wedge and their passes, the deepest first, from its low end: "at 180 to 260 mm: 7 passes". */
export function stripsText(plan: Readonly<Record<string, unknown>>, length: (mm: number) => string): string[] {
  const { zones = [] } = zonesInPlan.safeParse(plan).data ?? {};
  return [...zones]
    .reverse()
    .map(
      ({ from, to, passes }) =>
        `${length(from)} to ${length(to)}: ${passes === 0 ? 'left alone' : passes === 1 ? 'one pass' : `${passes} passes`}`,
    );
}
