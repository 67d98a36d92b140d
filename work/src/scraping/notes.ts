import { pivotsOf, printAgrees, TOO_MUCH_BLUE } from '@isometra/core';
import type { DeskEntry } from '@isometra/contract';
import { ofKind, onlyOneBears, placeIn, printsOfBlue, reached, since, type Known, type Of } from './entries.js';

export type DeskCode =
  | 'stalled'
  | 'grew'
  | 'teeters'
  | 'film-differs'
  | 'too-much-blue'
  | 'print-not-trusted'
  | 'polished-early'
  | 'liner-ends'
  | 'forgotten'
  | 'relieved'
  | 'reference-short'
  | 'reserve'
  | 'rocks'
  | 'clamped-differs'
  | 'contact-shifts'
  | 'wrong-flank'
  | 'overshot'
  | 'turns-otherwise'
  | 'worse-by-relief'
  | 'bites-differ'
  | 'trend';

/** Something that is said because it matters now; zones or figures that it is about. */
export interface DeskNote {
  readonly code: DeskCode;
  readonly about: readonly (string | number)[];
}

export interface Turned {
  readonly a: number;
  readonly b: number;
  readonly length: number;
  /** Where its own end A lay, mm from end A of the face. */
  readonly from: number;
  readonly grip: number;
  readonly code: string;
  /** Where it bears, mm from end A of the face; and how far that is from last time. */
  readonly centre: number;
  readonly moved: number | null;
}

/** What pins and the other flank tell of a dovetail as it is now: when the pins were read, and that they are still wide where the other flank is high. */
export interface FlankSince {
  readonly readAt: string;
  readonly otherIsHigh: boolean;
}

const FORGOTTEN_AFTER = 10;

/** Which halves of a bearing were clamped when a print was blued. */
const clampedAt = (entries: readonly DeskEntry[], print: DeskEntry | undefined): string | undefined =>
  ofKind(entries, 'blue').findLast((blue) => placeIn(entries, blue) < placeIn(entries, print))?.content.clamped;

/** Prints that were not made with the same film cannot be compared; a count that falls while the share rises is too much blue. */
export function printNotes({ entries }: Known): DeskNote[] {
  const last = ofKind(entries, 'print').slice(-2);
  const [before, now] = [undefined, ...last].slice(-2).map((print) => print?.content);
  if (!now) return [];
  const [one, other] = last.map((print) => clampedAt(entries, print));
  if (last.length === 2 && one !== other) return [{ code: 'clamped-differs', about: [one ?? 'neither', other ?? 'neither'] }];
  // Two bites of one face are not one after the other.
  if (before && before.bite?.from !== now.bite?.from) return [];
  const films = before && filmsApart(before, now);
  if (films) return [{ code: 'film-differs', about: films }, ...tooMuchBlue(now)];
  return before && bluerWithFewerSpots(before, now) ? [TOO_BLUE] : tooMuchBlue(now);
}

const TOO_BLUE: DeskNote = { code: 'too-much-blue', about: [] };

const tooMuchBlue = ({ result }: Of<'print'>['content']): DeskNote[] => ((result.bearingShare ?? 0) > TOO_MUCH_BLUE ? [TOO_BLUE] : []);

type PrintRead = Extract<DeskEntry, { readonly kind: 'print' }>['content'];

/** The two films, µm, where they differ by more than a quarter. */
const filmsApart = ({ film: one }: PrintRead, { film: other }: PrintRead): [number, number] | undefined =>
  one !== null && other !== null && Math.abs(other - one) > 0.25 * one ? [one, other] : undefined;

const bluerWithFewerSpots = ({ result: before }: PrintRead, { result: now }: PrintRead): boolean =>
  before.bearingShare !== null && now.bearingShare !== null && now.bearingShare > before.bearingShare && now.spots < before.spots;

/** A straightedge that blues one end when that end is pressed rocks over a hump: what is blue in one print only is not high. */
export function teeterNotes({ surface, entries }: Known): DeskNote[] {
  const prints = printsOfBlue(entries);
  const both = surface.zones.filter((zone) => [prints.a, prints.b].every((print) => print && reached(zone, print.content)));
  const [a, b] = [prints.a, prints.b].map((print) => print?.content.result.zones.filter(({ id }) => both.some((zone) => zone.id === id)));
  if (!a || !b) return [];
  const only = a.filter(({ id, bearingShare }) => onlyOneBears(bearingShare, b.find((zone) => zone.id === id)?.bearingShare ?? 0));
  return only.length ? [{ code: 'teeters', about: only.map(({ id }) => id) }] : [];
}

