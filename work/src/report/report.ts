import { CHECKS, type QuantityInfo } from '@isometra/core';
import { machineCardSchema } from '@isometra/contract';
import { compared, type Compared, type Seen } from '../judging/compare.js';
import { campaignOf } from '../ladder/campaign.js';
import { shopDate } from '../notebook/dates.js';
import { counts } from '../notebook/ruling.js';
import { bentBy, withGhosts } from '../pictures/bent.js';
import { drawBent, fittingOf } from '../pictures/index.js';
import { counted, zoneInWords } from '../said/said.js';
import { slantOf } from '../sheets/slide.js';
import type { Block, Report, TableRow } from './blocks.js';
import { metal, moves } from './done.js';
import { factsOf } from './factsOf.js';
import { glyphOf, verdictWords, type GlyphOf } from './glyphOf.js';
import { heading, Pen, text, title, type LeftAlone, type ReportFacts } from './pen.js';
import { details } from './rounds.js';

export type { ReportFacts, ToldRound } from './pen.js';

/** Checks that are told of, in the order of the survey. */
function toldChecks({ survey, heads, checks }: ReportFacts): string[] {
  const read = heads.filter(({ surveyId }) => surveyId === survey.id).map(({ check }) => check);
  const all = [...new Set([...survey.order, ...read])].filter((check) => CHECKS.has(check));
  return checks ? all.filter((check) => checks.includes(check)) : all;
}

function front({ machine: { card }, survey, shop, heads, now }: ReportFacts, pen: Pen): Block[] {
  const own = heads.filter((round) => round.surveyId === survey.id && counts(round));
  const by = [...new Set(own.map((round) => round.by))].map(pen.who).join(', ');
  const days = own.map(({ at }) => at).sort();
  const kind = factsOf(machineCardSchema, { kind: card.kind })[0]?.[1] ?? card.kind;
  const rows: [string, string][] = [
    ['Machine', [card.number, card.nickname].filter(Boolean).join(', ')],
    ['Kind', kind],
    ['Survey', survey.title],
    ...(days.length ? [['Measured', pen.days(days[0], days[days.length - 1])] as [string, string]] : []),
    ...(by ? [['By', by] as [string, string]] : []),
    ['Limits', `${survey.judge.name}, version ${survey.limits.version}`],
    ...(shop ? [['Shop', shop] as [string, string]] : []),
    ['Printed', pen.day(now)],
  ];
  return [
    { kind: 'heading', level: 1, text: `Acceptance report: ${card.number}` },
    { kind: 'facts', rows },
  ];
}

const RULE =
  'In: inside the limit by more than the uncertainty. Out: outside by more than it. Otherwise too close to call. Uncertainties are for 95 %.';

function resultRow(entry: Compared, pen: Pen, left: LeftAlone): TableRow {
  const info = CHECKS.get(entry.check)?.quantities[entry.name] as QuantityInfo;
  const cell = (seen: Seen | null): string => (seen ? pen.value(seen.quantity, info) : 'not measured');
  const last = (entry.to ?? entry.from) as Seen;
  const glyph = glyphOf(last.quantity, !!left(entry.check, entry.name));
  const once = entry.from?.round.id === entry.to?.round.id;
  const name = [...new Set([title(entry.check), entry.thing, info.label])].filter(Boolean).join(', ');
  const limit = pen.figure((shown) => zoneInWords(last.quantity.limit, info, shown));
  return { glyph, cells: [name, once ? 'the same' : cell(entry.from), cell(entry.to), limit, verdictWords(glyph)] };
}

function results(rows: readonly Compared[], pen: Pen, left: LeftAlone): Block[] {
  if (rows.length === 0) return [heading('Results'), text('Nothing that has a limit was measured.')];
  const told = rows.map((entry) => resultRow(entry, pen, left));
  const many = (glyph: GlyphOf): number => told.filter((row) => row.glyph === glyph).length;
  const sum = (['in', 'out', 'unsure', 'left'] as const).filter(many).map((glyph) => `${many(glyph)} ${verdictWords(glyph)}`);
  return [
    heading('Results'),
    text(`${counted(told.length, 'result')}: ${sum.join(', ')}.`),
    {
      kind: 'table',
      name: 'Results as found and as left',
      columns: ['What was measured', 'As found', 'As left', 'Limit', 'Verdict'],
      widths: [30, 20, 20, 18, 12],
      rows: told,
    },
    text(RULE, true),
  ];
}

