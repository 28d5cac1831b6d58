import { findFamily } from '../../catalogue';
import { findStandard, planClips, type PlannedFeed } from '../../plan';
import { createItem, createStep, isPinnedAfter, type Need, type StepContext } from '../createStep';
import { listHardNeeds } from './listPotSteps';
import { ISOLATION, PAIRS, WIGGLE, type Step, type StepItem } from '../step';

/** Prove the loom, lead it through its holes, pin what did not pass with its housing on and prove that again, sign. */
export function listFinishSteps(context: StepContext, build: readonly Step[]): Step[] {
  const late = listLateEnds(context);
  const later = listLater(build);
  const test = createTest(
    context,
    build.filter(({ id }) => !later.has(id)),
  );
  const toSign = (needs: Need[]) =>
    createStep('sign', 'sign', 'Second person looks the loom over and signs', {
      needs,
      items: [createItem('signed', 'looked over and signed', [], null, [])],
    });
  const tested = { stepId: 'test', because: 'signed when it has passed' };
  if (late.length === 0) {
    const route = createRoute(context, [{ stepId: 'sign', because: 'led through when it is proved and signed' }]);
    return [test, toSign([tested]), ...route, ...listCarSteps(context, [...route, { id: 'sign' }])];
  }
  const bunches = late.map((endId) => createBunch(context, endId));
  const route = createRoute(context, [
    { stepId: 'test', because: 'rung before it is led through: what is wrong is found on the bench' },
    ...bunches.map(({ id }) => ({ stepId: id, because: 'bare contacts catch and bend in a hole' })),
  ]);
  const again = late.flatMap((endId) => listAgainSteps(context, endId));
  const finished: Need[] = [
    ...[...later].map((stepId) => ({ stepId, because: 'signed when the loom is whole' })),
    ...again.map(({ id }) => ({ stepId: id, because: 'signed when it has passed' })),
  ];
  const sign = toSign([tested, { stepId: 'route', because: 'signed where it lies' }, ...finished]);
  return [test, ...bunches, ...route, ...again, sign, ...listCarSteps(context, [...route, sign])];
}

/** Ends that are pinned when their wires are through. */
const listLateEnds = (context: StepContext) =>
  Object.keys(context.loom.ends).filter((endId) => context.terminations.has(endId) && isPinnedAfter(context, endId));

/** Steps that wait for the loom to be led through, whatever stands between. */
function listLater(build: readonly Step[]): ReadonlySet<string> {
  const later = new Set(['route']);
  for (let grown = true; grown;) {
    const size = later.size;
    for (const { id, needs } of build) if (needs.some(({ stepId }) => later.has(stepId))) later.add(id);
    grown = later.size > size;
  }
  later.delete('route');
  return later;
}

const createTest = (context: StepContext, before: readonly Step[]) =>
  createStep('test', 'test', 'Ring out every pair against the continuity table', {
    needs: before.map(({ id }) => ({ stepId: id, because: 'the loom is tested when it is whole' })),
    tool: 'ohmmeter, 4-wire below 1 Ω',
    ...toWiggleMinutes(context),
    items: [
      createItem(PAIRS, 'every pair joins, within its band', [...context.wires.values()], null, []),
      createItem(ISOLATION, 'every net is isolated from all others', [], null, []),
      ...listWiggles(context),
    ],
  });

/** What moving the legs takes, min; the readings are timed each by itself. */
const toWiggleMinutes = ({ terminations, standard: { wiggleS } }: StepContext) =>
  wiggleS === 0 ? {} : { minutes: (terminations.size * wiggleS) / 60 };

/** Each leg is moved while one of its pairs is logged: what opens for a moment only reads well at rest (craft E1). */
function listWiggles({ loom, plan, terminations, standard: { wiggleS, wiggleMs } }: StepContext): StepItem[] {
  const names = Object.entries(loom.ends).flatMap(([id, { name }]) => (terminations.has(id) ? [name] : []));
  if (wiggleS === 0 || plan.wires.length === 0) return [];
  return [
    createItem(
      WIGGLE,
      `each leg moved for ${wiggleS} s while a pair of it is logged, no drop-out over ${wiggleMs} ms: ${names.join(', ')}`,
      [],
      null,
      [],
    ),
  ];
}

