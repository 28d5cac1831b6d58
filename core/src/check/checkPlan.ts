import { HOUSE_STYLE, type Catalogue } from '../catalogue';
import type { Job } from '../model';
import { findStandard, type JobPlan, type LoomPlan } from '../plan';
import { createListStage, createMemo, createMemory, type Memo, type Stage } from '../units';
import { checkDonors } from './job/checkDonors';
import { checkMates } from './job/checkMates';
import { checkRetired, checkTools } from './job/checkBench';
import { checkAnchors, checkConcessions, checkDepartures, checkScope, checkSurveyConflicts } from './job/checkScope';
import { checkBuses, checkRails, checkScreens, checkSpares, checkTracks } from './circuits/checkBoxes';
import { checkLiveHalves } from './power/checkLiveHalves';
import { checkNets } from './circuits/checkNets';
import { checkCoils, checkSuppression } from './power/checkCoils';
import { checkParts } from './circuits/checkParts';
import { checkDirect, checkDrops, checkModes, checkProtections, checkSource, checkWholeWays } from './power/checkProtections';
import { checkReturns, checkUncounted, checkUnfused, checkUnsaidPins } from './power/checkReturns';
import { checkScreenedPins } from './circuits/checkScreenedPins';
import { checkAdhesive } from './dress/checkAdhesive';
import { checkBundleHeat } from './bundle/checkBundleHeat';
import { checkBarrels } from './bundle/checkBarrels';
import { checkCrossings, checkHeavy, checkLays, checkSearched, checkUntwisted } from './bundle/checkLayup';
import { checkCables } from './bundle/checkCables';
import { checkContactCurrent } from './ends/checkContactCurrent';
import { checkChosenHousings } from './ends/checkChosenHousings';
import { checkContacts } from './ends/checkContacts';
import { checkCoveringSizes } from './dress/checkCoveringSizes';
import { checkCoveringWants, checkLighterCoverings } from './dress/checkCoveringWants';
import { checkBuildUps, checkDressParts } from './dress/checkDressParts';
import { checkParking } from './dress/checkParking';
import { checkFit } from './survey/checkFit';
import { checkGuesses } from './survey/checkGuesses';
import { checkHeat } from './route/checkHeat';
import { checkDrilling } from './route/checkDrilling';
import { checkHoles } from './route/checkHoles';
import { checkSharedHoles } from './route/checkSharedHoles';
import { checkClips } from './dress/checkClips';
import { checkLabels } from './dress/checkLabels';
import { checkLookAlikes } from './ends/checkLookAlikes';
import { checkLookAlikeWires } from './ends/checkLookAlikeWires';
import { checkLooseCircuits } from './circuits/checkLooseCircuits';
import { checkOpenAnchors } from './survey/checkOpenAnchors';
import { checkOpenItems } from './survey/checkOpenItems';
import { checkReadings } from './survey/checkReadings';
import { checkRequiredPins } from './circuits/checkRequiredPins';
import { checkSlideOn } from './dress/checkSlideOn';
import { checkSplicePlaces } from './bundle/checkSplicePlaces';
import { checkPottings } from './ends/checkPottings';
import { checkScreenSleeves, checkStacks } from './ends/checkScreensAndStuds';
import { checkStuds } from './ends/checkStuds';
import { checkIsolator, checkUnsaidStates } from './power/checkStates';
import { checkZoneHeat } from './power/checkZoneHeat';
import { checkSwapsAcross } from './job/checkSwapsAcross';
import { checkLegends } from './job/checkLegends';
import { checkWireNumbers } from './job/checkWireNumbers';
import type { Grade } from './register';
import { listPlainInputs } from './listPlainInputs';
import type { Finding, JobRule, PlainRule, Rule, RuleContext, WiringRule } from './types';

/** Every rule by its code. Codes never change meaning; docs/findings.md lists them. */
export const RULES = {
  SC1: checkGuesses,
  SC2: checkOpenItems,
  SC3: checkReadings,
  SC4: checkFit,
  SC7: checkOpenAnchors,
  CI1: checkRequiredPins,
  CI2: checkLooseCircuits,
  RO1: checkHoles,
  RO2: checkHeat,
  RO3: checkDrilling,
  BU1: checkSplicePlaces,
  BU2: checkBarrels,
  BU3: checkBundleHeat,
  BU4: checkCrossings,
  BU5: checkSearched,
  BU6: checkUntwisted,
  BU7: checkHeavy,
  BU8: checkLays,
  DR1: checkSlideOn,
  DR2: checkCoveringSizes,
  DR3: checkAdhesive,
  DR4: checkParking,
  DR5: checkDressParts,
  DR6: checkBuildUps,
  DR7: checkCoveringWants,
  DR8: checkLighterCoverings,
  DR9: checkClips,
  EN1: checkContacts,
  EN3: checkLookAlikes,
  EN4: checkLookAlikeWires,
  EN5: checkContactCurrent,
  EN6: checkChosenHousings,
  EN10: checkPottings,
  EN14: checkScreenSleeves,
  EN15: checkStacks,
  PO1: checkStuds,
  PO13: checkCables,
  PO16: checkZoneHeat,
  MA2: checkLabels,
} satisfies Record<string, Rule>;

