import { defineTraverse } from '../generalTraverse.js';
import { SLOT } from '../parts.js';
import { ACROSS } from '../words.js';

export const slotParallelism = defineTraverse({
  id: 'slot-parallelism',
  title: 'Table slot',
  question: 'Does the middle slot run parallel to the table travel?',
  choose: 'Before keys and vices are trusted.',
  machines: ['mill'],
  subject: 'Table slot',
  words: ACROSS,
  slope: [-50, 50],
  knows: [{ quantity: 'slope', name: 'slot' }],
  part: SLOT,
  moves: ['scrape', 'table-turn'],
  picture: { drawing: 'table-in-plan', words: { shows: 'slot', along: 'x' } },
  hangsOn: ['table-level', 'axis-squareness'],
  cannotSee: ['Burrs and dings in the slot: stone it first.'],
  advice: ['Ride on the side of the slot that keys bear on.'],
});
