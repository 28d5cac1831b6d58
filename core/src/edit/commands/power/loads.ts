import type { PinPlace } from '../../../netlist';
import { createCommand, type Command } from '../command';

/** What a load draws while it is on. What goes in comes out: a switched return of its device that carried as much follows. name: of the load. */
export const setLoadCurrent = ({ loomId, endId, cavity }: PinPlace, name: string, currentA: number | null): Command =>
  createCommand(`${name} ${currentA} A`, (draft) => {
    const { pins } = draft.looms[loomId]!.ends[endId]!;
    const before = pins[cavity]!.currentA;
    for (const need of Object.values(pins)) if (need.kind === 'output' && need.currentA === before) need.currentA = currentA;
    pins[cavity]!.currentA = currentA;
  });

/** Share of the time that a device is on in a mode; null: fully. words: of load and mode. */
export const setDuty = (deviceId: string, modeId: string, words: { load: string; mode: string }, share: number | null): Command =>
  createCommand(`${words.load} in ${words.mode}`, (draft) => {
    const { duty } = draft.devices[deviceId]!;
    if (share === null) delete duty[modeId];
    else duty[modeId] = share;
  });

/** A fuse or setting chosen by hand; null: it is computed. */
export const setRating = (
  { deviceId, linkId, name }: { deviceId: string; linkId: string; name: string },
  rating: { ratingA: number; reason: string } | null,
): Command =>
  createCommand(rating === null ? `let ${name} be computed` : `${name} ${rating.ratingA} A`, (draft) => {
    const { ratings } = draft.devices[deviceId]!;
    if (rating === null) delete ratings[linkId];
    else ratings[linkId] = rating;
  });