/** The turn of a straightedge against the last print of the same face: they must tell the same. */
export function trustNotes({ surface, entries }: Known, turned: Turned | null): DeskNote[] {
  const print = ofKind(entries, 'print').at(-1);
  const hinge = ofKind(entries, 'hinge').at(-1);
  if (!turned || turned.code === 'hinge-rocks' || !print || !hinge) return [];
  const between = entries.slice(
    Math.min(placeIn(entries, print), placeIn(entries, hinge)),
    Math.max(placeIn(entries, print), placeIn(entries, hinge)),
  );
  // Metal taken off in between: they speak of different faces.
  if (between.some(({ kind }) => kind === 'pass')) return [];
  const { from, length } = hinge.content;
  const bands = print.content.result.zones.flatMap(({ id, bearingShare }) => {
    const zone = surface.zones.find((entry) => entry.id === id);
    if (!zone || !reached(zone, print.content)) return [];
    const places = zone.outline.map(({ x }) => Math.min(length, Math.max(0, x - from)));
    return [{ from: Math.min(...places), to: Math.max(...places), pressure: bearingShare }];
  });
  const predicted = pivotsOf(bands, length);
  return predicted && !printAgrees(turned, predicted, length)
    ? [{ code: 'print-not-trusted', about: [Math.round(predicted.a), Math.round(predicted.b)] }]
    : [];
}

/** Two tries at one end that do not turn at one place; and a flank that pins had scraped, which is hollow there now. */
export function turnNotes({ entries }: Known, turned: Turned | null, flank: FlankSince | null): DeskNote[] {
  if (!turned) return [];
  if (turned.code === 'hinge-rocks') return [{ code: 'rocks', about: [] }];
  const plan = ofKind(entries, 'plan').at(-1);
  const hinge = ofKind(entries, 'hinge').at(-1);
  const hollow = turned.code === 'hinge-hollow' || turned.code === 'hinge-light-middle';
  if (plan?.content.from !== 'pins' || !hollow) return [];
  const between = entries.slice(placeIn(entries, plan) + 1, Math.max(0, placeIn(entries, hinge)));
  const last = ofKind(between, 'pass').at(-1);
  if (!last) return [];
  // One flank that is hollow says no more than that too much came off: the other one and new pins say which of them was straight.
  const other = flank !== null && flank.otherIsHigh && flank.readAt > last.at;
  return [{ code: other ? 'wrong-flank' : 'overshot', about: [] }];
}

/** Whether the aim still comes nearer: three measurements that differ by less than their doubt, or one that went the wrong way. */
export function progressNotes({ surface: { aim }, entries }: Known): DeskNote[] {
  const rows = ofKind(entries, 'measure');
  const measures = rows.map(({ content }) => content);
  const [before, now] = measures.slice(-2);
  if (!aim || measures.length < 2) return [];
  const off = ({ value }: { readonly value: number }) => Math.abs(value - aim.wanted);
  const doubt = Math.hypot(before.doubt, now.doubt);
  const since = entries.slice(placeIn(entries, rows.at(-2)), placeIn(entries, rows.at(-1)));
  // Relieved in between, it may read worse before it is true: that is no wrong way.
  const relieved = since.some((entry) => entry.kind === 'pass' && entry.content.kind === 'relief');
  if (off(now) - off(before) > doubt && relieved) return [{ code: 'worse-by-relief', about: [off(now) - off(before)] }];
  if (off(now) - off(before) > doubt) return [{ code: 'grew', about: [off(now) - off(before)] }];
  const last = measures.slice(-3);
  const still =
    last.length === 3 && Math.max(...last.map(off)) - Math.min(...last.map(off)) < Math.max(...last.map(({ doubt: own }) => own));
  if (still && off(now) > aim.room) return [{ code: 'stalled', about: [] }];
  return relieved
    ? []
    : trendNote(
        measures.map((told) => ({ off: off(told), doubt: told.doubt })),
        aim.room,
      );
}

/** Measurements that a trend wants: one time is none, and two may be chance. */
const TREND = 4;
/** By how much its ratios may differ, and be called one. */
const ALIKE = 0.25;

/** Where each time the same part of what was left has gone: which part, and how many times more until it is in its room. */
function trendNote(measures: readonly { readonly off: number; readonly doubt: number }[], room: number): DeskNote[] {
  const last = measures.slice(-TREND);
  const now = last.at(-1)?.off ?? 0;
  if (last.length < TREND || now <= room || room <= 0) return [];
  const pairs = last.slice(1).map((after, i) => ({ before: last[i], after }));
  const ratios = pairs.map(({ before, after }) => after.off / before.off);
  const seen = pairs.every(({ before, after }) => before.off - after.off > Math.hypot(before.doubt, after.doubt));
  if (!seen || Math.max(...ratios) - Math.min(...ratios) > ALIKE) return [];
  const each = (now / last[0].off) ** (1 / ratios.length);
  const more = Math.ceil(Math.log(room / now) / Math.log(each) - 1e-9);
  return [{ code: 'trend', about: [Math.round(100 * (1 - each)), more] }];
}

/** Zones that have had no pass for ten blues, while others had. */
export function forgottenNotes({ surface, entries }: Known): DeskNote[] {
  const blues = ofKind(entries, 'blue').slice(-FORGOTTEN_AFTER);
  if (blues.length < FORGOTTEN_AFTER) return [];
  const recent = since(ofKind(entries, 'pass'), blues[0], entries);
  const idle = surface.zones
    .filter(({ id, use }) => use === 'bear' && !recent.some(({ content }) => content.zone === id))
    .map(({ id }) => id);
  return recent.length && idle.length ? [{ code: 'forgotten', about: idle }] : [];
}
