import { BUNDLING_WORDS, type Bundling, type LayerPin, type Loom } from '../../../model';
import { createLoomCommand, type Command } from '../command';
import type { RunPlace } from './runs';

/** How the wires of a loom lie; null: as the shop standard says. */
export const setBundling = (loomId: string, bundling: Bundling | null): Command =>
  createLoomCommand(bundling === null ? 'bundles as the shop lays them' : `bundles ${BUNDLING_WORDS[bundling]}`, loomId, (loom) => {
    loom.bundling = bundling;
  });

/** The same of one run; null: as its loom says. */
export const setRunBundling = ({ loomId, segmentId, name }: RunPlace, bundling: Bundling | null): Command =>
  createLoomCommand(`${name} ${bundling === null ? 'laid as its loom' : BUNDLING_WORDS[bundling]}`, loomId, ({ segments }) => {
    segments[segmentId]!.bundling = bundling;
  });

/** Side by which a branch leaves, degrees from 12 o'clock, clockwise seen from the datum; null: not known. */
export const setLeaves = ({ loomId, segmentId, name }: RunPlace, leavesDeg: number | null): Command =>
  createLoomCommand(`side of ${name}`, loomId, ({ segments }) => {
    segments[segmentId]!.leavesDeg = leavesDeg;
  });

/** Lay-up that a search found. */
export const takeLayup = (loomId: string, laidUp: Loom['laidUp'], isWhole = true): Command =>
  createLoomCommand(isWhole ? 'lay-up found by search' : 'best lay-up of a search that was ended early', loomId, (loom) => {
    loom.laidUp = laidUp;
  });

/** A thread put into a layer by hand; null: where the search lays it. name: what it is called. */
export const pinLayer = (loomId: string, threadId: string, name: string, pin: LayerPin | null): Command =>
  createLoomCommand(pin === null ? `${name} in the layer that is best` : `${name} in layer ${pin.layer}`, loomId, ({ layerPins }) => {
    if (pin === null) delete layerPins[threadId];
    else layerPins[threadId] = pin;
  });
