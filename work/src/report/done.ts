import { CHECKS, MOVES } from '@isometra/core';
import type { MoveWrite, PrintResult } from '@isometra/contract';
import { judgedMoves } from '../judging/moves.js';
import { isMade } from '../notebook/doneMoves.js';
import { counted, moveWords } from '../said/said.js';
import { learnedOn } from '../scraping/desk.js';
import { metalTaken } from '../scraping/metal.js';
import { moveRecord } from '../story/moveTold.js';
import type { Block, TableRow } from './blocks.js';
import { heading, text, title, type Pen, type ReportFacts } from './pen.js';

/** What went under a part: leaves, one by one. */
function leavesWords({ made, plan }: MoveWrite, pen: Pen): string {
  const leaves =
    made?.wentIn ?? (Array.isArray(plan['leaves']) ? (plan['leaves'] as unknown[]).filter((leaf) => typeof leaf === 'number') : []);
  return leaves.map(pen.size).join(', ');
}

/** What was moved, and what that did. */
export function moves({ heads, survey }: ReportFacts, checks: readonly string[], pen: Pen): Block[] {
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
export function metal({ surfaces = [], survey }: ReportFacts, pen: Pen): Block[] {
  const learned = learnedOn(surfaces);
  const rows = surfaces
    .flatMap((surface) => {
      const told = metalTaken(surface, { from: survey.startedAt, to: survey.endedAt }, learned);
      return told ? [{ surface, told }] : [];
    })
    .sort((one, other) => one.told.from.localeCompare(other.told.from))
    .map(({ surface: { name, aim }, told: { passes, blues, least, most, by, from, to, print } }): TableRow => {
      const off = [...new Set([pen.size(least), pen.size(most)])].join(' to ');
      return {
        cells: [
          [name, aim ? `for “${title(aim.check)}”` : ''].filter(Boolean).join(', '),
          `${pen.days(from, to)}, ${by.map(pen.who).join(', ')}`,
          [counted(passes, 'pass'), blues ? `blued ${counted(blues, 'time')}` : ''].filter(Boolean).join(', '),
          `about ${off}`,
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

function spotsWords(print: PrintResult | null): string {
  if (!print) return 'none was read';
  const { spotsPerSquare, bearingShare } = print;
  const told = [
    spotsPerSquare === null ? '' : `${spotsPerSquare.toFixed(0)} spots per square`,
    bearingShare === null ? '' : `${Math.round(100 * bearingShare)} % bears`,
  ];
  return told.filter(Boolean).join(', ') || 'read by eye';
}
