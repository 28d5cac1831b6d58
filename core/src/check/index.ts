export { createFinding } from './createFinding';
export { checkPlan, JOB_RULES, RULES } from './checkPlan';
export { listScope, listScopeChange, type ScopeChange } from './listScope';
export type { Finding, FindingPlace, Grade } from './types';
export { listBuses, type Bus } from './power/listBuses';
