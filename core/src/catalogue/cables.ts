import type { CableItem } from '../model';
import { WIRE_TABLES } from './wires';

/** Bound of n equal rounds, × d (calculations 6). */
const ENCLOSE = [0, 1, 2, 2.1547, 2.4142];

/** Nominal: cores as the wire table has them, a braided screen 0.25 mm and a jacket 0.2 mm thick. */
function cable(conductors: number, size: string, screened: boolean, table: 'etfe' | 'etfe-plated' = 'etfe'): CableItem {
  const core = WIRE_TABLES[table].find((one) => one.size === size)!;
  const wallMm = (screened ? 0.25 : 0) + 0.2;
  const odMm = Math.round(100 * (ENCLOSE[conductors]! * core.odMm + 2 * wallMm)) / 100;
  // braid at about 85 % cover and jacket, by their area
  const around = Math.PI * (odMm - wallMm) * (screened ? 0.25 * 8.96 * 0.5 + 0.2 * 1.75 : 0.2 * 1.75);
  return {
    id: `${table}-${conductors}x${size}${screened ? 's' : ''}`,
    name: `${conductors} × AWG ${size}${screened ? ', screened' : ''}${table === 'etfe' ? '' : ', plated, 200 °C'}`,
    conductors,
    table,
    size,
    screened,
    odMm,
    massGPerM: Math.round(10 * (conductors * core.massGPerM + around)) / 10,
  };
}

/** AWG 24 is allowed in a screened cable only (calculations 3). Fewest conductors first. */
export const CABLES: readonly CableItem[] = [
  cable(1, '24', true),
  cable(2, '24', true),
  cable(2, '22', true),
  cable(2, '22', false),
  cable(3, '24', true),
  cable(3, '22', true),
  cable(3, '22', false),
  cable(4, '24', true),
  cable(4, '22', true),
  cable(4, '22', false),
  cable(2, '24', true, 'etfe-plated'),
  cable(2, '22', true, 'etfe-plated'),
  cable(3, '24', true, 'etfe-plated'),
  cable(3, '22', true, 'etfe-plated'),
];
