import { toPinKey } from '../../netlist';
import { floodFeeds, type LinkSetting, type NetLive } from '../../plan';
import { measurePotentials, type Potentials } from './measurePotentials';
import { toSupplyLimit } from './powerLimits';
import { createPowerTest, isDriven, listWiredCavities, nodeAt, type PowerContext } from './powerContext';
import type { PowerPart, PowerState, PowerTest } from './types';

/** A state with what is fed in it while some boxes are out. */
export interface StandingState {
  state: PowerState;
  links: Map<string, LinkSetting>;
  live: NetLive[];
  potentials: Potentials;
}

/**
 * The states of a vehicle with these boxes out that differ in what is fed. A channel of a module that is out gives nothing, nor does a relay
 * whose coil is worked by a box that is out.
 */
export function listStandingStates(context: PowerContext, part: PowerPart, isOut: (boxId: string) => boolean): StandingState[] {
  const { job, netlist, standard, boxOf } = context;
  const known = new Map<string, StandingState>();
  for (const modeId of listQuietFirst(context)) {
    const links = context.settings(modeId);
    for (const link of netlist.links) {
      const box = boxOf(link.deviceId);
      if ((link.kind === 'channel' && box !== null && isOut(box.id)) || (link.coil && isDrivenBy(context, link.coil.switch, isOut)))
        links.set(link.id, 'open');
    }
    const live = floodFeeds(job, netlist, links, (box) => !isOut(box));
    const key = live.map(({ state }) => state[0]).join('');
    const before = known.get(key);
    if (before) {
      before.state.modeIds.push(modeId);
      before.state.name = `${before.state.name}, ${job.modes[modeId]!.name}`;
      continue;
    }
    const potentials = measureStanding(context, modeId, { links, live, isOut });
    const limitA = toSupplyLimit(potentials.totalA, standard);
    const hands = netlist.links.filter(({ kind }) => kind === 'switch').map(({ id, name }) => ({ name, state: links.get(id)! }));
    const state = { id: `${part}-${modeId}`, modeIds: [modeId], name: job.modes[modeId]!.name, limitA, settings: hands };
    known.set(key, { state, links, live, potentials });
  }
  return [...known.values()];
}

/** The vehicle as it stands in a mode with every box in its place. */
export function standIn(context: PowerContext, modeId: string): Pick<StandingState, 'live' | 'potentials'> {
  const { job, netlist } = context;
  const links = context.settings(modeId);
  const live = floodFeeds(job, netlist, links, () => true);
  return { live, potentials: measureStanding(context, modeId, { links, live, isOut: () => false }) };
}

const measureStanding = (
  context: PowerContext,
  modeId: string,
  { links, live, isOut }: Pick<StandingState, 'links' | 'live'> & { isOut: (boxId: string) => boolean },
): Potentials =>
  measurePotentials(context.job, context.netlist, context.planned, context.standard, {
    isClosed: (id) => links.get(id) !== 'open',
    drawA: (node) => drawAt(context, node, { modeId, isOut, live }),
  });

/** Modes in which least happens first: of those alike the first one stands for all. */
const listQuietFirst = ({ job, planned }: PowerContext): string[] => {
  const rank = (id: string) => ['off', 'running', 'cranking'].indexOf(job.modes[id]!.engine);
  return [...planned.power.modeIds].sort((a, b) => rank(a) - rank(b));
};

/** What a pin draws in a mode while these boxes are out: nothing where its box is, where it is not fed, or where its driver sleeps. */
export function drawAt(
  context: PowerContext,
  node: number,
  { modeId, isOut, live }: { modeId: string; isOut: (boxId: string) => boolean; live: readonly NetLive[] },
): number {
  const { job, netlist, boxOf, deviceAt } = context;
  const { need, pins } = netlist.nodes[node]!;
  if (need?.kind !== 'supply' || need.currentA === null || live[netlist.netOf[node]!]!.state === 'dead') return 0;
  const deviceId = deviceAt(pins[0]!);
  const box = boxOf(deviceId);
  if (box && isOut(box.id)) return 0;
  const duty = deviceId === null ? undefined : job.devices[deviceId]!.duty[modeId];
  const isOn = duty === undefined ? need.load !== 'starter' || job.modes[modeId]!.engine === 'cranking' : duty > 0;
  return isOn && !(deviceId !== null && isAsleep(context, deviceId, isOut)) ? need.currentA : 0;
}

const isAsleep = (context: PowerContext, deviceId: string, isOut: (boxId: string) => boolean): boolean =>
  context.boxes.some(({ id }) => isOut(id)) && isDriven(context, deviceId);

function isDrivenBy({ netlist, boxOf, deviceAt }: PowerContext, place: Parameters<typeof toPinKey>[0], isOut: (boxId: string) => boolean) {
  const node = netlist.nodeOfPin.get(toPinKey(place));
  if (node === undefined) return false;
  return netlist.nets[netlist.netOf[node]!]!.nodes.some((other) => {
    const pin = netlist.nodes[other]!.pins[0];
    const box = pin && other !== node && netlist.nodes[other]!.offer !== null ? boxOf(deviceAt(pin)) : null;
    return box !== null && isOut(box.id);
  });
}

/** What a cavity reads: fed itself, fed through a load that hangs on it, or dead. null: nothing can be told. */
type Told = { volts: number; node: number; through: string | null } | 'dead' | null;

