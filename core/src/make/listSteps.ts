import { findFamily, toSizeWords, type Catalogue } from '../catalogue';
import { toColourWords, type Job, type Loom } from '../model';
import { findStandard, type LoomPlan, type PlannedWire } from '../plan';
import { compareIds } from '../units';
import { CAUTIONS } from './cautions';
import { listCuts } from './listCuts';
import type { Operation, Step, StepItem } from './step';

interface Context {
  job: Job;
  loom: Loom;
  plan: LoomPlan;
  catalogue: Catalogue;
  wires: Map<string, PlannedWire>;
  endsBeyond: Record<string, string[]>;
  anchorId: string | null;
}

type Need = Step['needs'][number];

/** Every step of a loom with its needs, not yet in order: the steps come from the plan, nobody types them. */
export function listSteps(job: Job, plan: LoomPlan, catalogue: Catalogue): Step[] {
  const loom = job.looms[plan.loomId]!;
  const anchorId = Object.keys(loom.ends).find((id) => loom.ends[id]!.nodeId === plan.tree.datumId) ?? null;
  const context: Context = {
    job,
    loom,
    plan,
    catalogue,
    anchorId,
    wires: new Map(plan.wires.map((wire) => [wire.id, wire])),
    endsBeyond: listEndsBeyond(loom, plan),
  };
  const early = [...listCutSteps(context), ...listTwistSteps(context)];
  const ends = Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId) => listEndSteps(context, endId, early));
  const build = [
    ...early,
    ...ends,
    ...listLaySteps(context, early),
    ...listSpliceSteps(context),
    ...listCoverSteps(context),
    ...listFitSteps(context),
  ];
  if (build.length === 0) return [];
  const test = createStep('test', 'test', 'Ring out every pair against the continuity table', {
    needs: build.map(({ id }) => ({ stepId: id, because: 'the loom is tested when it is whole' })),
    tool: 'ohmmeter, 4-wire below 1 Ω',
    items: [
      item('pairs', 'every pair joins, within its band', [...context.wires.values()], null),
      item('isolation', 'every neighbour is isolated', [], null),
    ],
  });
  const sign = createStep('sign', 'sign', 'Second person looks the loom over and signs', {
    needs: [{ stepId: 'test', because: 'signed when it has passed' }],
    items: [item('signed', 'looked over and signed', [], null)],
  });
  return [...build, test, sign];
}

function createStep(id: string, operation: Operation, title: string, rest: Partial<Step>): Step {
  return {
    id,
    operation,
    title,
    endId: null,
    segmentId: null,
    spliceId: null,
    items: [],
    tool: '',
    parts: [],
    caution: CAUTIONS[operation],
    needs: [],
    ...rest,
  };
}

