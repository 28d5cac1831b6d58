import { toSizeWords } from '../../catalogue';
import { toColourWords, type Colour } from '../../model';
import type { PlannedWire } from '../../plan';
import { compareIds, pushTo } from '../../units';
import { toProbe, type Probe, type RingOut } from './types';

/** A lead of an end that others there look like, and a place at which it is told from them. */
export interface EqualLead {
  wireId: string;
  number: string;
  cavity: string;
  /** a pin that it alone of its group leads to */
  far: Probe;
}

/** Leads of one end that the eye does not tell apart. */
export interface EqualLeads {
  endId: string;
  colour: Colour;
  /** "pink AWG 22" */
  words: string;
  /** in the order in which they are looked for: one measurement each but the last, which is what is left */
  leads: EqualLead[];
  /** numbers that lead to the same pins as another one of the group: whichever is which, the loom is the same */
  same: string[];
}

/**
 * Leads that lost their marks, or never had any, and look alike: k of them are told apart by k − 1 measurements (craft E1). A probe stays on a
 * pin that only one of them leads to, the other goes over the leads until it rings; that one is marked and the next pin is taken. Far pins at
 * one end follow each other.
 */
export function listEqualLeads(ringOut: RingOut, wires: readonly PlannedWire[], endId: string): EqualLeads[] {
  const groups = new Map<string, { wire: PlannedWire; cavity: string }[]>();
  for (const wire of wires)
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'cavity' || end.endId !== endId) continue;
      // cores of a cable are told by their jacket, and within it by their colours
      const key = [toColourWords(wire.colour), toSizeWords(wire.conductor), wire.cable?.groupId ?? ''].join(' ').trim();
      pushTo(groups, key, { wire, cavity: end.cavity });
    }
  return [...groups].flatMap(([, group]) => {
    if (group.length < 2) return [];
    const { colour, conductor } = group[0]!.wire;
    const taken = new Set<string>();
    const leads: EqualLead[] = [];
    const same: string[] = [];
    for (const { wire, cavity } of group) {
      const net = ringOut.nets.find(({ wireIds }) => wireIds.includes(wire.id));
      const far = net && findFar(ringOut, net.wireIds, { endId, cavity });
      // a loop back to this end is told by nothing that is marked
      if (!net || !far) continue;
      if (taken.has(net.id)) same.push(wire.number);
      else {
        taken.add(net.id);
        leads.push({ wireId: wire.id, number: wire.number, cavity, far });
      }
    }
    leads.sort((a, b) => compareIds(a.far.endId, b.far.endId) || compareIds(a.far.cavity, b.far.cavity));
    if (leads.length < 2) return [];
    return [{ endId, colour, words: `${toColourWords(colour)} ${toSizeWords(conductor)}`, leads, same }];
  });
}

/** A pin at another end that wires of the net come to. */
function findFar({ copper }: RingOut, wireIds: readonly string[], own: Probe): Probe | undefined {
  const ofNet = new Set(wireIds);
  const keys = copper.flatMap(({ wireId, from, to }) => (ofNet.has(wireId) ? [from, to] : [])).filter((key) => !key.startsWith('splice '));
  const found = [...new Set(keys)].sort(compareIds).find((key) => toProbe(key).endId !== own.endId);
  return found === undefined ? undefined : toProbe(found);
}
