import { HOUSE_STYLE, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { findStandard, type JobPlan, type LoomPlan } from '../plan';
import { createMemory } from '../units';
import { checkDonors } from './job/checkDonors';
import { checkMates } from './job/checkMates';
import { checkAnchors, checkConcessions, checkDepartures, checkScope, checkSurveyConflicts } from './job/checkScope';
import { checkBuses, checkRails, checkScreens, checkSpares, checkTracks } from './power/checkBoxes';
import { checkNets } from './power/checkNets';
import { checkCoils, checkSuppression } from './power/checkCoils';
import { checkParts } from './power/checkParts';
import { checkDirect, checkDrops, checkModes, checkProtections, checkSource, checkWholeWays } from './power/checkProtections';
import { checkReturns, checkUncounted, checkUnfused } from './power/checkReturns';
import { checkScreenedPins } from './power/checkScreenedPins';
import { checkAdhesive } from './rules/checkAdhesive';
import { checkBundleHeat } from './rules/checkBundleHeat';
import { checkBarrels } from './rules/checkBarrels';
import { checkCables } from './rules/checkCables';
import { checkContactCurrent } from './rules/checkContactCurrent';
import { checkChosenHousings } from './rules/checkChosenHousings';
import { checkContacts } from './rules/checkContacts';
import { checkCoveringSizes } from './rules/checkCoveringSizes';
import { checkFit } from './rules/checkFit';
import { checkGuesses } from './rules/checkGuesses';
import { checkHeat } from './rules/checkHeat';
import { checkHoles } from './rules/checkHoles';
import { checkLabels } from './rules/checkLabels';
import { checkLookAlikes } from './rules/checkLookAlikes';
import { checkLookAlikeWires } from './rules/checkLookAlikeWires';
import { checkLooseCircuits } from './rules/checkLooseCircuits';
import { checkOpenItems } from './rules/checkOpenItems';
import { checkReadings } from './rules/checkReadings';
import { checkRequiredPins } from './rules/checkRequiredPins';
import { checkSlideOn } from './rules/checkSlideOn';
import { checkSplicePlaces } from './rules/checkSplicePlaces';
import { checkStuds } from './rules/checkStuds';
import { checkZoneHeat } from './rules/checkZoneHeat';
import { checkWireNumbers } from './checkWireNumbers';
import type { Grade } from './register';
import type { Finding, JobRule, Rule } from './types';

/** Every rule by its code. Codes never change meaning; docs/findings.md lists them. */
export const RULES = {
  SC1: checkGuesses,
  SC2: checkOpenItems,
  SC3: checkReadings,
  SC4: checkFit,
  CI1: checkRequiredPins,
  CI2: checkLooseCircuits,
  RO1: checkHoles,
  RO2: checkHeat,
  BU1: checkSplicePlaces,
  BU2: checkBarrels,
  BU3: checkBundleHeat,
  DR1: checkSlideOn,
  DR2: checkCoveringSizes,
  DR3: checkAdhesive,
  EN1: checkContacts,
  EN3: checkLookAlikes,
  EN4: checkLookAlikeWires,
  EN5: checkContactCurrent,
  EN6: checkChosenHousings,
  PO1: checkStuds,
  PO13: checkCables,
  PO16: checkZoneHeat,
  MA2: checkLabels,
} satisfies Record<string, Rule>;

/** Rules about the job as a whole, by what they are about. */
export const JOB_RULES = {
  anchors: checkAnchors,
  scope: checkScope,
  concessions: checkConcessions,
  survey: checkSurveyConflicts,
  departures: checkDepartures,
  mates: checkMates,
  donors: checkDonors,
  nets: checkNets,
  rails: checkRails,
  tracks: checkTracks,
  buses: checkBuses,
  screens: checkScreens,
  screenedPins: checkScreenedPins,
  spares: checkSpares,
  protections: checkProtections,
  drops: checkDrops,
  wholeWays: checkWholeWays,
  returns: checkReturns,
  uncounted: checkUncounted,
  unfused: checkUnfused,
  modes: checkModes,
  source: checkSource,
  suppression: checkSuppression,
  coils: checkCoils,
  parts: checkParts,
  direct: checkDirect,
} satisfies Record<string, JobRule>;

const WEIGHT = { stop: 0, check: 1, note: 2 } satisfies Record<Grade, number>;

/** Findings of a planned job on a day; what it remembers is never more than a shortcut. */
export type Checker = (job: Job, plan: JobPlan, today: string | null) => Finding[];

/** A checker for one catalogue. It remembers the last findings of each loom: those of a loom that an edit did not touch are as they were. */
export function createChecker(catalogue: Catalogue): Checker {
  const known = createMemory<readonly Finding[]>(2);
  return (job, plan, today) => {
    const standard = findStandard(job, catalogue);
    const findings = plan.looms.flatMap((loomPlan) =>
      known(loomPlan.loomId, listLoomInputs(job, loomPlan), () => checkLoom(job, loomPlan, catalogue, standard)),
    );
    const whole = { job, plan, catalogue, standard, houseStyle: HOUSE_STYLE, today };
    const ofJob = Object.values(JOB_RULES).flatMap((rule: JobRule) => rule(whole));
    return [...ofJob, ...findings, ...checkWireNumbers(job, plan)].sort((a, b) => WEIGHT[a.grade] - WEIGHT[b.grade]);
  };
}

/** All that a loom is judged by: its plan, itself, and what is of the whole job. */
export const listLoomInputs = (job: Job, loomPlan: LoomPlan): unknown[] => [
  loomPlan,
  ...Object.entries(job).map(([key, value]: [string, unknown]) => (key === 'looms' ? job.looms[loomPlan.loomId] : value)),
];

function checkLoom(job: Job, plan: LoomPlan, catalogue: Catalogue, standard: ShopStandard): Finding[] {
  const { loomId } = plan;
  const loom = job.looms[loomId]!;
  // a rule about one loom sees no other
  const context = { job: { ...job, looms: { [loomId]: loom } }, loomId, loom, plan, catalogue, standard };
  return Object.values(RULES).flatMap((rule: Rule) => rule(context));
}

/** All findings of a planned job, worst first; loom by loom and rule by rule within a grade. today: see JobContext. */
export const checkPlan = (job: Job, plan: JobPlan, catalogue: Catalogue, today: string | null): Finding[] =>
  createChecker(catalogue)(job, plan, today);
