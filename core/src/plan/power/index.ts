export { chooseCopper, type CopperEdge, type CopperOption } from './chooseCopper';
export { findHarm } from './chooseProtections';
export {
  createGrid,
  listLinks,
  toPinKey,
  type Grid,
  type GridEdge,
  type GridLink,
  type GridNet,
  type GridNode,
  type PinPlace,
} from './createGrid';
export {
  chooseFuse,
  FUSE_RATINGS,
  listLimits,
  measureDamage,
  measureOpening,
  measureShortTimeFactor,
  measureSureOpening,
  type OpeningPoint,
} from './fuse';
export { measureHeatAllowed } from './measureAmpacity';
export { measureFlows, type Currents, type Flows } from './measureFlows';
export { measureResistance } from './tracePaths';
export type * from './types';
