// What server, web and command line build on. Nothing of the solvers' insides.
export { DIMENSIONS, isInchUnit, type Dimension } from './units/dimensions.js';
export { readNumber } from './units/number.js';
export { hasUnit, parseQuantity, type Parsed } from './units/parse.js';
export { placesLine, readPlaces } from './input/placeTexts.js';
export { FILE_SIZES, sentence, sizesIn, type Said, type SizeWriter } from './units/said.js';
export { fixed, formatQuantity, prettyUnit, showSize, shownIn, sizeParts, type Fineness, type UnitSystem } from './units/format.js';

export { FaultError, faultsOf, listedFaults, nearest, pathText, unknownKey, type Fault } from './input/faults.js';
export {
  askedUnit,
  bareSchema,
  choice,
  count,
  fieldInfo,
  fieldAt,
  fieldPath,
  fieldRegistry,
  measure,
  optionalMeasure,
  optionalText,
  optionalNumber,
  placeList,
  plainNumber,
  quantitySchema,
  type FieldInfo,
} from './input/fields.js';

export {
  dialFactor,
  hasNeedle,
  instrumentSchema,
  instrumentSchemaFor,
  KINDS_FOR,
  readableStep,
  readInstrument,
  type Instrument,
  type InstrumentKind,
  type ValueKind,
} from './instruments/instrument.js';
export { dialDivisions, readingValue, type SpokenBase } from './instruments/reading.js';
export { groupReadings, placesOf, type Conditions, type Reading, type Slot, type Values } from './instruments/slots.js';

export { heldPush, heldSag, MATERIALS, type Material, type RoundBar } from './gravity/bars.js';
export { otherBars, sagSlope, type OtherBar } from './gravity/otherBars.js';

export {
  plannedKind,
  readsOf,
  type Beside,
  type CheckDefinition,
  type Correction,
  type Drawing,
  type Fact,
  type HelpAct,
  type MachineFamily,
  type MachineFeature,
  type Note,
  type Picture,
  type PlannedSlot,
  type QuantityInfo,
  type Severity,
  type Target,
  type Way,
  type Words,
  type Zone,
  reseats,
} from './checks/define.js';
export type { HeightAt } from './checks/estimate.js';
export { spotOf, toYou, type Spot } from './checks/persons.js';
export { DOUBTS, type DoubtCode } from './checks/doubts.js';
export type { Part } from './checks/parts.js';
export { CHECKS } from './checks/registry.js';
export { material } from './checks/setupFields.js';
export { diagonalDifference } from './checks/squareCheck.js';
export { trialCuts } from './checks/trialCuts.js';

export { COARSE_STEPS, type CoarseStep } from './ladders/coarse.js';
export { HAND_STEPS, type HandStep } from './ladders/handSteps.js';
export { bearingsFirst, LADDERS, misplaced, misplacedText, upsetBy, upsets, withBearings } from './ladders/ladders.js';

export type { BudgetLine, Uncertainty } from './judging/budget.js';
export { CONDITION_NAMES, differences, disagreements, taperEccentricity, type Disagreement, type MethodResult } from './judging/compare.js';
export { doubtOfDifference, finenessFor, type Fineness95 } from './judging/finder.js';
export { FINDING_FORMAT, type Finding, type Move, type NeedleTarget, type Quantity } from './judging/finding.js';
export { judgeMove, GAIN_RANGE, isUsableGain, learnedGain, type MoveResult, type Outcome } from './judging/gain.js';
export { helpsFor } from './checks/helps.js';
export { whatHelps, type Help, type HelpFacts } from './judging/helps.js';
export { JOB_KINDS, type JobKind, type JobLimit } from './judging/jobLimits.js';
export { judgedBy, limitable, lineName, LIMITS_FORMAT, readLimitSheet, type LimitLine, type LimitSheet } from './judging/limitSheet.js';
export type { DrawnUncertainty, MonteCarloRun } from './judging/monteCarlo.js';
export {
  CHANGE_KINDS,
  drift,
  effectOf,
  plannedChangeSchema,
  sumOf,
  NO_EFFECT,
  type AxisEffect,
  type ChangeKind,
  type PlannedChange,
} from './judging/planned.js';
export { placeWords, saysWhole } from './judging/placeWords.js';
export { STARTING_SHEETS, startingSheet, type StartingSheet } from './judging/starting.js';
export { trendOf, YEAR, type Leaving, type Trend, type TrendPoint } from './judging/trend.js';
export { insideZone } from './checks/zone.js';
export { defaultAim, usualAim, verdictOf, zoneWidth, type Verdict } from './judging/verdict.js';
export { effectOnWork, type TailstockUse, type WorkEffect } from './judging/work.js';
export { lengthRead, startingZone, variantOf, zoneOver, type LimitRule } from './judging/zones.js';

