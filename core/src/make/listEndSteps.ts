import { findFamily, toSizeWords, type Catalogue } from '../catalogue';
import { CAUTION_LABEL_WORDS, findCavitySize, toColourWords, type ConnectorFamily, type End } from '../model';
import { findBladeSleeve, findStandard, listDeviceLabels, type PlannedTermination, type PlannedWire } from '../plan';
import {
  askClear,
  askWires,
  createItem,
  createStep,
  isPinnedAfter,
  isTrimmed,
  toBandWords,
  toClearWords,
  type Need,
  type StepContext,
} from './createStep';
import { listDeviceNeeds as listPottedNeeds, listHardNeeds } from './steps/listPotSteps';
import { listScreenSteps } from './steps/listScreenSteps';
import type { Ask, ExpectedReading, Step, StepItem } from './step';

/** One end while its steps are written. */
interface EndWork {
  context: StepContext;
  endId: string;
  end: End;
  family: ConnectorFamily | undefined;
  terminations: readonly PlannedTermination[];
  isAnchor: boolean;
  isPullToSeat: boolean;
  /** of the first of its steps that waits for the loom to be led through */
  routed: Need[];
  /** what has to be there before anything of it is closed */
  before: Need[];
  askLabel: Ask[];
  askHousing: Ask[];
}

/** Steps of one end: label, marks, seals, housing, crimps, contacts, plugs, each after what has to be there before it. */
export function listEndSteps(context: StepContext, endId: string, early: readonly Step[]): Step[] {
  const { job, loom, catalogue, anchorId } = context;
  const terminations = context.terminations.get(endId) ?? [];
  if (terminations.length === 0) return [];
  const end = loom.ends[endId]!;
  const family = findFamily(job, catalogue, end.familyId);
  const isAnchor = endId === anchorId;
  const work: EndWork = {
    ...{ context, endId, end, family, terminations, isAnchor },
    isPullToSeat: family?.seating === 'pull-to-seat',
    routed: !isAnchor && isPinnedAfter(context, endId) ? [{ stepId: 'route', because: 'its wires pass the holes without it' }] : [],
    before: isAnchor ? listAnchorNeeds(early) : listDeviceNeeds(context, endId),
    askLabel: [{ what: 'label', value: end.name }],
    askHousing: [{ what: 'housing', value: family?.name ?? end.kind }],
  };
  const marks = listMarkSteps(work);
  const screens = listScreenSteps(context, endId, [...work.before, ...toNeeds(marks, 'marked while it is closed')]);
  const first = [...marks, ...screens];
  const seals = listSealSteps(work, toNeeds(marks, 'a marker does not go over a crimped contact'), toNeeds(screens, OPENED));
  return [
    ...listLabelSteps(work),
    ...first,
    ...seals,
    ...listClosingSteps(work, marks, seals, toNeeds(screens, OPENED)),
    ...listSeatSteps(work),
  ];
}

/** Why nothing of an end goes on before its cables are open. */
const OPENED = 'its cable is opened first';

const listAnchorNeeds = (early: readonly Step[]): Need[] =>
  early.map(({ id }) => ({ stepId: id, because: 'the anchor end is filled first, from cut and twisted wires' }));

const listDeviceNeeds = (context: StepContext, endId: string): Need[] => [
  context.fits.ofEnd(endId, 'device ends are closed after the trial fit'),
  ...(context.sleevesBefore.get(endId) ?? []),
  ...(context.dressNeeds.ofEnds.get(endId) ?? []),
  { stepId: `label.${endId}`, because: 'its label does not go over the finished end' },
];

const toNeeds = (steps: readonly Step[], because: string): Need[] => steps.map(({ id }) => ({ stepId: id, because }));

const listWires = ({ context }: EndWork, ids: readonly string[]): PlannedWire[] => ids.map((id) => context.wires.get(id)!);

const toNumbers = (work: EndWork, ids: readonly string[]) =>
  listWires(work, ids)
    .map(({ number }) => number)
    .join(', ');

