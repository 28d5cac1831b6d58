import type { Mate } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

/** words: of the ends, as the history says them. */
export const mateEnds = ({ a, b }: Mate, words: { a: string; b: string }): Command =>
  createCommand(`mate ${words.a} with ${words.b}`, (draft) => {
    draft.mates[createId(draft.mates, 'm')] = { a, b };
  });

export const takeMateApart = (id: string): Command => createCommand('take a mate apart', (draft) => void delete draft.mates[id]);
