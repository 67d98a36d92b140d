import { QueryTypes, type Sequelize } from 'sequelize';
import type { Finder } from '@isometra/contract';
import { FROM_LOG, WRITTEN_BY } from './people.js';
import { KitRow, LimitSheetRow, MachineRow } from '../db/shopModels.js';
import { SurfaceRow } from '../db/scrapingModels.js';

const away = ({ archived }: { readonly archived?: unknown }): { archived?: true } => (archived ? { archived: true } : {});

// A round that was discarded is still counted: the numbers are those that are shown.
const ROUNDS = `SELECT machineId, \`check\`, number AS count, id AS last FROM (
    SELECT machineId, kind AS \`check\`, id,
      ROW_NUMBER() OVER (PARTITION BY machineId, kind ORDER BY at, id) AS number,
      ROW_NUMBER() OVER (PARTITION BY machineId, kind ORDER BY at DESC, id DESC) AS back
    FROM rounds
  ) n WHERE back = 1`;

const PARTS = `SELECT p.id, JSON_UNQUOTE(JSON_EXTRACT(p.details, '$.name')) AS name, s.machineId, s.id AS stripDownId, p.number
    FROM parts p JOIN strip_downs s ON s.id = p.stripDownId WHERE p.standing
  UNION ALL SELECT id, name, machineId, id, NULL FROM strip_downs`;

/** Everything in the shop that has a name. */
export async function finderOf(sequelize: Sequelize): Promise<Finder> {
  const ask = <T extends object>(sql: string): Promise<T[]> => sequelize.query<T>(sql, { type: QueryTypes.SELECT });
  const [machines, faces, kit, sheets, people, rounds, parts] = await Promise.all([
    MachineRow.findAll({ order: [['number', 'ASC']] }),
    SurfaceRow.findAll({ attributes: ['id', 'machineId', 'name'], order: [['name', 'ASC']] }),
    KitRow.findAll({ order: [['name', 'ASC']] }),
    LimitSheetRow.findAll({ order: [['name', 'ASC']] }),
    ask<{ by: string }>(`SELECT DISTINCT ${WRITTEN_BY} AS \`by\` ${FROM_LOG} WHERE l.\`by\` NOT IN ('', '?') ORDER BY 1`),
    ask<{ machineId: string; check: string; count: number; last: string }>(ROUNDS),
    ask<Finder['parts'][number]>(PARTS),
  ]);
  return {
    machines: machines.map((row) => ({
      ...{ id: row.id, number: row.number, kind: row.kind, ...away(row) },
      nickname: String(row.card['nickname'] ?? ''),
    })),
    faces: faces.map(({ id, machineId, name }) => ({ id, machineId, name })),
    kit: kit.map((row) => ({ id: row.id, name: row.name, ...away(row) })),
    sheets: sheets.map((row) => ({ id: row.id, name: row.name, ...away(row) })),
    parts: parts.map((row) => ({ ...row, number: row.number === null ? null : Number(row.number) })),
    people: people.map(({ by }) => by),
    rounds: rounds.map((row) => ({ ...row, count: Number(row.count) })),
  };
}
