import type { Conductor, ShopStandard } from '../model';

type Row = readonly [size: string, areaMm2: number, r20MilliohmPerM: number, odMm: number, massGPerM: number];

/**
 * ETFE-insulated stranded tinned copper, thin aerospace wall, 150 °C. Nominal figures; check the maker's sheet.
 * Copper areas by the AWG series (ASTM B258), d = 0.127 · 92^((36 − n) / 39) mm, rounded as stranded conductors are sold.
 */
const ETFE: readonly Row[] = [
  ['26', 0.15, 135.5, 0.81, 2.0],
  ['24', 0.24, 85.9, 0.94, 3.0],
  ['22', 0.38, 53.2, 1.09, 4.2],
  ['20', 0.61, 32.4, 1.27, 6.5],
  ['18', 0.96, 20.4, 1.52, 9.7],
  ['16', 1.23, 15.8, 1.73, 12.4],
  ['14', 1.94, 10.0, 2.16, 19.2],
  ['12', 2.97, 6.63, 2.62, 29.3],
  ['10', 4.74, 4.13, 3.4, 47],
  ['8', 8.51, 2.3, 4.6, 88],
];

/**
 * The same on silver-plated copper, cross-linked, 200 °C: reels of their own. Plated strand conducts a little better than tinned (ASTM B298
 * beside B33). Nominal figures; check the maker's sheet.
 */
const ETFE_PLATED: readonly Row[] = [
  ['26', 0.15, 126.0, 0.81, 2.0],
  ['24', 0.24, 79.7, 0.94, 3.1],
  ['22', 0.38, 49.5, 1.09, 4.3],
  ['20', 0.61, 30.2, 1.27, 6.7],
  ['18', 0.96, 19.0, 1.52, 9.9],
  ['16', 1.23, 14.8, 1.73, 12.7],
  ['14', 1.94, 9.45, 2.16, 19.6],
  ['12', 2.97, 6.23, 2.62, 29.9],
  ['10', 4.74, 3.9, 3.4, 48],
  ['8', 8.51, 2.16, 4.6, 89],
];

/** Thin-wall automotive copper, ISO 6722-1 class B (105 °C PVC or 125 °C XLPE); greatest resistance at 20 °C. */
const THINWALL: readonly Row[] = [
  ['0.35', 0.35, 54.4, 1.3, 4.5],
  ['0.5', 0.5, 37.1, 1.6, 6.6],
  ['0.75', 0.75, 24.7, 1.9, 9.0],
  ['1.0', 1.0, 18.5, 2.1, 11],
  ['1.5', 1.5, 12.7, 2.4, 16],
  ['2.5', 2.5, 7.6, 3.0, 26],
  ['4', 4, 4.71, 3.7, 41],
  ['6', 6, 3.14, 4.3, 61],
  ['10', 10, 1.82, 6.0, 110],
  ['16', 16, 1.16, 7.2, 170],
  ['25', 25, 0.743, 8.7, 260],
  ['35', 35, 0.527, 10.4, 360],
  ['50', 50, 0.368, 12.2, 510],
];

const toConductor =
  (table: string, insulation: string, gauge: Conductor['gauge'] = 'AWG') =>
  ([size, areaMm2, r20MilliohmPerM, odMm, massGPerM]: Row): Conductor => ({
    table,
    insulation,
    size,
    gauge,
    areaMm2,
    r20MilliohmPerM,
    odMm,
    massGPerM,
  });

/** Every wire table, thinnest first. */
export const WIRE_TABLES = {
  etfe: ETFE.map(toConductor('etfe', 'ETFE')),
  'etfe-plated': ETFE_PLATED.map(toConductor('etfe-plated', 'ETFE plated')),
  thinwall: THINWALL.map(toConductor('thinwall', 'thin-wall', 'mm²')),
} as const satisfies Readonly<Record<string, readonly Conductor[]>>;

/** Size as it is spoken: "AWG 22", "0.5 mm²". */
export function toSizeWords({ gauge, size }: Pick<Conductor, 'gauge' | 'size'>): string {
  return gauge === 'AWG' ? `AWG ${size}` : `${size} ${gauge}`;
}

/** Kinds of wire to choose from, with what a house style has them stand: "ETFE, AWG, 150 °C". */
export const listWireKinds = (
  { wires }: { wires: Readonly<Record<string, readonly Conductor[]>> },
  { insulationLimitC }: Pick<ShopStandard, 'insulationLimitC'>,
): { value: string; label: string }[] =>
  Object.entries(wires).map(([value, [first]]) => ({
    value,
    label: `${first!.insulation}, ${first!.gauge}, ${insulationLimitC[value]} °C`,
  }));

/** A wire as it is spoken at the bench: "AWG 22 ETFE". */
export const toWireWords = (conductor: Pick<Conductor, 'gauge' | 'size' | 'insulation'>): string =>
  `${toSizeWords(conductor)} ${conductor.insulation}`;
