import { toColourWords, type Colour } from '../../../model';
import { toCount } from '../../../units';
import { createLoomCommand, type Command } from '../command';

/** Other colours for circuits, by id. */
export const recolour = (loomId: string, colours: ReadonlyMap<string, Colour>): Command =>
  createLoomCommand(`other colours for ${toCount(colours.size, 'circuit')}`, loomId, ({ circuits }) => {
    for (const [id, colour] of colours) circuits[id]!.colour = { ...colour, bands: [...colour.bands] };
  });

/** The colour of one circuit, chosen by hand. reason: why no scheme may give it another; null: any may. */
export const chooseLook = (loomId: string, circuitId: string, name: string, colour: Colour, reason: string | null): Command =>
  createLoomCommand(`${name} in ${toColourWords(colour)}${reason === null ? '' : `: ${reason}`}`, loomId, ({ circuits }) => {
    circuits[circuitId]!.colour = { ...colour, bands: [...colour.bands] };
    circuits[circuitId]!.colourPin = reason === null ? null : { reason };
  });
