import type { PlannedLoad, PlannedProtection } from '../../plan';
import type { PowerBox } from './listBoxes';
import { createPowerTest, isDriven, nodeAt, type PowerContext } from './powerContext';
import { standIn } from './listVoltTests';
import { toCurrentLimits, toSupplyLimit } from './powerLimits';
import type { PowerTest } from './types';

/** What hangs on the battery with every fuse out, and every ground stud (craft E2): with no power at all. */
export function listBareTests(context: PowerContext): PowerTest[] {
  const { netlist, standard, planned, toWords } = context;
  const positive = netlist.nodes.find(({ offer }) => offer?.can.includes('battery-positive'))?.pins[0];
  if (!positive) return [];
  const fuses = new Set(planned.power.protections.flatMap(({ id, kind }) => (kind === 'fuse' ? [id] : [])));
  // a starter's solenoid is open, and what hangs behind no fuse has its own resistance
  const bare = planned.power.loads.filter(
    ({ load, linkIds, faultA }) => load !== 'feed' && load !== 'starter' && faultA !== null && !linkIds.some((id) => fuses.has(id)),
  );
  const conductance = bare.reduce((sum, { currentA }) => sum + currentA / context.job.source.volts, 0);
  const expected = conductance > 0 ? 1 / conductance : null;
  const least = expected === null ? standard.feedLeastOhm : Math.min(standard.feedLeastOhm, expected * (1 - standard.currentBandShare));
  const feed = createPowerTest({
    id: 'bare feed',
    part: 'bare',
    words: `${toWords(positive)} to ground, the battery off, every fuse out`,
    note: bare.length > 0 ? `without a fuse: ${bare.map(({ name }) => name).join(', ')}` : 'nothing hangs on it without a fuse',
    unit: 'Ω',
    expected,
    least,
    endIds: [`${positive.loomId}/${positive.endId}`],
  });
  return [feed, ...listGroundTests(context)];
}

function listGroundTests({ netlist, standard, job, toWords }: PowerContext): PowerTest[] {
  return netlist.nodes.flatMap(({ offer, pins }): PowerTest[] => {
    const place = pins[0];
    const isStud = offer?.can.includes('chassis') || offer?.can.includes('engine-block');
    if (!place || !isStud || offer?.chassisMilliohm === 'none') return [];
    return [
      createPowerTest({
        id: `ground ${place.loomId}/${place.endId}`,
        part: 'grounds',
        words: `${toWords(place)} to the negative post of the battery`,
        note: offer?.can.includes('engine-block') ? 'over the engine strap' : '',
        unit: 'mΩ',
        most: standard.groundMostMilliohm,
        endIds: [`${place.loomId}/${place.endId}`, ...listNegative(job)],
      }),
    ];
  });
}

const listNegative = (job: PowerContext['job']) =>
  Object.entries(job.looms).flatMap(([loomId, { ends }]) =>
    Object.entries(ends).flatMap(([endId, { offers }]) =>
      Object.values(offers).some(({ can }) => can.includes('battery-negative')) ? [`${loomId}/${endId}`] : [],
    ),
  );

/** Boxes plugged one at a time: by what the current rises. In the first mode in which a box is fed, rather with the engine off. */
export function listBoxTests(context: PowerContext): { tests: PowerTest[]; limitA: Record<string, number> } {
  const { job, planned, standard, netlist } = context;
  const { states, modeIds } = planned.power;
  const order = modeIds
    .map((id, mode) => ({ id, mode }))
    .sort((a, b) => Number(job.modes[a.id]!.engine !== 'off') - Number(job.modes[b.id]!.engine !== 'off'));
  const limitA: Record<string, number> = {};
  const tests = context.boxes.flatMap((box): PowerTest[] => {
    const feeds = box.ends.flatMap((end) =>
      (context.wired.get(`${end.loomId}/${end.endId}`) ?? []).filter(
        (place) => netlist.nodes[nodeAt(context, place)]!.need?.kind === 'supply',
      ),
    );
    const netIds = feeds.map((place) => netlist.nets[netlist.netOf[nodeAt(context, place)]!]!.id);
    const at = order.find(({ mode }) => states[mode]!.live.some(({ netId, state }) => state === 'live' && netIds.includes(netId)));
    if (!at) return [];
    const own = planned.power.loads.filter(
      ({ load, deviceId }) => load !== 'feed' && deviceId !== null && box.deviceIds.includes(deviceId),
    );
    const expected = measureOwn(context, box, own.length > 0 ? own.reduce((sum, { onA }) => sum + onA[at.mode]!, 0) : null);
    const id = `box ${box.id}`;
    if (expected !== null) limitA[id] = toSupplyLimit(expected, standard);
    return [
      createPowerTest({
        id,
        part: 'boxes',
        stateId: null,
        words: `plug ${box.name} in with “${job.modes[at.id]!.name}”: the current rises by`,
        note:
          own.length > 0
            ? `its own: ${own.map(({ name, onA }) => `${name} ${onA[at.mode]!.toFixed(2)} A`).join(', ')}`
            : expected === null
              ? 'nobody said what it draws'
              : 'as its ground says',
        name: box.name,
        unit: 'A',
        ...toRise(expected, standard),
        endIds: box.ends.map(({ loomId, endId }) => `${loomId}/${endId}`),
      }),
    ];
  });
  return { tests, limitA };
}

