export {
  BOUGHT_TABLES,
  findBuying,
  isBoughtTable,
  isOffered,
  RETIRABLE_TABLES,
  toBuyingKey,
  type BoughtTable,
  type Buying,
} from './buying';
export { createTool, findDueDay, findTool, type Tool } from './tool';
export { checkShop } from './checkShop';
export { compareShops, listRecords, SHOP_TABLES, type ShopDifference, type ShopRecord, type ShopTable } from './compareShops';
export { findCrimpHeight, type Contact, type Seal } from './contact';
export {
  isFromTheSide,
  isShrink,
  isTape,
  isTube,
  isWrap,
  type Braid,
  type CoveringItem,
  type Shrink,
  type Tape,
  type Tube,
  type Wrap,
} from './covering';
export type { Boot, Transition } from './moulded';
export { copyWireKind, createRecordId, listRecordFields, putRecord, RECORD_SCHEMAS, type RecordField } from './editShop';
export { toFieldWords } from './toFieldWords';
export { BARREL_KINDS, MOST_SPLICED, type BarrelKind, type Ring, type SpliceBarrel } from './joint';
export { SHOP_MIGRATIONS, toPresentShop } from './migrations';
export type { Clip } from './clip';
export type { Resin } from './resin';
export type { Board, Printer } from './tool';
export type { LabelStock } from './label';
export { SHOP_FORMAT, SHOP_FORMAT_VERSION, ShopSchema, type Shop } from './shop';
export { mergeShops } from './mergeShops';
export { withRecords } from './withRecords';
export type { ShopStandard } from './standard';
export { MILESTONE_WORDS, MILESTONES, MINUTE_KEYS, PART_MILESTONES, TIME_DEFAULTS, type Milestone, type MinuteKey } from '../times';
export { addWireKind, toWireId, type CableItem, type Conductor } from './wire';
