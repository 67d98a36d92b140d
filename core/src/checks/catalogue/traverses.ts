import { LATERAL, type Words } from '../define.js';
import { defineTraverse } from '../generalTraverse.js';
import { SLOT, TABLE, TURRET, VICE, WAY } from '../../moves/parts.js';

const TAILSTOCK = ['tailstock-traverse', 'tailstock-sweep', 'tailstock-test-cut', 'quill-parallelism'];
const hollow: Words = {
  plus: 'facing hollow',
  minus: 'facing crowned',
  movePlus: 'so that it faces more hollow',
  moveMinus: 'so that it faces less hollow',
};
const across: Words = {
  ...LATERAL,
  plus: 'coming toward the stylus along the travel',
  minus: 'going away from the stylus along the travel',
};

export const tailstockWayParallelism = defineTraverse({
  id: 'tailstock-way-parallelism',
  title: 'Tailstock way',
  question: 'Does the tailstock way run parallel to the carriage way?',
  choose: 'Before the tailstock itself: where its way wanders, it is in line at one place only.',
  machines: ['lathe', 'turning-centre'],
  subject: 'Tailstock way',
  slope: [-20, 20],
  range: [null, 10],
  part: WAY,
  moves: ['pull', 'scrape'],
  upsets: TAILSTOCK,
  cannotSee: ['A way and a carriage way that are bent alike.'],
  advice: [
    'Carry the indicator on the carriage, its stylus on the unworn part of the tailstock way first.',
    'Read both the top and the side of the way, each as a round of its own.',
  ],
});

export const turretFace = defineTraverse({
  id: 'turret-face',
  title: 'Turret face',
  question: 'Is the face of the turret square to the travel?',
  choose: 'Before its pockets: a face that is off tips every pocket.',
  machines: ['turning-centre'],
  subject: 'Turret face',
  words: hollow,
  slope: [-50, 50],
  part: TURRET,
  moves: ['shim-leaves', 'scrape'],
  upsets: ['turret-bore'],
  cautions: ['A turret indexes without warning: lock out before hands go in.'],
  cannotSee: ['An error of the indexing itself: read more than one face.'],
  advice: ['Index away and back before reading, as it is used.'],
});

const table = (axis: 'x' | 'y', far: string) =>
  defineTraverse({
    id: `table-parallelism-${axis}`,
    title: `Table along ${axis}`,
    question: `Does the table run level under the spindle along ${axis}?`,
    choose: 'Before anything on the table is trusted.',
    machines: ['mill'],
    subject: `Table along ${axis}`,
    words: {
      plus: `rising toward the ${far}`,
      minus: `falling toward the ${far}`,
      movePlus: `raise the ${far} end`,
      moveMinus: `lower the ${far} end`,
    },
    slope: [-30, 30],
    range: [null, 15],
    part: TABLE,
    moves: ['scrape'],
    upsets: ['column-lean', 'head-tram'],
    cannotSee: ['A table that is bent like its way.'],
    advice: ['Lock the other axes. Indicator in the spindle, at rest.', 'Stone burrs off the table first.'],
  });
export const tableParallelismX = table('x', 'right');
export const tableParallelismY = table('y', 'column');

const motion = (axis: 'x' | 'y') =>
  defineTraverse({
    id: `motion-straightness-${axis}`,
    title: `Motion along ${axis}`,
    question: `Does the table travel straight along ${axis}?`,
    choose: 'With a straightedge turned over, so that its own error drops out.',
    machines: ['mill'],
    subject: `Set-up along ${axis}`,
    words: across,
    range: [null, 10],
    rangePer: 300,
    moves: [],
    upsets: ['axis-squareness'],
    cannotSee: ['The straightedge, unless it is turned over.'],
    advice: ['Clamp the straightedge at two places a fifth from its ends.'],
  });
export const motionStraightnessX = motion('x');
export const motionStraightnessY = motion('y');

export const slotParallelism = defineTraverse({
  id: 'slot-parallelism',
  title: 'Table slot',
  question: 'Does the middle slot run parallel to the table travel?',
  choose: 'Before keys and vices are trusted.',
  machines: ['mill'],
  subject: 'Table slot',
  words: across,
  slope: [-50, 50],
  part: SLOT,
  moves: ['scrape'],
  upsets: ['vice-parallelism'],
  cannotSee: ['Burrs and dings in the slot: stone it first.'],
  advice: ['Ride on the side of the slot that keys bear on.'],
});

export const viceParallelism = defineTraverse({
  id: 'vice-parallelism',
  title: 'Vice jaw',
  question: 'Does the fixed jaw run parallel to the travel?',
  choose: 'Last: it hangs on everything before.',
  machines: ['mill'],
  subject: 'Vice jaw',
  words: across,
  slope: [-50, 50],
  part: VICE,
  moves: ['adjuster'],
  upsets: [],
  cannotSee: ['A jaw that lifts or swings when the vice is closed.'],
  advice: ['Close the vice on a parallel as it is used, then read the fixed jaw.'],
});
