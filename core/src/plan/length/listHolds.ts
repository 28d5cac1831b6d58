import type { ShopStandard } from '../../catalogue';
import { DOUBT_WORDS, DOUBTS, HOLD_WORDS, isBlocking, type Job, type Loom, type PinNeed } from '../../model';
import { compareIds, pushTo } from '../../units';
import type { Hold, RoutedWire } from '../types';

const NONE: Hold[] = [];

/**
 * Looks up what holds a wire of a loom, and the first work that each stops (craft G1, G2): an open item on the loom, a run, an end or a
 * circuit of it; a guessed run; a guessed pin; an anchor that is not fixed and that it passes; an end whose place is not known.
 */
export function listHolds(job: Job, loomId: string, loom: Loom, { guessStops }: ShopStandard): (wire: RoutedWire) => Hold[] {
  const items = listBlocks(job, loomId);
  const whole = items.get('loom') ?? NONE;
  const anchors = listOpenAnchors(job, loomId);
  const coiled = listCoiled(job, loomId);
  // most wires are held by nothing: they share one empty list
  return (wire) => {
    let holds: Hold[] | null = null;
    const add = (more: readonly Hold[], endId: string | null = null) => {
      for (const hold of more) {
        holds ??= [];
        const at = isOfContact(hold) ? endId : null;
        if (!holds.some((one) => one.kind === hold.kind && one.id === hold.id && one.stops === hold.stops && one.endId === at))
          holds.push(at === hold.endId ? hold : { ...hold, endId: at });
      }
    };
    const addItem = (key: string, endId: string | null = null) => {
      if (items.size > 0) add(items.get(key) ?? NONE, endId);
    };
    for (const { segmentId } of wire.pieces) {
      const segment = loom.segments[segmentId]!;
      if (segment.status === 'guessed' && segment.fittedMm === null) {
        const words = `length to ${loom.nodes[segment.toNodeId]!.name} only guessed`;
        add([{ kind: 'segment', id: segmentId, stops: guessStops.length, endId: null, words }]);
      }
      addItem(`segment ${segmentId}`);
      if (anchors.size > 0) for (const nodeId of [segment.fromNodeId, segment.toNodeId]) add(anchors.get(nodeId) ?? NONE);
    }
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'cavity') continue;
      const pin = loom.ends[end.endId]!.pins[end.cavity];
      if (pin?.evidence === 'guessed') add(listPinHolds(loom, end.endId, end.cavity, pin, guessStops), end.endId);
      addItem(`end ${end.endId}`, end.endId);
      if (coiled.size > 0) add(coiled.get(end.endId) ?? NONE, end.endId);
    }
    addItem(`circuit ${wire.circuitId}`);
    add(whole);
    return holds ?? NONE;
  };
}

const isOfContact = ({ stops }: Hold) => stops === 'crimp' || stops === 'seat';

/** Must a wire not be cut yet? */
export const isHeldFromCutting = ({ heldBy }: { heldBy: readonly Hold[] }): boolean => heldBy.some(({ stops }) => stops === 'cut');

/** "place of the controller still open", "cavity of throttle pin 5 only guessed: held from seating" */
export const toHoldWords = ({ stops, words }: Hold): string => (stops === 'cut' ? words : `${words}: held from ${HOLD_WORDS[stops]}`);

/** Open items by what they block. */
function listBlocks(job: Job, loomId: string): Map<string, Hold[]> {
  const items = new Map<string, Hold[]>();
  for (const id of Object.keys(job.openItems).sort(compareIds)) {
    const item = job.openItems[id]!;
    if (!isBlocking(item)) continue;
    for (const block of item.blocks) {
      if (block.loomId !== loomId) continue;
      const key = block.kind === 'loom' ? 'loom' : `${block.kind} ${block.id}`;
      pushTo(items, key, { kind: 'item', id, stops: item.stops, endId: null, words: `open: ${item.question}` });
    }
  }
  return items;
}

/** Where covering waits, whatever wires lie there: the loom, runs and ends that an open item stops from being covered. */
export const listCoverHolds = (job: Job, loomId: string): ReadonlyMap<string, readonly Hold[]> =>
  new Map([...listBlocks(job, loomId)].map(([key, holds]) => [key, holds.filter(({ stops }) => stops === 'cover')]));

/** A guess that does not say what it is about may be wrong in all of it: it stops what the strictest of its doubts stops. */
function listPinHolds(loom: Loom, endId: string, cavity: string, { doubts }: PinNeed, guessStops: ShopStandard['guessStops']): Hold[] {
  const place = { kind: 'pin' as const, id: `${endId} ${cavity}`, endId };
  const of = `${loom.ends[endId]!.name} pin ${cavity}`;
  if (doubts.length === 0) return [{ ...place, stops: 'cut', words: `${of} only guessed` }];
  return DOUBTS.filter((doubt) => doubts.includes(doubt)).map((doubt) => ({
    ...place,
    stops: guessStops[doubt],
    words: `${DOUBT_WORDS[doubt]} of ${of} only guessed`,
  }));
}

/** Anchors that are not fixed, by node: what passes there may come out longer or shorter once they are. */
function listOpenAnchors(job: Job, loomId: string): Map<string, Hold[]> {
  const anchors = new Map<string, Hold[]>();
  for (const id of Object.keys(job.anchors).sort(compareIds)) {
    const { name, state, nodes } = job.anchors[id]!;
    if (state !== 'open') continue;
    for (const node of nodes)
      if (node.loomId === loomId)
        pushTo(anchors, node.nodeId, { kind: 'anchor', id, stops: 'cut', endId: null, words: `place of the ${name} still open` });
  }
  return anchors;
}

/** Ends whose leg is left coiled, as nobody knows yet where their device goes: it is trimmed there before it is terminated. */
function listCoiled(job: Job, loomId: string): Map<string, Hold[]> {
  const coiled = new Map<string, Hold[]>();
  for (const [id, { name, unknownPolicy, at }] of Object.entries(job.devices))
    if (unknownPolicy === 'coil' && at?.loomId === loomId && job.looms[loomId]!.ends[at.endId]?.kind !== 'tail')
      pushTo(coiled, at.endId, {
        kind: 'device',
        id,
        stops: 'crimp',
        endId: null,
        words: `place of ${name} not known, its leg is left coiled`,
      });
  return coiled;
}

/** What of the devices holds wires of a loom, as one word: an edit of any other thing of a device leaves it as it is. */
export const toCoiledKey = (job: Job, loomId: string): string => {
  let key = '';
  for (const id in job.devices) {
    const { name, unknownPolicy, at } = job.devices[id]!;
    if (unknownPolicy === 'coil' && at?.loomId === loomId) key += `${id} ${at.endId} ${name};`;
  }
  return key;
};
