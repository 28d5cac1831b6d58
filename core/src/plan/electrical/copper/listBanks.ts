import type { Job } from '../../../model';
import { compareIds } from '../../../units';
import { type Netlist, toPinKey } from '../../../netlist';

/**
 * Wires that stay alike: devices of one kind (the same template, or the same pins and housing) that share a circuit are a bank, and what
 * goes into the same pin of each gets one size (craft G10). Edges of the netlist, a list a pin of a bank; edgeOf: by loom and wire.
 */
export function listBanks(job: Job, netlist: Netlist, edgeOf: ReadonlyMap<string, ReadonlyMap<string, number>>): number[][] {
  const kinds = new Map<string, string>();
  const toKind = (loomId: string, endId: string): string => {
    const key = `${loomId}/${endId}`;
    let kind = kinds.get(key);
    if (kind === undefined) {
      const end = job.looms[loomId]!.ends[endId]!;
      const deviceId = netlist.deviceAt.get(key);
      const pins = Object.entries(end.pins).sort(([a], [b]) => compareIds(a, b));
      const template = deviceId === undefined ? null : job.devices[deviceId]!.templateId;
      kind =
        pins.length === 0
          ? ''
          : (template ?? `${end.familyId} ${JSON.stringify(pins.map(([cavity, need]) => [cavity, need.kind, need.function]))}`);
      kinds.set(key, kind);
    }
    return kind;
  };
  // devices of one kind on one circuit belong together, and so do those that are linked by others
  const bankOf = new Map<string, string>();
  const find = (key: string): string => {
    const parent = bankOf.get(key);
    return parent === undefined || parent === key ? key : find(parent);
  };
  for (const [loomId, { circuits }] of Object.entries(job.looms))
    for (const { terminations } of Object.values(circuits)) {
      const first = new Map<string, string>();
      for (const { endId } of terminations.slice(1)) {
        const kind = toKind(loomId, endId);
        const key = `${loomId}/${endId}`;
        const known = first.get(kind);
        if (kind === '') continue;
        if (known === undefined) first.set(kind, key);
        else if (find(known) !== find(key)) bankOf.set(find(key), find(known));
      }
    }
  const banks = new Map<string, string[]>();
  for (const key of [...bankOf.keys(), ...bankOf.values()].sort(compareIds)) {
    const bank = find(key);
    const list = banks.get(bank) ?? [];
    if (!list.includes(key)) banks.set(bank, [...list, key]);
  }
  return [...banks.keys()].sort(compareIds).flatMap((bank) => {
    const [loomId, endId] = bank.split('/') as [string, string];
    return Object.keys(job.looms[loomId]!.ends[endId]!.pins)
      .sort(compareIds)
      .flatMap((cavity): number[][] => {
        const edges = banks.get(bank)!.flatMap((key) => {
          const [ofLoom, ofEnd] = key.split('/') as [string, string];
          const node = netlist.nodeOfPin.get(toPinKey({ loomId: ofLoom, endId: ofEnd, cavity }));
          if (node === undefined) return [];
          return netlist.at[node]!.flatMap((edge) => {
            const { wire } = netlist.edges[edge]!;
            return wire && wire.loomId === ofLoom ? [edgeOf.get(wire.loomId)!.get(wire.wireId)!] : [];
          });
        });
        return edges.length > 1 ? [edges.sort((a, b) => a - b)] : [];
      });
  });
}
