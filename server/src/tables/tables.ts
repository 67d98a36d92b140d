import type { Sequelize } from 'sequelize';
import type { Readable } from 'node:stream';
import Papa from 'papaparse';
import writeXlsxFile, { type SheetData } from 'write-excel-file/node';
import { CHECKS } from '@isometra/core';
import { listHeads } from '../services/heads.js';
import { listKit } from '../services/kit.js';
import { listLimitSheets } from '../services/limits.js';
import { listMachines } from '../services/machines.js';
import { listRounds } from '../services/rounds.js';
import type { Solver } from '../services/solver.js';
import { listSurveys } from '../services/surveys.js';

/** A value of a cell: a number is written with the point or comma that was asked for. */
type Cell = string | number | boolean | null | undefined;
type Row = readonly Cell[];

export interface TableMeans {
  readonly sequelize: Sequelize;
  readonly solver: Solver;
  /** One machine by its id; all of them where left out. */
  readonly machineId?: string;
}

interface Table {
  readonly columns: readonly string[];
  /** Its rows, a machine at a time. */
  rows(means: TableMeans): AsyncGenerator<readonly Row[]>;
}

const machinesOf = async ({ machineId }: TableMeans) =>
  (await listMachines()).filter(({ id }) => machineId === undefined || id === machineId);
/** Rounds in short, a machine at a time, with the number of their machine and the titles of its surveys. */
async function* headsOf(means: TableMeans) {
  for (const { id, card } of await machinesOf(means)) {
    const surveys = new Map((await listSurveys(id)).map((survey) => [survey.id, survey.title]));
    yield { number: card.number, surveys, heads: await listHeads(means.sequelize, means.solver, id) };
  }
}

const title = (check: string): string => CHECKS.get(check)?.title ?? check;
const pairs = (values: Readonly<Record<string, unknown>>): string =>
  Object.entries(values)
    .map(([key, value]) => `${key}=${String(value)}`)
    .join('; ');

/** What leaves the shop as a table: one thing a row, one fact a column, units in the head of the column or beside the figure. */
export const TABLES: Readonly<Record<string, Table>> = {
  machines: {
    columns: ['number', 'nickname', 'kind', 'swing', 'between centres', 'notes', 'archived', 'id'],
    async *rows(means) {
      yield (await machinesOf(means)).map(({ id, card, archived }) => [
        ...[card.number, card.nickname, card.kind, card.swing as Cell, card.centreDistance as Cell, card.notes, !!archived, id],
      ]);
    },
  },
  kit: {
    columns: ['name', 'kind', 'certificate', 'certified on', 'due on', 'certifying costs', 'data', 'archived', 'id'],
    async *rows() {
      yield (await listKit()).map(({ id, name, kind, care, data, archived }) => [
        ...[name, kind, care.certificate, care.certified, care.due, care.price, JSON.stringify(data), !!archived, id],
      ]);
    },
  },
  rounds: {
    columns: ['machine', 'survey', 'check', 'check id', 'round', 'read at', 'by', 'instrument', 'conditions', 'moves made', 'counts', 'id'],
    async *rows(means) {
      for await (const { number, surveys, heads } of headsOf(means)) {
        yield heads.map((head) => [
          ...[number, surveys.get(head.surveyId), title(head.check), head.check, head.number, head.at, head.by, head.instrumentName],
          ...[pairs(head.conditions), head.moves.filter(({ doneAt }) => doneAt !== null).length, !head.struck && !head.ahead, head.id],
        ]);
      }
    },
  },
  findings: {
    columns: [
      ...['machine', 'survey', 'check', 'check id', 'round', 'read at', 'quantity', 'value', 'U (95 %)', 'low limit', 'high limit', 'unit'],
      ...['verdict', 'counts', 'round id'],
    ],
    async *rows(means) {
      for await (const { number, surveys, heads } of headsOf(means)) {
        yield heads.flatMap((head) =>
          Object.entries(head.finding?.quantities ?? {}).map(([name, { value, expanded, limit, unit, verdict }]) => [
            ...[number, surveys.get(head.surveyId), title(head.check), head.check, head.number, head.at],
            ...[CHECKS.get(head.check)?.quantities[name]?.label ?? name, value, expanded, limit?.[0], limit?.[1], unit],
            ...[verdict, !head.struck && !head.ahead, head.id],
          ]),
        );
      }
    },
  },
  readings: {
    columns: ['machine', 'check id', 'round', 'read at', 'by', 'set-up', 'place', 'value', 'replaced', 'why', 'round id', 'id'],
    async *rows(means) {
      for (const { id: machineId, card } of await machinesOf(means))
        yield (await listRounds(means.sequelize, machineId)).flatMap((round) => {
          const replaced = new Set(round.readings.flatMap(({ supersedes }) => supersedes ?? []));
          return round.readings.map((reading) => [
            ...[card.number, round.check, round.number, reading.at, reading.by, reading.set, pairs(reading.keys)],
            ...[reading.value, replaced.has(reading.id), reading.why, round.id, reading.id],
          ]);
        });
    },
  },
  limits: {
    columns: ['sheet', 'version', 'check', 'check id', 'quantity', 'when', 'low', 'high', 'unit', 'for each (mm)', 'reason'],
    async *rows() {
      yield (await listLimitSheets()).flatMap(({ content, version }) =>
        content.lines.map(({ check, quantity, when, zone, over, reason }) => {
          const info = CHECKS.get(check)?.quantities[quantity];
          return [
            ...[content.name, version, title(check), check, info?.label ?? quantity, when, zone[0], zone[1], info?.unit],
            ...[over?.length, reason],
          ];
        }),
      );
    },
  },
};

