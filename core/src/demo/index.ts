export { createFenRanger } from './createFenRanger';
export { createInlet, createCleanSkerry, createSkerry } from './createSkerry';
export { ENGINE_SURVEY, type SurveyLine } from './engineSurvey';
