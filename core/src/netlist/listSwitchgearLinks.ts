import { findDeviceTemplate, type Catalogue } from '../catalogue';
import type { Job, LinkKind } from '../model';
import { compareIds } from '../units';
import type { PinPlace } from './types';

/** A fuse, channel, contact or bar of a box in the vehicle, with both its pins. a is the side of the supply. */
export interface SwitchgearLink {
  id: string;
  deviceId: string;
  linkId: string;
  name: string;
  kind: LinkKind;
  a: PinPlace;
  b: PinPlace;
  maxA: number | null;
  /** what it bears for a moment, A; null: not stated */
  peakA: number | null;
  /** pins of the coil that works it; null: none that is wired */
  coil: { feed: PinPlace; switch: PinPlace } | null;
  /** positions of its switch in which it is closed; empty: it stands by itself */
  closedIn: readonly string[];
  /** chosen by hand; null: computed */
  pinnedA: number | null;
  pinReason: string | null;
}

/** Links of every device that is placed: those of its template, led to the placed parts of the same unit. */
export function listSwitchgearLinks(job: Job, catalogue: Catalogue): SwitchgearLink[] {
  const parts = new Map<string, { loomId: string; endId: string }>();
  for (const { unit, templateId, at } of Object.values(job.devices)) if (unit && templateId && at) parts.set(`${unit}/${templateId}`, at);
  return Object.keys(job.devices)
    .sort(compareIds)
    .flatMap((deviceId) => {
      const device = job.devices[deviceId]!;
      const template = findDeviceTemplate(job, catalogue, device.templateId);
      const { at } = device;
      if (!template || !at || device.decision === 'remove') return [];
      const toPlace = (side: { part: string | null; cavity: string }): PinPlace | null => {
        const where = side.part === null ? at : parts.get(`${device.unit}/${side.part}`);
        return where ? { ...where, cavity: side.cavity } : null;
      };
      return Object.keys(template.links)
        .sort(compareIds)
        .flatMap((linkId): SwitchgearLink[] => {
          const link = template.links[linkId]!;
          const a = toPlace(link.a);
          const b = toPlace(link.b);
          if (!a || !b) return [];
          const rating = device.ratings[linkId];
          return [
            {
              id: `${deviceId}.${linkId}`,
              deviceId,
              linkId,
              name: (device.unit || device.name) === link.name ? link.name : `${device.unit || device.name} ${link.name}`,
              kind: link.kind,
              a,
              b,
              maxA: link.maxA,
              peakA: link.peakA,
              coil: link.coil && { feed: { ...at, cavity: link.coil.feed }, switch: { ...at, cavity: link.coil.switch } },
              closedIn: link.closedIn,
              pinnedA: rating?.ratingA ?? null,
              pinReason: rating?.reason ?? null,
            },
          ];
        });
    });
}
