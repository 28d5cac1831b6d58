import type { Tick } from '../model';

/** One line of a survey as a measurer writes it down: read from the zero named, along the line begun by the mark before it or a new leg. */
export interface SurveyLine {
  /** name of the zero; "firewall" is the datum */
  zero: string;
  /** a leg of its own from the zero, or the next mark on the line before */
  leg: 'new' | 'on';
  atMm: number;
  what: 'breakout' | 'pass' | 'end';
  name: string;
  holeMm?: number;
  ticks?: Tick[];
}

const line = (
  zero: string,
  leg: SurveyLine['leg'],
  atMm: number,
  what: SurveyLine['what'],
  name: string,
  rest: Partial<SurveyLine> = {},
): SurveyLine => ({
  zero,
  leg,
  atMm,
  what,
  name,
  ...rest,
});

/** The engine loom of the Skerry 12 as taped in the car: 18 ends, 9 breakouts, one hole. */
export const ENGINE_SURVEY: readonly SurveyLine[] = [
  line('firewall', 'new', 60, 'pass', 'firewall hole', { holeMm: 44 }),
  line('firewall', 'on', 180, 'breakout', 'starter side'),
  line('firewall', 'on', 310, 'breakout', 'oil gallery'),
  line('firewall', 'on', 420, 'breakout', 'inlet side'),
  line('firewall', 'on', 540, 'breakout', 'coil rail'),
  line('firewall', 'on', 700, 'breakout', 'cam cover', { ticks: ['hot'] }),
  line('firewall', 'on', 820, 'breakout', 'water outlet'),
  line('firewall', 'on', 930, 'breakout', 'charge pipe', { ticks: ['hot'] }),
  line('firewall', 'on', 1040, 'end', 'crank sensor', { ticks: ['sharp'] }),
  line('starter side', 'new', 220, 'end', 'starter relay'),
  line('starter side', 'new', 160, 'end', 'alternator'),
  line('oil gallery', 'new', 140, 'end', 'oil pressure and temperature'),
  line('oil gallery', 'new', 180, 'breakout', 'sump'),
  line('oil gallery', 'on', 320, 'end', 'oil level switch', { ticks: ['wet'] }),
  line('sump', 'new', 90, 'end', 'sump temperature', { ticks: ['wet'] }),
  line('inlet side', 'new', 70, 'end', 'inlet plug'),
  line('inlet side', 'new', 140, 'end', 'engine ground stud'),
  line('coil rail', 'new', 90, 'end', 'coil 1'),
  line('coil rail', 'new', 170, 'end', 'coil 2'),
  line('coil rail', 'new', 255, 'end', 'coil 3'),
  line('cam cover', 'new', 80, 'end', 'cam sensor'),
  line('cam cover', 'new', 150, 'breakout', 'exhaust side', { ticks: ['hot'] }),
  line('cam cover', 'on', 380, 'end', 'exhaust temperature'),
  line('exhaust side', 'new', 260, 'end', 'wideband probe'),
  line('water outlet', 'new', 75, 'end', 'coolant temperature'),
  line('water outlet', 'new', 120, 'end', 'coolant pump', { ticks: ['wet'] }),
  line('charge pipe', 'new', 90, 'end', 'charge temperature'),
  line('charge pipe', 'new', 140, 'end', 'charge control valve'),
];
