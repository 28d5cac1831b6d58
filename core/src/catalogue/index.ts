export { CATALOGUE, createLookup, findFamily, type Catalogue } from './catalogue';
export type { Contact, Seal } from './contacts';
export type { Braid, CoveringItem, LabelStock, Shrink } from './coverings';
export type { Ring, SpliceBarrel } from './joints';
export { measurePullOff } from './pullOff';
export { LARKHOLLOW, type ShopStandard } from './standard';
export { toSizeWords, WIRE_TABLES, type Conductor } from './wires';
