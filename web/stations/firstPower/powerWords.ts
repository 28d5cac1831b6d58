import type { JudgedTest, PowerPart, PowerUnit } from 'wattograph-core';

export const PART_WORDS: Readonly<Record<PowerPart, string>> = {
  bare: 'No power: what hangs on the feed',
  grounds: 'Grounds',
  buses: 'Buses: what terminates them',
  unplugged: 'Every box out',
  modules: 'Modules in, other boxes out',
  boxes: 'Boxes in, one at a time',
  feeds: 'Fuses and channels, one by one',
  coding: 'Coding',
  lamps: 'Lamps',
  inputs: 'Inputs at rest',
  actuators: 'Actuators, one at a time',
  cranking: 'Cranking, fuel and spark off',
  stand: 'The stand',
  start: 'First start',
  later: 'Not provable here',
};

/** Done before anything of a part is read. */
export const PART_HINTS: Readonly<Record<PowerPart, string>> = {
  bare: 'Battery off. Pull every fuse.',
  grounds: 'Battery off. A milliohmmeter, four-wire.',
  buses: 'Battery off, every box out, all looms mated.',
  unplugged: 'Unplug every box. Power from a limited supply in the battery’s place, never the bare battery.',
  modules: 'Plug the power modules in; let each channel stand as said, by the module’s own tool. All other boxes stay out.',
  boxes: 'Plug the box that is named in; the others stay as they are.',
  feeds: 'Give one feed at a time, by its fuse or the module’s tool; look and listen to what wakes.',
  coding: 'By the module’s own tool, with its plug in.',
  lamps: 'One after another.',
  inputs: 'Engine cold, nothing moves. What does not agree is not calibrated away: it is looked for.',
  actuators: 'One at a time, by the controller’s own test.',
  cranking: 'The battery is on now. Fuel and spark off.',
  stand: 'Power off. Before fuel is brought near.',
  start: 'All before is passed.',
  later: 'It stays open until its condition is there, and is told at the handover.',
};

const SHOWN = 3;

/** "12.4 V", "as said" */
export const toPowerWords = (value: number, unit: PowerUnit): string =>
  unit === 'look' ? (value === 1 ? 'as said' : 'not so') : `${Number(value.toPrecision(SHOWN))} ${unit}`;

/** What passes: "11.8 to 13.1 V", "at most 0.5 V" */
export function toBandWords({ test: { unit }, least, most }: Pick<JudgedTest, 'test' | 'least' | 'most'>): string {
  if (unit === 'look') return 'it is as said';
  if (least !== null && most !== null) return `${toPowerWords(least, unit).replace(` ${unit}`, '')} to ${toPowerWords(most, unit)}`;
  if (most !== null) return `at most ${toPowerWords(most, unit)}`;
  if (least !== null) return `at least ${toPowerWords(least, unit)}`;
  return unit === '°C' ? 'read it; the others are compared with the air' : 'read it';
}
