export { createBuild, type LoomBuild } from './createBuild';
export { dropOvertaken, type SeenTick } from './dropOvertaken';
export { listCardSteps, toPost } from './steps/listCardSteps';
export type { FloorKind } from './floor/kinds';
export { listLanes, listTouching, readLane, toLane, toLaneName } from './floor/lanes';
export { listClaims, type Claim, type FloorDeed } from './floor/listClaims';
export { ANSWER_WORDS, isAnswer, PROBLEM_ANSWERS, type ProblemAnswer } from './floor/answers';
export { listEndCheck } from './floor/listEndCheck';
export { createHandover, toHandoverLine, toWaitingLine, type Handover } from './floor/createHandover';
export { isDoubtful, isPinning, listInHand, toHandState, type Asking, type HandDeed, type InHand, type HandState } from './floor/inHand';
export { listWork, type Work, type WorkState } from './floor/listWork';
export {
  isRungOut,
  measureProgress,
  NOTHING_CARRIED,
  type KnownReading,
  type ProgressDeed,
  type ProvedStep,
  type StepProgress,
} from './floor/measureProgress';
export { findNext, findResume } from './floor/findNext';
export { holdChanged } from './floor/holdChanged';
export { isWorkOrder, ORDER_WORDS, orderWork, WORK_ORDERS, type WorkOrder } from './floor/orders';
export { listTesters } from './listTesters';
export { createInspector, listFindings } from './createInspector';
export type { ContinuityRow } from './listContinuity';
export { listBreak, type BreakRow, type BreakSide } from './listBreak';
export { findDressed } from './steps/listDressSteps';
export { HAZARD_CAUTIONS } from './cautions';
export { toPlaceWords } from './steps/addTaskSteps';
export { findLaidLayer } from './steps/listLayupSteps';
export { listFillers, type FillerCut } from './listFillers';
export { listCutPieces, type CutGroup, type CutPiece } from './listCuts';
export { listTrims, type Trim, type TrimGroup } from './listTrims';
export type { PartLine } from './listParts';
export { listUses } from './listUses';
export { toCostWords } from './toCostWords';
export { orderSteps } from './orderSteps';
export { toOhmWords, toPartWords, toMeterReading } from './toMeterReading';
export {
  carryOver,
  createUndoStep,
  listDifferences,
  UNDO_STEP,
  type CarriedWork,
  type FloorTick,
  type ReopenedItem,
  type RevisionWork,
  type UndoItem,
} from './carryOver';
export { OPERATIONS, type Operation, type Ask, type Step, type StepItem, type ExpectedReading } from './step';
export { isPassing, listFailed, toLimitWords, type TakenReading } from './judgeReadings';
export { listCrimpKinds, type CrimpKind } from './listCrimpKinds';
export { CURE, POURED } from './steps/listPotSteps';
export { findScreen } from './steps/listScreenSteps';
export * from './board';
export * from './crimp';
export * from './firstPower';
export * from './milestones';
export * from './prove';
export * from './times';
