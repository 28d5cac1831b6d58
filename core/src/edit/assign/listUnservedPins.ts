import type { ShopStandard } from '../../catalogue';
import type { Capability, CircuitKind, Job, PinNeed, PinOffer } from '../../model';
import { compareIds, pushTo } from '../../units';
import { createNetMap, toPinKey, type JoinedCircuits, type MappedNet, type PinPlace } from '../../netlist';

/** Pins of one loom that belong together, and the circuits they are in already, of all looms. */
export interface UnservedMember {
  loomId: string;
  circuits: JoinedCircuits;
  pins: PinPlace[];
}

/** Something that wants a pin of a box: one function, or the two of a pair. */
export interface UnservedPin {
  id: string;
  name: string;
  kind: CircuitKind;
  /** a place that can do any of these will do */
  wants: readonly Capability[];
  currentA: number;
  pwmHz: number | null;
  /** what sets it apart from others of its kind, for sharing */
  noise: string | null;
  /** first of two for a pair */
  members: UnservedMember[][];
  /** nth need of its kind of one device: tracks that must not share */
  nth: number;
}

/** What a box may offer a pin of each kind that asks for nothing in particular. */
const WANTS: Record<CircuitKind, readonly Capability[]> = {
  supply: ['feed'],
  'sensor-supply': ['sensor-supply'],
  'sensor-ground': ['sensor-ground'],
  'power-ground': ['chassis', 'ground', 'battery-negative'],
  signal: ['analogue', 'digital', 'frequency', 'temperature'],
  output: ['low-side', 'half-bridge'],
  data: ['can'],
  screen: ['screen'],
};
export const listWanted = ({ kind, wants }: Pick<PinNeed, 'kind' | 'wants'>): readonly Capability[] =>
  wants === null ? WANTS[kind] : [wants];

interface OpenPin {
  place: PinPlace;
  need: PinNeed;
  net: MappedNet | null;
}

/** Everything that no box serves yet: required pins without a wire, and wired ones whose net reaches no pin that could serve them. */
export function listUnservedPins(job: Job, standard: ShopStandard): { needs: UnservedPin[]; served: number } {
  const { netOf } = createNetMap(job);
  const deviceAt = new Map(
    Object.values(job.devices).flatMap((device) => (device.at ? [[`${device.at.loomId}/${device.at.endId}`, device] as const] : [])),
  );
  const groups = new Map<string, OpenPin[]>();
  const order = new Map<string, number>();
  let served = 0;
  const isSensorPin = ({ can }: PinOffer) => can.includes('sensor-supply') || can.includes('sensor-ground');
  const boxLooms = new Set(
    Object.entries(job.looms).flatMap(([id, { ends }]) =>
      Object.values(ends).some(({ offers }) => Object.values(offers).some(isSensorPin)) ? [id] : [],
    ),
  );
  for (const loomId of Object.keys(job.looms).sort(compareIds))
    for (const endId of Object.keys(job.looms[loomId]!.ends).sort(compareIds)) {
      const end = job.looms[loomId]!.ends[endId]!;
      const device = deviceAt.get(`${loomId}/${endId}`);
      if (device && (device.decision === 'remove' || device.decision === 'later')) continue;
      const counts = new Map<CircuitKind, number>();
      for (const cavity of Object.keys(end.pins).sort(compareIds)) {
        const need = end.pins[cavity]!;
        const place = { loomId, endId, cavity };
        const net = netOf.get(toPinKey(place)) ?? null;
        const nth = counts.get(need.kind) ?? 0;
        counts.set(need.kind, nth + 1);
        const wanted = listWanted(need);
        // what is bolted to the engine is grounded there, but nothing is led there from elsewhere
        const serving: readonly Capability[] = need.kind === 'power-ground' ? [...wanted, 'engine-block'] : wanted;
        if (net?.pins.some(({ offer }) => offer?.can.some((one) => serving.includes(one)))) {
          served += 1;
          continue;
        }
        if (net && need.kind === 'supply' && net.pins.some(({ offer }) => offer !== null && offer.volts !== null)) continue;
        // a wired battery feed, or a link into it, is the planner's own work
        if (net && need.kind === 'supply' && need.currentA === null) continue;
        if (!net && (!need.required || (need.kind === 'supply' && need.currentA === null))) continue;
        // the pins of a box that drives others are fed and grounded one by one
        const isBox = Object.keys(end.offers).length > 0;
        const pin = { place, need: { ...need, currentA: measurePinCurrent(end.pins, cavity) }, net };
        const key = toGroup(pin, { isBox, templateId: isBox ? null : (device?.templateId ?? null) }, boxLooms, standard);
        order.set(key, Math.min(order.get(key) ?? nth, nth));
        pushTo(groups, key, pin);
      }
    }
  return { needs: toNeeds(job, groups, order, standard), served };
}

/** What flows at a pin while its device is on, A: as stated; at a ground its share of what the supplies beside it draw and no output takes. */
function measurePinCurrent(pins: Readonly<Record<string, PinNeed>>, cavity: string): number | null {
  const need = pins[cavity]!;
  if (need.kind !== 'power-ground' || need.currentA !== null) return need.currentA;
  const sum = (kind: CircuitKind) =>
    Object.values(pins).reduce((total, one) => total + (one.kind === kind && one.returnBy === 'pin' ? (one.currentA ?? 0) : 0), 0);
  const grounds = Object.values(pins).filter(({ kind }) => kind === 'power-ground').length;
  return Math.max(0, sum('supply') - sum('output')) / grounds;
}

