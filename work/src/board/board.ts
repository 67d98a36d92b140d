import { CHECKS } from '@isometra/core';
import { machineFamily, type BoardPlate, type RoundHead, type StoredSurface } from '@isometra/contract';
import type { Campaign } from '../ladder/campaign.js';
import { running } from '../ladder/campaign.js';
import { deskOf } from '../scraping/desk.js';
import { handRungsOf, nextByHand, passesOf, type HandRung } from '../ladder/handRungs.js';
import { knownFrom, knownMill, knownTurning } from '../ladder/known.js';
import type { LadderFacts } from '../ladder/overdue.js';
import { nextRung } from '../ladder/nextRung.js';
import { lastWords, methodsApart } from '../ladder/methods.js';
import { rungsOf, type Rung } from '../ladder/rungs.js';
import { wayOfFinding } from '../ladder/ways.js';

/** What is known of a machine whose plate is wanted. */
export interface PlateFacts {
  readonly kind: string;
  /** Heads of all its rounds, oldest first. */
  readonly rounds: readonly RoundHead[];
  readonly surveys: readonly Campaign[];
  /** Now: what is due depends on it; and what its card tells the ladder. */
  readonly facts: LadderFacts;
  /** How its slide leans by its card, degrees, + its rear end the higher; left out where that is not told. */
  readonly slant?: number;
  /** Its faces that are scraped, with what was written down at them. */
  readonly surfaces?: readonly StoredSurface[];
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

/** Rounds with readings that say nothing yet: the last of each check only, since one that was read after it took its place. */
function begunOf(rounds: readonly RoundHead[]): BoardPlate['begun'] {
  const last = new Map(rounds.map((round) => [round.check, round]));
  return [...last.values()]
    .filter(
      ({ last: readings, finding }) => readings > 0 && Object.values(finding?.quantities ?? {}).every(({ verdict }) => verdict === null),
    )
    .map(({ id, check, last: readings }) => ({ check, title: CHECKS.get(check)?.title ?? check, round: id, readings }));
}

/** Faces with passes left, by what their desks say. */
const facesOf = (surfaces: readonly StoredSurface[]): BoardPlate['faces'] =>
  surfaces
    .filter(({ putAway, heldBack }) => !putAway && !heldBack)
    .map(({ entries, ...surface }) => ({
      ...{ id: surface.id, name: surface.name },
      left: deskOf(surface, entries).zones.reduce((sum, { left }) => sum + (left ?? 0), 0),
    }))
    .filter(({ left }) => left > 0);

/**
 * Pairs of ways that do not agree, each named once whatever the number of quantities. Of two that speak of different things, the carriage
 * and the spindle, neither need be wrong: that is told where they stand side by side.
 */
const pairsApart = (rungs: readonly Rung[]): BoardPlate['apart'] => [
  ...new Map(
    methodsApart(lastWords(rungs))
      .filter(({ one, other }) => one.view === other.view)
      .map(({ one, other }) => [`${one.id} ${other.id}`, { one: one.title, other: other.title }]),
  ).values(),
];

/** The plate of a machine on the shop board: its strip, the one next thing, what is due. The same as its ladder says. */
export function plateOf({ kind, rounds, surveys, facts, slant, surfaces = [] }: PlateFacts): Omit<BoardPlate, 'machineId' | 'last'> {
  const survey = running(surveys);
  const current = rounds.filter((round) => round.surveyId === survey?.id);
  const rungs = rungsOf(kind, current, survey, facts);
  const changes = surveys.flatMap(({ planned }) => planned.flatMap(({ doneAt }) => doneAt ?? []));
  const byHand = handRungsOf(kind, current, survey?.byHand ?? [], { passes: passesOf(surfaces), changes });
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
    begun: begunOf(current),
    faces: facesOf(surfaces),
    known: knownOf(kind, rounds, slant),
  };
}
