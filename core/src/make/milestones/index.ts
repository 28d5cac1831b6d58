export { isCheck, listChecked, MILESTONE_STEP, type CheckDeed } from './checks';
export { listNeeds, type MilestoneNeeds } from './listNeeds';
export { countPowerLeft, listPowerNeeds, type PowerLeft } from './listPowerNeeds';
export { readMilestone, type MilestoneLoom, type MilestoneReading, type WorkLeft } from './readMilestone';