const said = (yes: boolean): string => (yes ? 'yes' : 'no');

/** As many rows as a workbook is made of: it is written whole. */
export const MOST_ROWS = 100_000;

/** A table as a workbook of one sheet: figures are figures, whatever sign a device writes them with. Its head stays when it is scrolled. */
export async function workbookOf(table: Table, means: TableMeans): Promise<Readable | undefined> {
  const head = table.columns.map((name) => ({ value: name, fontWeight: 'bold' as const }));
  const rows: (SheetData[number] | typeof head)[] = [head];
  for await (const some of table.rows(means)) {
    rows.push(...some.map((row) => row.map((cell) => (typeof cell === 'boolean' ? said(cell) : cell === '' ? null : cell))));
    if (rows.length > MOST_ROWS) return undefined;
  }
  const { toStream } = writeXlsxFile(rows, { stickyRowsCount: 1 });
  return (toStream as () => Promise<Readable>)();
}

/** With a decimal comma cells are parted by semicolons, as spreadsheets that write commas expect it. */
export type Decimal = 'point' | 'comma';

const LINE = '\r\n';

/** A table as CSV, piece by piece, with a mark at its beginning that tells a spreadsheet how its letters are written. */
export async function* csvOf(table: Table, means: TableMeans, decimal: Decimal): AsyncGenerator<string> {
  const comma = decimal === 'comma';
  // What a spreadsheet would take for a formula is text here.
  const options = { delimiter: comma ? ';' : ',', newline: LINE, escapeFormulae: /^[=@\t\r]|^[+-](?![\d.,])/ };
  const written = (cell: Cell): string => {
    if (typeof cell === 'number') return comma ? String(cell).replace('.', ',') : String(cell);
    return typeof cell === 'boolean' ? said(cell) : (cell ?? '');
  };
  yield `\uFEFF${Papa.unparse([[...table.columns]], options)}${LINE}`;
  for await (const rows of table.rows(means))
    if (rows.length)
      yield `${Papa.unparse(
        rows.map((row) => row.map(written)),
        options,
      )}${LINE}`;
}
