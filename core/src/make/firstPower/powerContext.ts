import { findDeviceTemplate, type Catalogue, type ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { createNetlist, toPinKey, type Netlist, type PinPlace } from '../../netlist';
import { findSetting, findStandard, listDevicesBehind, type JobPlan, type LinkSetting } from '../../plan';
import { compareIds, pushTo } from '../../units';
import { listBoxes, type PowerBox } from './listBoxes';
import type { PowerElement, PowerTest } from './types';

/** All that the parts of the sheet are made of. */
export interface PowerContext {
  job: Job;
  planned: JobPlan;
  catalogue: Catalogue;
  standard: ShopStandard;
  netlist: Netlist;
  boxes: PowerBox[];
  /** box of a device; null: it is none */
  boxOf: (deviceId: string | null) => PowerBox | null;
  deviceAt: (place: Pick<PinPlace, 'loomId' | 'endId'>) => string | null;
  toWords: (place: PinPlace) => string;
  /** how every link stands in a mode, as said */
  settings: (modeId: string) => Map<string, LinkSetting>;
  /** by id; filled as paths are written */
  elements: Map<string, PowerElement>;
  toPath: (path: readonly (number | string)[]) => string[];
  /** wired cavities by loom/end */
  wired: ReadonlyMap<string, PinPlace[]>;
  /** what was found of each device: is it worked by a driver of a box */
  driven: Map<string, boolean>;
}

export function createPowerContext(job: Job, planned: JobPlan, catalogue: Catalogue): PowerContext {
  const netlist = createNetlist(job, catalogue, planned.looms);
  const boxes = listBoxes(job, catalogue);
  const ofDevice = new Map(boxes.flatMap((box) => box.deviceIds.map((id) => [id, box] as const)));
  const behind = listDevicesBehind(job, netlist);
  const elements = new Map<string, PowerElement>();
  const numbers = new Map(
    planned.looms.flatMap(({ loomId, wires }) => wires.map(({ id, number }) => [`${loomId}/${id}`, number] as const)),
  );
  const links = new Map(netlist.links.map((link) => [link.id, link]));
  const toWords = ({ loomId, endId, cavity }: PinPlace) => {
    const end = job.looms[loomId]!.ends[endId]!;
    return end.kind === 'connector' ? `${end.name} ${cavity}` : end.name;
  };
  return {
    ...{ job, planned, catalogue, netlist, boxes, elements, toWords },
    wired: listWired(netlist),
    driven: new Map(),
    standard: findStandard(job, catalogue),
    boxOf: (id) => (id === null ? null : (ofDevice.get(id) ?? null)),
    deviceAt: ({ loomId, endId }) => netlist.deviceAt.get(`${loomId}/${endId}`) ?? null,
    settings: (modeId) => new Map(netlist.links.map((link) => [link.id, findSetting(job, link, modeId, behind.get(link.id)!).setting])),
    toPath: (path) =>
      path.flatMap((step): string[] => {
        const edge = typeof step === 'number' ? netlist.edges[step]! : null;
        if (edge?.wire === null) return [];
        const id = edge ? `wire ${edge.wire!.loomId}/${edge.wire!.wireId}` : `link ${step}`;
        if (!elements.has(id)) {
          const wire = edge && { loomId: edge.wire!.loomId, wireId: edge.wire!.wireId };
          const words = wire
            ? `wire ${numbers.get(`${wire.loomId}/${wire.wireId}`) ?? ''}`.trim()
            : (links.get(step as string)?.name ?? `${step}`);
          elements.set(id, { id, words, wire });
        }
        return [id];
      }),
  };
}

/** The wired cavities of an end, in the order of their names. */
export const listWiredCavities = ({ wired }: PowerContext, { loomId, endId }: { loomId: string; endId: string }): readonly PinPlace[] =>
  wired.get(`${loomId}/${endId}`) ?? [];

function listWired(netlist: Netlist): Map<string, PinPlace[]> {
  const wired = new Map<string, PinPlace[]>();
  for (const { pins } of netlist.nodes) for (const pin of pins) pushTo(wired, `${pin.loomId}/${pin.endId}`, pin);
  for (const places of wired.values()) places.sort((a, b) => compareIds(a.cavity, b.cavity));
  return wired;
}

export const nodeAt = ({ netlist }: PowerContext, place: PinPlace): number => netlist.nodeOfPin.get(toPinKey(place))!;

/** A test with nothing special about it. */
export const createPowerTest = (test: Pick<PowerTest, 'id' | 'part' | 'words' | 'unit'> & Partial<PowerTest>): PowerTest => ({
  ...{ name: test.words, stateId: null, note: '', hazard: '', expected: null, least: null, most: null, path: [], endIds: [], wakes: [] },
  ...test,
});

/** Is a load worked by a driver of a box, so that it sleeps until that box drives it? */
export function isDriven(context: PowerContext, deviceId: string): boolean {
  const known = context.driven.get(deviceId) ?? findDriven(context, deviceId);
  context.driven.set(deviceId, known);
  return known;
}

function findDriven({ job, catalogue, netlist, boxOf, deviceAt }: PowerContext, deviceId: string): boolean {
  const device = job.devices[deviceId]!;
  if (!device.at || !findDeviceTemplate(job, catalogue, device.templateId)) return false;
  const { loomId, endId } = device.at;
  return Object.entries(job.looms[loomId]!.ends[endId]!.pins).some(([cavity, { kind }]) => {
    const node = kind === 'output' ? netlist.nodeOfPin.get(toPinKey({ loomId, endId, cavity })) : undefined;
    if (node === undefined) return false;
    return netlist.nets[netlist.netOf[node]!]!.nodes.some((other) => {
      const place = netlist.nodes[other]!.pins[0];
      return other !== node && place !== undefined && netlist.nodes[other]!.offer !== null && boxOf(deviceAt(place)) !== null;
    });
  });
}
