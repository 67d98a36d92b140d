import type { CheckDefinition } from '../define.js';
import { axisSquareness } from './axisSquareness.js';
import { barQualification } from './barQualification.js';
import { bedTwist } from './bedTwist.js';
import { centreRunout } from './centreRunout.js';
import { chuckTestCut } from './chuckTestCut.js';
import { columnLean } from './columnLean.js';
import { crossSlideSquareness } from './crossSlideSquareness.js';
import { dovetailOverPins } from './dovetailOverPins.js';
import { guideBush } from './guideBush.js';
import { headTram } from './headTram.js';
import { hinge } from './hinge.js';
import { kneeGibPlay } from './kneeGibPlay.js';
import { motionStraightnessX } from './motionStraightnessX.js';
import { motionStraightnessY } from './motionStraightnessY.js';
import { quillParallelism } from './quillParallelism.js';
import { saddleGibPlay } from './saddleGibPlay.js';
import { saddleSquareness } from './saddleSquareness.js';
import { seat } from './seat.js';
import { slotParallelism } from './slotParallelism.js';
import { spindleAxis } from './spindleAxis.js';
import { spindlePlay } from './spindlePlay.js';
import { spindleRunout } from './spindleRunout.js';
import { stiffness } from './stiffness.js';
import { subSpindle } from './subSpindle.js';
import { tableGibPlay } from './tableGibPlay.js';
import { tableLevel } from './tableLevel.js';
import { tableParallelismX } from './tableParallelismX.js';
import { tableParallelismY } from './tableParallelismY.js';
import { tailstockSweep } from './tailstockSweep.js';
import { tailstockTestCut } from './tailstockTestCut.js';
import { tailstockTraverse } from './tailstockTraverse.js';
import { tailstockWayParallelism } from './tailstockWayParallelism.js';
import { turretBore } from './turretBore.js';
import { turretFace } from './turretFace.js';
import { viceParallelism } from './viceParallelism.js';
import { wayStraightness } from './wayStraightness.js';

/** Every check. Their working order follows from what each depends on, not from this list. */
export const CATALOGUE: readonly CheckDefinition[] = [
  axisSquareness,
  barQualification,
  bedTwist,
  centreRunout,
  chuckTestCut,
  columnLean,
  crossSlideSquareness,
  dovetailOverPins,
  guideBush,
  headTram,
  hinge,
  kneeGibPlay,
  motionStraightnessX,
  motionStraightnessY,
  quillParallelism,
  saddleGibPlay,
  saddleSquareness,
  seat,
  slotParallelism,
  spindleAxis,
  spindlePlay,
  spindleRunout,
  stiffness,
  subSpindle,
  tableGibPlay,
  tableLevel,
  tableParallelismX,
  tableParallelismY,
  tailstockSweep,
  tailstockTestCut,
  tailstockTraverse,
  tailstockWayParallelism,
  turretBore,
  turretFace,
  viceParallelism,
  wayStraightness,
];
