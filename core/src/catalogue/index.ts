export { CATALOGUE, createLookup, findDeviceTemplate, findFamily, type Catalogue } from './catalogue';
export type { Contact, Seal } from './contacts';
export type { Braid, CoveringItem, LabelStock, Shrink } from './coverings';
export type { Ring, SpliceBarrel } from './joints';
export { measurePullOff } from './pullOff';
export { HOUSE_STYLE, type HouseQuestion } from './houseStyle';
export { LARKHOLLOW, LARKHOLLOW_PLAIN, type ShopStandard } from './standard';
export { toSizeWords, WIRE_TABLES, type Conductor } from './wires';
export { EXPECTED_LOADS, listLikelyLoads, UNKNOWN_CAUTION, type ExpectedLoad } from './expectedLoads';
