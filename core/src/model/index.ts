export { applyEdit, changeDocument, editDocument, listOperations, type EditOperation } from './job/applyEdit';
export { isOverlap } from './loom/isOverlap';
export type { CatalogueLookup } from './job/catalogueLookup';
export { checkJob, checkJobInPieces, readyGate } from './job/checkJob';
export { checkShape } from './checkShape';
export { CIRCUIT_KINDS, KIND_WORDS, createCircuit, type Circuit, type CircuitKind, type Termination } from './loom/circuit';
export {
  ColourSchema,
  COLOUR_NAMES,
  INSULATIONS,
  fromColourWords,
  MOST_BANDS,
  toColourWords,
  toInsulationWords,
  WIRE_HEX,
  type Colour,
  type ColourName,
} from './loom/colour';
export { CAUTION_LABEL_WORDS, CAUTION_LABELS, createEnd, type CautionLabel, type End } from './loom/end';
export type { Potting } from './loom/potting';
export { createBoardSpread, type BoardSpread, type HungPrint } from './loom/board';
export {
  addAdapter,
  addCavityFields,
  ArrangementSchema,
  CAVITY_NAME,
  ConnectorFamilySchema,
  countWays,
  findCavitySize,
  isMate,
  listCavities,
  type ConnectorFamily,
} from './shop/family';
export { checkFamily, toCavityWords } from './shop/checkFamily';
export { placeCavities, type CavitySpot } from './shop/placeCavities';
export { createJob, FORMAT, FORMAT_VERSION, JobSchema, type Job } from './job/job';
export { COMMON_START, toJobStart, type JobStart, type SourceItem } from './job/jobStart';
export { listTemplateProblems, type TemplateRows } from './vehicle/listTemplateProblems';
export { createLoom, type LayerPin, type Loom, type SplicePin } from './loom/loom';
export { findBundling } from './loom/findBundling';
export { MIGRATIONS, toPresentFormat, type Migration } from './job/migrations';
export { createNode, type LoomNode } from './loom/node';
export { toProblemLines, type Checked, type Problem } from './problem';
export {
  COVERING_KINDS,
  COVERING_WORDS,
  DRESSING_WORDS,
  DRESSINGS,
  BUNDLING_WORDS,
  BUNDLINGS,
  createSegment,
  LENGTH_STATUSES,
  MEASURE_METHODS,
  type Bundling,
  type CoveringKind,
  type CoveringPin,
  type Dressing,
  type LengthStatus,
  type MeasureMethod,
  STATUS_OF_METHOD,
  TICKS,
  type Segment,
  type Tick,
} from './loom/segment';
export { createBrief, type Agreed, type Brief, type Mate } from './job/brief';
export {
  createDevice,
  DECISIONS,
  DEVICE_HAZARDS,
  type DeviceHazard,
  DeviceTemplateSchema,
  UNKNOWN_POLICIES,
  type Decision,
  type Device,
  type DeviceTemplate,
  type UnknownPolicy,
} from './vehicle/device';
export { DOUBT_WORDS, DOUBTS, HOLD_OPERATIONS, HOLD_WORDS, HoldOperationSchema, type Doubt, type HoldOperation } from './hold';
export { DONOR_DECISIONS, type Donor, type DonorDecision, type DonorWire } from './vehicle/donor';
export {
  ANCHOR_STATES,
  createAnchors,
  createOpenItem,
  isBlocking,
  OPEN_ITEM_KINDS,
  type Anchor,
  type Anchored,
  type AnchorState,
  type Blocked,
  type OpenItem,
  type OpenItemKind,
} from './job/openItem';
export { createProving, FIRST_STARTS, PROVING_KINDS, type FirstStart, type Proving, type ProvingKind } from './job/proving';
export {
  createTask,
  listTaskPlaces,
  TASK_BEFORE,
  TASK_BEFORE_WORDS,
  TASK_HAZARDS,
  TASK_KINDS,
  TaskPlaceSchema,
  TaskSchema,
  type Task,
  type TaskBefore,
  type TaskHazard,
  type TaskKind,
  type TaskPlace,
} from './job/task';
export {
  createPinNeed,
  EVIDENCE,
  listLikelyDoubts,
  LOADS,
  PinNeedSchema,
  RETURNS,
  type Evidence,
  type Load,
  type PinNeed,
  type Return,
} from './power/pinNeed';
export { CAPABILITIES, createPinOffer, PinOfferSchema, type Capability, type PinOffer } from './power/pinOffer';
export {
  ENGINE_STATES,
  LINK_STATES,
  type EngineState,
  type LinkRef,
  type LinkState,
  LINK_KINDS,
  PART_KINDS,
  type InlinePart,
  type LinkKind,
  type Mode,
  type PartKind,
  type Rating,
  type Source,
  type TemplateLink,
} from './power/power';
export { MARK_KINDS, SurveyEntrySchema, type SurveyConflict, type SurveyEntry } from './survey/surveyEntry';
export { findSurroundings, isMoving, type Surroundings } from './loom/surroundings';
export { type Zone } from './vehicle/zone';
export {
  type Tool,
  type Buying,
  type BoughtTable,
  findTool,
  findDueDay,
  createTool,
  findCrimpHeight,
  MILESTONE_WORDS,
  MILESTONES,
  MINUTE_KEYS,
  PART_MILESTONES,
  TIME_DEFAULTS,
  toBuyingKey,
  RETIRABLE_TABLES,
  isBoughtTable,
  isOffered,
  findBuying,
  BOUGHT_TABLES,
  BARREL_KINDS,
  MOST_SPLICED,
  checkShop,
  addWireKind,
  compareShops,
  copyWireKind,
  createRecordId,
  listRecordFields,
  listRecords,
  putRecord,
  RECORD_SCHEMAS,
  toWireId,
  SHOP_FORMAT,
  SHOP_FORMAT_VERSION,
  SHOP_MIGRATIONS,
  toPresentShop,
  mergeShops,
  withRecords,
  SHOP_TABLES,
  ShopSchema,
  isFromTheSide,
  isShrink,
  isTape,
  isTube,
  isWrap,
  toFieldWords,
  type BarrelKind,
  type Boot,
  type Braid,
  type CableItem,
  type Conductor,
  type Contact,
  type CoveringItem,
  type Clip,
  type LabelStock,
  type Milestone,
  type MinuteKey,
  type Resin,
  type Board,
  type Printer,
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
  type Tape,
  type Transition,
  type Tube,
  type Wrap,
} from './shop';
export { listScope, listScopeChange, type ScopeChange } from './job/listScope';
export { toNextNumber } from './loom/toNextNumber';
export { countZoneUses } from './vehicle/countZoneUses';
export { measureLeastPitch } from './shop/measureLeastPitch';
