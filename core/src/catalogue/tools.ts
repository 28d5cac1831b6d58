import type { Tool } from '../model';

const tool = (id: string, name: string, setting: string, calibratedOn: string | null = null, everyDays: number | null = null): Tool => ({
  ...{ id, name, setting, calibratedOn, everyDays, gauged: GAUGED.has(id), servicedOn: null },
});

const GAUGED: ReadonlySet<string> = new Set(['four-indent']);

/** Tools of the demo shop's bench: those that make a joint nobody can look into are gauged and calibrated. */
export const TOOLS: readonly Tool[] = [
  tool('four-indent', 'four-indent crimper', 'go and no-go gauge before the first contact of a session', '2026-10-05', 365),
  tool('open-p', 'open-barrel crimper P', 'crimp height of three samples', '2026-08-17', 365),
  tool('open-q', 'open-barrel crimper Q', 'crimp height of three samples', '2026-08-17', 365),
  tool('open-t', 'open-barrel crimper T', 'crimp height of three samples', '2026-08-17', 365),
  tool('open-b', 'open-barrel crimper B', 'crimp height of three samples', '2026-08-17', 365),
  tool('barrel', 'barrel crimper', 'nest by the barrel', '2026-09-21', 365),
  tool('ring', 'ring crimper', 'nest by the ring'),
  tool('stripper', 'wire stripper', 'blade by the insulation'),
  tool('press', 'hydraulic lug press', 'die by the lug; pressure at the stop', '2026-06-29', 730),
];