function item(id: string, words: string, wires: readonly PlannedWire[], cavity: string | null): StepItem {
  const held = wires.filter(({ heldBy }) => heldBy.length > 0);
  return {
    id,
    words,
    wireIds: wires.map((wire) => wire.id),
    cavity,
    heldBecause: held.length
      ? held.map(({ number, heldBy }) => `${number}: ${heldBy.map(({ words }) => words).join(', ')}`).join('; ')
      : null,
  };
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

function listCutSteps({ plan }: Context): Step[] {
  const toWords = ({ number, roughMm, cutMm }: PlannedWire) =>
    roughMm > cutMm ? `${number}: cut ${roughMm} mm rough (${cutMm} final), mark both ends` : `${number}: cut ${cutMm} mm, mark both ends`;
  return listCuts(plan).map((cut) => {
    const wires = [...cut.wires, ...cut.held];
    const longestMm = Math.max(...wires.map(({ roughMm }) => roughMm));
    return createStep(`cut.${cut.id}`, 'cut', `Cut and mark ${cut.reel}`, {
      tool: 'cutting bench, rule, wire marker',
      parts: [cut.reel],
      items:
        cut.cableId === null
          ? wires.map((wire) => item(wire.id, toWords(wire), [wire], null))
          : [
              item(
                'cable',
                `the cable in one piece: cut ${longestMm} mm, mark both ends; bare no core before its jacket and screen are off`,
                wires,
                null,
              ),
            ],
    });
  });
}

function listTwistSteps({ loom, plan }: Context): Step[] {
  const groups = new Map<string, PlannedWire[]>();
  for (const wire of plan.wires) {
    const twist = loom.circuits[wire.circuitId]!.twist;
    // the cores of a cable come twisted
    if (twist && !wire.cable) groups.set(twist.groupId, [...(groups.get(twist.groupId) ?? []), wire]);
  }
  const cutOf = new Map(listCuts(plan).flatMap((cut) => [...cut.wires, ...cut.held].map((wire) => [wire.id, cut.id] as const)));
  return [...groups.keys()].sort(compareIds).map((groupId) => {
    const wires = groups.get(groupId)!;
    const { pitchMm } = loom.circuits[wires[0]!.circuitId]!.twist!;
    return createStep(`twist.${groupId}`, 'twist', `Twist ${wires.map(({ number }) => number).join(' with ')}`, {
      tool: 'twisting jig',
      items: [item('twisted', `one turn every ${pitchMm} mm`, wires, null)],
      needs: [...new Set(wires.map(({ id }) => cutOf.get(id)!))].map((id) => ({ stepId: `cut.${id}`, because: 'the wires are cut first' })),
    });
  });
}

function listEndSteps(context: Context, endId: string, early: readonly Step[]): Step[] {
  const { job, loom, plan, catalogue, wires, anchorId } = context;
  const freeMm = findStandard(job, catalogue).pullToSeatFreeMm;
  const terminations = plan.terminations.filter((one) => one.endId === endId);
  if (terminations.length === 0) return [];
  const end = loom.ends[endId]!;
  const family = findFamily(job, catalogue, end.familyId);
  const pullToSeat = family?.seating === 'pull-to-seat';
  const isAnchor = endId === anchorId;
  const before: Need[] = isAnchor
    ? early.map(({ id }) => ({ stepId: id, because: 'the anchor end is filled first, from cut and twisted wires' }))
    : [
        { stepId: 'fit', because: 'device ends are closed after the trial fit' },
        ...listSleevesBefore(context, endId),
        { stepId: `label.${endId}`, because: 'its label does not go over the finished end' },
      ];
  const steps: Step[] = [];
  if (!isAnchor) {
    steps.push(
      createStep(`label.${endId}`, 'label', `Slide the label of ${end.name} on`, {
        endId,
        parts: ['end label'],
        items: [item('label', `"${end.name}" on the leg, not yet shrunk`, [], null)],
        needs: [{ stepId: 'lay', because: 'the leg is laid first' }, ...listSleevesBefore(context, endId)],
      }),
    );
  }
  const wiresAt = (ids: readonly string[]) => ids.map((id) => wires.get(id)!);
  if (pullToSeat) {
    steps.push(
      createStep(`thread.${endId}`, 'thread', `Lead the wires of ${end.name} through its housing`, {
        endId,
        needs: before,
        parts: [family.name],
        tool: 'by hand',
        items: terminations.map((one) =>
          item(
            one.cavity,
            `cavity ${one.cavity}: ${wiresAt(one.wireIds)
              .map(({ number }) => number)
              .join(', ')}, ${freeMm} mm free`,
            wiresAt(one.wireIds),
            one.cavity,
          ),
        ),
      }),
    );
  }
  const threaded: Need[] = pullToSeat
    ? [{ stepId: `thread.${endId}`, because: 'pull-to-seat: the wire goes through the housing before it is crimped' }]
    : [];
  steps.push(
    createStep(`crimp.${endId}`, 'crimp', end.kind === 'tail' ? `Strip the tails of ${end.name}` : `Crimp ${end.name}`, {
      endId,
      needs: [...before, ...threaded],
      tool: [...new Set(terminations.map(({ tool, positioner }) => (positioner ? `${tool}, ${positioner}` : tool)))].join(' · '),
      parts: [
        ...new Set(
          terminations.flatMap(({ contactName, sealName }) =>
            sealName && sealName !== 'grommet' ? [contactName, sealName] : [contactName],
          ),
        ),
      ],
      items: terminations.map((one) => {
        const here = wiresAt(one.wireIds);
        const trim = here.map((wire) => `${wire.number} ${toSizeWords(wire.conductor)} ${toColourWords(wire.colour)}`).join(' with ');
        const seal = one.sealName && one.sealName !== 'grommet' ? `, ${one.sealName} first` : '';
        const pull = one.pullOffN === null ? '' : `, pull test ${one.pullOffN} N`;
        return item(one.cavity, `cavity ${one.cavity}: ${trim}, strip ${one.stripMm ?? '?'} mm${seal}${pull}`, here, one.cavity);
      }),
    }),
  );
  if (end.kind !== 'connector' || !family) return steps;
  steps.push(
    createStep(`seat.${endId}`, 'seat', `Seat the contacts of ${end.name}`, {
      endId,
      needs: [{ stepId: `crimp.${endId}`, because: 'contacts are seated when they are crimped' }],
      tool: pullToSeat ? 'pull back until it clicks' : 'push until it clicks, tug once',
      parts: [family.name],
      items: [
        ...terminations.map((one) =>
          item(
            one.cavity,
            `cavity ${one.cavity}: ${wiresAt(one.wireIds)
              .map(({ number }) => number)
              .join(', ')}`,
            wiresAt(one.wireIds),
            one.cavity,
          ),
        ),
        ...(family.secondaryLock ? [item('lock', 'secondary lock closed', [], null)] : []),
      ],
    }),
  );
  const plugs = plan.plugs.filter((one) => one.endId === endId);
  if (plugs.length) {
    steps.push(
      createStep(`plug.${endId}`, 'plug', `Plug the empty cavities of ${end.name}`, {
        endId,
        needs: [{ stepId: `seat.${endId}`, because: 'what stays empty is known when the rest is seated' }],
        parts: [`${plugs.length} × ${catalogue.plugs[family.cavitySize]!.name}`],
        items: [item('plugs', `cavities ${plugs.map(({ cavity }) => cavity).join(', ')}`, [], null)],
      }),
    );
  }
  return steps;
}

/** Sleeves that the end, once closed, would keep off. */
function listSleevesBefore({ loom, plan, endsBeyond }: Context, endId: string): Need[] {
  return plan.coverings
    .filter(
      ({ segmentId, kind }) =>
        kind !== 'none' && loom.segments[segmentId]!.slideOn === 'before-ends' && endsBeyond[segmentId]!.includes(endId),
    )
    .map(({ segmentId }) => ({ stepId: `slide.${segmentId}`, because: 'a sleeve goes on before the end that stops it' }));
}

function listLaySteps({ loom, plan, anchorId }: Context, early: readonly Step[]): Step[] {
  if (plan.wires.length === 0) return [];
  const anchor =
    anchorId === null || !plan.terminations.some(({ endId }) => endId === anchorId)
      ? []
      : [
          {
            stepId: loom.ends[anchorId]!.kind === 'connector' ? `seat.${anchorId}` : `crimp.${anchorId}`,
            because: 'wires are pulled out of the filled anchor end',
          },
        ];
  const items = plan.tree.nodeIds.slice(1).map((nodeId) => {
    const { distanceMm } = plan.tree.nodes[nodeId]!;
    const { name, kind } = loom.nodes[nodeId]!;
    return item(nodeId, `${kind} ${name} at ${Math.round(distanceMm)} mm from the datum`, [], null);
  });
  return [
    createStep('lay', 'lay', 'Clamp the datum and lay the wires along the branches', {
      needs: [...anchor, ...early.map(({ id }) => ({ stepId: id, because: 'wires are cut and twisted first' }))],
      tool: 'board or bench, ties',
      items,
    }),
  ];
}

function listSpliceSteps({ loom, plan, wires }: Context): Step[] {
  return plan.splices.map((splice) => {
    const barrel = plan.barrels.find(({ spliceId }) => spliceId === splice.id)!;
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
          { stepId: 'fit', because: 'joined when its wires have their final lengths' },
        ],
        items: [
          item(
            'joined',
            `${here.map(({ number }) => number).join(' + ')}: strip ${barrel.stripMm} mm, crimp, pull, close the sleeve`,
            here,
            null,
          ),
        ],
      },
    );
  });
}

