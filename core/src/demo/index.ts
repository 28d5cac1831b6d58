export { createFenRanger } from './createFenRanger';
export { createInlet, createSkerry } from './createSkerry';
export { ENGINE_SURVEY, type SurveyLine } from './engineSurvey';
