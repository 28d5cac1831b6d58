export { createBuild, listFindings, type LoomBuild } from './createBuild';
export type { ContinuityRow } from './listContinuity';
export { listBreak, type BreakRow, type BreakSide } from './listBreak';
export { listCutPieces, type CutGroup, type CutPiece } from './listCuts';
export { listTrims, type Trim, type TrimGroup } from './listTrims';
export type { PartLine } from './listParts';
export { orderSteps } from './orderSteps';
export { toOhmWords, toPartWords, toReading } from './toReading';
export { OPERATIONS, type Operation, type Step, type StepItem } from './step';
