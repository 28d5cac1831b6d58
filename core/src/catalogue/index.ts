export { CATALOGUE, createDemoShop, createLookup, findDeviceTemplate, findFamily, type Catalogue } from './catalogue';
export {
  createTaker,
  findContact,
  isWithin,
  listCavityContacts,
  listHousings,
  listBlades,
  listRings,
  listSealWindows,
  rankHousings,
} from './cavityParts';
export type {
  BarrelKind,
  Braid,
  CableItem,
  Conductor,
  Contact,
  CoveringItem,
  LabelStock,
  Ring,
  Seal,
  ShopStandard,
  Shrink,
  SpliceBarrel,
} from '../model';
export { describeRecord } from './describeRecord';
export { measurePullOff } from './pullOff';
export { findSide, HOUSE_STYLE, type HouseQuestion, type HouseSide } from './houseStyle';
export { createDemoStart, LARKHOLLOW, LARKHOLLOW_PLAIN } from './standard';
export { chooseWireKind } from './chooseWireKind';
export { listWireKinds, toSizeWords, toWireWords, WIRE_TABLES } from './wires';
export { EXPECTED_LOADS, listLikelyLoads, UNKNOWN_CAUTION, type ExpectedLoad } from './expectedLoads';
export { listWindow, type WireWindow } from './listWindow';
export { measureCopperDiameter } from './measureCopperDiameter';
