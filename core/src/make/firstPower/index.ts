export { carryPower, NO_CARRIED_POWER, type CarriedEvent, type CarriedPower, type EarlierPower } from './carryPower';
export { createFirstPower } from './createFirstPower';
export { explainPower } from './explainPower';
export { isPowered, judgePower, listWoken, toWokenId, type JudgedPower, type JudgedTest, type PowerVerdict } from './judgePower';
export { listPowerProofs, type LoomSteps, type PowerEvent, type PowerProof } from './listPowerProofs';
export { measureModeVolts } from './measureModeVolts';
export { AMBIENT_TEST } from './listLookTests';
export { isFileValue } from './listProvingTests';
export { toCurrentLimits, toSupplyLimit } from './powerLimits';
export {
  createStandInVehicle,
  plantPowerFault,
  POWER_FAULTS,
  type PowerFault,
  type PowerFaultKind,
  type StandInVehicle,
} from './standInVehicle';
export {
  POWER_PARTS,
  POWER_STEP,
  POWER_UNITS,
  type FirstPower,
  type PowerElement,
  type PowerPart,
  type PowerState,
  type PowerTest,
  type PowerUnit,
} from './types';
