import type { CheckDefinition } from './define.js';
import { defineTraverse } from './generalTraverse.js';
import { ACROSS } from './words.js';

/** Whether the table travels straight along one of its axes, against a straightedge that is turned over. */
export function motionStraightness(axis: 'x' | 'y'): CheckDefinition {
  return defineTraverse({
    id: `motion-straightness-${axis}`,
    title: `Motion along ${axis}`,
    question: `Does the table travel straight along ${axis}?`,
    choose: 'With a straightedge turned over, so that its own error drops out.',
    machines: ['mill'],
    subject: `Set-up along ${axis}`,
    words: ACROSS,
    range: [null, 10],
    rangePer: 300,
    moves: [],
    picture: { drawing: 'table-in-plan', words: { shows: 'edge', along: axis } },
    hangsOn: ['table-level'],
    after: axis === 'x' ? ['table-parallelism-y'] : ['motion-straightness-x'],
    cannotSee: ['The straightedge, unless it is turned over.'],
    advice: ['Clamp the straightedge at two places a fifth from its ends.'],
  });
}
