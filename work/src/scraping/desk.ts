import { CHECKS, SPOT_TARGETS, SQUARE, spotCall } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { contactShiftOf, type ContactShift } from './contact.js';
import { endsEvening, ofKind, reached, taken, takesBites, type Grade, type Known, type Of } from './entries.js';
import { standing } from './faults.js';
import { forecastOf, type Forecast } from './forecast.js';
import { handsOf, learnedPasses, type LearnedPass, type PassDepth } from './hand.js';
import { differingBites, leftOf, turnedOf, type DeskZone, type Left } from './left.js';
import { turnsOtherwise, type Otherwise } from './looks.js';
import { forgottenNotes, printNotes, progressNotes, teeterNotes, trustNotes, turnNotes, type DeskNote, type FlankSince } from './notes.js';
import { eveningsOf, minutesOf } from '../notebook/evenings.js';
import { remindersOf, stepOf, type DeskStep, type HowFar, type Reminder } from './steps.js';

export interface Desk extends HowFar {
  readonly zones: readonly DeskZone[];
  /** What tells how much is left. */
  readonly from: 'plan' | 'print' | 'hinge' | null;
  /** The zone to work now. */
  readonly next: string | null;
  readonly step: DeskStep;
  /** Which blue it is, from the first. */
  readonly cycle: number;
  readonly prints: readonly Of<'print'>[];
  /** Depth of a pass as it was learned, µm; from how many. */
  readonly pass: Readonly<Record<Grade, PassDepth>>;
  readonly forecast: Forecast | null;
  /** What finishing for contact shifted, and where the alignment is to be stopped for it. */
  readonly contact: ContactShift | null;
  /** Evenings that were forecast when the plan was made, and what it took; once nothing is left. */
  readonly hindsight: { readonly expected: number; readonly took: number } | null;
  readonly minutesTonight: number;
  readonly passesTonight: number;
  readonly reminders: readonly Reminder[];
  readonly notes: readonly DeskNote[];
  /** µm of a liner that are left over what it must keep; null without one. */
  readonly linerLeft: number | null;
  /** The pass that can be taken back. */
  readonly last: Of<'pass'> | null;
}

/** Who is at a face, and what was learned of passes on others. */
export interface AtTheFace {
  readonly by?: string;
  readonly elsewhere?: readonly LearnedPass[];
  /** What pins and the other flank tell, where this face is a flank of a dovetail. */
  readonly flank?: FlankSince | null;
}

function linerOf(known: Known): number | null {
  const { liner, zones } = known.surface;
  if (!liner) return null;
  const passes = ofKind(known.entries, 'pass');
  const most = Math.max(...zones.map(({ id }) => taken(passes, id, known)));
  return liner.thickness - liner.keep - most;
}

/**
 * Spots for a square: of a photograph over all that it reached; of a count by eye over the one square that was counted, which is
 * good to its lie alone.
 */
function spotsOf(surface: Surface, print: Of<'print'>['content'] | undefined, target: readonly [number, number]): Desk['spots'] {
  if (!print || print.result.spotsPerSquare === null) return null;
  const { spotsPerSquare, bearingShare, zones } = print.result;
  const told = zones.filter(({ id }) => surface.zones.some((zone) => zone.id === id && zone.use === 'bear' && reached(zone, print)));
  const sum = (of: (zone: (typeof told)[number]) => number) => told.reduce((total, zone) => total + of(zone), 0);
  const reach = sum(({ area }) => area);
  const area = bearingShare === null ? SQUARE : reach || surface.width * surface.height;
  const perSquare = bearingShare !== null && print.bite && reach ? (sum(({ spots }) => spots) * SQUARE) / reach : spotsPerSquare;
  return { ...spotCall(perSquare, area, target), perSquare, target };
}

/** What was last measured of what the face is scraped for, and whether that is enough; null where nothing was. */
function aimOf({ aim }: Surface, measured: Extract<DeskEntry, { readonly kind: 'measure' }> | undefined): Desk['aim'] {
  if (!aim || !measured) return null;
  const { content, at } = measured;
  return { ...content, at, met: Math.abs(content.value - aim.wanted) + content.doubt <= aim.room };
}

/** A zone that bears is reached once a print says what is left on it. */
const isReached = ({ zone, left }: DeskZone): boolean => zone.use !== 'bear' || left !== null;

/** What was written down this evening; nothing once somebody said that it was done. */
function eveningNow(entries: readonly DeskEntry[]): readonly DeskEntry[] {
  const tonight = eveningsOf(entries, endsEvening).at(-1) ?? [];
  return tonight.slice(-1).some(endsEvening) ? [] : tonight;
}

