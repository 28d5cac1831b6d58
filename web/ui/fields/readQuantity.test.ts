import { readQuantity, type Unit } from './readQuantity';

test.each<[string, Unit | null, number]>([
  ['500 mA', 'A', 0.5],
  ['12', 'A', 12],
  ['1,5 kA', 'A', 1500],
  ['4k7', 'Ω', 4700],
  ['120 ohms', 'Ω', 120],
  ['2 MΩ', 'Ω', 2e6],
  ['1M', 'Ω', 1e6],
  ['1M2', 'Ω', 1.2e6],
  ['200 mΩ', 'Ω', 0.2],
  ['3 Ω', 'mΩ', 3000],
  ['0.2 s', 'ms', 200],
  ['250 µs', 'ms', 0.25],
  ['2 min', 's', 120],
  ['350 °F', '°C', 176.6666667],
  ['−40', '°C', -40],
  ['20 kHz', 'Hz', 20000],
  ['10 lbf', 'N', 44.48221615],
  ['3/4 in', 'mm', 19.05],
  ['1.2 m', 'mm', 1200],
  ['0.5', null, 0.5],
  // solid wires of ASTM B258: AWG 20 is 0.8118 mm thick, AWG 0 8.2515 mm
  ['20 AWG', 'mm²', (Math.PI / 4) * 0.81182 ** 2],
  ['awg 1/0', 'mm²', (Math.PI / 4) * 8.25146 ** 2],
  ['2,5 mm²', 'mm²', 2.5],
])('%s is so many %s', (text, unit, value) => {
  expect(readQuantity(text, unit)! / value).toBeCloseTo(1, 4);
});

test.each<[string, Unit | null]>([
  ['12 V', 'A'],
  ['twelve', 'A'],
  ['1.2.3', 'V'],
  ['5 A', null],
  ['20', 'mm²'],
  ['99 AWG', 'mm²'],
  ['3 °R', '°C'],
  ['4k7', 'A'],
  ['2 MΩ', 'mΩ'],
  ['3 MV', 'V'],
  ['1 MHz', 'Hz'],
])('%s is no figure in %s, or a plain one', (text, unit) => {
  const value = readQuantity(text, unit);
  expect(text === '20' ? value : Number.isNaN(value)).toBe(text === '20' ? 20 : true);
});

test('nothing typed is nothing known', () => {
  expect(readQuantity('  ', 'A')).toBeNull();
});
