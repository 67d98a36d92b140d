import { CHECKS, DOUBTS, fixed, MOVES, type Fineness, type Finding, type QuantityInfo } from '@isometra/core';
import {
  machineCardSchema,
  type KitItem,
  type Machine,
  type MoveWrite,
  type PrintResult,
  type QuantityHead,
  type RoundHead,
  type StoredRound,
  type StoredSurface,
  type StoredSurvey,
} from '@isometra/contract';
import { compared, type Compared, type Seen } from '../judging/compare.js';
import { judgedMoves } from '../judging/moves.js';
import { campaignOf } from '../ladder/campaign.js';
import { shopDate, shopTime } from '../notebook/dates.js';
import { isMade } from '../notebook/doneMoves.js';
import { counts } from '../notebook/ruling.js';
import { callSentence, counted, inWords, moveWords, sizeOf, zoneInWords } from '../said/said.js';
import { bentBy, withGhosts } from '../pictures/bent.js';
import { drawBent, fittingOf } from '../pictures/index.js';
import { slantOf } from '../sheets/slide.js';
import { learnedOn } from '../scraping/desk.js';
import { metalTaken } from '../scraping/metal.js';
import { readingTold } from '../sheets/sheet.js';
import { moveRecord } from '../story/moveTold.js';
import type { Block, Report, TableRow } from './blocks.js';
import { factsOf } from './factsOf.js';
import { glyphOf, verdictWords, type GlyphOf } from './glyphOf.js';
import { inUnits, type PaperUnits } from './inUnits.js';

/** A round that is told whole, with what it says. */
export interface ToldRound {
  readonly round: StoredRound;
  readonly finding: Finding | null;
}

/** What a report is made from. */
export interface ReportFacts {
  readonly machine: Machine;
  readonly survey: StoredSurvey;
  /** Heads of all rounds of the machine. */
  readonly heads: readonly RoundHead[];
  /** Rounds of the survey that are told whole; empty for one page. */
  readonly rounds: readonly ToldRound[];
  readonly kit: readonly KitItem[];
  /** Faces of the machine, with what was written down at them. */
  readonly surfaces?: readonly StoredSurface[];
  readonly shop: string;
  /** Names by initials. */
  readonly people: ReadonlyMap<string, string>;
  readonly zone: string | null;
  readonly units: PaperUnits;
  readonly fineness: Fineness;
  /** One page for a customer: no moves, no instruments. */
  readonly short?: boolean;
  /** Checks that are told of; all where left out. */
  readonly checks?: readonly string[];
  readonly now: string;
  /** SHA-256 of the data. */
  readonly fingerprint: string;
}

const heading = (text: string, level: 1 | 2 | 3 = 2): Block => ({ kind: 'heading', level, text });
const text = (words: string, soft = false): Block => ({ kind: 'text', text: words, soft });
const title = (check: string): string => CHECKS.get(check)?.title ?? check;

/** Writes of one paper: in its unit, its days, its names. */
class Pen {
  constructor(private readonly facts: ReportFacts) {}

  figure = (write: Parameters<typeof inUnits>[1]): string => inUnits(this.facts, write);
  day = (at: string): string => shopDate(at, this.facts.zone);
  time = (at: string): string => shopTime(at, this.facts.zone);
  who = (initials: string): string => this.facts.people.get(initials) || initials;

  value(quantity: QuantityHead, info: QuantityInfo): string {
    const doubt = quantity.expanded;
    return this.figure((shown) => {
      const own = inWords(quantity, info, shown);
      return doubt === null ? own : `${own} ± ${sizeOf(doubt, info, shown, 1).large}`;
    });
  }
}

/** Whether something of a round was left alone on purpose, and why. */
type LeftAlone = (check: string, quantity: string) => { readonly why: string; readonly by: string } | undefined;

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
    ...(days.length
      ? [['Measured', [...new Set([pen.day(days[0]), pen.day(days[days.length - 1])])].join(' to ')] as [string, string]]
      : []),
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

/** What went under a part: leaves, one by one. */
function leavesWords({ made, plan }: MoveWrite, pen: Pen): string {
  const leaves =
    made?.wentIn ?? (Array.isArray(plan['leaves']) ? (plan['leaves'] as unknown[]).filter((leaf) => typeof leaf === 'number') : []);
  return leaves.map((leaf) => pen.figure((shown) => sizeOf(leaf, undefined, shown, 1).large)).join(', ');
}

function moves({ heads, survey }: ReportFacts, checks: readonly string[], pen: Pen): Block[] {
  const done = heads
    .filter((round) => round.surveyId === survey.id && checks.includes(round.check))
    .flatMap((round) => round.moves.filter(isMade).map((move) => ({ round, move })))
    .sort((one, other) => (one.move.doneAt ?? '').localeCompare(other.move.doneAt ?? ''));
  if (done.length === 0) return [];
  const judged = new Map(checks.flatMap((check) => judgedMoves(check, heads).map((entry) => [entry.move.id, entry] as const)));
  const rows = done.map(({ round, move }): TableRow => {
    const info = CHECKS.get(round.check)?.quantities[move.quantity];
    const result = judged.get(move.id);
    const leaves = leavesWords(move, pen);
    return {
      cells: [
        `${pen.day(move.doneAt ?? '')}, ${pen.who(move.by)}`,
        `${title(round.check)}: ${MOVES.get(move.kind)?.title ?? move.kind}${leaves ? `, leaves of ${leaves}` : ''}`,
        pen.figure((shown) => moveWords(move.amount, info, shown)),
        result ? pen.figure((shown) => moveRecord(result, info, shown)) : 'not read again',
      ],
    };
  });
  return [
    heading('Moves that were made'),
    { kind: 'table', name: 'Moves that were made', columns: ['When', 'What', 'Wanted', 'What it did'], widths: [18, 32, 18, 32], rows },
  ];
}

