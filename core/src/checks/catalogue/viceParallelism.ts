import { defineTraverse } from '../generalTraverse.js';
import { VICE } from '../parts.js';
import { ACROSS } from '../words.js';

export const viceParallelism = defineTraverse({
  id: 'vice-parallelism',
  title: 'Vice jaw',
  question: 'Does the fixed jaw run parallel to the travel?',
  choose: 'Last: it depends on every check before it.',
  machines: ['mill'],
  subject: 'Vice jaw',
  words: ACROSS,
  slope: [-50, 50],
  knows: [{ quantity: 'slope', name: 'vice' }],
  part: VICE,
  moves: ['adjuster'],
  picture: { drawing: 'table-in-plan', words: { shows: 'jaw', along: 'x' } },
  hangsOn: ['table-level', 'axis-squareness', 'slot-parallelism'],
  after: ['head-tram'],
  cannotSee: ['A jaw that lifts or swings when the vice is closed.'],
  advice: ['Close the vice on a parallel as it is used, then read the fixed jaw.'],
});
