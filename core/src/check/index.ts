export { createFinding } from './createFinding';
export { checkPlan, createChecker, JOB_RULES, listLoomInputs, RULES, type Checker } from './checkPlan';
export { listScope, listScopeChange, type ScopeChange } from './listScope';
export type { Finding, FindingPlace, Grade } from './types';
export { listBuses, type Bus } from './power/listBuses';
