import type { CheckDefinition } from './define.js';
import { barQualification } from './catalogue/barQualification.js';
import { bedTwist } from './catalogue/bedTwist.js';
import { columnLean } from './catalogue/columnLean.js';
import { dovetailOverPins } from './catalogue/dovetail.js';
import { headTram } from './catalogue/headTram.js';
import { chuckTestCut } from './catalogue/chuckTestCut.js';
import { crossSlideSquareness } from './catalogue/crossSlideSquareness.js';
import { quillParallelism } from './catalogue/quillParallelism.js';
import * as plays from './catalogue/plays.js';
import { spindleAxis } from './catalogue/spindleAxis.js';
import { centreRunout, spindlePlay, spindleRunout } from './catalogue/spindleParts.js';
import { axisSquareness, saddleSquareness } from './catalogue/squares.js';
import { guideBush, subSpindle, turretBore } from './catalogue/sweeps.js';
import { tableLevel } from './catalogue/tableLevel.js';
import { tailstockSweep } from './catalogue/tailstockSweep.js';
import { tailstockTestCut } from './catalogue/tailstockTestCut.js';
import { tailstockTraverse } from './catalogue/tailstockTraverse.js';
import * as traverses from './catalogue/traverses.js';
import { wayStraightness } from './catalogue/wayStraightness.js';

/** In working order: what is wrong with one is in all that follow. */
const ALL: readonly CheckDefinition[] = [
  plays.stiffness,
  bedTwist,
  tableLevel,
  wayStraightness,
  traverses.tailstockWayParallelism,
  barQualification,
  plays.seat,
  plays.kneeGibPlay,
  plays.saddleGibPlay,
  plays.tableGibPlay,
  traverses.tableParallelismX,
  traverses.tableParallelismY,
  traverses.motionStraightnessX,
  traverses.motionStraightnessY,
  axisSquareness,
  traverses.slotParallelism,
  columnLean,
  spindlePlay,
  spindleRunout,
  spindleAxis,
  chuckTestCut,
  centreRunout,
  quillParallelism,
  tailstockTraverse,
  tailstockSweep,
  tailstockTestCut,
  saddleSquareness,
  dovetailOverPins,
  crossSlideSquareness,
  traverses.turretFace,
  turretBore,
  guideBush,
  subSpindle,
  headTram,
  traverses.viceParallelism,
];

/** Every check that can be solved, by id. */
export const CHECKS: ReadonlyMap<string, CheckDefinition> = new Map(ALL.map((check) => [check.id, check]));
