import type { Colour } from '../../../model';
import { toCount } from '../../../units';
import { createLoomCommand, type Command } from '../command';

/** Other colours for circuits, by id. */
export const recolour = (loomId: string, colours: ReadonlyMap<string, Colour>): Command =>
  createLoomCommand(`other colours for ${toCount(colours.size, 'circuit')}`, loomId, ({ circuits }) => {
    for (const [id, colour] of colours) circuits[id]!.colour = { ...colour, bands: [...colour.bands] };
  });
