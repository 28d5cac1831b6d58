import { findFamily, measurePullOff, type Catalogue } from '../catalogue';
import { listCavities, type Job, type Loom } from '../model';
import { compareIds } from '../units';
import type { PlannedTermination, SizedWire } from './types';

type Fields = Omit<PlannedTermination, 'endId' | 'cavity' | 'wireIds' | 'pullOffsN'>;

const NONE: Fields = {
  contactId: null,
  contactName: '',
  sealId: null,
  sealName: '',
  stripMm: null,
  tool: '',
  positioner: '',
  removalTool: '',
  problem: null,
};

/**
 * Contact, seal, tool and strip length for every cavity with a wire in it, and the plugs of the empty ones. On a stud each wire has a ring
 * of its own; only a chain, which the planner chose, crimps two into one (calculations 2).
 */
export function chooseTerminations(
  job: Job,
  loom: Loom,
  wires: readonly SizedWire[],
  catalogue: Catalogue,
  tailStripMm: number,
): { terminations: PlannedTermination[]; plugs: { endId: string; cavity: string; plugId: string }[] } {
  const at = new Map<string, Map<string, SizedWire[]>>();
  for (const wire of wires) {
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'cavity') continue;
      const cavities = at.get(end.endId) ?? new Map<string, SizedWire[]>();
      cavities.set(end.cavity, [...(cavities.get(end.cavity) ?? []), wire]);
      at.set(end.endId, cavities);
    }
  }
  const pulls = new Map(catalogue.contacts.map(({ id, pullOffN }) => [id, pullOffN]));
  const terminations: PlannedTermination[] = [];
  const plugs: { endId: string; cavity: string; plugId: string }[] = [];
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const end = loom.ends[endId]!;
    const used = at.get(endId) ?? new Map<string, SizedWire[]>();
    const family = findFamily(job, catalogue, end.familyId);
    const isDoubled = (wire: SizedWire) => loom.circuits[wire.circuitId]!.join === 'chain';
    const crimps = [...used.keys()].sort(compareIds).flatMap((cavity): { cavity: string; here: SizedWire[] }[] => {
      const all = used.get(cavity)!;
      if (end.kind !== 'ring') return [{ cavity, here: all }];
      const doubled = all.filter(isDoubled);
      const single = all.filter((wire) => !isDoubled(wire)).map((wire) => ({ cavity, here: [wire] }));
      return doubled.length ? [{ cavity, here: doubled }, ...single] : single;
    });
    for (const { cavity, here } of crimps) {
      const chosen =
        end.kind === 'tail'
          ? { ...NONE, contactName: 'bare tail', stripMm: tailStripMm, tool: 'wire stripper' }
          : end.kind === 'ring'
            ? chooseRing(here, end.studMm!, catalogue)
            : chooseContact(here, family!.cavitySize, family!.sealed, catalogue);
      const asked = chosen.contactId === null ? null : (pulls.get(chosen.contactId) ?? null);
      const measurePull = ({ conductor: { table, size, areaMm2 } }: SizedWire) => {
        const standard = measurePullOff(table, size, areaMm2);
        return standard === null || asked === null ? (standard ?? asked) : Math.max(standard, asked);
      };
      terminations.push({
        endId,
        cavity,
        wireIds: here.map(({ id }) => id),
        ...chosen,
        pullOffsN: here.map((wire) => (end.kind === 'tail' ? null : measurePull(wire))),
      });
    }
    if (end.kind !== 'connector' || !family?.sealed) continue;
    const plug = catalogue.plugs[family.cavitySize];
    if (plug) for (const cavity of listCavities(family)) if (!used.has(cavity)) plugs.push({ endId, cavity, plugId: plug.id });
  }
  return { terminations, plugs };
}

const sumArea = (wires: readonly SizedWire[]) => wires.reduce((sum, wire) => sum + wire.conductor.areaMm2, 0);
const isWithin = (value: number, least: number, most: number) => value >= least - 1e-9 && value <= most + 1e-9;

function chooseContact(wires: readonly SizedWire[], cavitySize: string, sealed: boolean, catalogue: Catalogue): Fields {
  const area = sumArea(wires);
  const contact = catalogue.contacts.find((one) => one.cavitySize === cavitySize && isWithin(area, one.minAreaMm2, one.maxAreaMm2));
  if (!contact) return { ...NONE, contactName: 'none takes this wire', problem: 'contact' };
  const fields: Fields = {
    ...NONE,
    contactId: contact.id,
    contactName: contact.name,
    stripMm: contact.stripMm,
    tool: contact.tool,
    positioner: contact.positioner,
    removalTool: contact.removalTool,
  };
  if (!sealed) return fields;
  const ods = wires.map((wire) => wire.conductor.odMm);
  const grommet = catalogue.grommets[cavitySize];
  if (grommet) {
    const fits = ods.length === 1 && isWithin(ods[0]!, grommet.minOdMm, grommet.maxOdMm);
    return { ...fields, sealName: 'grommet', problem: fits ? null : 'seal' };
  }
  const seal = catalogue.seals.find(
    (one) => one.cavitySize === cavitySize && ods.length === 1 && isWithin(ods[0]!, one.minOdMm, one.maxOdMm),
  );
  return seal ? { ...fields, sealId: seal.id, sealName: seal.name } : { ...fields, sealName: 'none fits', problem: 'seal' };
}

function chooseRing(wires: readonly SizedWire[], studMm: number, catalogue: Catalogue): Fields {
  const area = sumArea(wires);
  const ring = catalogue.rings.find((one) => one.studMm === studMm && isWithin(area, one.minAreaMm2, one.maxAreaMm2));
  if (!ring) return { ...NONE, contactName: 'no ring for this stud and wire', problem: 'contact' };
  return { ...NONE, contactId: ring.id, contactName: ring.name, stripMm: ring.stripMm, tool: ring.tool };
}
