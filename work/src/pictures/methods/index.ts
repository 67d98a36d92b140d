import type { Drawing } from '@isometra/core';
import { barBetweenCentres } from './barBetweenCentres.js';
import { barInSpindle } from './barInSpindle.js';
import { barInVees } from './barInVees.js';
import { bedInPlan } from './bedInPlan.js';
import { columnInElevation } from './columnInElevation.js';
import { facedDisc } from './facedDisc.js';
import { headOverTable } from './headOverTable.js';
import { headstockSide } from './headstockSide.js';
import { places } from './places.js';
import { pushPull } from './pushPull.js';
import { quill } from './quill.js';
import type { MethodInputs, Scene } from './scene.js';
import { seatCorners } from './seatCorners.js';
import { squareInPlan } from './squareInPlan.js';
import { sweptCircle } from './sweptCircle.js';
import { tableInPlan } from './tableInPlan.js';
import { tailstockWay } from './tailstockWay.js';
import { turnedBar } from './turnedBar.js';
import { turretFlat } from './turretFlat.js';
import { wayFromTheSide } from './wayFromTheSide.js';

export { MANY, cleared, movedBy, type Box, type Cleared, type Lying } from './clearLabels.js';
export * from './model.js';
export { MOST_DRAWN, thinned } from './thinned.js';
export { onPaper, type Letters } from './onPaper.js';
export { SCENE_WIDTH } from './scene.js';
export type * from './scene.js';

/** Drawings of methods by the name that a check asks for. */
export const METHOD_DRAWINGS: Readonly<Record<Drawing, (inputs: MethodInputs) => Scene>> = {
  'bar-between-centres': barBetweenCentres,
  'turned-bar': turnedBar,
  'bed-in-plan': bedInPlan,
  'way-from-the-side': wayFromTheSide,
  'table-in-plan': tableInPlan,
  'turret-flat': turretFlat,
  'tailstock-way': tailstockWay,
  quill,
  'column-in-elevation': columnInElevation,
  'faced-disc': facedDisc,
  'bar-in-vees': barInVees,
  'push-pull': pushPull,
  'bar-in-spindle': barInSpindle,
  'head-over-table': headOverTable,
  'headstock-side': headstockSide,
  'seat-corners': seatCorners,
  'square-in-plan': squareInPlan,
  'swept-circle': sweptCircle,
  places,
};

/** How a check is read, drawn as its picture asks for. */
export const drawMethod = (inputs: MethodInputs): Scene => METHOD_DRAWINGS[inputs.picture.drawing](inputs);
