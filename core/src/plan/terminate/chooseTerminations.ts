import {
  type Catalogue,
  findContact,
  findFamily,
  isWithin,
  listCavityContacts,
  listBlades,
  listRings,
  listSealWindows,
  measurePullOff,
} from '../../catalogue';
import { findCavitySize, listCavities, type ConnectorFamily, type Job, type Loom } from '../../model';
import type { Memo, Stage } from '../../units';
import type { Arrivals, RoutedLoom } from '../route/routeLoom';
import type { PlannedTermination, SizedWire } from '../types';
import { chooseBladeSleeve } from './chooseBladeSleeve';

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

/** What an end gets, by the end: contacts, seals, tools and strips of its wires, and plugs. */
export interface PlannedEnd {
  terminations: readonly PlannedTermination[];
  plugs: readonly { endId: string; cavity: string; plugId: string }[];
}

/** What ends are terminated from. */
export interface TerminationContext {
  job: Job;
  routed: Pick<RoutedLoom, 'loomId' | 'arrivals'>;
  wires: readonly SizedWire[];
  catalogue: Catalogue;
  tailStripMm: number;
  memo: Memo;
}

const TERMINATE: Stage<EndContext, PlannedEnd> = {
  name: 'terminate',
  keep: 6,
  inputs: ({ end, family, circuits, catalogue, tailStripMm, arrival, wires }) => {
    const inputs: unknown[] = [end, family, circuits, catalogue, tailStripMm, arrival.shape];
    for (const { places } of arrival.cavities) for (const place of places) inputs.push(wires[place]!.conductor);
    return inputs;
  },
  run: (context) => chooseEnd(context),
};

/**
 * Contact, seal, tool and strip length for every cavity with a wire in it, and the plugs of the empty ones. On a stud each wire has a ring
 * of its own; only a chain, which the planner chose, crimps two into one (calculations 2).
 */
export function chooseTerminations({ job, routed, wires, catalogue, tailStripMm, memo }: TerminationContext): PlannedEnd {
  const { ends, circuits } = job.looms[routed.loomId]!;
  const planned = [...routed.arrivals].map(([endId, arrival]) => {
    const end = ends[endId]!;
    const family = findFamily(job, catalogue, end.familyId);
    const of = { endId, end, family, circuits, catalogue, tailStripMm, arrival, wires };
    return memo(TERMINATE, `${routed.loomId} ${endId}`, of);
  });
  return memo(ENDS, routed.loomId, planned);
}

/** All that its ends get: the same lists as long as each of them gets the same. */
const ENDS: Stage<readonly PlannedEnd[], PlannedEnd> = {
  name: 'ends',
  keep: 8,
  inputs: (planned) => planned,
  run: (planned) => ({
    terminations: planned.flatMap((one) => one.terminations),
    plugs: planned.flatMap((one) => one.plugs),
  }),
};

interface EndContext {
  endId: string;
  end: Loom['ends'][string];
  family: ReturnType<typeof findFamily>;
  circuits: Loom['circuits'];
  catalogue: Catalogue;
  tailStripMm: number;
  arrival: Arrivals;
  wires: readonly SizedWire[];
}

interface Crimp {
  cavity: string;
  here: readonly SizedWire[];
}

