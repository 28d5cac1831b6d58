export {
  CRIMP_STEP,
  isChangeover,
  isCrimpStep,
  CRIMPED_AT,
  toPlaceKey,
  LOOK_WORDS,
  SAMPLE_LOOKS,
  SAMPLE_REASONS,
  CHANGEOVERS,
  toChangeoverWords,
  toToolWords,
  type CrimpPlace,
  type CrimpSample,
  type CrimpSeries,
  type SampleLook,
  type SampleReason,
  type SampleSet,
  type Changeover,
} from './types';
export { joinSeries, listCrimpSeries } from './listCrimpSeries';
export { judgeSamples, type SampleVerdict } from './judgeSamples';
export { followCrimps, type CrimpAsking, type CrimpDeed, type CrimpStates, type Quarantine, type SeriesState } from './followCrimps';
export { toToolGate, type BenchTool, type ToolGate } from './toolGates';
export { findBar, toDueWords } from './findBar';
export { listShort, toShortWords, type ShortCrimp } from './listShort';
export { SampleSetSchema } from './sampleSchema';
