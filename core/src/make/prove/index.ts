export { createRingOut } from './createRingOut';
export { nameProbe, toOpen, isOpen, toOhm } from './createSeen';
export { examine, type Examined } from './examine';
export type { LoomFault, Move, MovedAt } from './faultTypes';
export { toIsolationId } from './listIsolation';
export { createStandInTester, type Planted } from './standInTester';
export { plantFault, PLANTED_KINDS, type PlantedKind } from './plantFault';
export { toFaultWords, type FaultWords } from './toFaultWords';
export { OPEN_MV, OPEN_OHM, toProbe, toProbeKey, type Probe, type ProofTest, type ProofUnit, type ProvedNet, type RingOut } from './types';