function findTold(context: PowerContext, { live, potentials }: StandingState, node: number): Told {
  const { netlist, deviceAt, job } = context;
  const net = netlist.netOf[node]!;
  const { state } = live[net]!;
  if (state === 'unsaid') return null;
  if (state !== 'dead') return { volts: potentials.volts[node]!, node, through: null };
  // a load whose driver is unplugged hands its supply on
  for (const other of netlist.nets[net]!.nodes) {
    const { need, pins } = netlist.nodes[other]!;
    if (need?.kind !== 'output' || !pins[0]) continue;
    const deviceId = deviceAt(pins[0]);
    const own = deviceId === null ? undefined : job.devices[deviceId]!.at;
    if (!own) continue;
    const feeds = listWiredCavities(context, own)
      .map((place) => nodeAt(context, place))
      .filter((one) => netlist.nodes[one]!.need?.kind === 'supply' && netlist.nodes[one]!.need!.currentA !== null);
    for (const feed of feeds) {
      const how = live[netlist.netOf[feed]!]!.state;
      if (how === 'unsaid') return null;
      if (how !== 'dead') return { volts: potentials.volts[feed]!, node: feed, through: job.devices[deviceId!]!.name };
    }
  }
  // what a fed sensor puts on its wire is its own affair
  const isSensed = netlist.nets[net]!.nodes.some((other) => {
    const { need, pins } = netlist.nodes[other]!;
    const deviceId = pins[0] ? deviceAt(pins[0]) : null;
    return need?.kind === 'signal' && deviceId !== null && isFed(context, live, deviceId);
  });
  return isSensed ? null : 'dead';
}

function isFed(context: PowerContext, live: readonly NetLive[], deviceId: string): boolean {
  const { job, netlist } = context;
  const own = job.devices[deviceId]!.at;
  if (!own) return false;
  return listWiredCavities(context, own).some((place) => {
    const node = nodeAt(context, place);
    const { need } = netlist.nodes[node]!;
    return need?.kind === 'supply' && need.currentA !== null && live[netlist.netOf[node]!]!.state !== 'dead';
  });
}

/**
 * Every cavity that goes to these boxes, in every state: what is live by itself, and at each plug the most that any of all others reads. untold:
 * cavities of which nothing can be told.
 */
export function listVoltTests(
  context: PowerContext,
  part: 'unplugged' | 'modules',
  states: readonly StandingState[],
  boxIds: ReadonlySet<string>,
): { tests: PowerTest[]; untold: number } {
  const { standard, job } = context;
  let untold = 0;
  const tests = states.flatMap((standing) =>
    context.boxes
      .filter(({ id }) => boxIds.has(id))
      .flatMap(({ ends }) =>
        ends.flatMap((end): PowerTest[] => {
          const name = job.looms[end.loomId]!.ends[end.endId]!.name;
          const live: PowerTest[] = [];
          const dead: string[] = [];
          for (const place of listWiredCavities(context, end)) {
            const told = findTold(context, standing, nodeAt(context, place));
            if (told === null) untold += 1;
            else if (told === 'dead') dead.push(place.cavity);
            else live.push(toLiveTest(context, part, standing, { place, ...told }));
          }
          const others = dead.length === 0 ? [] : [toDeadTest(part, standing.state.id, { end, name, dead, most: standard.deadMostV })];
          return [...live, ...others];
        }),
      ),
  );
  return { tests, untold };
}

function toLiveTest(
  context: PowerContext,
  part: PowerPart,
  { state, live, potentials }: StandingState,
  {
    place,
    volts,
    node,
    through,
  }: { place: { loomId: string; endId: string; cavity: string }; volts: number; node: number; through: string | null },
): PowerTest {
  const { standard, job, netlist } = context;
  const isHeld = live[netlist.netOf[node]!]!.state === 'momentary';
  return createPowerTest({
    id: `${state.id} ${toPinKey(place)}`,
    part,
    stateId: state.id,
    name: context.toWords(place),
    words: `red on ${context.toWords(place)}, black on battery negative`,
    note: [through === null ? '' : `through ${through}, which its driver does not pull down`, isHeld ? 'while the switch is held' : '']
      .filter(Boolean)
      .join('; '),
    unit: 'V',
    expected: volts,
    least: volts * (1 - standard.voltBandShare),
    most: job.source.volts * (1 + standard.voltBandShare),
    path: context.toPath(potentials.listPath(node)),
    endIds: [`${place.loomId}/${place.endId}`],
  });
}

const MOST_NAMED = 12;

const toDeadTest = (
  part: PowerPart,
  stateId: string,
  { end, name, dead, most }: { end: { loomId: string; endId: string }; name: string; dead: readonly string[]; most: number },
): PowerTest =>
  createPowerTest({
    id: `${stateId} ${end.loomId}/${end.endId} dead`,
    part,
    stateId,
    words:
      dead.length === 1
        ? `red on ${name} ${dead[0]}, black on battery negative`
        : `${name}: the most that any of ${dead.length} dead cavities reads`,
    note:
      dead.length === 1
        ? 'dead'
        : dead.length > MOST_NAMED
          ? `all but those above: ${dead.slice(0, MOST_NAMED).join(', ')} …`
          : `cavities ${dead.join(', ')}`,
    unit: 'V',
    expected: 0,
    most,
    endIds: [`${end.loomId}/${end.endId}`],
  });