/** An item for each crimp; a stud has several rings in one place, listed together. */
function listCrimpItems(
  work: EndWork,
  toWords: (one: PlannedTermination) => string,
  toAsks: (one: PlannedTermination) => Ask[],
): StepItem[] {
  const { terminations } = work;
  return terminations.map((one, index) => {
    let nth = 0;
    while (terminations[index - nth - 1]?.cavity === one.cavity) nth += 1;
    const wires = listWires(work, one.wireIds);
    const id = nth === 0 ? one.cavity : `${one.cavity}.${nth + 1}`;
    return createItem(id, toWords(one), wires, one.cavity, [...askWires(wires), ...toAsks(one)]);
  });
}

/** A device end has its label on the leg before it is closed. */
function listLabelSteps({ context, endId, end, isAnchor, askLabel }: EndWork): Step[] {
  if (isAnchor) return [];
  const clear = context.clears.get(`end ${endId} ${end.name}`);
  return [
    createStep(`label.${endId}`, 'label', `Slide the label of ${end.name} on`, {
      endId,
      parts: ['end label'],
      items: [
        createItem('label', `"${end.name}" on the leg, not yet shrunk${toClearWords(clear)}`, [], null, [...askLabel, ...askClear(clear)]),
        ...end.cautions.map((one) => {
          const behind = context.clears.get(`caution ${endId} ${CAUTION_LABEL_WORDS[one]}`);
          return createItem(one, `"${CAUTION_LABEL_WORDS[one]}" behind it${toClearWords(behind)}`, [], null, [
            { what: 'label', value: CAUTION_LABEL_WORDS[one] },
            ...askClear(behind),
          ]);
        }),
        ...listDeviceLabels(context.job, context.plan.loomId, context.standard)
          .filter((one) => one.endId === endId)
          .map(({ deviceId, text }) =>
            createItem(`device ${deviceId}`, `"${text}" into the bag of the end: it sticks on the device`, [], null, [
              { what: 'label', value: text },
            ]),
          ),
      ],
      needs: [{ stepId: 'lay', because: 'the leg is laid first' }, ...(context.sleevesBefore.get(endId) ?? [])],
    }),
  ];
}

function listMarkSteps(work: EndWork): Step[] {
  const { endId, end, terminations, isAnchor, before } = work;
  const unmarked = terminations
    .flatMap(({ wireIds }) => listWires(work, wireIds))
    .filter((wire) => !wire.cable && (isAnchor || isTrimmed(wire)));
  if (!unmarked.some(isTrimmed)) return [];
  return [
    createStep(`mark.${endId}`, 'mark', `Marker sleeves on the wires of ${end.name}`, {
      endId,
      needs: before,
      tool: 'marker sleeves, hot-air tool',
      parts: ['marker sleeves'],
      items: unmarked.map((wire, index) =>
        // a wire that comes back to its own end has a marker at each of its ends
        createItem(
          unmarked.indexOf(wire) === index ? wire.id : `${wire.id}.2`,
          `${wire.number}: its marker for good${isAnchor ? ' at this end' : ', now that it is trimmed'}${toBandWords(wire, work.context.standard)}`,
          [wire],
          null,
          askWires([wire]),
        ),
      ),
    }),
  ];
}

/** Pull-to-seat: seals, then the housing, go on before anything is crimped. */
function listSealSteps(work: EndWork, marked: readonly Need[], opened: readonly Need[]): Step[] {
  const { context, endId, end, family, terminations, isPullToSeat, before, routed, askHousing } = work;
  if (!isPullToSeat || !family) return [];
  const freeMm = findStandard(context.job, context.catalogue).pullToSeatFreeMm;
  const seals = terminations.some(({ sealId }) => sealId !== null)
    ? [
        createStep(`seal.${endId}`, 'seal', `Slide the seals of ${end.name} on`, {
          endId,
          needs: [...before, ...marked, ...routed],
          tool: 'by hand',
          parts: [...new Set(terminations.flatMap(({ sealId, sealName }) => (sealId === null ? [] : [sealName])))],
          items: listCrimpItems(
            work,
            ({ cavity, wireIds, sealName }) =>
              `cavity ${cavity}: ${sealName} on ${toNumbers(work, wireIds)}, its lips away from the housing`,
            ({ sealName }) => [{ what: 'seal', value: sealName }],
          ),
        }),
      ]
    : [];
  const sealed = toNeeds(seals, 'pull-to-seat: a seal goes on behind the housing, before the wire goes through it');
  return [
    ...seals,
    createStep(`thread.${endId}`, 'thread', `Lead the wires of ${end.name} through its housing`, {
      endId,
      needs: [...before, ...marked, ...opened, ...routed, ...sealed],
      parts: [family.name],
      tool: 'by hand',
      items: listCrimpItems(
        work,
        ({ cavity, wireIds }) => `cavity ${cavity}: ${toNumbers(work, wireIds)}, ${freeMm} mm free`,
        () => askHousing,
      ),
    }),
  ];
}

