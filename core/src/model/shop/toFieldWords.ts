const UNITS: Readonly<Record<string, string>> = {
  ...{ MilliohmPerM: 'mΩ/m', Milliohm: 'mΩ', GPerM: 'g/m', Mm2: 'mm²', Mm: 'mm', Deg: '°', PerK: 'per K' },
  ...{ A: 'A', C: '°C', N: 'N', G: 'g', V: 'V', K: 'K', M: 'm', S: 's' },
};

/** Where the name in code is not what a fabricator says. */
const SPOKEN: Readonly<Record<string, string>> = {
  r20MilliohmPerM: 'resistance at 20 °C, mΩ/m',
  odMm: 'outside diameter, mm',
  minutesPerM: 'work, min/m',
  volts: 'voltage, V',
  milliohm: 'resistance, mΩ',
  capacityAh: 'capacity, Ah',
};

/** "minAreaMm2" → "min area, mm²". */
export function toFieldWords(key: string): string {
  const spoken = SPOKEN[key];
  if (spoken !== undefined) return spoken;
  const unit = /(?<=[a-z0-9])(MilliohmPerM|Milliohm|GPerM|Mm2|Mm|Deg|PerK|[ACNGVKMS])$/.exec(key)?.[1];
  const stem = unit ? key.slice(0, -unit.length) : key;
  const words = stem.replace(/([a-z0-9])([A-Z])/g, '$1 $2').toLowerCase();
  return unit ? `${words}, ${UNITS[unit]!}` : words;
}
