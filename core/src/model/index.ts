export { applyEdit, changeDocument, editDocument, listOperations, type EditOperation } from './applyEdit';
export { isOverlap } from './isOverlap';
export { checkIntegrity, type CatalogueLookup } from './checkIntegrity';
export { checkJob } from './checkJob';
export { checkSchema } from './checkSchema';
export { CIRCUIT_KINDS, createCircuit, type Circuit, type CircuitKind, type Termination } from './circuit';
export { COLOUR_NAMES, toColourWords, type Colour, type ColourName } from './colour';
export { createEnd, type DevicePin, type End } from './end';
export { ConnectorFamilySchema, listCavities, type ConnectorFamily } from './family';
export { createJob, FORMAT, FORMAT_VERSION, JobSchema, type Job } from './job';
export { createLoom, type Loom, type SplicePin } from './loom';
export { MIGRATIONS, toPresentFormat, type Migration } from './migrations';
export { createNode, type LoomNode } from './node';
export { toProblemLines, type Checked, type Problem } from './problem';
export {
  COVERING_KINDS,
  createSegment,
  LENGTH_STATUSES,
  MEASURE_METHODS,
  type CoveringKind,
  type CoveringPin,
  type LengthStatus,
  type MeasureMethod,
  type Segment,
} from './segment';
export { createZones, type Zone } from './zone';
