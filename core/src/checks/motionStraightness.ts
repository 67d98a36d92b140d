import type { CheckDefinition } from './define.js';
import { defineTraverse } from './generalTraverse.js';
import { ACROSS } from './words.js';

/** How a straightedge to the column lies: which way, nobody needs to know. */
const SLANTED = { plus: 'askew one way', minus: 'askew the other way', movePlus: 'one way', moveMinus: 'the other way' };

/** Whether the table travels straight along one of its axes, against a straightedge that is turned over. */
export function motionStraightness(axis: 'x' | 'y'): CheckDefinition {
  return defineTraverse({
    id: `motion-straightness-${axis}`,
    title: `Motion along ${axis}`,
    question: `Does the table travel straight along ${axis}?`,
    choose: 'With a straightedge turned over, so that its own error drops out.',
    machines: ['mill'],
    subject: `Set-up along ${axis}`,
    ...(axis === 'x' ? { words: ACROSS } : { words: SLANTED, sided: false }),
    range: [null, 10],
    rangePer: 300,
    moves: [],
    straightened: ['rail-align'],
    picture: { drawing: 'table-in-plan', words: { shows: 'edge', along: axis } },
    hangsOn: ['table-level'],
    after: axis === 'x' ? ['table-parallelism-y'] : ['motion-straightness-x'],
    cannotSee: ['The straightedge, unless it is turned over.'],
    advice: ['Clamp the straightedge at two places a fifth from its ends.'],
  });
}
