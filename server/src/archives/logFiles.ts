import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type { Content } from './files.js';

/** Entries of one file: a logbook of years is read and written in pieces. */
const PIECE = 1000;

/** Of which survey the entries of the logbook are: what happened to one, to its rounds and to their moves. */
const ENTRIES = `SELECT l.id, l.\`at\`, l.\`by\`, l.what, l.text, l.part, l.thing, l.thingId, l.was
  FROM log_entries l
  LEFT JOIN moves m ON l.thing = 'move' AND m.id = l.thingId
  LEFT JOIN rounds r ON r.id = CASE WHEN l.thing = 'round' THEN l.thingId ELSE m.roundId END
  LEFT JOIN checks c ON c.id = r.checkId
  LEFT JOIN surveys s ON s.id = CASE WHEN l.thing = 'survey' THEN l.thingId ELSE c.surveyId END
  WHERE l.machineId <=> :machineId AND s.id <=> :surveyId AND l.id > :after ORDER BY l.id LIMIT :piece`;

type Row = Readonly<Record<string, unknown>> & { readonly id: number; readonly at: Date };

/** A file of the logbook. */
export interface LogFile {
  readonly path: string;
  readonly content: Content;
}

/** The logbook of a survey, of a machine beside its surveys, or (with neither) of the shop, in pieces. */
export async function* logFiles(
  sequelize: Sequelize,
  { machineId, surveyId }: { readonly machineId: string | null; readonly surveyId: string | null },
  transaction: Transaction,
): AsyncGenerator<LogFile> {
  const name = surveyId ?? machineId ?? 'shop';
  for (let piece = 1, after = 0; ; piece++) {
    const rows = await sequelize.query<Row>(ENTRIES, {
      replacements: { machineId, surveyId, after, piece: PIECE },
      type: QueryTypes.SELECT,
      transaction,
    });
    if (rows.length)
      yield {
        path: `log/${name}-${String(piece).padStart(4, '0')}.json`,
        content: {
          ...{ machineId, surveyId },
          entries: rows.map(({ at, by, what, text, part, thing, thingId, was }) => ({
            ...{ by, at: at.toISOString(), what, text, part, thing, thingId, was },
          })),
        },
      };
    if (rows.length < PIECE) return;
    after = rows[rows.length - 1].id;
  }
}
