import type { Job, LinkRef, LinkState } from '../../../model';
import { createCommand, type Command } from '../command';

/** A link with its name, as a command calls it. */
export interface NamedLink extends LinkRef {
  name: string;
}

/** How links of devices stand in these modes; null: nobody says. */
export const setLinkStates = (links: readonly NamedLink[], modeIds: readonly string[], state: LinkState | null): Command =>
  createCommand(
    `${links.length === 1 ? links[0]!.name : `${links.length} links`} ${state === null ? 'not said' : state}`.slice(0, 80),
    (draft) => {
      for (const { deviceId, linkId } of links) {
        const { states } = draft.devices[deviceId]!;
        const ofLink = (states[linkId] ??= {});
        for (const modeId of modeIds) {
          if (state === null) delete ofLink[modeId];
          else ofLink[modeId] = state;
        }
        if (Object.keys(ofLink).length === 0) delete states[linkId];
      }
    },
  );

/** The position of a switch of several throws in a mode; null: nobody says. name: of the device. */
export const setPosition = (deviceId: string, name: string, modeId: string, position: string | null): Command =>
  createCommand(`${name} ${position ?? 'not said'}`.slice(0, 80), (draft) => {
    const { positions } = draft.devices[deviceId]!;
    if (position === null) delete positions[modeId];
    else positions[modeId] = position;
  });

/** What has to give before a link does; null: nothing. */
export const setEnabledBy = ({ deviceId, linkId, name }: NamedLink, by: LinkRef | null): Command =>
  createCommand(`${name} ${by === null ? 'by itself' : 'enabled'}`.slice(0, 80), (draft) => {
    const { enabledBy } = draft.devices[deviceId]!;
    if (by === null) delete enabledBy[linkId];
    else enabledBy[linkId] = { deviceId: by.deviceId, linkId: by.linkId };
  });

/** The switch that takes the battery off; null: not said. */
export const setIsolator = (isolator: Job['source']['isolator']): Command =>
  createCommand('isolator', (draft) => {
    draft.source.isolator = isolator && { deviceId: isolator.deviceId, linkId: isolator.linkId };
  });
