import { dequal } from 'dequal';
import { CHECKS, DOUBTS, fixed, type Finding, type QuantityInfo } from '@isometra/core';
import type { RoundHead } from '@isometra/contract';
import { callSentence, sizeOf, zoneInWords } from '../said/said.js';
import type { Block } from './blocks.js';
import { glyphOf, verdictWords, type GlyphOf } from './glyphOf.js';
import { methodBlock, NumberedPlaces } from './method.js';
import { readingTables } from './readings.js';
import { heading, text, type LeftAlone, type Pen, type ReportFacts, type ToldRound } from './pen.js';

/** The doubts that matter, largest first, in one line. */
function budgetLine(quantity: Finding['quantities'][string], info: QuantityInfo, pen: Pen): string {
  if (quantity.expanded === null) return 'Its uncertainty is not known: no instrument was named.';
  const parts = quantity.budget
    .filter(({ share }) => share >= 0.05)
    .slice(0, 4)
    .map(({ source, share }) => `${DOUBTS[source]} ${Math.round(100 * share)} %`);
  return `Uncertainty ${pen.figure((shown) => `± ${sizeOf(quantity.expanded ?? 0, info, shown, 1).large}`)}: ${parts.join(', ')}.`;
}

/** A value in its zone, drawn over one and a half times the zone. */
function zoneBlock(quantity: Finding['quantities'][string], info: QuantityInfo, glyph: GlyphOf, told: string): Block[] {
  const { limit, value, expanded } = quantity;
  if (!limit) return [];
  const high = limit[1] ?? Math.max(value, limit[0] ?? 0);
  const low = limit[0] ?? (info.magnitude ? 0 : Math.min(value, high));
  const room = Math.max(high - low, Number.EPSILON) / 2;
  const begin = Math.min(low - room, value - (expanded ?? 0));
  const end = Math.max(high + room, value + (expanded ?? 0));
  const place = (of: number): number => (of - begin) / (end - begin);
  return [
    {
      kind: 'zone',
      chart: { low: place(low), high: place(high), value: place(value), doubt: (expanded ?? 0) / (end - begin), told, glyph },
    },
  ];
}

function profileBlock(head: RoundHead | undefined, pen: Pen): Block[] {
  const points = head?.finding?.profile ?? [];
  if (points.length < 3) return [];
  const heights = points.map(({ height }) => height);
  const length = (mm: number): string => pen.figure(({ system }) => (system === 'mm' ? `${fixed(mm, 0)} mm` : `${fixed(mm / 25.4, 1)} in`));
  const um = (value: number): string => pen.figure((shown) => `${value < 0 ? '−' : ''}${sizeOf(value, undefined, shown, 1).large}`);
  const [high, low] = [Math.max(...heights), Math.min(...heights)];
  const [first, last] = [points[0].at, points[points.length - 1].at];
  return [
    {
      kind: 'profile',
      chart: {
        points,
        ...{ from: length(first), to: length(last), high: um(high), low: um(low) },
        told: `Heights off their line from ${length(first)} to ${length(last)}: highest ${um(high)}, lowest ${um(low)}.`,
      },
    },
  ];
}

/** @param before the round of the check before this one: what is read in the same way is drawn once. */
function roundBlocks(told: ToldRound, before: ToldRound | undefined, facts: ReportFacts, pen: Pen, left: LeftAlone): Block[] {
  const { round, finding } = told;
  const definition = CHECKS.get(round.check);
  if (!definition) return [];
  const setUp = [
    ...pen.facts(definition.setup, round.setup),
    ...pen.facts(definition.conditions, round.conditions),
    ...(round.instrumentName ? [['Instrument', round.instrumentName] as const] : []),
    ...(round.note ? [['Note', round.note] as const] : []),
  ];
  const places = new NumberedPlaces(round.check);
  const tables = readingTables(told, places, pen);
  const asBefore = before && dequal(before.round.setup, round.setup) && dequal(before.round.plan, round.plan);
  const said = Object.entries(finding?.quantities ?? {}).flatMap(([name, quantity]): Block[] => {
    const info = definition.quantities[name];
    if (!info) return [];
    const glyph = glyphOf(quantity, !!left(round.check, name));
    const words = pen.figure((shown) => callSentence(quantity, info, shown));
    if (!quantity.limit) return [text(words), text(budgetLine(quantity, info, pen), true)];
    const limit = pen.figure((shown) => zoneInWords(quantity.limit, info, shown));
    const verdict = `${words} Limit: ${limit}. Verdict: ${verdictWords(glyph)}.`;
    return [text(verdict), ...zoneBlock(quantity, info, glyph, verdict), text(budgetLine(quantity, info, pen), true)];
  });
  const head = facts.heads.find(({ id }) => id === round.id);
  return [
    heading(`Round ${head?.number ?? ''}, ${pen.time(round.at)}, ${pen.who(round.by)}`, 3),
    ...(setUp.length ? [{ kind: 'facts', rows: setUp } as const] : []),
    ...(asBefore ? [] : methodBlock({ round, places, finding, length: pen.length })),
    ...tables,
    ...said,
    ...profileBlock(head, pen),
    ...(finding?.notes ?? []).filter(({ severity }) => severity !== 'info').map(({ text: words }) => text(words)),
    ...(round.struck ? [text(`This round does not count: ${round.struck.why} (${pen.who(round.struck.by)})`)] : []),
  ];
}

/** Round by round, each check with its question. */
export function details(facts: ReportFacts, checks: readonly string[], pen: Pen, left: LeftAlone): Block[] {
  return checks.flatMap((check, i) => {
    const own = facts.rounds.filter(({ round }) => round.check === check);
    if (own.length === 0) return [];
    const definition = CHECKS.get(check);
    return [
      { ...heading(definition?.title ?? check), newPage: i === 0 } as Block,
      ...(definition ? [text(definition.question)] : []),
      ...own.flatMap((told, k) => roundBlocks(told, own[k - 1], facts, pen, left)),
    ];
  });
}
