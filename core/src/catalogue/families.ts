import type { ConnectorFamily } from '../model';

const hollin = (ways: number, rings: number[], envelopeMm: number, massG: number): [string, ConnectorFamily] => [
  `hollin-${ways}`,
  {
    name: `Hollin ${ways}`, arrangement: { kind: 'rings', rings }, cavitySize: '22', pitchMm: 2.3, envelopeMm, entryDepthMm: 22,
    seating: 'push-to-seat', sealed: true, secondaryLock: false, keys: ['A', 'B', 'C', 'D'], massG,
  },
];
const pellow = (ways: number, rows: number[], envelopeMm: number, massG: number): [string, ConnectorFamily] => [
  `pellow-${ways}`,
  {
    name: `Pellow ${ways}`, arrangement: { kind: 'rows', rows }, cavitySize: '16s', pitchMm: 4.5, envelopeMm, entryDepthMm: 18,
    seating: 'push-to-seat', sealed: true, secondaryLock: true, keys: ['A', 'B'], massG,
  },
];
const tarn = (ways: number, envelopeMm: number, massG: number): [string, ConnectorFamily] => [
  `tarn-${ways}`,
  {
    name: `Tarn ${ways}`, arrangement: { kind: 'rows', rows: [ways] }, cavitySize: '150', pitchMm: 5, envelopeMm, entryDepthMm: 14,
    seating: 'pull-to-seat', sealed: true, secondaryLock: false, keys: ['grey', 'black'], massG,
  },
];

/** Connector families of the shop: fictional makers, generic properties. Key: family id. */
export const FAMILIES: Readonly<Record<string, ConnectorFamily>> = Object.fromEntries([
  hollin(3, [3], 14, 9), hollin(6, [1, 5], 17, 12), hollin(13, [3, 10], 21, 19), hollin(19, [1, 6, 12], 25, 26),
  hollin(22, [2, 8, 12], 26, 29), hollin(37, [1, 6, 12, 18], 33, 43), hollin(55, [1, 6, 12, 16, 20], 39, 58), hollin(66, [3, 8, 14, 19, 22], 42, 66),
  pellow(2, [2], 19, 6), pellow(3, [3], 22, 7.5), pellow(4, [2, 2], 23, 9), pellow(6, [3, 3], 27, 12), pellow(8, [4, 4], 32, 15), pellow(12, [6, 6], 38, 22),
  tarn(2, 17, 5), tarn(3, 20, 6.5), tarn(4, 24, 8),
  ['brack-2', {
    name: 'Brack 2', arrangement: { kind: 'rows', rows: [2] }, cavitySize: '6p', pitchMm: 9, envelopeMm: 30, entryDepthMm: 24,
    seating: 'push-to-seat', sealed: true, secondaryLock: true, keys: [], massG: 21,
  }],
  ['quill-34', {
    name: 'Quill 34', arrangement: { kind: 'rows', rows: [12, 11, 11] }, cavitySize: '10q', pitchMm: 3.2, envelopeMm: 52, entryDepthMm: 20,
    seating: 'push-to-seat', sealed: true, secondaryLock: true, keys: ['A'], massG: 48,
  }],
  ['quill-26', {
    name: 'Quill 26', arrangement: { kind: 'rows', rows: [9, 8, 9] }, cavitySize: '10q', pitchMm: 3.2, envelopeMm: 44, entryDepthMm: 20,
    seating: 'push-to-seat', sealed: true, secondaryLock: true, keys: ['B'], massG: 38,
  }],
] as [string, ConnectorFamily][]);
