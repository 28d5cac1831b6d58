import { findFamily, toSizeWords, type Catalogue } from '../catalogue';
import { findCavitySize, toColourWords, type ConnectorFamily } from '../model';
import { findStandard } from '../plan';
import { askWires, createItem, createStep, isTrimmed, type Need, type StepContext } from './createStep';
import type { Ask, Step } from './step';

/** Steps of one end: label, marks, seals, housing, crimps, contacts, plugs, each after what has to be there before it. */
export function listEndSteps(context: StepContext, endId: string, early: readonly Step[]): Step[] {
  const { job, loom, catalogue, wires, anchorId } = context;
  const freeMm = findStandard(job, catalogue).pullToSeatFreeMm;
  const terminations = context.terminations.get(endId) ?? [];
  if (terminations.length === 0) return [];
  const end = loom.ends[endId]!;
  const family = findFamily(job, catalogue, end.familyId);
  const pullToSeat = family?.seating === 'pull-to-seat';
  const isAnchor = endId === anchorId;
  const before: Need[] = isAnchor
    ? early.map(({ id }) => ({ stepId: id, because: 'the anchor end is filled first, from cut and twisted wires' }))
    : [
        { stepId: 'fit', because: 'device ends are closed after the trial fit' },
        ...(context.sleevesBefore.get(endId) ?? []),
        { stepId: `label.${endId}`, because: 'its label does not go over the finished end' },
      ];
  const steps: Step[] = [];
  const askLabel: Ask[] = [{ what: 'label', value: end.name }];
  const askHousing: Ask[] = [{ what: 'housing', value: family?.name ?? end.kind }];
  if (!isAnchor) {
    steps.push(
      createStep(`label.${endId}`, 'label', `Slide the label of ${end.name} on`, {
        endId,
        parts: ['end label'],
        items: [createItem('label', `"${end.name}" on the leg, not yet shrunk`, [], null, askLabel)],
        needs: [{ stepId: 'lay', because: 'the leg is laid first' }, ...(context.sleevesBefore.get(endId) ?? [])],
      }),
    );
  }
  const wiresAt = (ids: readonly string[]) => ids.map((id) => wires.get(id)!);
  const numbersAt = (ids: readonly string[]) =>
    wiresAt(ids)
      .map(({ number }) => number)
      .join(', ');
  type Crimp = (typeof terminations)[number];
  const perCrimp = (toWords: (one: Crimp) => string, toAsks: (one: Crimp) => Ask[]) =>
    terminations.map((one, index) => {
      // a stud has several rings in one place, listed together
      let nth = 0;
      while (terminations[index - nth - 1]?.cavity === one.cavity) nth += 1;
      return createItem(nth === 0 ? one.cavity : `${one.cavity}.${nth + 1}`, toWords(one), wiresAt(one.wireIds), one.cavity, [
        ...askWires(wiresAt(one.wireIds)),
        ...toAsks(one),
      ]);
    });
  const hasSeals = terminations.some(({ sealId }) => sealId !== null);
  const marked: Need[] = [];
  const unmarked = terminations.flatMap(({ wireIds }) => wiresAt(wireIds)).filter((wire) => !wire.cable && (isAnchor || isTrimmed(wire)));
  if (unmarked.length && unmarked.some(isTrimmed)) {
    marked.push({ stepId: `mark.${endId}`, because: 'a marker does not go over a crimped contact' });
    steps.push(
      createStep(`mark.${endId}`, 'mark', `Marker sleeves on the wires of ${end.name}`, {
        endId,
        needs: before,
        tool: 'marker sleeves, hot-air tool',
        parts: ['marker sleeves'],
        items: unmarked.map((wire, index) =>
          // a wire that comes back to its own end has a marker at each of its ends
          createItem(
            unmarked.indexOf(wire) === index ? wire.id : `${wire.id}.2`,
            `${wire.number}: its marker for good${isAnchor ? ' at this end' : ', now that it is trimmed'}`,
            [wire],
            null,
            askWires([wire]),
          ),
        ),
      }),
    );
  }
  const sealed: Need[] = [];
  if (pullToSeat && hasSeals) {
    sealed.push({ stepId: `seal.${endId}`, because: 'pull-to-seat: a seal goes on behind the housing, before the wire goes through it' });
    steps.push(
      createStep(`seal.${endId}`, 'seal', `Slide the seals of ${end.name} on`, {
        endId,
        needs: [...before, ...marked],
        tool: 'by hand',
        parts: [...new Set(terminations.flatMap(({ sealId, sealName }) => (sealId === null ? [] : [sealName])))],
        items: perCrimp(
          ({ cavity, wireIds, sealName }) => `cavity ${cavity}: ${sealName} on ${numbersAt(wireIds)}, its lips away from the housing`,
          ({ sealName }) => [{ what: 'seal', value: sealName }],
        ),
      }),
    );
  }
  if (pullToSeat) {
    steps.push(
      createStep(`thread.${endId}`, 'thread', `Lead the wires of ${end.name} through its housing`, {
        endId,
        needs: [...before, ...marked, ...sealed],
        parts: [family.name],
        tool: 'by hand',
        items: perCrimp(
          ({ cavity, wireIds }) => `cavity ${cavity}: ${numbersAt(wireIds)}, ${freeMm} mm free`,
          () => askHousing,
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
      needs: [...before, ...marked, ...threaded],
      tool: [...new Set(terminations.map(({ tool, positioner }) => (positioner ? `${tool}, ${positioner}` : tool)))].join(' · '),
      parts: [
        ...new Set(
          terminations.flatMap(({ contactName, sealName }) =>
            sealName && sealName !== 'grommet' ? [contactName, sealName] : [contactName],
          ),
        ),
      ],
      items: perCrimp(
        (one) => {
          const here = wiresAt(one.wireIds);
          const trim = here.map((wire) => `${wire.number} ${toSizeWords(wire.conductor)} ${toColourWords(wire.colour)}`).join(' with ');
          const seal = one.sealId !== null && !pullToSeat ? `, ${one.sealName} first` : '';
          return `${end.kind === 'ring' ? one.contactName : `cavity ${one.cavity}`}: ${trim}, strip ${one.stripMm ?? '?'} mm${seal}${toPullWords(one.pullOffsN)}`;
        },
        ({ contactName, sealName, stripMm, tool, positioner, pullOffsN }) => [
          { what: 'contact', value: contactName },
          { what: 'seal', value: sealName },
          { what: 'strip', value: stripMm ?? 'not known' },
          { what: 'tool', value: positioner ? `${tool}, ${positioner}` : tool },
          { what: 'pull', value: toPullWords(pullOffsN) },
        ],
      ),
    }),
  );
  if (!isAnchor)
    steps.push(
      createStep(`shrink.${endId}`, 'shrink', `Shrink the label of ${end.name}`, {
        endId,
        needs: [
          { stepId: `label.${endId}`, because: 'it is on the leg' },
          {
            stepId: end.kind === 'connector' ? `seat.${endId}` : `crimp.${endId}`,
            because: 'slid to its place when the end is finished, then shrunk',
          },
        ],
        tool: 'hot-air tool',
        items: [createItem('shrunk', `"${end.name}" readable with the end in place`, [], null, askLabel)],
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
        ...perCrimp(
          ({ cavity, wireIds }) => `cavity ${cavity}: ${numbersAt(wireIds)}`,
          ({ contactName }) => [{ what: 'contact', value: contactName }, ...askHousing],
        ),
        ...(family.secondaryLock ? [createItem('lock', 'secondary lock closed', [], null, askHousing)] : []),
      ],
    }),
  );
  const plugs = context.plugs.get(endId) ?? [];
  if (plugs.length) {
    const empty = plugs.map(({ cavity }) => cavity).join(', ');
    const names = countPlugs(plugs, catalogue, family);
    steps.push(
      createStep(`plug.${endId}`, 'plug', `Plug the empty cavities of ${end.name}`, {
        endId,
        needs: [{ stepId: `seat.${endId}`, because: 'what stays empty is known when the rest is seated' }],
        parts: names.map(([name, count]) => `${count} × ${name}`),
        items: [
          createItem('plugs', `cavities ${empty}`, [], null, [
            { what: 'plug', value: names.map(([name]) => name).join(', ') },
            { what: 'cavities', value: empty },
          ]),
        ],
      }),
    );
  }
  return steps;
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

/** "pull test 40 N"; in a double crimp each wire is pulled by itself. */
function toPullWords(forcesN: readonly (number | null)[]): string {
  const known = forcesN.filter((force) => force !== null);
  if (known.length === 0) return '';
  return known.length === 1 ? `, pull test ${known[0]} N` : `, pull each wire: ${known.map((force) => `${force} N`).join(', ')}`;
}
