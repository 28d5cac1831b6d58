import type { Device, Donor, DonorWire } from '../model';
import { compareIds } from '../units';

/** What the decisions about a donor loom come to. */
export interface Ledger {
  counts: Record<'keep' | 'shorten' | 'extend' | 'repurpose' | 'remove' | 'undecided', number>;
  /** joins that extending makes: one a wire that gets longer */
  joins: number;
  /** wire that goes to stock, by what it is; pieces shorter than the shop keeps are not counted */
  recovered: { colour: string; size: string; pieces: number; lengthMm: number }[];
  /** all of that, mm */
  recoveredMm: number;
  /** removed wires whose length was never measured */
  unmeasured: number;
  /** wires that stay and lead to a device that goes */
  orphans: { wireId: string; device: string }[];
  /** devices that stay and have no wire left */
  bare: string[];
  /** functions that no wire serves any more, with the wires that did */
  lost: { name: string; wireIds: string[]; devices: string[] }[];
  /** lengths that contradict the decision */
  problems: { wireId: string; words: string }[];
  /** wires put to other use that carry a printed name: what they are called from now on; '' where nobody said */
  aliases: { wireId: string; printed: string; name: string }[];
}

const key = (name: string) => name.trim().toLowerCase();
const isKept = (wire: DonorWire) => wire.decision !== 'remove';

/** The ledger of a donor loom. devices: of the brief, met by name. leastOffcutMm: shorter pieces are not worth keeping. */
export function listDonorDispositions(donor: Donor, devices: readonly Device[], leastOffcutMm: number): Ledger {
  const wires = Object.keys(donor.wires)
    .sort(compareIds)
    .map((id) => ({ id, wire: donor.wires[id]! }));
  const decisionOf = new Map(devices.map((device) => [key(device.name), device.decision]));
  const counts: Ledger['counts'] = { keep: 0, shorten: 0, extend: 0, repurpose: 0, remove: 0, undecided: 0 };
  for (const { wire } of wires) counts[wire.decision ?? 'undecided'] += 1;
  const grows = ({ decision, lengthMm, newLengthMm }: DonorWire) =>
    decision === 'extend' || (decision === 'repurpose' && lengthMm !== null && newLengthMm !== null && newLengthMm > lengthMm);
  const kept = wires.filter(({ wire }) => isKept(wire));
  const named = new Map(wires.flatMap(({ wire }) => [wire.from, wire.to]).map((name) => [key(name), name]));
  const touches = ({ wire }: (typeof wires)[number], name: string) => key(wire.from) === name || key(wire.to) === name;
  const recovered = listRecovered(
    wires.map(({ wire }) => wire),
    leastOffcutMm,
  );
  return {
    counts,
    joins: wires.filter(({ wire }) => grows(wire)).length,
    recovered,
    recoveredMm: recovered.reduce((sum, { lengthMm }) => sum + lengthMm, 0),
    unmeasured: wires.filter(({ wire }) => wire.decision === 'remove' && wire.lengthMm === null).length,
    // a wire put to other use leaves its old device on purpose
    orphans: kept
      .filter(({ wire }) => wire.decision !== 'repurpose')
      .flatMap(({ id, wire }) =>
        [wire.from, wire.to].filter((name) => decisionOf.get(key(name)) === 'remove').map((device) => ({ wireId: id, device })),
      ),
    bare: [...named]
      .filter(([name]) => ['keep', 'repurpose'].includes(decisionOf.get(name) ?? '') && !kept.some((one) => touches(one, name)))
      .map(([, name]) => name),
    lost: listLost(wires, decisionOf),
    problems: [...wires.flatMap(({ id, wire }) => listProblems(id, wire)), ...listTwice(kept)],
    aliases: wires
      .filter(({ wire }) => wire.decision === 'repurpose' && key(wire.number) !== '')
      .map(({ id, wire }) => ({ wireId: id, printed: wire.number.trim(), name: wire.newName.trim() })),
  };
}

function listRecovered(wires: readonly DonorWire[], leastMm: number): Ledger['recovered'] {
  const groups = new Map<string, Ledger['recovered'][number]>();
  for (const { decision, lengthMm, newLengthMm, colour, size } of wires) {
    if (lengthMm === null) continue;
    const offMm = decision === 'remove' ? lengthMm : decision === 'shorten' && newLengthMm !== null ? lengthMm - newLengthMm : 0;
    if (offMm < leastMm) continue;
    const group = groups.get(`${size} ${colour}`) ?? { colour, size, pieces: 0, lengthMm: 0 };
    groups.set(`${size} ${colour}`, { ...group, pieces: group.pieces + 1, lengthMm: group.lengthMm + offMm });
  }
  return [...groups.values()].sort((a, b) => b.lengthMm - a.lengthMm || compareIds(a.colour, b.colour));
}

/** A function is lost where every wire that served it goes; devices that stay at the ends of those wires feel it. */
function listLost(wires: readonly { id: string; wire: DonorWire }[], decisionOf: ReadonlyMap<string, Device['decision']>): Ledger['lost'] {
  const served = new Map<string, { name: string; removed: (typeof wires)[number][]; kept: number }>();
  for (const one of wires)
    for (const name of one.wire.functions) {
      const entry = served.get(key(name)) ?? { name, removed: [], kept: 0 };
      if (isKept(one.wire)) entry.kept += 1;
      else entry.removed.push(one);
      served.set(key(name), entry);
    }
  return [...served.values()]
    .filter(({ kept, removed }) => kept === 0 && removed.length > 0)
    .map(({ name, removed }) => ({
      name,
      wireIds: removed.map(({ id }) => id),
      devices: [...new Set(removed.flatMap(({ wire }) => [wire.from, wire.to]))].filter((device) =>
        ['keep', 'repurpose', 'fit'].includes(decisionOf.get(key(device)) ?? ''),
      ),
    }));
}

/** A new name that another wire of this loom carries: the two could not be told apart. */
function listTwice(kept: readonly { id: string; wire: DonorWire }[]): Ledger['problems'] {
  const nameOf = ({ newName, number }: DonorWire) => key(newName) || key(number);
  return kept
    .filter(({ id, wire }) => key(wire.newName) !== '' && kept.some((other) => other.id !== id && nameOf(other.wire) === key(wire.newName)))
    .map(({ id, wire }) => ({ wireId: id, words: `expected a new name that no other wire has, got ${wire.newName.trim()}` }));
}

function listProblems(wireId: string, { decision, lengthMm, newLengthMm }: DonorWire): Ledger['problems'] {
  const say = (words: string) => [{ wireId, words }];
  if (decision === 'shorten' && newLengthMm === null) return say('expected the length after shortening');
  if (decision === 'extend' && newLengthMm === null) return say('expected the length after extending');
  if (lengthMm === null || newLengthMm === null) return [];
  if (decision === 'shorten' && newLengthMm >= lengthMm)
    return say(`expected less than ${lengthMm} mm after shortening, got ${newLengthMm}`);
  if (decision === 'extend' && newLengthMm <= lengthMm) return say(`expected more than ${lengthMm} mm after extending, got ${newLengthMm}`);
  return [];
}
