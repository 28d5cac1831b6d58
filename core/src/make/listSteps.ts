import type { Catalogue } from '../catalogue';
import type { Job, Loom } from '../model';
import {
  findStandard,
  listBandedBreakouts,
  listMarks,
  listZoneLabels,
  type LoomPlan,
  type PlannedTermination,
  type PlannedWire,
} from '../plan';
import { compareIds, pushTo } from '../units';
import {
  askClear,
  askWires,
  createItem,
  createStep,
  isTrimmed,
  toBandWords,
  toClearWords,
  toMadeId,
  type Need,
  type StepContext,
} from './createStep';
import { listCuts } from './listCuts';
import { listEndSteps } from './listEndSteps';
import { listDressNeeds, listDressSteps } from './steps/listDressSteps';
import { holdSteps } from './steps/holdSteps';
import { addBeforeCover } from './steps/addBeforeCover';
import { addTaskSteps } from './steps/addTaskSteps';
import { listFillers, type FillerCut } from './listFillers';
import { planFits } from './planFits';
import { listFitSteps } from './steps/listFitSteps';
import { listPotSteps } from './steps/listPotSteps';
import { listFinishSteps } from './steps/listFinishSteps';
import { listLaidUpNeeds, listLayupSteps } from './steps/listLayupSteps';
import type { Ask, Step } from './step';

/** What the ask for a cut is called: the length it is cut to now, and the length it ends up with. */
export const ROUGH = 'rough';
export const FINAL = 'final';

/** Every step of a loom with its needs, not yet in order: the steps come from the plan, nobody types them. */
export function listSteps(job: Job, plan: LoomPlan, catalogue: Catalogue): Step[] {
  const loom = job.looms[plan.loomId]!;
  const anchorId = Object.keys(loom.ends).find((id) => loom.ends[id]!.nodeId === plan.tree.datumId) ?? null;
  const endsBeyond = listEndsBeyond(loom, plan);
  const terminations = new Map<string, PlannedTermination[]>();
  for (const one of plan.terminations) pushTo(terminations, one.endId, one);
  const plugs = new Map<string, LoomPlan['plugs'][number][]>();
  for (const one of plan.plugs) pushTo(plugs, one.endId, one);
  const context: StepContext = {
    job,
    loom,
    plan,
    catalogue,
    standard: findStandard(job, catalogue),
    anchorId,
    wires: new Map(plan.wires.map((wire) => [wire.id, wire])),
    endsBeyond,
    terminations,
    plugs,
    sleevesBefore: listSleevesBefore(loom, plan, endsBeyond),
    dressNeeds: listDressNeeds(plan, endsBeyond, anchorId),
    clears: new Map(
      listMarks(job, plan, catalogue).flatMap(({ kind, id, text, clear }) => (clear ? [[`${kind} ${id} ${text}`, clear] as const] : [])),
    ),
    fits: planFits(loom, plan),
  };
  const fillers = listFillers(plan);
  const early = [...listCutSteps(context), ...listFillerSteps(fillers), ...listTwistSteps(context)];
  const ends = Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId) => listEndSteps(context, endId, early));
  const build = addBeforeCover(context, [
    ...early,
    ...ends,
    ...listLaySteps(context, early),
    ...listSpliceSteps(context),
    ...listLayupSteps(context, fillers),
    ...listCoverSteps(context),
    ...listDressSteps(context),
    ...listPotSteps(context),
    ...listFitSteps(context),
  ]);
  if (build.length === 0) return [];
  return holdSteps(context, addTaskSteps(context, [...build, ...listFinishSteps(context, build)]));
}

function listEndsBeyond(loom: Loom, plan: LoomPlan): Record<string, string[]> {
  const endAt = new Map(Object.entries(loom.ends).map(([id, end]) => [end.nodeId, id]));
  const beyond: Record<string, string[]> = {};
  for (const nodeId of [...plan.tree.nodeIds].reverse()) {
    const node = plan.tree.nodes[nodeId]!;
    if (node.parentSegmentId === null) continue;
    const here = endAt.get(nodeId);
    beyond[node.parentSegmentId] = [...(here === undefined ? [] : [here]), ...node.childSegmentIds.flatMap((id) => beyond[id]!)];
  }
  return beyond;
}

