export { checkShop } from './checkShop';
export type { Contact, Seal } from './contact';
export type { Braid, CoveringItem, Shrink } from './covering';
export { BARREL_KINDS, type BarrelKind, type Ring, type SpliceBarrel } from './joint';
export type { LabelStock } from './label';
export { SHOP_FORMAT, SHOP_FORMAT_VERSION, ShopSchema, type Shop } from './shop';
export type { ShopStandard } from './standard';
export type { CableItem, Conductor } from './wire';
