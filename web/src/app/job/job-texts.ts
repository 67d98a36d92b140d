import type { MoveWrite } from '@isometra/contract';
import { type Instrument, type JobFacts, type NeedleTarget, type Quantity, type QuantityInfo, spotOf } from '@isometra/core';
import { dialFactor, insideZone, MOVES } from '@isometra/core';
import { callClause, sideOf, type Shown } from '../ui/say';
import { rounded } from './screw-target';

/** How metal or shims are wanted for a correction: all over alike, as a wedge for an angle, or where it stands high for a size. */
export function spreadOf(info: QuantityInfo | undefined): JobFacts['spread'] {
  if (info?.magnitude) return 'high-places';
  return info?.dimension === 'slope' || info?.dimension === 'twist' ? 'wedge' : 'even';
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
  const sentence = callClause({ value, direction: sideOf(value, info), expanded: quantity.expanded }, info, shown);
  return `By the shims alone: ${sentence}. That is ${inside ? 'in' : 'out'}; the next round tells.`;
}

/** Where the needle is watched, as the card says it; '' where no dial sees it. @param where as a finding has it. */
export function spotWords(where: string | undefined): string {
  if (where === undefined) return '';
  const { place, zeroed } = spotOf(where);
  return zeroed ? `${place}, zeroed` : place;
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

/** What each dial must do where several are watched at once; none for another kind of move. */
export function targetsOfDials(
  kind: string,
  plan: Readonly<Record<string, unknown>>,
  instrument: Instrument | undefined,
): { readonly where: string; readonly now: number; readonly target: number }[] {
  return (MOVES.get(kind)?.dials?.(plan) ?? []).flatMap(({ where, amount }) => {
    const target = targetOf({ now: 0, target: amount, unit: 'um' }, instrument);
    return target ? [{ where, ...target }] : [];
  });
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