/** Pins with the same key are served by one place. */
function toGroup(
  { place, need, net }: OpenPin,
  { templateId, isBox }: { templateId: string | null; isBox: boolean },
  boxLooms: ReadonlySet<string>,
  standard: ShopStandard,
): string {
  const { loomId } = place;
  if (need.kind === 'data') return `bus ${need.function}`;
  const isLed = net?.circuits.some((one) => boxLooms.has(one.loomId)) === true;
  if ((need.kind === 'sensor-ground' || need.kind === 'sensor-supply') && !isLed) return `${need.kind} ${need.noise ?? 'rest'}`;
  if (need.kind === 'screen') return `screen ${loomId}`;
  if (net) return `net ${net.circuits[0]!.loomId}/${net.circuits[0]!.circuitId}`;
  if (need.kind === 'power-ground' && !isBox && (need.currentA ?? 0) <= standard.ownGroundA) return `ground ${loomId}`;
  if (need.kind === 'supply' && !isBox && (need.currentA ?? 0) < standard.smallLoadA) return 'feed small loads';
  if (need.kind === 'supply' && templateId !== null && (need.currentA ?? 0) <= standard.sharedLoadA)
    return `feed ${loomId} ${templateId} ${need.function}`;
  return `pin ${toPinKey(place)}`;
}

function toNeeds(job: Job, groups: Map<string, OpenPin[]>, order: Map<string, number>, standard: ShopStandard): UnservedPin[] {
  const all = new Map<string, UnservedPin>();
  const keyOf = new Map<string, string>();
  for (const [key, pins] of [...groups]) {
    const feeds = key.startsWith('feed ') ? splitFeeds(pins, standard.sharedFeedA) : [pins];
    feeds.forEach((some, index) => {
      const id = index === 0 ? key : `${key} ${index + 1}`;
      for (const { place } of some) keyOf.set(toPinKey(place), id);
      all.set(id, toNeed(job, id, some, order.get(key) ?? 0));
    });
  }
  // the two halves of a pair become one need
  const paired = new Set<string>();
  const needs: UnservedPin[] = [];
  for (const [id, need] of [...all].sort(([a], [b]) => compareIds(a, b))) {
    if (paired.has(id)) continue;
    const first = need.members[0]![0]!.pins[0]!;
    const partner = job.looms[first.loomId]!.ends[first.endId]!.pins[first.cavity]!.twistWith;
    const other = partner === null ? undefined : keyOf.get(toPinKey({ ...first, cavity: partner }));
    const isPair = need.wants.some((one) => one === 'coil-pair' || one === 'knock-pair' || one === 'half-bridge' || one === 'can');
    if (isPair && other !== undefined && other !== id && all.has(other)) {
      paired.add(other);
      needs.push({ ...need, name: need.name.replace(/ (\+|high)$/, ''), members: [...need.members, ...all.get(other)!.members] });
    } else needs.push(need);
  }
  return needs;
}

function splitFeeds(pins: readonly OpenPin[], mostA: number): OpenPin[][] {
  const feeds: OpenPin[][] = [];
  let sum = Infinity;
  for (const pin of pins) {
    const own = pin.need.currentA ?? 0;
    if (sum + own > mostA) {
      feeds.push([]);
      sum = 0;
    }
    feeds.at(-1)!.push(pin);
    sum += own;
  }
  return feeds;
}

function toNeed(job: Job, id: string, pins: readonly OpenPin[], nth: number): UnservedPin {
  const { need, place } = pins[0]!;
  const members = new Map<string, UnservedMember>();
  for (const one of pins) {
    const circuits = one.net?.circuits ?? [];
    const key = one.net ? `net ${circuits[0]!.loomId}/${circuits[0]!.circuitId}` : `loom ${one.place.loomId}`;
    const member: UnservedMember = members.get(key) ?? { loomId: one.place.loomId, circuits, pins: [] };
    member.pins.push(one.place);
    members.set(key, member);
  }
  const device = Object.values(job.devices).find(({ at }) => at?.loomId === place.loomId && at.endId === place.endId);
  const end = job.looms[place.loomId]!.ends[place.endId]!;
  const owner = pins.length === 1 || pins.every((one) => one.place.endId === place.endId) ? (device?.name ?? end.name) : null;
  const shared = need.noise ?? (need.kind === 'data' ? '' : 'shared');
  return {
    id,
    name: owner === null ? `${shared} ${need.function}`.trim() : `${owner} ${need.function}`,
    kind: need.kind,
    wants: listWanted(need),
    currentA: pins.reduce((sum, one) => sum + (one.need.currentA ?? 0), 0),
    pwmHz: pins.reduce<number | null>((most, one) => (one.need.pwmHz === null ? most : Math.max(most ?? 0, one.need.pwmHz)), null),
    noise: need.noise,
    members: [[...members.values()]],
    nth,
  };
}
