import { QueryTypes, type Sequelize } from 'sequelize';
import type { Firsts } from '@isometra/work';

// One query for the whole shop, whichever machine is asked about: a machine's own plan and the board of the shop count the same.
const FIRSTS = `SELECT m.kind, x.check, COUNT(*) AS \`all\`, SUM(x.isOut) AS \`out\` FROM (
    SELECT r.machineId, r.kind AS \`check\`,
      FIND_IN_SET('out', f.verdicts) > 0 AS isOut,
      ROW_NUMBER() OVER (PARTITION BY c.surveyId, r.kind ORDER BY r.at, r.id) AS place
    FROM rounds r JOIN checks c ON c.id = r.checkId JOIN findings f ON f.roundId = r.id
    WHERE r.ahead = 0 AND r.struck IS NULL AND f.verdicts <> ''
  ) x JOIN machines m ON m.id = x.machineId WHERE x.place = 1 GROUP BY m.kind, x.check`;

interface Row extends Firsts {
  readonly kind: string;
  readonly check: string;
}

/** What the first round of each check in each survey said, by kind of machine and by check. A round with no verdict is none. */
export async function firstsOfKinds(sequelize: Sequelize): Promise<ReadonlyMap<string, ReadonlyMap<string, Firsts>>> {
  const rows = await sequelize.query<Row>(FIRSTS, { type: QueryTypes.SELECT });
  const kinds = new Map<string, Map<string, Firsts>>();
  for (const { kind, check, out, all } of rows) {
    const checks = kinds.get(kind) ?? new Map<string, Firsts>();
    kinds.set(kind, checks.set(check, { out: Number(out), all: Number(all) }));
  }
  return kinds;
}
