import type { Board, Printer } from '../model';

/** Boards of the demo shop, the large one first. */
export const BOARDS: readonly Board[] = [
  { id: 'long', name: 'long board', widthMm: 3000, heightMm: 1250, edgeMm: 20 },
  { id: 'bench', name: 'bench board', widthMm: 1700, heightMm: 800, edgeMm: 20 },
];

const printer = (id: string, name: string, paperWidthMm: number, paperHeightMm: number, marginMm: number): Printer => ({
  ...{ id, name, paperWidthMm, paperHeightMm, overlapMm: 10 },
  usableWidthMm: paperWidthMm - 2 * marginMm,
  usableHeightMm: paperHeightMm - 2 * marginMm,
});

/** Its printers, with the paper that is in them. */
export const PRINTERS: readonly Printer[] = [
  printer('office-a3', 'office, A3 across', 420, 297, 10),
  printer('office-a4', 'office, A4 across', 297, 210, 10),
  printer('office-letter', 'office, Letter across', 279.4, 215.9, 10),
  printer('roll', 'plotter, roll of 914 mm', 3000, 914, 5),
];
