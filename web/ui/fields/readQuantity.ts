import { readLength } from './readLength';

/** What a figure may be typed in, as multiples of the unit that it is kept in. */
const UNITS = {
  A: { a: 1, ma: 1e-3, ka: 1e3 },
  V: { v: 1, mv: 1e-3, kv: 1e3 },
  mV: { mv: 1, v: 1e3, µv: 1e-3, uv: 1e-3 },
  mΩ: { mω: 1, mohm: 1, ω: 1e3, ohm: 1e3, µω: 1e-3, uohm: 1e-3 },
  // a bare m is what a meter shows as M
  Ω: { ω: 1, ohm: 1, m: 1e6, k: 1e3, kω: 1e3, kohm: 1e3, mω: 1e-3, mohm: 1e-3 },
  // a tester of insulation shows M
  MΩ: { mω: 1, mohm: 1, m: 1, gω: 1e3, gohm: 1e3, g: 1e3, kω: 1e-3, kohm: 1e-3, k: 1e-3, ω: 1e-6, ohm: 1e-6 },
  Nm: { nm: 1, 'n·m': 1, 'lb·ft': 1.3558179483, lbft: 1.3558179483, 'lb·in': 0.112984829, lbin: 0.112984829 },
  Ah: { ah: 1, mah: 1e-3 },
  W: { w: 1, mw: 1e-3, kw: 1e3 },
  ms: { ms: 1, s: 1e3, µs: 1e-3, us: 1e-3 },
  s: { s: 1, ms: 1e-3, min: 60, h: 3600 },
  Hz: { hz: 1, khz: 1e3 },
  N: { n: 1, lbf: 4.4482216152605, kgf: 9.80665 },
  g: { g: 1, kg: 1e3, oz: 28.349523125, lb: 453.59237 },
  'mm²': { 'mm²': 1, mm2: 1, sqmm: 1 },
  '%': { '%': 1 },
  '°': { '°': 1, deg: 1 },
} as const;

export type Unit = keyof typeof UNITS | 'mm' | '°C';

export const isUnit = (words: string | undefined): words is Unit =>
  words !== undefined && (words === 'mm' || words === '°C' || Object.hasOwn(UNITS, words));

const SIGNED = /^([-+−]?\d*[.,]?\d+)\s*(\D.*)?$/;

/** Area of a solid round wire of an American wire gauge, mm². Source: ASTM B258, d = 0.127 mm · 92^((36 − n)/39). */
const toAreaMm2 = (gauge: number): number => (Math.PI / 4) * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2;

/** "18 AWG", "AWG 4/0": number of the gauge, zeros counting down. */
function readGauge(text: string): number | null {
  const found = /^(?:awg\s*)?(?:(\d{1,2})|(\d)\/0)(?:\s*awg)?$/.exec(text);
  if (!found || !text.includes('awg')) return null;
  return found[1] !== undefined ? Number(found[1]) : 1 - Number(found[2]);
}

/**
 * A figure as somebody types it, in the unit that it is kept in: with a unit or none (then it is that one), with a point or a comma. What is
 * no such figure is NaN; nothing typed is null.
 */
export function readQuantity(text: string, unit: Unit | null): number | null {
  const typed = text
    .trim()
    .toLowerCase()
    .replace(/ohms$/, 'ohm')
    .replace(/\u2126/g, 'ω')
    .replace(/\u03bc/g, 'µ');
  if (typed === '') return null;
  if (unit === 'mm') return readLength(text);
  if (unit === 'mm²') {
    const gauge = readGauge(typed);
    if (gauge !== null) return gauge >= -3 && gauge <= 40 ? toAreaMm2(gauge) : NaN;
  }
  // the trade writes 4k7 for 4.7 kΩ, 1M2 for 1.2 MΩ
  const knot = unit === 'Ω' ? /^(\d+)([km])(\d+)$/.exec(typed) : null;
  if (knot) return Number(`${knot[1]}.${knot[3]}`) * (knot[2] === 'k' ? 1e3 : 1e6);
  const found = SIGNED.exec(typed);
  if (!found) return NaN;
  const number = Number(found[1]!.replace(',', '.').replace('−', '-'));
  const said = found[2]?.trim() ?? '';
  if (said === '') return number;
  if (unit === null) return NaN;
  // a capital M is a million: read as a thousandth it would be wrong by nine digits
  if (/^M(?!IN$|in$)/.test(text.trim().replace(/^[-+−\d.,\s]+/, ''))) return unit === 'Ω' && /^m(ω|ohm)?$/.test(said) ? number * 1e6 : NaN;
  if (unit === '°C') return /^°?c$/.test(said) ? number : /^°?f$/.test(said) ? (number - 32) / 1.8 : NaN;
  return number * ((UNITS[unit] as Record<string, number>)[said] ?? NaN);
}

/** Ten digits: what turning units leaves behind them is not what somebody meant. */
export const toRound = (value: number): number => Number(value.toPrecision(10));
