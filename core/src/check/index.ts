export { createFinding } from './createFinding';
export { checkPlan, RULES } from './checkPlan';
export type { Finding, FindingPlace, Grade } from './types';
