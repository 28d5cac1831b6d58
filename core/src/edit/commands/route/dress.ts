import { DRESSING_WORDS, type Dressing, type End } from '../../../model';
import { createLoomCommand, type Command } from '../command';
import type { EndPlace } from './ends';
import type { NodePlace } from './nodes';

/** How ends and breakouts of a loom are finished; null: as the shop standard says. */
export const setDressing = (loomId: string, dressing: Dressing | null): Command =>
  createLoomCommand(dressing === null ? 'ends and breakouts as the shop finishes them' : DRESSING_WORDS[dressing], loomId, (loom) => {
    loom.dressing = dressing;
  });

/** What closes an end, chosen by hand; null: computed. */
export const setBoot = ({ loomId, endId, name }: EndPlace, pin: End['bootPin']): Command =>
  createLoomCommand(pin === null ? `what closes ${name}, computed` : `${pin.itemId ?? 'nothing'} over ${name}`, loomId, ({ ends }) => {
    ends[endId]!.bootPin = pin;
  });

/** What goes over a breakout, chosen by hand; null: computed. */
export const setTransition = ({ loomId, nodeId, name }: Omit<NodePlace, 'tree'>, pin: End['bootPin']): Command =>
  createLoomCommand(pin === null ? `what goes over ${name}, computed` : `${pin.itemId ?? 'nothing'} over ${name}`, loomId, ({ nodes }) => {
    nodes[nodeId]!.transitionPin = pin;
  });
