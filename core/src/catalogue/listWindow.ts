import type { Conductor, Contact, Seal, Shop, ShopTable } from '../model';

/** What a part takes, on a scale with the wires of the shop. */
export interface WireWindow {
  /** what the scale is of */
  what: 'copper' | 'insulation';
  unit: 'mm²' | 'mm';
  least: number;
  most: number;
  /** of each kind of wire that the shop has: its sizes, thin to thick, and where each stands on the scale */
  rows: { words: string; wires: { size: string; at: number; fits: boolean }[] }[];
}

/** The window of a contact, ring, barrel, seal or grommet; null: a record of this table has none. */
export function listWindow(shop: Pick<Shop, 'wires'>, table: ShopTable, value: unknown): WireWindow | null {
  switch (table) {
    case 'contacts':
    case 'rings':
    case 'barrels': {
      const { minAreaMm2, maxAreaMm2 } = value as Contact;
      return { what: 'copper', unit: 'mm²', ...toRows(shop, minAreaMm2, maxAreaMm2, ({ areaMm2 }) => areaMm2) };
    }
    case 'seals':
    case 'grommets': {
      const { minOdMm, maxOdMm } = value as Pick<Seal, 'minOdMm' | 'maxOdMm'>;
      return { what: 'insulation', unit: 'mm', ...toRows(shop, minOdMm, maxOdMm, ({ odMm }) => odMm) };
    }
    default:
      return null;
  }
}

const toRows = ({ wires }: Pick<Shop, 'wires'>, least: number, most: number, toFigure: (wire: Conductor) => number) => ({
  least,
  most,
  rows: Object.values(wires).flatMap((sizes) =>
    sizes.length === 0
      ? []
      : [
          {
            words: sizes[0]!.insulation,
            wires: sizes
              .map((wire) => ({ size: wire.size, at: toFigure(wire), fits: least <= toFigure(wire) && toFigure(wire) <= most }))
              .sort((a, b) => a.at - b.at),
          },
        ],
  ),
});
