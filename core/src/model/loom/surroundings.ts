import type { Job } from '../job/job';
import type { Segment, Tick } from './segment';

/** What a run has to stand: its zone, and what was ticked at the vehicle. */
export interface Surroundings {
  /** in words, for sentences: "hot side", "engine bay, ticked wet" */
  name: string;
  /** hottest ambient in °C; null where no zone is known and nobody ticked it hot */
  ambientC: number | null;
  wet: boolean;
  abrasion: boolean;
  flexing: boolean;
  reopen: boolean;
  handled: boolean;
}

const WORDS = { hot: 'hot', wet: 'wet', moving: 'moving', sharp: 'sharp' } as const satisfies Record<Tick, string>;

/** Does a run move in use, by its zone or as ticked? */
export function isMoving(zones: Job['zones'], { zoneId, ticks }: Pick<Segment, 'zoneId' | 'ticks'>): boolean {
  return ticks.includes('moving') || (zoneId !== null && (zones[zoneId]?.flexing ?? false));
}

/** Surroundings of a run, or null where neither zone nor tick says anything. A tick adds to the zone, it never takes away. hotC: what "hot" counts as. */
export function findSurroundings(zones: Job['zones'], segment: Pick<Segment, 'zoneId' | 'ticks'>, hotC: number): Surroundings | null {
  const zone = segment.zoneId === null ? undefined : zones[segment.zoneId];
  const { ticks } = segment;
  if (!zone && ticks.length === 0) return null;
  const ticked = ticks.length ? `ticked ${ticks.map((tick) => WORDS[tick]).join(' and ')}` : '';
  return {
    name: [zone?.name, ticked].filter(Boolean).join(', '),
    ambientC: ticks.includes('hot') ? Math.max(hotC, zone?.ambientC ?? hotC) : (zone?.ambientC ?? null),
    wet: ticks.includes('wet') || (zone?.wet ?? false),
    abrasion: ticks.includes('sharp') || (zone?.abrasion ?? false),
    flexing: isMoving(zones, segment),
    reopen: zone?.reopen ?? false,
    handled: zone?.handled ?? false,
  };
}