function chooseEnd({ endId, end, family, circuits, catalogue, tailStripMm, arrival, wires }: EndContext): PlannedEnd {
  const used = arrival.cavities.map(({ cavity, places }): Crimp => ({ cavity, here: places.map((place) => wires[place]!) }));
  const isDoubled = (wire: SizedWire) => circuits[wire.circuitId]!.join === 'chain';
  const crimps = used.flatMap(({ cavity, here }): Crimp[] => {
    if (end.kind !== 'ring') return [{ cavity, here }];
    const doubled = here.filter(isDoubled);
    const single = here.filter((wire) => !isDoubled(wire)).map((wire) => ({ cavity, here: [wire] }));
    return doubled.length ? [{ cavity, here: doubled }, ...single] : single;
  });
  const terminations = crimps.map(({ cavity, here }): PlannedTermination => {
    const chosen =
      end.kind === 'tail'
        ? { ...NONE, contactName: 'bare tail', stripMm: tailStripMm, tool: 'wire stripper' }
        : end.kind === 'ring'
          ? chooseRing(here, end.studMm!, catalogue)
          : end.kind === 'blade'
            ? chooseBlade(here, end.tongueMm!, catalogue)
            : family
              ? chooseContact(here, family, cavity, catalogue)
              : { ...NONE, contactName: 'housing to be chosen' };
    const contact = chosen.contactId === null ? undefined : findContact(catalogue, chosen.contactId);
    const asked = contact?.pullOffN ?? null;
    const measurePull = ({ conductor }: SizedWire) => {
      const standard = measurePullOff(conductor);
      return standard === null || asked === null ? (standard ?? asked) : Math.max(standard, asked);
    };
    const pullOffsN = here.map((wire) => (end.kind === 'tail' ? null : measurePull(wire)));
    return { endId, cavity, wireIds: here.map(({ id }) => id), ...chosen, pullOffsN };
  });
  if (end.kind !== 'connector' || !family?.sealed) return { terminations, plugs: [] };
  const filled = new Set(used.map(({ cavity }) => cavity));
  const plugs = listCavities(family).flatMap((cavity) => {
    const plug = filled.has(cavity) ? undefined : catalogue.plugs[findCavitySize(family, cavity)];
    return plug ? [{ endId, cavity, plugId: plug.id }] : [];
  });
  return { terminations, plugs };
}

const sumArea = (wires: readonly SizedWire[]) => wires.reduce((sum, wire) => sum + wire.conductor.areaMm2, 0);

function chooseContact(wires: readonly SizedWire[], family: ConnectorFamily, cavity: string, catalogue: Catalogue): Fields {
  const area = sumArea(wires);
  const contact = listCavityContacts(catalogue, family, cavity).find((one) => isWithin(area, one.minAreaMm2, one.maxAreaMm2));
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
  const windows = listSealWindows(catalogue, family, cavity);
  if (windows === null) return fields;
  const ods = wires.map((wire) => wire.conductor.odMm);
  const seal = windows.find((one) => ods.length === 1 && isWithin(ods[0]!, one.minOdMm, one.maxOdMm));
  if (catalogue.grommets[findCavitySize(family, cavity)]) return { ...fields, sealName: 'grommet', problem: seal ? null : 'seal' };
  return seal && 'id' in seal ? { ...fields, sealId: seal.id, sealName: seal.name } : { ...fields, sealName: 'none fits', problem: 'seal' };
}

function chooseRing(wires: readonly SizedWire[], studMm: number, catalogue: Catalogue): Fields {
  const area = sumArea(wires);
  const ring = listRings(catalogue, studMm).find((one) => isWithin(area, one.minAreaMm2, one.maxAreaMm2));
  if (!ring) return { ...NONE, contactName: 'no ring for this stud and wire', problem: 'contact' };
  return { ...NONE, contactId: ring.id, contactName: ring.name, stripMm: ring.stripMm, tool: ring.tool };
}

/** The first that takes the wires of a tongue and is insulated, or can be: bare metal that is not bolted touches what it should not. */
function chooseBlade(wires: readonly SizedWire[], tongueMm: number, catalogue: Catalogue): Fields {
  const area = sumArea(wires);
  const blade = listBlades(catalogue, tongueMm).find(
    (one) => isWithin(area, one.minAreaMm2, one.maxAreaMm2) && (one.insulated || chooseBladeSleeve(catalogue, one) !== null),
  );
  if (!blade) return { ...NONE, contactName: `no blade for a tongue of ${tongueMm} and this wire`, problem: 'contact' };
  return { ...NONE, contactId: blade.id, contactName: blade.name, stripMm: blade.stripMm, tool: blade.tool };
}
