import type { MoveWrite } from '@isometra/contract';
import { MOVES, type Move } from '@isometra/core';

/** µm or µm/m, and its part: a card that is no more off than this was begun by what its round says now. */
const ROOM = 0.5;
const PART = 0.02;

const near = (one: number, other: number, room = ROOM): boolean => Math.abs(one - other) <= Math.max(room, PART * Math.abs(other));

/**
 * Whether two plans tell the hand the same, beside leaves: those stay as the drawers had them when the card was begun. Turns may
 * allow for what was learned of the screw, or not.
 */
function samePlan(kept: Begun['kept'], now: Readonly<Record<string, unknown>>, gain: number | null): boolean {
  return (MOVES.get(kept.kind)?.handFigures ?? []).every((key) => {
    const [old, fresh] = [kept.plan[key], now[key]];
    if (typeof old === 'number' && typeof fresh === 'number')
      return [1, ...(gain ? [gain, 1 / gain] : [])].some((times) => near(old, times * fresh, 1e-6));
    return typeof old === 'string' && typeof fresh === 'string' ? old === fresh : true;
  });
}

/** What a card that was begun is held against. */
export interface Begun {
  readonly kept: Pick<MoveWrite, 'kind' | 'amount' | 'plan'>;
  /** What the round may ask for as it stands now: for its own place, and for all places along the bed. */
  readonly asked: readonly Move[];
  readonly plan: (move: Move) => Readonly<Record<string, unknown>> | undefined;
  /** What was learned of the screw. */
  readonly gain: number | null;
}

/**
 * The move that a begun card is planned anew to, because its round or the machine card was put right since; undefined where it
 * still is what the round asks for.
 */
export function replanned({ kept, asked, plan, gain }: Begun): Move | undefined {
  const same = asked.find(({ amount }) => near(kept.amount, amount) && Math.sign(kept.amount) === Math.sign(amount));
  if (!same) return asked.at(-1);
  const now = plan(same);
  return now && !samePlan(kept, now, gain) ? same : undefined;
}

/** How a move reads: its size, which way, and whether it takes metal or leaves. */
export interface OldWords {
  /** "0.012 mm away from you". */
  readonly old: string;
  /** What the plan is now; '' where nothing is to be moved any more. */
  readonly now: string;
  /** Whether the part has been moved, leaves laid in or metal taken by the old plan; and which way that was by the new one. */
  readonly moved: boolean;
  readonly wrongWay: boolean;
  readonly kind: 'screw' | 'leaves' | 'metal' | 'other';
}

const UNDO: Readonly<Record<OldWords['kind'], string>> = {
  screw: 'Leave the zero of the dial: drive the needle to its new target.',
  leaves: 'What went in comes out again, before anything else goes in.',
  metal: 'Metal that is off cannot be put back: take nothing more off before a new round has been read.',
  other: 'Bring it back, before anything else is done.',
};
const BACK: Readonly<Record<OldWords['kind'], string>> = {
  ...UNDO,
  screw: 'Drive the needle back to where it was zeroed, and read a new round.',
  other: 'Bring it back, and read a new round.',
  leaves: 'Take out what went in, and read a new round.',
};

/** What a card says that was begun before its round or the machine card was put right. */
export function replanWords({ old, now, moved, wrongWay, kind }: OldWords): string {
  if (old === now)
    return 'The machine card has been corrected since this card was started, and the steps below use it as it is now. Check what was ticked again.';
  const begun = `This card was started for ${old}. The round or the machine card has been corrected since: `;
  const plan = now ? `it is ${now} now.` : 'there is nothing left to move.';
  if (!moved) return begun + plan;
  return `${begun}${plan} You moved it ${old} by the old reading${wrongWay ? ': that was the wrong way' : ''}. ${(now ? UNDO : BACK)[kind]}`;
}
