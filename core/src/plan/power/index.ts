export { chooseCopper, type CopperEdge, type CopperOption } from './chooseCopper';
export { findHarm } from './chooseProtections';
export { createGrid, listLinks, toPinKey, type Grid, type GridEdge, type GridLink, type GridNet, type GridNode } from './createGrid';
export type { PinPlace } from './types';
export {
  chooseFuse,
  FUSE_RATINGS,
  listLimits,
  measureDamage,
  measureFuseCarries,
  measureOpening,
  measureShortTimeFactor,
  measureSureOpening,
  type OpeningPoint,
} from './fuse';
export { measureHeatAllowed } from '../measureHeatAllowed';
export { listDevicePins, type DeviceLine, type DevicePin, type PinState } from './listDevicePins';
export type { Currents } from './currents';
export { measureFlows } from './measureFlows';
export type { Flows } from './flows';
export { isZoneTooHot } from './measureAmpacity';
export { measureResistance } from './measureLoads';
export { createEvent, findGuard, type EventGap, type EventKind, type EventRun, type EventStage, type LoadEvent } from './createEvent';
export { measureEvent, type EventHeat } from './measureEvent';
export { measureTransient, type Transient, type TransientInputs } from './measureTransient';
export type * from './types';
