import type { ShopTable } from 'wattograph-core';

/** What the tables of a shop are called. */
export const TABLE_NAMES: Record<ShopTable, string> = {
  standards: 'House styles',
  people: 'People',
  families: 'Housings',
  devices: 'Devices and boxes',
  wires: 'Wires',
  cables: 'Cables',
  contacts: 'Contacts',
  seals: 'Seals',
  grommets: 'Grommets',
  plugs: 'Cavity plugs',
  rings: 'Rings and blades',
  barrels: 'Splice barrels',
  coverings: 'Coverings',
  boots: 'Boots',
  transitions: 'Transitions',
  clips: 'Clips',
  resins: 'Resins',
  labels: 'Marker sleeves',
  tools: 'Tools',
  boards: 'Boards',
  printers: 'Printers',
  buying: 'Prices and stock',
};
