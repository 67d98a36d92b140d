import type { SpotCall } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';
import { ofKind, since, type Grade, type Known, type Of } from './entries.js';
import { nextOf, type DeskZone, type Left } from './left.js';
import { dueForLook, type Otherwise } from './looks.js';
import type { DeskNote, Turned } from './notes.js';

/** How far a face is: its state, its aim as it was measured last, its spots, and how the straightedge turned. */
export interface HowFar {
  readonly state: Of<'state'>['content']['state'];
  /** The aim as it was measured last; whether it is within its room. */
  readonly aim: { readonly value: number; readonly doubt: number; readonly met: boolean; readonly at: string } | null;
  readonly spots: (SpotCall & { readonly perSquare: number; readonly target: readonly [number, number] }) | null;
  readonly turned: Turned | null;
}

/** What is said besides: it may ask for something else than the next pass, and then that is what comes now. */
export interface Said {
  readonly otherwise: Otherwise | null;
  readonly notes: readonly DeskNote[];
}

export type DeskStep =
  | {
      readonly code:
        | 'begin'
        | 'measure'
        | 'blue'
        | 'read-print'
        | 'plan'
        | 'accepted'
        | 'accept'
        | 'turn-or-blue'
        | 'turn-again'
        | 'next-bite'
        | 'held-back'
        | 'put-away'
        | 'lock-test'
        | 'joint-faces'
        | 'which-holds'
        | 'which-end'
        | 'not-the-metal'
        | 'other-flank';
    }
  /** Look again before more comes off: after so many passes over a zone. */
  | { readonly code: 'look'; readonly passes: number }
  | { readonly code: 'pass'; readonly zone: string; readonly grade: Grade; readonly angle: number };

export type Reminder = 'lock-test' | 'burrs' | 'wipe' | 'glare' | 'chips' | 'blade';

const BLADE_AFTER = 40;
/** What says nothing of the face itself. */
const ASIDE: ReadonlySet<DeskEntry['kind']> = new Set(['blade', 'done', 'state', 'lock', 'believed']);

/** A bearing must lock without shim before it is scraped, and again before its clearance is measured. */
function lockStep({ shell }: Surface, entries: readonly DeskEntry[], step: DeskStep): DeskStep {
  if (!shell) return step;
  const tried = ofKind(entries, 'lock').at(-1);
  if (tried && !tried.content.locks) return { code: 'joint-faces' };
  const passes = since(ofKind(entries, 'pass'), tried, entries);
  if (!tried && step.code === 'begin') return { code: 'lock-test' };
  return step.code === 'measure' && (!tried || passes.length > 0) ? { code: 'lock-test' } : step;
}

/** What a note asks for instead of a pass: two instructions that contradict one another are none. */
function insteadOfPass(last: DeskEntry | undefined, { otherwise, notes }: Said): DeskStep | null {
  const has = (code: DeskNote['code']): boolean => notes.some((note) => note.code === code);
  if (otherwise) return { code: 'which-holds' };
  if (last?.kind === 'hinge' && has('wrong-flank')) return { code: 'other-flank' };
  if (last?.kind === 'print' && has('too-much-blue')) return { code: 'blue' };
  // What a measurement says is asked once: whoever has looked since, or planned anew, has answered it.
  if (last?.kind !== 'measure') return null;
  if (has('grew')) return { code: 'which-end' };
  return has('stalled') ? { code: 'not-the-metal' } : null;
}

/** The next pass; with a plan a look, where so many passes have been made that one is due. */
function passOrLook(entries: readonly DeskEntry[], { zone, grade, angle }: DeskZone, from: Left['from']): DeskStep {
  const due = from === 'plan' ? dueForLook(entries, zone.id) : null;
  return due === null ? { code: 'pass', zone: zone.id, grade, angle } : { code: 'look', passes: due };
}

function workStep({ surface, entries }: Known, { zones, from }: Left, { aim, spots, turned }: HowFar, said: Said): DeskStep {
  const next = nextOf(zones);
  const last = entries.filter(({ kind }) => !ASIDE.has(kind)).at(-1);
  // With a plan the pass is next, whether its print was read or not; without one the print tells where.
  if (last?.kind === 'blue' && from !== 'plan') return { code: 'read-print' };
  const unknown = last?.kind === 'print' && zones.some(({ zone, left }) => zone.use === 'bear' && left === null);
  if (from === 'print' && unknown) return { code: 'next-bite' };
  if (next) return insteadOfPass(last, said) ?? passOrLook(entries, next, from);
  if (!last) return { code: 'begin' };
  switch (last.kind) {
    case 'blue':
      return { code: 'read-print' };
    case 'pass':
      return { code: stillToAim(surface, entries, aim) ? 'measure' : 'blue' };
    case 'hinge':
      return { code: turned?.code === 'hinge-rocks' ? 'turn-again' : 'turn-or-blue' };
  }
  return afterLooking(surface, { aim, spots });
}

/** Whether a planned face is still to be measured into its room. */
const stillToAim = (surface: Surface, entries: readonly DeskEntry[], aim: HowFar['aim']): boolean =>
  !!surface.aim && entries.some(({ kind }) => kind === 'plan') && !aim?.met;

/** What comes after a look or a measurement, with nothing left to take off. */
function afterLooking(surface: Surface, { aim, spots }: Pick<HowFar, 'aim' | 'spots'>): DeskStep {
  if (aim?.met && spots?.verdict === 'in') return { code: 'accept' };
  if (surface.aim && !aim) return { code: 'measure' };
  if (aim && !aim.met) return { code: 'plan' };
  return { code: 'blue' };
}

/** What comes now. */
export function stepOf(known: Known, left: Left, desk: HowFar, said: Said): DeskStep {
  if (known.surface.putAway) return { code: 'put-away' };
  if (known.surface.heldBack) return { code: 'held-back' };
  if (desk.state === 'accept') return { code: 'accepted' };
  return lockStep(known.surface, known.entries, workStep(known, left, desk, said));
}

const LAYS_ON = ['burrs', 'wipe'] as const;
/** What is minded before a step, whatever was done last. */
const BEFORE: Partial<Record<DeskStep['code'], readonly Reminder[]>> = {
  'lock-test': ['lock-test', 'burrs'],
  'joint-faces': ['lock-test'],
  measure: ['burrs'],
  begin: LAYS_ON,
  blue: LAYS_ON,
  'turn-or-blue': LAYS_ON,
  'turn-again': LAYS_ON,
  'next-bite': LAYS_ON,
  look: LAYS_ON,
};

/** What is to be minded at this moment, and only now. */
export function remindersOf(entries: readonly DeskEntry[], { code }: DeskStep): Reminder[] {
  const passes = ofKind(entries, 'pass');
  const sinceBlade = since(passes, ofKind(entries, 'blade').at(-1), entries).length;
  const before = entries.at(-1);
  return [
    ...(BEFORE[code] ?? []),
    ...(code === 'read-print' && before?.kind === 'blue' && !before.content.dye ? (['glare'] as const) : []),
    ...(before?.kind === 'done' && passes.length > 0 ? (['chips'] as const) : []),
    ...(code === 'pass' && sinceBlade >= BLADE_AFTER ? (['blade'] as const) : []),
  ];
}
