import { defineTraverse } from '../generalTraverse.js';
import { WAY } from '../parts.js';

export const tailstockWayParallelism = defineTraverse({
  id: 'tailstock-way-parallelism',
  title: 'Tailstock way',
  question: 'Does the tailstock way run parallel to the carriage way?',
  choose: 'Before the tailstock itself: where its way wanders, it is in line at one place only.',
  machines: ['lathe', 'turning-centre'],
  needs: ['tailstock'],
  subject: 'Tailstock way',
  slope: [-20, 20],
  range: [null, 10],
  part: WAY,
  moves: ['pull', 'scrape'],
  picture: { drawing: 'tailstock-way' },
  hangsOn: ['bed-twist', 'way-straightness'],
  cannotSee: ['A way and a carriage way that are bent alike.'],
  advice: [
    'Carry the indicator on the carriage, its stylus on the unworn part of the tailstock way first.',
    'Read both the top and the side of the way, each as a round of its own.',
  ],
});
