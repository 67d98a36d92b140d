import { RESEATED } from '../reseating.js';
import { defineCheck } from '../define.js';
import { sizeUpTo } from '../quantities.js';
import { barParts, runoutShared, runoutSlots } from '../runoutCheck.js';

export const spindleRunout = defineCheck({
  ...runoutShared,
  id: 'spindle-runout',
  title: 'Spindle runout',
  question: 'Do nose, taper and face run true?',
  choose: 'After the bearings, before the axis: what runs out here is in everything held by the spindle.',
  machines: ['lathe', 'mill', 'turning-centre'],
  quantities: {
    noseRadial: sizeUpTo('Nose runout', 10),
    taperNear: sizeUpTo('Taper at its mouth', 10),
    taperFar: sizeUpTo('Taper at the far end', 20, { over: { length: 300, least: 10 } }),
    face: sizeUpTo('Face runout', 10),
    axialSlip: sizeUpTo('Slip along the axis', 10),
    ...barParts,
  },
  lengthOf: (setup) => setup.farDistance,
  slots: (_setup, plan) => runoutSlots(['noseRadial', 'taperNear', 'taperFar', 'face', 'axialSlip'], plan),
  hangsOn: ['bed-twist', 'table-level', 'seat', 'spindle-play'],
  rests: ['headstock', 'column'],
  after: ['column-lean'],
  // The nose and its face are swept where they are: only the bar in the taper is seated again.
  reseatSpreadFor: (quantity) => (quantity.startsWith('taper') ? RESEATED : 0),
  reseat: 'Take the bar out, wipe the taper, put it back and read again',
  cannotSee: ['The bar, unless it is taken out, turned half round and put back.'],
  advice: ['Clean the taper until a finger squeaks on it.', 'Note where the high place is: runouts are vectors.'],
});
