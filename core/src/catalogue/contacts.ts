import type { Contact, Seal } from '../model';

/** What a contact is, as a row: id, name, cavity size, from and to in mm² of copper, A, mm of strip, g. */
type ContactRow = [
  id: string,
  name: string,
  cavitySize: string,
  minAreaMm2: number,
  maxAreaMm2: number,
  currentA: number,
  stripMm: number,
  massG: number,
];

const contact = (row: ContactRow, tool: string, positioner: string, removalTool: string): Contact => {
  const [id, name, cavitySize, minAreaMm2, maxAreaMm2, currentA, stripMm, massG] = row;
  return {
    ...{
      id,
      name,
      cavitySize,
      minAreaMm2,
      maxAreaMm2,
      currentA,
      stripMm,
      peakA: PEAKS[id] ?? null,
      maxC: 125,
      pullOffN: null,
      gender: null,
      crimpHeights: HEIGHTS[id] ?? [],
    },
    ...{ tool, positioner, removalTool, massG },
  };
};

/** Crimp heights of open barrels by the sheets of their makers: a wire size and mm. A four-indent crimp has none. */
const HEIGHTS: Readonly<Record<string, string[]>> = {
  p16f: ['22 1.08', '20 1.2', '0.35 1.06', '0.5 1.16'],
  p16: ['18 1.34', '16 1.46', '0.75 1.28', '1.0 1.38', '1.5 1.55'],
  t150f: ['22 1.02', '20 1.14', '0.35 1.0', '0.5 1.1'],
  t150: ['18 1.3', '16 1.4', '0.75 1.24', '1.0 1.34'],
  q10: ['22 0.94', '20 1.06', '0.35 0.92', '0.5 1.0', '0.75 1.12'],
};

/** What contacts bear for a moment, as their sheets state it, A; three times the rating where they say nothing. */
const PEAKS: Readonly<Record<string, number>> = { h22: 25, h22w: 30, p16f: 45, p16: 75, t150f: 45, t150: 75, b6: 150, q28f: 60, q28: 90 };

/** Contacts by cavity size, finest range first. Current at 20 °C in free air. */
export const CONTACTS: readonly Contact[] = [
  {
    ...contact(
      ['h22', 'Hollin size 22 contact', '22', 0.14, 0.62, 7.5, 4.0, 0.2],
      'four-indent crimper',
      'positioner H22',
      'Hollin extractor 22',
    ),
    maxC: 200,
  },
  {
    ...contact(
      ['h22w', 'Hollin size 22 contact, wide barrel', '22', 0.63, 1.0, 7.5, 5.0, 0.25],
      'four-indent crimper',
      'positioner H22W',
      'Hollin extractor 22',
    ),
    maxC: 200,
  },
  ...(['socket', 'pin'] as const).map((gender) => ({
    ...contact(
      [`h16${gender === 'pin' ? 'p' : 's'}`, `Hollin size 16 ${gender}`, '16', 0.5, 1.35, 13, 6.0, 0.6],
      'four-indent crimper',
      'positioner H16',
      'Hollin extractor 16',
    ),
    maxC: 200,
    gender,
  })),
  contact(['p16f', 'Pellow 16 contact, fine', '16s', 0.3, 0.65, 8, 4.5, 0.4], 'open-barrel crimper P', 'die P1', 'Pellow pick'),
  contact(['p16', 'Pellow 16 contact', '16s', 0.75, 2.0, 13, 5.0, 0.5], 'open-barrel crimper P', 'die P2', 'Pellow pick'),
  contact(['t150f', 'Tarn 150 contact, fine', '150', 0.3, 0.65, 9, 4.5, 0.4], 'open-barrel crimper T', 'die T1', 'Tarn pick'),
  contact(['t150', 'Tarn 150 contact', '150', 0.75, 1.3, 14, 5.0, 0.5], 'open-barrel crimper T', 'die T2', 'Tarn pick'),
  { ...contact(['b6', 'Brack 6 mm blade', '6p', 1.9, 6.0, 40, 8.0, 1.9], 'open-barrel crimper B', 'die B1', 'Brack pick') },
  contact(['q28f', 'Quill 2.8 contact, fine', '28q', 0.35, 1.0, 15, 6.0, 0.7], 'open-barrel crimper Q', 'die Q2', 'Quill pick'),
  contact(['q28', 'Quill 2.8 contact', '28q', 0.95, 3.0, 22, 6.0, 0.8], 'open-barrel crimper Q', 'die Q3', 'Quill pick'),
  contact(['q10', 'Quill 1.0 contact', '10q', 0.3, 1.0, 8, 4.0, 0.2], 'open-barrel crimper Q', 'die Q1', 'Quill pick'),
];

/** Cavities whose housing has one grommet for all wires: no seal on each wire, but limits on the insulation all the same. */
export const GROMMETS: Readonly<Record<string, { minOdMm: number; maxOdMm: number }>> = {
  '22': { minOdMm: 0.75, maxOdMm: 1.6 },
  '16': { minOdMm: 1.0, maxOdMm: 2.2 },
  '10q': { minOdMm: 1.0, maxOdMm: 2.0 },
  '28q': { minOdMm: 1.0, maxOdMm: 3.0 },
};

export const SEALS: readonly Seal[] = [
  { id: 'p-green', name: 'Pellow seal green', cavitySize: '16s', minOdMm: 1.0, maxOdMm: 1.65 },
  { id: 'p-grey', name: 'Pellow seal grey', cavitySize: '16s', minOdMm: 1.66, maxOdMm: 2.3 },
  { id: 't-blue', name: 'Tarn seal blue', cavitySize: '150', minOdMm: 1.0, maxOdMm: 1.6 },
  { id: 't-white', name: 'Tarn seal white', cavitySize: '150', minOdMm: 1.61, maxOdMm: 2.2 },
  { id: 'b-seal', name: 'Brack seal', cavitySize: '6p', minOdMm: 2.0, maxOdMm: 4.4 },
];

/** Plug for an empty sealed cavity, by cavity size. */
export const PLUGS: Readonly<Record<string, { id: string; name: string }>> = {
  '22': { id: 'h-plug', name: 'Hollin sealing plug 22' },
  '16': { id: 'h16-plug', name: 'Hollin sealing plug 16' },
  '16s': { id: 'p-plug', name: 'Pellow cavity plug' },
  '150': { id: 't-plug', name: 'Tarn cavity plug' },
  '6p': { id: 'b-plug', name: 'Brack cavity plug' },
  '10q': { id: 'q-plug', name: 'Quill cavity plug' },
  '28q': { id: 'q28-plug', name: 'Quill power cavity plug' },
};