/** How its contacts, or its bare wires, are kept together on their way; an anchor is filled first and loses its housing again. */
function createBunch({ loom, job, catalogue, anchorId, terminations, sleevesBefore, dressNeeds, fits }: StepContext, endId: string): Step {
  const { name, kind, familyId } = loom.ends[endId]!;
  const family = findFamily(job, catalogue, familyId);
  const isCrimped = kind === 'connector' && family?.seating !== 'pull-to-seat';
  const rows = terminations.get(endId)!;
  if (endId === anchorId)
    return createStep(`depin.${endId}`, 'depin', `Take the contacts of ${name} out again, and bunch them`, {
      endId,
      needs: [{ stepId: 'test', because: 'rung with its housing on' }],
      tool: 'extraction tool, tape',
      items: rows.map(({ cavity, wireIds }) =>
        createItem(cavity, `cavity ${cavity}: out, its number flagged`, [], cavity, [{ what: 'cavity of', value: wireIds.join(' ') }]),
      ),
    });
  return createStep(`bunch.${endId}`, 'bunch', `Bunch the ${isCrimped ? 'contacts' : 'wires'} of ${name} and tape them`, {
    endId,
    needs: isCrimped
      ? [{ stepId: `crimp.${endId}`, because: 'crimped on the bench, where there is light' }]
      : [
          fits.ofEnd(endId, 'device ends are closed after the trial fit'),
          { stepId: `label.${endId}`, because: 'its label does not go over the bunch' },
          ...(sleevesBefore.get(endId) ?? []),
          ...(dressNeeds.ofEnds.get(endId) ?? []),
        ],
    tool: 'tape',
    items: [
      createItem(
        'bunched',
        `staggered, taped over, no thicker than the leg; its ${kind === 'ring' ? 'rings' : 'housing'} in a bag at the leg`,
        [],
        null,
        [],
      ),
    ],
  });
}

/** One step for all holes of a loom, part by part in its order; none where it goes through nothing. */
function createRoute({ loom, plan }: StepContext, needs: Need[]): Step[] {
  const items = plan.feeds.flatMap((feed) => {
    const { name, drill } = loom.nodes[feed.nodeId]!;
    return [...(drill === null ? [] : [createDrilling(feed, name)]), ...listFeedItems(feed, name, (id) => loom.ends[id]!.name)];
  });
  const isNeeded = items.length > 0 || Object.values(loom.ends).some(({ pinAt }) => pinAt === 'vehicle');
  if (!isNeeded) return [];
  return [
    createStep('route', 'route', 'Lead the loom into the vehicle', {
      needs,
      tool: 'tape, pulling cord; grommets or edge trim in the holes first',
      items: [...items, createItem('lies', 'lies along its route, nothing pulls, nothing chafes', [], null, [])],
    }),
  ];
}

const createDrilling = ({ nodeId, boreMm }: PlannedFeed, hole: string): StepItem =>
  createItem(
    `${nodeId} drill`,
    `${hole} is to be made: look at both sides, pilot 3 mm, light through, saw ${boreMm} mm, deburr, coat the edge, grommet in`,
    [],
    null,
    [{ what: 'bore', value: boreMm }],
  );

const listFeedItems = (
  { nodeId, boreMm, direction, pieces, unknownIds }: PlannedFeed,
  hole: string,
  nameOf: (id: string) => string,
): StepItem[] => [
  ...pieces.map(({ id, goesAs, needMm }, at) =>
    createItem(
      `${nodeId} ${id}`,
      `${hole} (${boreMm} mm), ${at + 1}.: ${nameOf(id)}${goesAs === 'wires' ? ', bare wires taped' : ''}, ${needMm.toFixed(1)} mm`,
      [],
      null,
      [
        { what: 'turn', value: at + 1 },
        { what: 'from', value: direction === 'outward' ? 'the datum' : 'beyond' },
      ],
    ),
  ),
  ...unknownIds.map((id) =>
    createItem(`${nodeId} ${id}`, `${hole} (${boreMm} mm): ${nameOf(id)}, whose size is not known: try it first`, [], null, []),
  ),
];

/** Clip it, then bolt its rings. */
function listCarSteps(context: StepContext, before: readonly Pick<Step, 'id'>[]): Step[] {
  const clips = createClips(context, before);
  return [...clips, ...listStudSteps(context, [...before, ...clips])];
}