function listSleevesBefore(loom: Loom, plan: LoomPlan, endsBeyond: Record<string, string[]>): Map<string, Need[]> {
  const before = new Map<string, Need[]>();
  const coveredFirst = new Map(
    plan.endDress.map(({ endId, segmentId, parking }) => [endId, parking.order === 'cover-first' ? segmentId : null]),
  );
  for (const { segmentId, kind } of plan.coverings) {
    if (kind === 'none' || loom.segments[segmentId]!.slideOn !== 'before-ends') continue;
    const slid = { stepId: `slide.${segmentId}`, because: 'a sleeve goes on before the end that stops it' };
    const covered = {
      stepId: `cover.${segmentId}`,
      because: 'its sleeve has no room to stand back: the leg is covered before its end is made',
    };
    for (const endId of endsBeyond[segmentId]!) pushTo(before, endId, coveredFirst.get(endId) === segmentId ? covered : slid);
  }
  return before;
}

function listCutSteps({ plan, standard }: StepContext): Step[] {
  const toWords = (wire: PlannedWire) =>
    isTrimmed(wire)
      ? `${wire.number}: cut ${wire.roughMm} mm rough (${wire.cutMm} final), a paper flag at each end for now`
      : `${wire.number}: cut ${wire.cutMm} mm, mark both ends${toBandWords(wire, standard)}`;
  return listCuts(plan).map((cut) => {
    const wires = [...cut.wires, ...cut.held];
    const longestMm = Math.max(...wires.map(({ roughMm }) => roughMm));
    return createStep(`cut.${cut.id}`, 'cut', `Cut and mark ${cut.reel}`, {
      tool: 'cutting bench, rule, wire marker',
      parts: [cut.reel],
      items:
        cut.cableId === null
          ? wires.map((wire) => createItem(wire.id, toWords(wire), [wire], null, [...askWires([wire]), ...askLengths([wire])]))
          : [
              createItem(
                'cable',
                `the cable in one piece: cut ${longestMm} mm, a flag at each end; bare no core before its jacket and screen are off`,
                wires,
                null,
                [...askWires(wires), ...askLengths(wires)],
              ),
            ],
    });
  });
}

/** Dead wire, all of it in one step. */
function listFillerSteps(fillers: readonly FillerCut[]): Step[] {
  if (fillers.length === 0) return [];
  return [
    createStep('cut.fillers', 'cut', 'Cut and mark the dead wire', {
      tool: 'cutting bench, rule, paper flags',
      parts: [...new Set(fillers.map(({ reel }) => reel))],
      items: fillers.map(({ number, reel, cutMm, words }) =>
        createItem(number, `${number}: ${reel}, cut ${cutMm} mm (${words})`, [], null, [
          { what: 'reel', value: reel },
          { what: FINAL, value: cutMm },
        ]),
      ),
    }),
  ];
}

const askLengths = (wires: readonly PlannedWire[]): Ask[] => [
  { what: ROUGH, value: Math.max(...wires.map(({ roughMm }) => roughMm)) },
  { what: FINAL, value: Math.max(...wires.map(({ cutMm }) => cutMm)) },
  { what: 'marks', value: wires.some(isTrimmed) ? 'a flag for now' : 'for good' },
];

