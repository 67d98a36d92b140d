import { QueryTypes, type Sequelize } from 'sequelize';
import type { WorkedHours } from '@isometra/contract';
import { moveMinutes, setUpMinutes, turnsScrew, WORK_PAUSE, workedMinutes, type Timing } from '@isometra/work';

/** Rounds and moves that are looked at, the newest. */
const MOST = 3000;
/** Fewer readings are no round: nothing is learned from a try. */
const LEAST_READINGS = 3;

/** A timing with where it belongs. */
interface Placed extends Timing {
  /** ISO time. */
  readonly at: string;
  readonly surveyId: string | null;
  readonly check: string | null;
}

interface RoundRow {
  readonly surveyId: string;
  readonly detail: string;
  readonly machineKind: string;
  readonly by: string;
  readonly begun: Date;
  readonly first: Date;
  readonly worked: string;
}

// The gaps between readings are added up where they lie: a shop has a hundred thousand of them.
const ROUNDS = `SELECT c.surveyId, r.kind AS detail, m.kind AS machineKind, r.\`by\`, r.at AS begun, g.first, g.worked FROM (
    SELECT roundId, MIN(at) AS first, COUNT(*) AS readings,
      SUM(IF(gap > 0 AND gap <= :pause, gap, 0)) AS worked
    FROM (
      SELECT x.roundId, x.at, TIMESTAMPDIFF(MICROSECOND, LAG(x.at) OVER (PARTITION BY x.roundId ORDER BY x.at, x.sequence), x.at) / 1000 AS gap
      FROM readings x JOIN (SELECT id FROM rounds WHERE struck IS NULL AND (:machineId IS NULL OR machineId = :machineId) ORDER BY at DESC LIMIT :most) newest ON newest.id = x.roundId
    ) gaps GROUP BY roundId
  ) g JOIN rounds r ON r.id = g.roundId JOIN checks c ON c.id = r.checkId JOIN machines m ON m.id = r.machineId WHERE g.readings >= :least`;

interface MoveRow {
  readonly surveyId: string;
  readonly check: string;
  readonly detail: string;
  readonly machineKind: string;
  readonly by: string;
  readonly begunAt: Date;
  readonly doneAt: Date;
}

const MOVES = `SELECT c.surveyId, r.kind AS \`check\`, v.kind AS detail, m.kind AS machineKind, v.\`by\`, v.begunAt, v.doneAt
  FROM moves v JOIN rounds r ON r.id = v.roundId JOIN checks c ON c.id = r.checkId JOIN machines m ON m.id = r.machineId
  WHERE v.doneAt IS NOT NULL AND (:machineId IS NULL OR m.id = :machineId) ORDER BY v.doneAt DESC LIMIT :most`;

interface PassRow {
  readonly check: string | null;
  readonly surfaceId: string;
  readonly machineKind: string;
  readonly by: string;
  readonly at: Date;
  readonly kind: string;
}

const PASSES = `SELECT JSON_VALUE(s.card, '$.aim.check') AS \`check\`, e.surfaceId, m.kind AS machineKind, e.\`by\`, e.at, e.kind FROM surface_entries e JOIN surfaces s ON s.id = e.surfaceId
  JOIN machines m ON m.id = s.machineId WHERE e.kind IN ('pass', 'blue', 'print') AND (:machineId IS NULL OR m.id = :machineId) ORDER BY e.surfaceId, e.at LIMIT 20000`;

function ofRound({ surveyId, detail, machineKind, by, begun, first, worked }: RoundRow): Placed[] {
  const setUp = setUpMinutes(begun.toISOString(), first.toISOString());
  const minutes = Number(worked) / 60_000;
  const about = { detail, machineKind, by, surveyId, check: detail, at: begun.toISOString() };
  return [
    ...(setUp === undefined ? [] : [{ work: 'setUp' as const, ...about, minutes: setUp }]),
    ...(minutes > 0 ? [{ work: 'round' as const, ...about, minutes }] : []),
  ];
}

function ofMove({ surveyId, check, detail, machineKind, by, begunAt, doneAt }: MoveRow): Placed[] {
  const minutes = moveMinutes(begunAt.toISOString(), doneAt.toISOString());
  if (minutes === undefined) return [];
  return [{ work: turnsScrew(detail) ? 'screw' : 'shim', detail, machineKind, by, minutes, surveyId, check, at: begunAt.toISOString() }];
}

/** From one pass to the next entry at the same face, by the same hand, where no pause lies between. */
function ofPasses(rows: readonly PassRow[]): Placed[] {
  return rows.slice(1).flatMap((row, i): Placed[] => {
    const before = rows[i];
    if (before.surfaceId !== row.surfaceId || row.kind !== 'pass' || before.by !== row.by) return [];
    const minutes = workedMinutes([before.at.toISOString(), row.at.toISOString()]);
    const { machineKind, by, check } = row;
    return minutes > 0 ? [{ work: 'pass', detail: '', machineKind, by, minutes, surveyId: null, check, at: row.at.toISOString() }] : [];
  });
}

async function placed(sequelize: Sequelize, machineId: string | null): Promise<readonly Placed[]> {
  const ask = <Row extends object>(sql: string): Promise<Row[]> =>
    sequelize.query<Row>(sql, {
      replacements: { most: MOST, pause: WORK_PAUSE, least: LEAST_READINGS, machineId },
      type: QueryTypes.SELECT,
    });
  const [rounds, moves, passes] = await Promise.all([ask<RoundRow>(ROUNDS), ask<MoveRow>(MOVES), ask<PassRow>(PASSES)]);
  return [...rounds.flatMap(ofRound), ...moves.flatMap(ofMove), ...ofPasses(passes)];
}

/** What was timed in this shop: set-ups, rounds, moves and passes, the newest. */
export const timings = (sequelize: Sequelize): Promise<readonly Timing[]> => placed(sequelize, null);

/** The hours of work on a machine that were timed, by survey, check and person; of passes, by the survey that ran then. */
export async function workedHours(
  sequelize: Sequelize,
  machineId: string,
  surveys: readonly { readonly id: string; readonly startedAt: string; readonly endedAt: string | null }[],
): Promise<readonly WorkedHours[]> {
  const running = (at: string): string | null =>
    surveys.findLast(({ startedAt, endedAt }) => startedAt <= at && (endedAt === null || at <= endedAt))?.id ?? null;
  const sums = new Map<string, WorkedHours>();
  for (const { surveyId, check, by, at, minutes } of await placed(sequelize, machineId)) {
    const about = { surveyId: surveyId ?? running(at), check, by };
    const key = Object.values(about).join(' ');
    sums.set(key, { ...about, minutes: (sums.get(key)?.minutes ?? 0) + minutes });
  }
  return [...sums.values()];
}