function listCoverSteps({ loom, plan, endsBeyond, anchorId }: Context): Step[] {
  const covered = new Map(plan.coverings.filter(({ kind }) => kind !== 'none').map((one) => [one.segmentId, one]));
  const order = plan.tree.nodeIds
    .map((id) => plan.tree.nodes[id]!.parentSegmentId)
    .filter((id) => id !== null && covered.has(id)) as string[];
  return order.flatMap((segmentId) => {
    const covering = covered.get(segmentId)!;
    const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const nearer = plan.tree.nodes[nearNodeId]!.parentSegmentId;
    const after = loom.segments[segmentId]!.slideOn === 'after-ends';
    const closed: Need[] = !after
      ? []
      : endsBeyond[segmentId]!.filter((endId) => endId !== anchorId && plan.terminations.some((one) => one.endId === endId)).map(
          (endId) => ({
            stepId: loom.ends[endId]!.kind === 'connector' ? `seat.${endId}` : `crimp.${endId}`,
            because: 'planned over the finished end',
          }),
        );
    const nearFirst: Need[] =
      nearer !== null && covered.has(nearer)
        ? [{ stepId: `slide.${nearer}`, because: 'the sleeve nearer the datum passes here first' }]
        : [];
    const splices: Need[] = plan.splices
      .filter(({ place }) => place.segmentId === segmentId)
      .map(({ id }) => ({ stepId: `splice.${id}`, because: 'a joint is covered when it is made' }));
    const slide = createStep(`slide.${segmentId}`, 'slide', `Slide ${covering.itemName} on, ${run}`, {
      segmentId,
      parts: [`${covering.itemName}, ${covering.cutMm} mm`],
      needs: [{ stepId: 'lay', because: 'the run is laid first' }, ...nearFirst, ...splices, ...closed],
      items: [item('on', `cut ${covering.cutMm} mm, slide to its place`, [], null)],
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
          { stepId: 'fit', because: 'covered after the trial fit' },
          ...splices,
        ],
        tool: covering.kind === 'braid' ? 'lacing cord' : 'hot-air tool',
        items: [item('covered', `${run}: ends meet the neighbours, no gap`, [], null)],
      },
    );
    return [slide, cover];
  });
}

function listFitSteps({ plan }: Context): Step[] {
  if (plan.wires.length === 0) return [];
  return [
    createStep('fit', 'fit', 'Trial fit: datum clamped, mark every device end', {
      needs: [{ stepId: 'lay', because: 'laid out before it goes to the car' }],
      items: [
        item('fitted', 'laid in the car, every end reaches with its loop', [], null),
        item('trimmed', 'fitted lengths entered under Survey, wires trimmed as the trim sheet says', [], null),
      ],
    }),
  ];
}
