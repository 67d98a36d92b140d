import { machineFamily, type BoardPlate, type RoundHead } from '@isometra/contract';
import type { Campaign } from './campaign.js';
import { running } from './campaign.js';
import { handRungsOf, nextByHand, type HandRung } from './handRungs.js';
import { knownFrom, knownMill, knownTurning } from './known.js';
import type { LadderFacts } from './overdue.js';
import { nextRung } from './nextRung.js';
import { lastWords, methodsApart } from './judging/methods.js';
import { rungsOf, type Rung } from './rungs.js';
import { wayOfFinding } from './ways.js';

/** What is known of a machine whose plate is wanted. */
export interface PlateFacts {
  readonly kind: string;
  /** Heads of all its rounds, oldest first. */
  readonly rounds: readonly RoundHead[];
  readonly surveys: readonly Campaign[];
  /** Now: what is due hangs on it; and what its card tells the ladder. */
  readonly facts: LadderFacts;
  /** How its slide leans by its card, degrees, + its rear end the higher; left out where that is not told. */
  readonly slant?: number;
}

function knownOfLathe(rounds: readonly RoundHead[]): BoardPlate['known'] {
  const { ways, ...facts } = knownFrom(rounds);
  return { facts: { ...facts }, ...(ways && { ways: ways.map(({ name, heights }) => ({ name, heights: [...heights] })) }) };
}

function knownOfTurning(rounds: readonly RoundHead[], slant: number | undefined): BoardPlate['known'] {
  const { pockets, ...facts } = knownTurning(rounds);
  return { facts: { ...facts, ...(slant !== undefined && { slant }) }, ...(pockets && { pockets: [...pockets] }) };
}

const handMark = ({ step, state }: HandRung) => ({ id: step.id, title: step.title, state, way: null });

/** What a machine is drawn from, small. */
function knownOf(kind: string, rounds: readonly RoundHead[], slant: number | undefined): BoardPlate['known'] {
  const family = machineFamily(kind);
  if (family === 'mill') return { facts: { ...knownMill(rounds) } };
  return family === 'turning-centre' ? knownOfTurning(rounds, slant) : knownOfLathe(rounds);
}

/** Pairs of ways that do not agree, each named once whatever the number of quantities. */
const pairsApart = (rungs: readonly Rung[]): BoardPlate['apart'] => [
  ...new Map(
    methodsApart(lastWords(rungs)).map(({ one, other }) => [`${one.id} ${other.id}`, { one: one.title, other: other.title }]),
  ).values(),
];

/** The plate of a machine on the shop board: its strip, the one next thing, what is due. The same as its ladder says. */
export function plateOf({ kind, rounds, surveys, facts, slant }: PlateFacts): Omit<BoardPlate, 'machineId' | 'last'> {
  const survey = running(surveys);
  const current = rounds.filter((round) => round.surveyId === survey?.id);
  const rungs = rungsOf(kind, current, survey, facts);
  const byHand = handRungsOf(kind, current, survey?.byHand ?? []);
  const step = nextByHand(byHand, rungs);
  const rung = step ? undefined : nextRung(rungs);
  const check = rungs.find((entry) => entry.check.id === rung?.checkId)?.check;
  return {
    survey: survey?.title ?? '',
    strip: [
      ...byHand.filter((entry) => entry.step.place === 'first').map(handMark),
      ...rungs.map((entry) => ({
        id: entry.check.id,
        title: entry.check.title,
        state: entry.state,
        way: wayOfFinding({ quantities: entry.found }, entry.check),
      })),
      ...byHand.filter((entry) => entry.step.place === 'last').map(handMark),
    ],
    next: step
      ? { at: 'by-hand', id: step.id, title: step.title, why: step.why, round: null }
      : check && rung
        ? { at: 'bench', id: check.id, title: check.title, why: rung.why, round: rung.roundId }
        : null,
    due: rungs.flatMap((entry) => (entry.overdue === undefined ? [] : [{ title: entry.check.title, days: entry.overdue }])),
    apart: pairsApart(rungs),
    known: knownOf(kind, rounds, slant),
  };
}