/** Each stud with its rings from the foot outwards, a band for its pole, and the torque. */
function listStudSteps({ loom, plan, wires, standard: { torqueShare } }: StepContext, before: readonly Pick<Step, 'id'>[]): Step[] {
  return plan.studs.map(({ endId, studMm, rings, band, torqueNm }) => {
    const { name } = loom.ends[endId]!;
    const items = rings.map(({ wireIds, contactName }, at) => {
      const numbers = wireIds.map((id) => wires.get(id)!.number).join(' + ');
      return createItem(`ring ${wireIds.join(' ')}`, `${at + 1}. ${numbers}: ${contactName}${band ? `, ${band} band` : ''}`, [], null, [
        { what: 'turn', value: at + 1 },
        { what: 'ring', value: contactName },
      ]);
    });
    const tight = createItem(
      'tight',
      torqueNm === null ? 'nut to the maker’s torque, marked' : `nut M${studMm} to ${torqueNm} Nm, marked`,
      [],
      null,
      [{ what: 'torque', value: torqueNm ?? 'of the maker' }],
    );
    return createStep(`bolt.${endId}`, 'torque', `Bolt ${rings.length === 1 ? 'the ring' : 'the rings'} of ${name}`, {
      endId,
      needs: before.map(({ id }) => ({ stepId: id, because: 'bolted where it lies for good' })),
      tool: 'torque wrench, insulated',
      items: [
        ...items,
        createItem(
          'clean',
          'bright metal under the first ring, washer over the last, none of them turned against a neighbour',
          [],
          null,
          [],
        ),
        torqueNm === null
          ? tight
          : {
              ...tight,
              reads: [
                {
                  id: 'torque',
                  words: `torque of ${name}`,
                  unit: 'Nm',
                  least: (1 - torqueShare) * torqueNm,
                  most: (1 + torqueShare) * torqueNm,
                },
              ],
            },
      ],
    });
  });
}

/** What holds the loom in the vehicle, run by run from the datum on; none where the shop plans no clips. */
function createClips({ job, loom, plan, catalogue }: StepContext, before: readonly Pick<Step, 'id'>[]): Step[] {
  const held = planClips(job, plan, catalogue).filter(({ atMm, item }) => atMm.length > 0 && item !== null);
  if (held.length === 0) return [];
  const { sagMostMm } = findStandard(job, catalogue);
  return [
    createStep('clip', 'clip', 'Clip the loom in the vehicle', {
      needs: before.map(({ id }) => ({ stepId: id, because: 'clipped where it lies for good' })),
      tool: 'as the clip asks',
      parts: [...new Set(held.map(({ item }) => item!.name))],
      items: [
        ...held.map(({ segmentId, item, atMm }) => {
          const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
          const at = atMm.map((mm) => Math.round(mm)).join(', ');
          return createItem(
            segmentId,
            `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}: ${atMm.length} × ${item!.name} at ${at} mm`,
            [],
            null,
            [
              { what: 'clip', value: item!.name },
              { what: 'at', value: at },
            ],
          );
        }),
        createItem('sag', `between two clips it gives by no more than ${sagMostMm} mm by hand; nothing is pinched`, [], null, []),
      ],
    }),
  ];
}

/** In the vehicle: an anchor gets its contacts back; every end that was pinned there is rung again. */
function listAgainSteps({ loom, plugs, anchorId, terminations, wires }: StepContext, endId: string): Step[] {
  const { name, kind, potting } = loom.ends[endId]!;
  const rows = terminations.get(endId)!;
  const isAnchor = endId === anchorId;
  const repin = createStep(`repin.${endId}`, 'seat', `Seat the contacts of ${name} again`, {
    endId,
    needs: [{ stepId: 'route', because: 'its housing does not pass with its contacts in' }],
    tool: 'push until it clicks, tug once',
    items: rows.map(({ cavity, wireIds }) =>
      createItem(cavity, `cavity ${cavity}: ${wireIds.map((id) => wires.get(id)!.number).join(', ')}`, [], cavity, [
        { what: 'cavity of', value: wireIds.join(' ') },
      ]),
    ),
  });
  const last = isAnchor ? repin.id : plugs.has(endId) ? `plug.${endId}` : kind === 'connector' ? `seat.${endId}` : `crimp.${endId}`;
  const test = createStep(`test.${endId}`, 'test', `Ring out ${name} once more`, {
    endId,
    needs: [
      { stepId: last, because: 'it was pinned after the first test' },
      ...listHardNeeds(potting !== null, endId),
      { stepId: 'test', because: 'the rest was proved on the bench' },
    ],
    tool: 'ohmmeter, 4-wire below 1 Ω',
    items: [
      createItem(
        PAIRS,
        `every pair of ${name} joins, within its band`,
        rows.flatMap(({ wireIds }) => wireIds.map((id) => wires.get(id)!)),
        null,
        [],
      ),
    ],
  });
  return isAnchor ? [repin, test] : [test];
}