function listTwistSteps({ loom, plan }: StepContext): Step[] {
  const groups = new Map<string, PlannedWire[]>();
  for (const wire of plan.wires) {
    const twist = loom.circuits[wire.circuitId]!.twist;
    // the cores of a cable come twisted
    if (twist && !wire.cable) pushTo(groups, twist.groupId, wire);
  }
  const cutOf = new Map(listCuts(plan).flatMap((cut) => [...cut.wires, ...cut.held].map((wire) => [wire.id, cut.id] as const)));
  return [...groups.keys()].sort(compareIds).map((groupId) => {
    const wires = groups.get(groupId)!;
    const { pitchMm } = loom.circuits[wires[0]!.circuitId]!.twist!;
    return createStep(`twist.${groupId}`, 'twist', `Twist ${wires.map(({ number }) => number).join(' with ')}`, {
      tool: 'twisting jig',
      items: [
        createItem('twisted', `one turn every ${pitchMm} mm`, wires, null, [
          ...askWires(wires),
          { what: 'one turn every', value: pitchMm },
        ]),
      ],
      needs: [...new Set(wires.map(({ id }) => cutOf.get(id)!))].map((id) => ({ stepId: `cut.${id}`, because: 'the wires are cut first' })),
    });
  });
}

function listLaySteps({ loom, plan, anchorId, terminations, dressNeeds, wires }: StepContext, early: readonly Step[]): Step[] {
  if (plan.wires.length === 0) return [];
  const anchor =
    anchorId === null || !terminations.has(anchorId)
      ? []
      : [
          {
            stepId: loom.ends[anchorId]!.kind === 'connector' ? `seat.${anchorId}` : `crimp.${anchorId}`,
            because: 'wires are pulled out of the filled anchor end',
          },
        ];
  const passing = listBandedBreakouts(loom, plan);
  const items = plan.tree.nodeIds.slice(1).map((nodeId) => {
    const { distanceMm, parentSegmentId } = plan.tree.nodes[nodeId]!;
    const { name, kind } = loom.nodes[nodeId]!;
    const banded = (passing.get(nodeId) ?? []).map((id) => wires.get(id)!).filter(({ colour, cable }) => colour.bands.length > 0 && !cable);
    const bands = banded.map(({ number, colour }) => `${number} ${colour.bands.join(' ')}`).join(', ');
    return createItem(
      nodeId,
      `${kind} ${name} at ${Math.round(distanceMm)} mm from the datum${bands && `; bands again on either side of it: ${bands}`}`,
      [],
      null,
      [
        { what: 'run', value: Math.round(plan.tree.segments[parentSegmentId!]!.lengthMm) },
        ...(bands ? [{ what: 'bands', value: bands }] : []),
      ],
    );
  });
  return [
    createStep('lay', 'lay', 'Clamp the datum and lay the wires along the branches', {
      needs: [...anchor, ...dressNeeds.loose, ...early.map(({ id }) => ({ stepId: id, because: 'wires are cut and twisted first' }))],
      tool: 'board or bench, ties',
      items,
    }),
  ];
}

function listSpliceSteps({ loom, plan, wires, fits }: StepContext): Step[] {
  // a barrel a splice, in their order
  return plan.splices.map((splice, index) => {
    const barrel = plan.barrels[index]!;
    const here = barrel.wireIds.map((id) => wires.get(id)!);
    return createStep(
      `splice.${splice.id}`,
      'splice',
      `Splice ${splice.label}, ${loom.circuits[splice.circuitId]!.name}, ${Math.round(splice.distanceMm)} mm from the datum`,
      {
        spliceId: splice.id,
        segmentId: splice.place.segmentId,
        tool: barrel.tool,
        parts: [barrel.barrelName, 'adhesive sleeve over the barrel'],
        needs: [
          { stepId: 'lay', because: 'its place is found when the wires are laid' },
          fits.ofJoint(splice.place.segmentId, barrel.wireIds, 'joined when its wires have their final lengths'),
        ],
        items: [
          createItem(
            'joined',
            `${here.map(({ number }) => number).join(' + ')}: strip ${barrel.stripMm} mm, crimp, pull, close the sleeve`,
            here,
            null,
            [
              ...askWires(here),
              { what: 'barrel', value: barrel.barrelName },
              { what: 'strip', value: barrel.stripMm },
              { what: 'from its junction', value: Math.round(splice.awayMm) },
            ],
          ),
        ],
      },
    );
  });
}

