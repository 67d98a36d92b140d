import { QueryTypes, type Sequelize } from 'sequelize';
import { moveMinutes, setUpMinutes, turnsScrew, WORK_PAUSE, workedMinutes, type Timing } from '@isometra/work';

/** Rounds and moves that are looked at, the newest. */
const MOST = 3000;
/** Fewer readings are no round: nothing is learned from a try. */
const LEAST_READINGS = 3;

interface RoundRow {
  readonly detail: string;
  readonly machineKind: string;
  readonly by: string;
  readonly begun: Date;
  readonly first: Date;
  readonly worked: string;
}

// The gaps between readings are added up where they lie: a shop has a hundred thousand of them.
const ROUNDS = `SELECT r.kind AS detail, m.kind AS machineKind, r.\`by\`, r.at AS begun, g.first, g.worked FROM (
    SELECT roundId, MIN(at) AS first, COUNT(*) AS readings,
      SUM(IF(gap > 0 AND gap <= :pause, gap, 0)) AS worked
    FROM (
      SELECT x.roundId, x.at, TIMESTAMPDIFF(MICROSECOND, LAG(x.at) OVER (PARTITION BY x.roundId ORDER BY x.at, x.sequence), x.at) / 1000 AS gap
      FROM readings x JOIN (SELECT id FROM rounds WHERE struck IS NULL ORDER BY at DESC LIMIT :most) newest ON newest.id = x.roundId
    ) gaps GROUP BY roundId
  ) g JOIN rounds r ON r.id = g.roundId JOIN machines m ON m.id = r.machineId WHERE g.readings >= :least`;

interface MoveRow {
  readonly detail: string;
  readonly machineKind: string;
  readonly by: string;
  readonly begunAt: Date;
  readonly doneAt: Date;
}

const MOVES = `SELECT v.kind AS detail, m.kind AS machineKind, v.\`by\`, v.begunAt, v.doneAt
  FROM moves v JOIN rounds r ON r.id = v.roundId JOIN machines m ON m.id = r.machineId
  WHERE v.doneAt IS NOT NULL ORDER BY v.doneAt DESC LIMIT :most`;

interface PassRow {
  readonly surfaceId: string;
  readonly machineKind: string;
  readonly by: string;
  readonly at: Date;
  readonly kind: string;
}

const PASSES = `SELECT e.surfaceId, m.kind AS machineKind, e.\`by\`, e.at, e.kind FROM surface_entries e JOIN surfaces s ON s.id = e.surfaceId
  JOIN machines m ON m.id = s.machineId WHERE e.kind IN ('pass', 'blue', 'print') ORDER BY e.surfaceId, e.at LIMIT 20000`;

function ofRound({ detail, machineKind, by, begun, first, worked }: RoundRow): Timing[] {
  const setUp = setUpMinutes(begun.toISOString(), first.toISOString());
  const minutes = Number(worked) / 60_000;
  return [
    ...(setUp === undefined ? [] : [{ work: 'setUp' as const, detail, machineKind, by, minutes: setUp }]),
    ...(minutes > 0 ? [{ work: 'round' as const, detail, machineKind, by, minutes }] : []),
  ];
}

function ofMove({ detail, machineKind, by, begunAt, doneAt }: MoveRow): Timing[] {
  const minutes = moveMinutes(begunAt.toISOString(), doneAt.toISOString());
  return minutes === undefined ? [] : [{ work: turnsScrew(detail) ? 'screw' : 'shim', detail, machineKind, by, minutes }];
}

/** From one pass to the next entry at the same face, by the same hand, where no pause lies between. */
function ofPasses(rows: readonly PassRow[]): Timing[] {
  return rows.slice(1).flatMap((row, i): Timing[] => {
    const before = rows[i];
    if (before.surfaceId !== row.surfaceId || row.kind !== 'pass' || before.by !== row.by) return [];
    const minutes = workedMinutes([before.at.toISOString(), row.at.toISOString()]);
    return minutes > 0 ? [{ work: 'pass', detail: '', machineKind: row.machineKind, by: row.by, minutes }] : [];
  });
}

/** What was timed in this shop: set-ups, rounds, moves and passes, the newest. */
export async function timings(sequelize: Sequelize): Promise<readonly Timing[]> {
  const ask = <Row extends object>(sql: string): Promise<Row[]> =>
    sequelize.query<Row>(sql, { replacements: { most: MOST, pause: WORK_PAUSE, least: LEAST_READINGS }, type: QueryTypes.SELECT });
  const [rounds, moves, passes] = await Promise.all([ask<RoundRow>(ROUNDS), ask<MoveRow>(MOVES), ask<PassRow>(PASSES)]);
  return [...rounds.flatMap(ofRound), ...moves.flatMap(ofMove), ...ofPasses(passes)];
}