export { meanPivot, nodLanding, nodOf, nodTarget, nodTravel, nodWays, type NodWay, type Sides } from './moves/nodWays.js';
export type { DialOf, HardwareFacts, MoveDefinition, MovePlan, ScrewsOnCard } from './moves/define.js';
export { footCard, footSchema, type Foot } from './moves/foot.js';
export { suits, type Suits } from './moves/suits.js';
export { baseSchema, baseShimThickness, type TailstockBase } from './moves/baseShims.js';
export { turnEccentric } from './moves/eccentric.js';
export { FOOTPRINTS, footFaces, footprint, type FootprintFacts, type FootprintKind } from './moves/footprints.js';
export { afterHead, type AfterHead, type BeforeHead, type NoseShift } from './moves/headMove.js';
export type { JobDrawing, LevelWay } from './moves/drawing.js';
export { isZero, type JobFacts, type JobStep, type PlanWords, type StepFacts } from './moves/jobSteps.js';
export { proofCut, type PadSizes, type ProofCut } from './judging/proofCut.js';
export { alongBed, type AlongBed, type PlaceRead } from './judging/alongBed.js';
export { divisionsPer, movedBy, stopAt, usualShift, type MoveDial, type ScrewRule, type UsualShift } from './moves/screwDial.js';
export { displacement, FRAMES, type Frame, type Pose, type Vector } from './moves/pose.js';
export { crossOrder, USUAL_BOLTS } from './moves/headSteps.js';
export { gibNext, screwOrder, type GibFelt, type GibNext } from './moves/gib.js';
export { jobDrawing, jobSteps, MOVE_FORMAT, MOVES, PLAN_FORMAT, planFor, planMove, planWithSteps, planWords } from './moves/registry.js';
export { chooseLeaves, planLeavesWords, stockSchema, type Stock } from './moves/leaves.js';
export { learnStandIn, mustTie, TIE_EVERY, type StandIn, type Tie } from './moves/standIn.js';
export { isLargeChange } from './moves/storedOffset.js';
export { bearingShims } from './moves/bearingShims.js';
export { tramPivot } from './moves/tramPivot.js';
export { supports, supportSchema, type Support } from './moves/supports.js';
export type { RecheckMeaning } from './moves/rechecks.js';
export { shimTemplate, templateDxf, templateSvg, type ShimOutline, type Template } from './moves/template.js';

export { monteCarlo } from './solve/draws.js';
export { refuseDeep } from './input/depth.js';
export { pooledSpread, poolSpreads, type SetupSpread } from './judging/budget.js';
export { readSheet, SHEET_FORMAT, type Sheet } from './solve/sheet.js';
export type { MoveFile, WantedMove } from './solve/correct.js';
export { moveFiles, solve, solveSheet, type SolveContext } from './solve/solve.js';
export { wayProfile, type WayProfile } from './solve/wayProfile.js';

export { planeToScrape, pricesOf, type PlacePoint } from './scraping/planeToScrape.js';
export { joinBites, type BitePlace } from './scraping/bites.js';
export { flankCall, flankDepth, type FlankCall, type FlankGuilt, type FlankTurn, type ProudPlace } from './scraping/flanks.js';
export { cyclesAnEvening, cyclesLeft, eveningsFor, type Expected } from './scraping/cycles.js';
export { zonePasses, type ZonePasses } from './scraping/zonePasses.js';
export { pivotsOf, PRINT_ROOM, printAgrees, type Band } from './scraping/pivots.js';
export { countedOver, SPOT_TARGETS, SQUARE, spotCall, TOO_MUCH_BLUE, type SpotCall } from './scraping/spotCall.js';
export { stripPlan, type StripPlan } from './scraping/strips.js';
export { gripOf } from './checks/grips.js';
export { median } from './fit/median.js';
export { askedBack, bareUnit, exampleFor, readTyped, type Figures } from './input/typed.js';