/** By what a current rises; null: not told, so that any reading stands. */
const toRise = (expected: number | null, standard: PowerContext['standard']): Pick<PowerTest, 'expected' | 'least' | 'most'> =>
  expected === null ? { expected, least: null, most: null } : { expected, ...toCurrentLimits(expected, standard) };

/** What a box uses itself: what its supplies draw, or what it states at its grounds; null: nobody said. */
function measureOwn({ job }: PowerContext, { ends }: PowerBox, suppliedA: number | null): number | null {
  if (suppliedA !== null) return suppliedA;
  const stated = ends.flatMap(({ loomId, endId }) =>
    Object.values(job.looms[loomId]!.ends[endId]!.pins).flatMap(({ kind, currentA }) =>
      kind === 'power-ground' && currentA !== null ? [currentA] : [],
    ),
  );
  return stated.length > 0 ? stated.reduce((sum, one) => sum + one, 0) : null;
}

/** Fuses and channels one by one, each given by itself: what flows, and which loads wake. What a box drives sleeps on. */
export function listFeedTests(context: PowerContext): { tests: PowerTest[]; limitA: Record<string, number> } {
  const { planned, standard } = context;
  const { loads, protections } = planned.power;
  const limitA: Record<string, number> = {};
  const tests = protections
    .filter(({ kind, id }) => (kind === 'fuse' || kind === 'channel') && isLast(id, protections, loads))
    .flatMap((one): PowerTest[] => {
      const behind = loads.filter(({ load, linkIds }) => load !== 'feed' && load !== 'starter' && linkIds.includes(one.id));
      if (behind.length === 0) return [];
      const asleep = behind.filter(({ deviceId }) => deviceId !== null && isDriven(context, deviceId));
      const awake = behind.filter((load) => !asleep.includes(load));
      // one whose current nobody gave may wake as well: what flows is not told then
      const unknown = planned.power.nets.find(({ id: netId }) => netId === one.netId)?.unknown ?? 0;
      const expected = unknown > 0 ? null : awake.reduce((sum, { currentA }) => sum + currentA, 0);
      const id = `feed ${one.id}`;
      if (expected !== null) limitA[id] = toSupplyLimit(expected, standard);
      const device = (of: readonly PlannedLoad[]) => [...new Set(of.flatMap(({ deviceId }) => deviceId ?? []))];
      const wireEnds = behind.map(({ pin }) => `${pin.loomId}/${pin.endId}`);
      return [
        createPowerTest({
          id,
          part: 'feeds',
          words: `${one.name} alone gives: the current rises by`,
          note: [
            awake.length > 0 ? `wakes ${awake.map(({ name }) => name).join(', ')}` : 'wakes nothing',
            unknown > 0 ? 'nobody said what all of its loads draw' : '',
            asleep.length > 0 ? `sleeps until it is driven: ${asleep.map(({ name }) => name).join(', ')}` : '',
          ]
            .filter(Boolean)
            .join('; '),
          name: one.name,
          unit: 'A',
          ...toRise(expected, standard),
          wakes: device(awake),
          endIds: [...new Set(wireEnds)],
        }),
      ];
    });
  return { tests, limitA };
}

/** Is it the last fuse or channel on the way to some load? What stands before another is read with that. */
const isLast = (id: string, protections: readonly PlannedProtection[], loads: readonly PlannedLoad[]): boolean => {
  const guards = new Set(protections.flatMap((one) => (one.kind === 'fuse' || one.kind === 'channel' ? [one.id] : [])));
  return loads.some(({ load, linkIds }) => load !== 'feed' && linkIds.findLast((one) => guards.has(one)) === id);
};

/** Cranking with fuel and spark off: what is left at every box that thinks. */
export function listCrankTests(context: PowerContext): PowerTest[] {
  const { job, planned, standard, netlist } = context;
  const modeId = planned.power.modeIds.find((id) => job.modes[id]!.engine === 'cranking');
  if (modeId === undefined) return [];
  const { live, potentials } = standIn(context, modeId);
  const { volts, listPath } = potentials;
  return context.boxes.flatMap(({ ends, kind }) =>
    kind === 'module'
      ? []
      : ends.flatMap((end) =>
          (context.wired.get(`${end.loomId}/${end.endId}`) ?? []).flatMap((place): PowerTest[] => {
            const node = nodeAt(context, place);
            const { need } = netlist.nodes[node]!;
            const { state } = live[netlist.netOf[node]!]!;
            if (need?.kind !== 'supply' || (state !== 'live' && state !== 'momentary')) return [];
            return [
              createPowerTest({
                id: `cranking ${place.loomId}/${place.endId}/${place.cavity}`,
                part: 'cranking',
                words: `red on ${context.toWords(place)}, black on battery negative, while the starter turns`,
                hazard: 'Fuel and spark off, gearbox in neutral, nobody near belt and wheels.',
                unit: 'V',
                expected: volts[node]!,
                least: standard.crankLeastV,
                most: job.source.volts * (1 + standard.voltBandShare),
                path: context.toPath(listPath(node)),
                endIds: [`${place.loomId}/${place.endId}`],
              }),
            ];
          }),
        ),
  );
}