/** Where the work at a face stands: what is left where, what comes now, when it will be done, and what is to be minded. */
export function deskOf(surface: Surface, written: readonly DeskEntry[], { by, elsewhere = [], flank = null }: AtTheFace = {}): Desk {
  const entries = standing(written);
  const { pass, took } = handsOf(surface, entries, elsewhere, by);
  const known: Known = { surface, entries, pass, took };
  const turned = turnedOf(entries);
  const left = leftOf(known, turned);
  const { zones, from } = left;
  const prints = ofKind(entries, 'print');
  const measured = ofKind(entries, 'measure').at(-1);
  const aim = aimOf(surface, measured);
  const state = ofKind(entries, 'state').at(-1)?.content;
  const target = surface.target ? ([surface.target.low, surface.target.high] as const) : SPOT_TARGETS[surface.use];
  const spots = spotsOf(surface, prints.at(-1)?.content, target);
  const told = { state: state?.state ?? 'rough', aim, spots, turned } as const;
  const otherwise = turnsOtherwise(known, left, turned);
  const linerLeft = linerOf(known);
  const notes = notesOf(known, { ...told, linerLeft, left, flank, otherwise });
  const step = stepOf(known, left, told, { otherwise, notes });
  const contact = contactShiftOf(surface, entries);
  const last = ofKind(entries, 'pass').at(-1) ?? null;
  const open = eveningNow(entries);
  return {
    ...{ zones, from, step, prints, pass, contact, last, linerLeft },
    ...told,
    next: step.code === 'pass' ? step.zone : null,
    cycle: ofKind(entries, 'blue').length,
    ...forecastOf(surface, entries, { zones, pass }),
    minutesTonight: minutesOf(open),
    passesTonight: ofKind(open, 'pass').length,
    reminders: remindersOf(entries, step),
    notes: [
      ...notes,
      ...(contact && contact.stopAt !== null && told.state !== 'accept'
        ? [{ code: 'contact-shifts' as const, about: [contact.shift, contact.stopAt] }]
        : []),
    ],
  };
}

interface ToNote extends Pick<Desk, 'state' | 'aim' | 'linerLeft' | 'turned'> {
  readonly left: Left;
  readonly flank: FlankSince | null;
  readonly otherwise: Otherwise | null;
}

/** Everything that is to be minded beside what comes now. */
function notesOf(known: Known, { turned, flank, otherwise, ...told }: ToNote): DeskNote[] {
  return [
    ...progressNotes(known),
    ...(otherwise ? [{ code: 'turns-otherwise' as const, about: [otherwise.centre, ...otherwise.expected] }] : []),
    ...teeterNotes(known),
    ...turnNotes(known, turned, flank),
    ...trustNotes(known, turned),
    ...printNotes(known),
    ...stateNotes(known, told),
    ...forgottenNotes(known),
    ...reachNotes(known.surface, told.left),
  ];
}

const deepestOf = (zones: readonly DeskZone[]): number => Math.max(0, ...zones.map(({ depth }) => depth ?? 0));

/** What stands against going on as before: bites that differ, contact before the aim, a liner that ends, a relief. */
function stateNotes(
  known: Known,
  { state, aim, linerLeft, left }: Pick<Desk, 'state' | 'aim' | 'linerLeft'> & { readonly left: Left },
): DeskNote[] {
  const differing = differingBites(known);
  const deepest = deepestOf(left.zones);
  const last = ofKind(known.entries, 'pass').at(-1);
  return [
    ...(differing.length ? [{ code: 'bites-differ' as const, about: differing }] : []),
    ...(state === 'contact' && aim && !aim.met ? [{ code: 'polished-early' as const, about: [] }] : []),
    ...(linerLeft !== null && deepest > linerLeft ? [{ code: 'liner-ends' as const, about: [linerLeft, deepest] }] : []),
    ...(last?.content.kind === 'relief' ? [{ code: 'relieved' as const, about: [] }] : []),
  ];
}

/** A short reference, until its bites have reached all of the face; and a plan that has come to its fine passes. */
function reachNotes(surface: Surface, { zones, from }: Left): DeskNote[] {
  const covered = !takesBites(surface) || (from === 'print' && zones.every(isReached));
  // Without something that it is scraped true by there is no alignment to stop.
  const fine = !!surface.aim && from === 'plan' && deepestOf(zones) > 0 && zones.every(({ grade, left }) => !left || grade === 'fine');
  return [
    ...(covered ? [] : [{ code: 'reference-short' as const, about: [surface.reference.length] }]),
    ...(fine ? [{ code: 'reserve' as const, about: [surface.passes.keepFine] }] : []),
  ];
}

/** What passes taught on some faces, for the others. */
export const learnedOn = (surfaces: readonly (Surface & { readonly entries: readonly DeskEntry[] })[]): readonly LearnedPass[] =>
  surfaces.flatMap((surface) => learnedPasses(surface, standing(surface.entries)));

/**
 * What metal that came off makes stale, and when it last did: the check that a face is scraped true by; after a relief, which
 * may make a reading worse before it is true, every check that is read on that casting.
 */
export function scrapedOf(
  surfaces: readonly (Surface & { readonly entries: readonly DeskEntry[] })[],
): readonly { readonly check: string; readonly at: string }[] {
  return surfaces.flatMap(({ aim, part, entries }) => {
    const passes = ofKind(standing(entries), 'pass');
    const [last, relief] = [passes.at(-1), passes.filter(({ content }) => content.kind === 'relief').at(-1)];
    const onCasting = relief ? [...CHECKS.values()].filter(({ casting }) => casting !== undefined && casting === part) : [];
    return [
      ...(aim && last ? [{ check: aim.check, at: last.at }] : []),
      ...onCasting.map(({ id }) => ({ check: id, at: relief?.at ?? '' })),
    ];
  });
}
