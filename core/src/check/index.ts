export { createFinding } from './createFinding';
export { checkPlan, createChecker, JOB_RULES, listLoomInputs, RULES, type Checker } from './checkPlan';
export { REGISTER, type FindingStation, type Grade, type RuleCode } from './register';
export type { Finding, FindingPlace } from './types';
export { listBuses, toTermination, type Bus } from './circuits/listBuses';
export { listBoxUse, type BoxUse } from './circuits/listBoxUse';
export { listNetsAt, measurePartHeat } from './circuits/measurePartHeat';
export { isHeldInPlan } from './survey/checkOpenAnchors';
export { isBegun } from './isBegun';