function leftAlone({ survey, machine }: ReportFacts, checks: readonly string[], seen: ReadonlySet<string>, pen: Pen): Block[] {
  const campaign = campaignOf(survey);
  const accepted = campaign.accepted
    .filter(({ check }) => checks.includes(check))
    .map(({ check, quantity, why, by, at }) => ({
      cells: [`${title(check)}, ${CHECKS.get(check)?.quantities[quantity]?.label ?? quantity}`, why, `${pen.who(by)}, ${pen.day(at)}`],
    }));
  const skipped = survey.skipped.map(({ check, why, by, at }) => ({
    cells: [title(check), why, `${pen.who(by)}, ${pen.day(at)}`],
  }));
  const out = new Set(survey.skipped.map(({ check }) => check));
  const open = checks.filter((check) => !seen.has(check) && !out.has(check)).map(title);
  const widths = [36, 44, 20];
  return [
    ...(accepted.length
      ? [
          heading('Left alone on purpose'),
          { kind: 'table', name: 'Left alone on purpose', columns: ['What', 'Why', 'Who'], widths, rows: accepted } as const,
        ]
      : []),
    ...(skipped.length
      ? [
          heading('Left out of the survey'),
          { kind: 'table', name: 'Left out of the survey', columns: ['Check', 'Why', 'Who'], widths, rows: skipped } as const,
        ]
      : []),
    ...(open.length ? [heading('Not measured'), text(`${open.join(', ')}.`)] : []),
    ...(machine.card.notes ? [heading('Notes on the machine'), text(machine.card.notes)] : []),
  ];
}

function kitUsed({ heads, survey, kit }: ReportFacts, checks: readonly string[]): Block[] {
  const own = heads.filter((round) => round.surveyId === survey.id && checks.includes(round.check) && counts(round));
  const names = [...new Set(own.flatMap(({ instrumentName }) => instrumentName ?? []))].sort();
  if (names.length === 0) return [];
  const rows = names.map((name): TableRow => {
    const care = kit.find((item) => item.name === name)?.care;
    const certificate = [care?.certificate, care?.certified && `of ${shopDate(care.certified, null)}`].filter(Boolean).join(' ');
    const due = care?.due ? shopDate(care.due, null) : 'no day is set';
    return { cells: [name, certificate || 'none is known', due] };
  });
  return [
    heading('Instruments'),
    { kind: 'table', name: 'Instruments', columns: ['Instrument', 'Certificate', 'Due again on'], widths: [46, 30, 24], rows },
  ];
}

/** The machine as it stands by the last rounds of the survey, its errors exaggerated, with its limits as ghost lines. */
function bentMachine({ heads, survey, machine: { card } }: ReportFacts): Block[] {
  const kind = String(card.kind);
  const own = heads.filter((round) => round.surveyId === survey.id && counts(round) && round.finding);
  const bending = bentBy(kind, own);
  if (Object.keys(bending.known).length === 0) return [];
  const factor = fittingOf(bending);
  const slant = slantOf(card['slide']) ?? null;
  const picture = drawBent(withGhosts(bending, survey.judge, factor), { kind, factor, slant });
  return [
    heading('The machine as it stands'),
    { kind: 'picture', picture },
    text(`Errors are drawn ×${factor}; dashed lines are the limits.`, true),
  ];
}

/**
 * An acceptance report of a survey: what was measured as found and as left, with its uncertainties, limits and verdicts; what was moved;
 * what was left alone and why; what was not measured; the instruments; round by round where rounds are given.
 */
export function reportOf(facts: ReportFacts): Report {
  const pen = new Pen(facts);
  const { survey, heads, machine } = facts;
  const checks = toldChecks(facts);
  const accepted = campaignOf(survey).accepted;
  const left: LeftAlone = (check, quantity) => accepted.find((entry) => entry.check === check && entry.quantity === quantity);
  const sides = (['found', 'left'] as const).map((when) => ({ surveyId: survey.id, when }));
  const rows = compared(heads, sides[0], sides[1], survey.order).filter(({ check }) => checks.includes(check));
  const own = heads.filter((round) => round.surveyId === survey.id && counts(round));
  return {
    title: `Acceptance report: ${machine.card.number}, ${survey.title}`,
    foot: `${machine.card.number}, ${survey.title}, ${pen.day(facts.now)}`,
    blocks: [
      ...front(facts, pen),
      ...results(rows, pen, left),
      ...(facts.short ? [] : bentMachine(facts)),
      ...leftAlone(facts, checks, new Set(own.map(({ check }) => check)), pen),
      ...(facts.short ? [] : [...moves(facts, checks, pen), ...metal(facts, pen), ...kitUsed(facts, checks)]),
      { kind: 'signatures', names: ['Measured by', 'Accepted by'] },
      text(`Made from data with the fingerprint ${facts.fingerprint}.`, true),
      ...details(facts, checks, pen, left),
    ],
  };
}
