export { applyEdit, changeDocument, editDocument, listOperations, type EditOperation } from './applyEdit';
export { isOverlap } from './isOverlap';
export { checkIntegrity } from './checkIntegrity';
export type { CatalogueLookup } from './catalogueLookup';
export { checkJob } from './checkJob';
export { checkShape } from './checkShape';
export {
  CIRCUIT_KINDS,
  createCircuit,
  WIRE_TABLE_NAMES,
  type Circuit,
  type CircuitKind,
  type Termination,
  type WireTable,
} from './circuit';
export { COLOUR_NAMES, fromColourWords, toColourWords, type Colour, type ColourName } from './colour';
export { createEnd, type End } from './end';
export {
  addCavityFields,
  ArrangementSchema,
  CAVITY_NAME,
  ConnectorFamilySchema,
  countWays,
  findCavitySize,
  isMate,
  listCavities,
  type ConnectorFamily,
} from './family';
export { checkFamily, toCavityWords } from './checkFamily';
export { placeCavities, type CavitySpot } from './placeCavities';
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
  STATUS_OF_METHOD,
  TICKS,
  type Segment,
  type Tick,
} from './segment';
export { createBrief, type Agreed, type Brief, type Mate } from './brief';
export {
  createDevice,
  DECISIONS,
  DeviceTemplateSchema,
  UNKNOWN_POLICIES,
  type Decision,
  type Device,
  type DeviceTemplate,
  type UnknownPolicy,
} from './device';
export { DONOR_DECISIONS, type Donor, type DonorDecision, type DonorWire } from './donor';
export {
  ANCHOR_STATES,
  createAnchors,
  createOpenItem,
  isBlocking,
  OPEN_ITEM_KINDS,
  type Anchor,
  type AnchorState,
  type Blocked,
  type OpenItem,
  type OpenItemKind,
} from './openItem';
export { createPinNeed, EVIDENCE, LOADS, RETURNS, type Evidence, type Load, type PinNeed, type Return } from './pinNeed';
export { CAPABILITIES, createPinOffer, type Capability, type PinOffer } from './pinOffer';
export {
  createModes,
  createSource,
  LINK_KINDS,
  PART_KINDS,
  type InlinePart,
  type LinkKind,
  type Mode,
  type PartKind,
  type Rating,
  type Source,
  type TemplateLink,
} from './power';
export { MARK_KINDS, SurveyEntrySchema, type SurveyConflict, type SurveyEntry } from './surveyEntry';
export { findSurroundings, isMoving, type Surroundings } from './surroundings';
export { createZones, type Zone } from './zone';
export {
  BARREL_KINDS,
  checkShop,
  compareShops,
  createRecordId,
  listRecordFields,
  listRecords,
  putRecord,
  RECORD_SCHEMAS,
  SHOP_FORMAT,
  SHOP_FORMAT_VERSION,
  SHOP_MIGRATIONS,
  toPresentShop,
  mergeShops,
  withRecords,
  SHOP_TABLES,
  ShopSchema,
  toFieldWords,
  type BarrelKind,
  type Braid,
  type CableItem,
  type Conductor,
  type Contact,
  type CoveringItem,
  type LabelStock,
  type RecordField,
  type Ring,
  type Seal,
  type Shop,
  type ShopDifference,
  type ShopRecord,
  type ShopStandard,
  type ShopTable,
  type Shrink,
  type SpliceBarrel,
} from './shop';
