import type { InlinePart } from '../model';

/** Ohms as they are said: 120 Ω, 4.7 kΩ. */
export const toOhmWords = (ohms: number): string =>
  ohms >= 1000 ? `${Number((ohms / 1000).toFixed(2))} kΩ` : `${Number(ohms.toFixed(1))} Ω`;

/** An inline part in a few words: "resistor 4.7 kΩ, 0.5 W, inside the device". */
export const toPartWords = ({ kind, ohms, watts, inside }: InlinePart): string =>
  `${kind}${ohms === null ? '' : ` ${toOhmWords(ohms)}`}${watts === null ? '' : `, ${watts} W`}${inside ? ', inside the device' : ''}`;

/** What a meter reads across the part with the power off and everything else unplugged. */
export function toMeterReading({ kind, ohms }: InlinePart): string {
  switch (kind) {
    case 'diode':
      return 'about 0.5 V one way, open the other';
    case 'suppressor':
      return 'the coil beside it';
    case 'terminator':
      return `${toOhmWords(ohms!)} alone, half of it on a bus with both`;
    case 'resistor':
    case 'pull-up':
      return toOhmWords(ohms!);
  }
}
