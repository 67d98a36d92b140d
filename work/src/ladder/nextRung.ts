import type { Rung, RungState } from './rungs.js';

/** Why a rung is the next one. */
export type NextCode =
  'moved' | 'wrong-way' | 'nothing-moved' | 'out' | 'unsure' | 'waits' | 'first' | 'upset' | 'second-place' | 'overdue' | 'open';

export const NEXT_WORDS: Readonly<Record<NextCode, string>> = {
  moved: 'It was moved: read it again.',
  'wrong-way': 'The last move went the wrong way: its card says what to try first.',
  'nothing-moved': 'The last move moved nothing: look for a lock or slack, then do it again.',
  out: 'It is out: do the move.',
  unsure: 'Too close to call: read finer.',
  waits: 'Correct this first: later checks depend on it.',
  first: 'Nothing has been measured yet. An error here affects every later check.',
  upset: 'A move has upset it.',
  'second-place': 'In, at one place along the bed. Check a second: wear changes the result.',
  overdue: 'It was read some time ago, and settles: read it again.',
  open: 'Not measured yet, and later checks depend on it.',
};

export interface NextRung {
  readonly checkId: string;
  readonly code: NextCode;
  readonly why: string;
  /** The round whose move is to be done; null where it is to be read. */
  readonly roundId: string | null;
}

/** Whether a move is known for something of a rung that is out: a spindle that runs out has none. */
function hasMove({ check, found }: Rung): boolean {
  return Object.entries(found).some(([name, { verdict, aim, value }]) => {
    if (verdict !== 'out') return false;
    const correction = check.corrections[name];
    // The parts of a size have the moves of the whole.
    if (!correction) return check.partOf !== undefined;
    return ((aim ?? 0) > value ? correction.plus : correction.minus).length > 0;
  });
}

/** What is out is put right from the round that said so; where no move is known it is read again. */
function outOf(rung: Rung): Pick<NextRung, 'why' | 'roundId'> & { readonly code?: NextCode } {
  if (!hasMove(rung)) return { why: NO_MOVE, roundId: null };
  const code = rung.moveTold;
  return { why: NEXT_WORDS[code ?? 'out'], roundId: rung.said?.id ?? null, ...(code && { code }) };
}

const NO_MOVE = 'It is out, and no move of a screw or a shim cures it: read it once more, then look for the cause.';

/** The one rung to do next, and why. Undefined when nothing is asked for. */
export function nextRung(rungs: readonly Rung[]): NextRung | undefined {
  const told = (rung: Rung | undefined, code: NextCode): NextRung | undefined =>
    rung && { checkId: rung.check.id, code, ...(code === 'out' ? outOf(rung) : { why: NEXT_WORDS[code], roundId: null }) };
  const state = (wanted: RungState) => rungs.find((rung) => rung.state === wanted);
  const waited = rungs.find((rung) => rungs.some((other) => other.waits.some(({ check }) => check === rung.check.id)));
  return (
    told(
      rungs.find(({ stale }) => stale?.code === 'moved' || stale?.code === 'during-move'),
      'moved',
    ) ??
    told(waited, 'waits') ??
    told(state('out'), 'out') ??
    told(
      rungs.find((rung) => rung.state === 'unsure' && rung.waits.length === 0),
      'unsure',
    ) ??
    (rungs.every((rung) => rung.state === 'none') ? told(state('none'), 'first') : undefined) ??
    told(state('stale'), 'upset') ??
    told(
      rungs.find((rung) => rung.overdue !== undefined),
      'overdue',
    ) ??
    told(
      rungs.find((rung) => rung.state === 'in' && rung.places.length === 1),
      'second-place',
    ) ??
    told(state('none'), 'open')
  );
}
