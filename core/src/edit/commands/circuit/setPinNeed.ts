import type { PinNeed } from '../../../model';
import type { PinPlace } from '../../../netlist';
import { createCommand, type Command } from '../command';

/** What a pin of a device needs. words: of what is changed, and of the pin, as the history says it. */
export const setPinNeed = ({ loomId, endId, cavity }: PinPlace, words: string, part: Partial<PinNeed>): Command =>
  createCommand(words, (draft) => void Object.assign(draft.looms[loomId]!.ends[endId]!.pins[cavity]!, part));
