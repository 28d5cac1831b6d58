export { chooseCopper, type CopperEdge, type CopperOption } from './copper/chooseCopper';
export { findHarm } from './protection/chooseProtections';
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
} from './protection/fuse';
export { listDevicePins, type DeviceLine, type DevicePin, type PinState } from './currents/listDevicePins';
export type { Currents } from './currents/currents';
export { measureCurrents } from './currents/measureCurrents';
export type { VehicleCurrents } from './currents/vehicleCurrents';
export { isZoneTooHot } from '../heat/measureAmpacity';
export { measureResistance } from './drop/measureLoads';
export {
  createEvent,
  findGuard,
  type EventGap,
  type EventKind,
  type EventRun,
  type EventStage,
  type LoadEvent,
} from './transient/createEvent';
export { measureEvent, type EventHeat } from './transient/measureEvent';
export { measureTransient, type Transient, type TransientInputs } from './transient/measureTransient';
export { findSetting, listDevicesBehind, type LinkSetting, type LinkStanding } from './switching/findSettings';
export { floodFeeds, type Liveness, type NetLive } from './switching/findLive';
export { listLive, listStandingModes, measureBatteryHours, type LiveLine, type StandingMode } from './switching/listLiveOff';
export type * from './types';
export { findInMode, findMostOn, listRunning, measureSag, measureSourceMean } from './report/findInMode';
export { listFuseCurves, type FuseCurves } from './report/listFuseCurves';
export { listVoltageSteps, type VoltageStep } from './report/listVoltageSteps';