function listCoverSteps(context: StepContext): Step[] {
  const { job, loom, plan, standard, endsBeyond, anchorId, terminations, dressNeeds, fits, clears } = context;
  const covered = new Map(plan.coverings.filter(({ kind }) => kind !== 'none').map((one) => [one.segmentId, one]));
  const order = plan.tree.nodeIds
    .map((id) => plan.tree.nodes[id]!.parentSegmentId)
    .filter((id) => id !== null && covered.has(id)) as string[];
  const zones = new Map(listZoneLabels(job, plan, standard).map(({ segmentId, text }) => [segmentId, text]));
  const splicesIn = new Map<string, LoomPlan['splices']>();
  for (const one of plan.splices) pushTo(splicesIn, one.place.segmentId, one);
  return order.flatMap((segmentId) => {
    const covering = covered.get(segmentId)!;
    const zone = zones.get(segmentId);
    const clear = clears.get(`zone ${segmentId} ${zone}`);
    const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const nearer = plan.tree.nodes[nearNodeId]!.parentSegmentId;
    const after = loom.segments[segmentId]!.slideOn === 'after-ends';
    const closed: Need[] = !after
      ? []
      : endsBeyond[segmentId]!.filter((endId) => endId !== anchorId && terminations.has(endId)).map((endId) => ({
          stepId: toMadeId(context, endId),
          because: 'planned over the finished end',
        }));
    const nearFirst: Need[] =
      nearer !== null && covered.has(nearer)
        ? [{ stepId: `slide.${nearer}`, because: 'the sleeve nearer the datum passes here first' }]
        : [];
    const made: Need[] = (dressNeeds.afterEnds.get(segmentId) ?? []).map((endId) => ({
      stepId: toMadeId(context, endId),
      because: 'what stands back here while the end is made is in its place then',
    }));
    const splices: Need[] = (splicesIn.get(segmentId) ?? []).map(({ id }) => ({
      stepId: `splice.${id}`,
      because: 'a joint is covered when it is made',
    }));
    const sleeve: Ask[] = [
      { what: 'covering', value: covering.itemName },
      { what: 'sleeve', value: covering.cutMm },
    ];
    const slide = createStep(`slide.${segmentId}`, 'slide', `Slide ${covering.itemName} on, ${run}`, {
      segmentId,
      parts: [`${covering.itemName}, ${covering.cutMm} mm`],
      needs: [
        { stepId: 'lay', because: 'the run is laid first' },
        ...nearFirst,
        ...(dressNeeds.ofRuns.get(segmentId) ?? []),
        ...splices,
        ...listLaidUpNeeds(plan, segmentId),
        ...closed,
      ],
      items: [createItem('on', `cut ${covering.cutMm} mm, slide to its place`, [], null, sleeve)],
      tool: 'shears',
    });
    const cover = createStep(
      `cover.${segmentId}`,
      'cover',
      covering.kind === 'braid' ? `Draw the braid tight and tie its ends, ${run}` : `Shrink the sleeve, ${run}`,
      {
        segmentId,
        needs: [
          { stepId: slide.id, because: 'it has to be in its place' },
          fits.ofRun(segmentId, 'covered after the trial fit'),
          ...made,
          ...splices,
        ],
        tool: covering.kind === 'braid' ? 'lacing cord' : 'hot-air tool',
        items: [createItem('covered', `${run}: ends meet the neighbours, no gap`, [], null, sleeve), ...createZoneItems(zone, clear)],
      },
    );
    return [slide, cover];
  });
}

/** The name of the zone that a run leads into, where it begins. */
const createZoneItems = (zone: string | undefined, clear: Parameters<typeof toClearWords>[0]) =>
  zone === undefined
    ? []
    : [
        createItem('zone', `"${zone}" over it, where it begins, shrunk${toClearWords(clear)}`, [], null, [
          { what: 'label', value: zone },
          ...askClear(clear),
        ]),
      ];