/** Faces of the machine that metal was taken off while the survey ran. The depth is told as what it is: learned from such passes. */
function metal({ surfaces = [], survey }: ReportFacts, pen: Pen): Block[] {
  const learned = learnedOn(surfaces);
  const rows = surfaces
    .flatMap((surface) => {
      const told = metalTaken(surface, { from: survey.startedAt, to: survey.endedAt }, learned);
      return told ? [{ surface, told }] : [];
    })
    .sort((one, other) => one.told.from.localeCompare(other.told.from))
    .map(({ surface: { name, aim }, told: { passes, blues, least, most, by, from, to, print } }): TableRow => {
      const depth = (um: number): string => pen.figure((shown) => sizeOf(um, undefined, shown, 1).large);
      const off = depth(least) === depth(most) ? `about ${depth(most)}` : `about ${depth(least)} to ${depth(most)}`;
      const days = [...new Set([pen.day(from), pen.day(to)])].join(' to ');
      return {
        cells: [
          [name, aim ? `for “${title(aim.check)}”` : ''].filter(Boolean).join(', '),
          `${days}, ${by.map(pen.who).join(', ')}`,
          [counted(passes, 'pass'), blues ? `blued ${counted(blues, 'time')}` : ''].filter(Boolean).join(', '),
          off,
          spotsWords(print),
        ],
      };
    });
  if (rows.length === 0) return [];
  const columns = ['Face', 'When', 'What', 'Metal off', 'Last print'];
  return [
    heading('Faces that were scraped'),
    { kind: 'table', name: 'Faces that were scraped', columns, widths: [30, 24, 16, 16, 14], rows },
    text(
      'Metal off by the depth of a pass as it was learned at these faces, from the zone that lost least to the one that lost most.',
      true,
    ),
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

function spotsWords(print: PrintResult | null): string {
  if (!print) return 'none was read';
  const { spotsPerSquare, bearingShare } = print;
  const told = [
    spotsPerSquare === null ? '' : `${spotsPerSquare.toFixed(0)} spots per square`,
    bearingShare === null ? '' : `${Math.round(100 * bearingShare)} % bears`,
  ];
  return told.filter(Boolean).join(', ') || 'read by eye';
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

function readingRows({ round }: ToldRound, pen: Pen): { readonly standing: TableRow[]; readonly history: TableRow[] } {
  const definition = CHECKS.get(round.check);
  const replaced = new Map(round.readings.flatMap((reading) => (reading.supersedes ? [[reading.supersedes, reading] as const] : [])));
  const row = (reading: StoredRound['readings'][number]): string[] => {
    const beside = new Set((definition?.beside ?? []).filter(({ instead }) => instead).map(({ key }) => key));
    const keys = Object.fromEntries(Object.entries(reading.keys).filter(([key]) => !beside.has(key)));
    const place = factsOf(definition?.reading, keys)
      .map(([label, value]) => `${label} ${value}`)
      .join(', ');
    return [
      place,
      readingTold(round.check, reading),
      reading.set > 1 ? String(reading.set) : '1',
      `${reading.by}, ${pen.time(reading.at)}`,
    ];
  };
  const standing = round.readings.filter(({ id, value, keys }) => !replaced.has(id) && (value !== null || Object.keys(keys).length > 0));
  return {
    standing: standing.filter((reading) => readingTold(round.check, reading) !== '').map((reading) => ({ cells: row(reading) })),
    history: round.readings
      .filter(({ id }) => replaced.has(id))
      .map((reading) => ({ struck: true, cells: [...row(reading).slice(0, 2), replaced.get(reading.id)?.why ?? ''] })),
  };
}

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

function roundBlocks(told: ToldRound, facts: ReportFacts, pen: Pen, left: LeftAlone): Block[] {
  const { round, finding } = told;
  const definition = CHECKS.get(round.check);
  if (!definition) return [];
  const setUp = [
    ...factsOf(definition.setup, round.setup),
    ...factsOf(definition.conditions, round.conditions),
    ...(round.instrumentName ? [['Instrument', round.instrumentName] as const] : []),
    ...(round.note ? [['Note', round.note] as const] : []),
  ];
  const { standing, history } = readingRows(told, pen);
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
    ...(standing.length
      ? [
          {
            kind: 'table',
            name: 'Readings',
            columns: ['Place', 'Read', 'Set-up', 'Who and when'],
            widths: [42, 18, 10, 30],
            rows: standing,
          } as const,
        ]
      : []),
    ...(history.length
      ? [
          {
            kind: 'table',
            name: 'Readings that were replaced',
            columns: ['Replaced', 'Read', 'Why'],
            widths: [42, 18, 40],
            rows: history,
          } as const,
        ]
      : []),
    ...said,
    ...profileBlock(head, pen),
    ...(finding?.notes ?? []).filter(({ severity }) => severity !== 'info').map(({ text: words }) => text(words)),
    ...(round.struck ? [text(`This round does not count: ${round.struck.why} (${pen.who(round.struck.by)})`)] : []),
  ];
}

function details(facts: ReportFacts, checks: readonly string[], pen: Pen, left: LeftAlone): Block[] {
  return checks.flatMap((check, i) => {
    const own = facts.rounds.filter(({ round }) => round.check === check);
    if (own.length === 0) return [];
    const definition = CHECKS.get(check);
    return [
      { ...heading(definition?.title ?? check), newPage: i === 0 } as Block,
      ...(definition ? [text(definition.question)] : []),
      ...own.flatMap((told) => roundBlocks(told, facts, pen, left)),
    ];
  });
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
