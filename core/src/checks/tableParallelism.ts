import type { CheckDefinition } from './define.js';
import { defineTraverse } from './generalTraverse.js';
import { readWithLeaves } from './leaves.js';
import { tableAlong } from './parts.js';

/** Whether the table runs level under the spindle along one of its axes. `far` is the side to which it is + . */
export function tableParallelism(axis: 'x' | 'y', far: string): CheckDefinition {
  const traverse = defineTraverse({
    id: `table-parallelism-${axis}`,
    title: `Table along ${axis}`,
    question: `Does the table run level under the spindle along ${axis}?`,
    choose: 'Before anything on the table is trusted.',
    machines: ['mill'],
    subject: `Table along ${axis}`,
    words: {
      plus: `rising toward the ${far}`,
      minus: `falling toward the ${far}`,
      movePlus: `up at the ${far} end`,
      moveMinus: `down at the ${far} end`,
      arrow: ['up', 'down'],
      raised: axis === 'x' ? ['the right end', 'the left end'] : ['the column end', 'the front end'],
    },
    slope: [-30, 30],
    range: [null, 15],
    part: tableAlong(axis),
    moves: ['scrape', 'truck-lift'],
    sided: false,
    // Rows lie beside each other toward the column, or to the right.
    grid:
      axis === 'x'
        ? {
            plus: 'rising toward the column',
            minus: 'falling toward the column',
            movePlus: 'up at the column end',
            moveMinus: 'down at the column end',
          }
        : {
            plus: 'rising toward the right',
            minus: 'falling toward the right',
            movePlus: 'up at the right end',
            moveMinus: 'down at the right end',
          },
    picture: { drawing: 'table-in-plan', words: { shows: 'table', along: axis } },
    hangsOn: ['table-level', 'knee-gib-play', 'saddle-gib-play', 'table-gib-play'],
    after: axis === 'x' ? ['dovetail-over-pins'] : ['table-parallelism-x'],
    knows: [{ quantity: 'slope', name: axis === 'x' ? 'tableX' : 'tableY' }],
    cannotSee: ['A table that is bent like its way.'],
    advice: ['Lock the other axes. Indicator in the spindle, at rest.', 'Stone burrs off the table first.'],
  });
  return readWithLeaves(traverse, {
    under: 'the edge',
    label: 'Read the gap under an edge on the spindle with leaves, without a dial',
  });
}