/** Crimp, and shrink the label when the end is finished. */
function listClosingSteps(work: EndWork, marks: readonly Step[], seals: readonly Step[], opened: readonly Need[]): Step[] {
  const { endId, end, isAnchor, before, routed, askLabel } = work;
  const threaded = toNeeds(
    seals.filter(({ operation }) => operation === 'thread'),
    'pull-to-seat: the wire goes through the housing before it is crimped',
  );
  const marked = toNeeds(marks, 'a marker does not go over a crimped contact');
  const crimp = createCrimpStep(work, [...before, ...marked, ...opened, ...threaded, ...(end.kind === 'ring' ? routed : [])]);
  if (isAnchor) return [crimp];
  const shrink = createStep(`shrink.${endId}`, 'shrink', `Shrink the label of ${end.name}`, {
    endId,
    needs: [
      { stepId: `label.${endId}`, because: 'it is on the leg' },
      ...listHardNeeds(end.potting !== null, endId),
      {
        stepId: end.kind === 'connector' ? `seat.${endId}` : `crimp.${endId}`,
        because: 'slid to its place when the end is finished, then shrunk',
      },
    ],
    tool: 'hot-air tool',
    items: [
      createItem(
        'shrunk',
        `"${[end.name, ...end.cautions.map((one) => CAUTION_LABEL_WORDS[one])].join('", "')}" readable with the end in place`,
        [],
        null,
        [...askLabel, ...end.cautions.map((one) => ({ what: one, value: CAUTION_LABEL_WORDS[one] }))],
      ),
    ],
  });
  return [crimp, shrink];
}

function createCrimpStep(work: EndWork, needs: Need[]): Step {
  const { endId, end, terminations, isPullToSeat } = work;
  const findSleeve = (one: PlannedTermination) => findBladeSleeve(work.context.catalogue, one.contactId);
  const toWords = (one: PlannedTermination) => {
    const trim = listWires(work, one.wireIds)
      .map((wire) => `${wire.number} ${toSizeWords(wire.conductor)} ${toColourWords(wire.colour)}`)
      .join(' with ');
    const seal = one.sealId !== null && !isPullToSeat ? `, ${one.sealName} first` : '';
    const loopMm = end.wireLoops[one.cavity];
    const loop = loopMm ? `, ${loopMm} mm of slack of its own left behind it` : '';
    const place =
      end.kind === 'ring' ? one.contactName : end.kind === 'blade' ? `tongue ${one.cavity}, ${one.contactName}` : `cavity ${one.cavity}`;
    const sleeve = findSleeve(one);
    const over = sleeve ? `, ${sleeve.itemName}, ${sleeve.cutMm} mm, on first and shrunk over all of it` : '';
    return `${place}: ${trim}, strip ${one.stripMm ?? '?'} mm${seal}${over}${toPullWords(one.pullOffsN)}${loop}`;
  };
  const toTool = ({ tool, positioner }: PlannedTermination) => (positioner ? `${tool}, ${positioner}` : tool);
  return createStep(`crimp.${endId}`, 'crimp', end.kind === 'tail' ? `Strip the tails of ${end.name}` : `Crimp ${end.name}`, {
    endId,
    needs,
    tool: [...new Set(terminations.map(toTool))].join(' · '),
    parts: [
      ...new Set(
        terminations.flatMap(({ contactName, sealName }) => (sealName && sealName !== 'grommet' ? [contactName, sealName] : [contactName])),
      ),
    ],
    items: listCrimpItems(work, toWords, (one) => [
      { what: 'contact', value: one.contactName },
      { what: 'seal', value: one.sealName },
      { what: 'strip', value: one.stripMm ?? 'not known' },
      { what: 'tool', value: toTool(one) },
      { what: 'pull', value: toPullWords(one.pullOffsN) },
      ...[findSleeve(one)].flatMap((sleeve): Ask[] =>
        sleeve ? [{ what: 'sleeve over it', value: `${sleeve.itemName}, ${sleeve.cutMm} mm` }] : [],
      ),
    ]).map((item, index) => ({ ...item, reads: listPulls(work, terminations[index]!) })),
  });
}

