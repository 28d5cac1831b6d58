export { createFinding } from './createFinding';
export { checkPlan, createChecker, JOB_RULES, listLoomInputs, RULES, type Checker } from './checkPlan';
export { listScope, listScopeChange, type ScopeChange } from './listScope';
export { REGISTER, type FindingStation, type Grade, type RuleCode } from './register';
export type { Finding, FindingPlace } from './types';
export { listBuses, type Bus } from './power/listBuses';
