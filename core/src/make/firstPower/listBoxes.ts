import { findDeviceTemplate, type Catalogue } from '../../catalogue';
import type { Capability, Job } from '../../model';
import { compareIds } from '../../units';

/** What a pin offers that only hands power on. */
const PASSIVE: ReadonlySet<Capability> = new Set<Capability>([
  ...(['feed', 'high-side', 'ground', 'battery-positive', 'battery-negative', 'chassis', 'engine-block', 'screen'] as const),
]);

/** A box that is dear: a module that gives power by channels, or one that thinks. */
export interface PowerBox {
  /** unit, or the device where it is one by itself */
  id: string;
  name: string;
  kind: 'module' | 'controller';
  ends: { loomId: string; endId: string }[];
  deviceIds: string[];
}

/** Boxes that stay unplugged until every cavity that goes to them was read (craft E2), modules first. */
export function listBoxes(job: Job, catalogue: Catalogue): PowerBox[] {
  const boxes = new Map<string, PowerBox & { isBox: boolean }>();
  for (const id of Object.keys(job.devices).sort(compareIds)) {
    const device = job.devices[id]!;
    if (!device.at || device.decision === 'remove') continue;
    const boxId = device.unit || id;
    const box = boxes.get(boxId) ?? {
      id: boxId,
      name: device.unit || device.name,
      kind: 'controller',
      ends: [],
      deviceIds: [],
      isBox: false,
    };
    boxes.set(boxId, box);
    box.ends.push(device.at);
    box.deviceIds.push(id);
    const links = Object.values(findDeviceTemplate(job, catalogue, device.templateId)?.links ?? {});
    const { pins, offers } = job.looms[device.at.loomId]!.ends[device.at.endId]!;
    if (links.some(({ kind }) => kind === 'channel')) box.kind = 'module';
    const thinks =
      Object.values(pins).some(({ kind }) => kind === 'data') ||
      Object.values(offers).some(({ can }) => can.some((one) => !PASSIVE.has(one)));
    if (box.kind === 'module' || (links.length === 0 && thinks)) box.isBox = true;
  }
  return [...boxes.values()]
    .filter(({ isBox }) => isBox)
    .map(({ isBox: _, ...box }) => box)
    .sort((a, b) => Number(b.kind === 'module') - Number(a.kind === 'module') || compareIds(a.id, b.id));
}