const SEAL_LOOK = ', then look from behind: its seal in the cavity, straight, not turned over';

/** Contacts into their housing, its lock closed, the cavities that stay empty plugged. */
function listSeatSteps(work: EndWork): Step[] {
  const { context, endId, end, family, isPullToSeat, routed, askHousing } = work;
  if (end.kind !== 'connector' || !family) return [];
  // a seal that is drawn into its cavity by the wire may turn over or stay behind (craft D2)
  const hasDrawnSeal = ({ sealId }: PlannedTermination) => isPullToSeat && sealId !== null;
  const seat = createStep(`seat.${endId}`, 'seat', `Seat the contacts of ${end.name}`, {
    endId,
    needs: [
      { stepId: `crimp.${endId}`, because: 'contacts are seated when they are crimped' },
      ...routed,
      ...listPottedNeeds(end.potting !== null, endId),
    ],
    tool: isPullToSeat ? 'pull back until it clicks' : 'push until it clicks, tug once',
    parts: [family.name],
    items: [
      ...listCrimpItems(
        work,
        (one) => `cavity ${one.cavity}: ${toNumbers(work, one.wireIds)}${hasDrawnSeal(one) ? SEAL_LOOK : ''}`,
        ({ contactName }) => [{ what: 'contact', value: contactName }, ...askHousing],
      ),
      ...(family.secondaryLock ? [createItem('lock', 'secondary lock closed', [], null, askHousing)] : []),
    ],
  });
  const plugs = context.plugs.get(endId) ?? [];
  if (plugs.length === 0) return [seat];
  const empty = plugs.map(({ cavity }) => cavity).join(', ');
  const names = countPlugs(plugs, context.catalogue, family);
  const plug = createStep(`plug.${endId}`, 'plug', `Plug the empty cavities of ${end.name}`, {
    endId,
    needs: [{ stepId: `seat.${endId}`, because: 'what stays empty is known when the rest is seated' }],
    parts: names.map(([name, count]) => `${count} × ${name}`),
    items: [
      createItem('plugs', `cavities ${empty}`, [], null, [
        { what: 'plug', value: names.map(([name]) => name).join(', ') },
        { what: 'cavities', value: empty },
      ]),
    ],
  });
  return [seat, plug];
}

/** How many plugs of each kind. */
function countPlugs(plugs: readonly { cavity: string }[], catalogue: Catalogue, family: ConnectorFamily): [string, number][] {
  const counts = new Map<string, number>();
  for (const { cavity } of plugs) {
    const { name } = catalogue.plugs[findCavitySize(family, cavity)]!;
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return [...counts];
}

/** Each wire of a crimp is pulled by itself, where a force is known for it. */
const listPulls = (work: EndWork, { wireIds, pullOffsN }: PlannedTermination): ExpectedReading[] =>
  listWires(work, wireIds).flatMap(({ id, number }, at) => {
    const least = pullOffsN[at] ?? null;
    return least === null ? [] : [{ id: `pull ${id}`, words: `pull test of ${number}`, unit: 'N', least, most: null }];
  });

/** "pull test 40 N"; in a double crimp each wire is pulled by itself. */
function toPullWords(forcesN: readonly (number | null)[]): string {
  const known = forcesN.filter((force) => force !== null);
  if (known.length === 0) return '';
  return known.length === 1 ? `, pull test ${known[0]} N` : `, pull each wire: ${known.map((force) => `${force} N`).join(', ')}`;
}