/** Of those, the rules that no length has a say in: they are asked again only where something else changed. */
const PLAIN_RULES: readonly PlainRule[] = [checkRequiredPins, checkContactCurrent, checkLabels];

/** Rules about what is joined to what, whatever its length, by what they are about. */
export const WIRING_RULES = {
  anchors: checkAnchors,
  scope: checkScope,
  concessions: checkConcessions,
  survey: checkSurveyConflicts,
  departures: checkDepartures,
  mates: checkMates,
  liveHalves: checkLiveHalves,
  retired: checkRetired,
  donors: checkDonors,
  nets: checkNets,
  rails: checkRails,
  tracks: checkTracks,
  screens: checkScreens,
  screenedPins: checkScreenedPins,
  spares: checkSpares,
  parts: checkParts,
  direct: checkDirect,
  legends: checkLegends,
  sharedHoles: checkSharedHoles,
  unsaidPins: checkUnsaidPins,
} satisfies Record<string, WiringRule>;

/** Other rules about the job as a whole, by what they are about. */
export const JOB_RULES = {
  tools: checkTools,
  buses: checkBuses,
  protections: checkProtections,
  drops: checkDrops,
  wholeWays: checkWholeWays,
  returns: checkReturns,
  uncounted: checkUncounted,
  unfused: checkUnfused,
  modes: checkModes,
  source: checkSource,
  isolator: checkIsolator,
  unsaidStates: checkUnsaidStates,
  suppression: checkSuppression,
  coils: checkCoils,
  acrossLooms: checkSwapsAcross,
} satisfies Record<string, JobRule>;

const WEIGHT = { stop: 0, check: 1, note: 2 } satisfies Record<Grade, number>;

/** Findings of a planned job on a day; what it remembers is never more than a shortcut. */
export type Checker = (job: Job, plan: JobPlan, today: string | null) => Finding[];

/** A checker for one catalogue. It remembers the last findings of each loom: those of a loom that an edit did not touch are as they were. */
export function createChecker(catalogue: Catalogue): Checker {
  const known = createMemory<readonly Finding[]>(2);
  const memo = createMemo();
  const wiring = createMemory<readonly Finding[]>(2);
  return (job, plan, today) => {
    const standard = findStandard(job, catalogue);
    const findings = plan.looms.flatMap((loomPlan) =>
      known(loomPlan.loomId, listLoomInputs(job, loomPlan), () => checkLoom({ job, plan: loomPlan, catalogue, standard, memo })),
    );
    const whole = { job, plan, catalogue, standard, houseStyle: HOUSE_STYLE, today };
    const ofWiring = wiring('', listWiringInputs(job, plan, today), () =>
      Object.values(WIRING_RULES).flatMap((rule: WiringRule) => rule(whole)),
    );
    const ofJob = Object.values(JOB_RULES).flatMap((rule: JobRule) => rule(whole));
    return [...ofWiring, ...ofJob, ...findings, ...checkWireNumbers(job, plan)].sort((a, b) => WEIGHT[a.grade] - WEIGHT[b.grade]);
  };
}

/** All that rules about the wiring go by: the job without its segments, where splices lie, and what is in the plan of a loom. */
const listWiringInputs = (job: Job, { power }: JobPlan, today: string | null): unknown[] => [
  ...[power.nets, today, ...power.loads.map(({ id }) => id)],
  ...Object.entries(job).flatMap(([key, value]: [string, unknown]) =>
    key === 'looms'
      ? Object.entries(job.looms).flatMap(([id, { name, prefix, nodes, ends, circuits }]) => [id, name, prefix, nodes, ends, circuits])
      : [value],
  ),
];

/** All that a loom is judged by: its plan, itself, and what is of the whole job. */
export const listLoomInputs = (job: Job, loomPlan: LoomPlan): unknown[] => [
  loomPlan,
  ...Object.entries(job).map(([key, value]: [string, unknown]) => (key === 'looms' ? job.looms[loomPlan.loomId] : value)),
];

interface LoomInputs extends Pick<RuleContext, 'job' | 'plan' | 'catalogue' | 'standard'> {
  memo: Memo;
}

function checkLoom({ memo, ...of }: LoomInputs): Finding[] {
  const { loomId } = of.plan;
  const loom = of.job.looms[loomId]!;
  // a rule about one loom sees no other
  const context: RuleContext = { ...of, job: { ...of.job, looms: { [loomId]: loom } }, loomId, loom };
  const plain = memo(PLAIN_LIST, loomId, listPlainInputs(context));
  return Object.entries(RULES).flatMap(([code, rule]: [string, Rule]) =>
    PLAIN_RULES.some((one) => one === rule) ? memo(PLAIN, `${loomId} ${code}`, { rule, context, plain }) : rule(context),
  );
}

const PLAIN_LIST = createListStage<unknown>('plain-list');

const PLAIN: Stage<{ rule: Rule; context: RuleContext; plain: readonly unknown[] }, readonly Finding[]> = {
  name: 'plain',
  keep: 2,
  inputs: ({ plain }) => [plain],
  run: ({ rule, context }) => rule(context),
};

/** All findings of a planned job, worst first; loom by loom and rule by rule within a grade. today: see JobContext. */
export const checkPlan = (job: Job, plan: JobPlan, catalogue: Catalogue, today: string | null): Finding[] =>
  createChecker(catalogue)(job, plan, today);
