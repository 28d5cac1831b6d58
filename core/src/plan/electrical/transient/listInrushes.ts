import { mostOf } from '../currents/currents';
import type { CurrentPaths } from '../currents/currentPaths';
import type { SwitchgearLink } from '../../../netlist';

/** What flows for a moment: as much, for so long. */
export interface Inrush {
  currentA: number;
  seconds: number;
}

/**
 * What flows through a link, or in a wire, as loads beyond it are switched on (calculations 3): those that one switch, relay, channel or
 * driver wakes add up, and so do those that nothing switches behind one branch fuse; all others are on. loadA: on-current in its worst
 * mode. linkId: the link itself; null: a wire.
 */
export function listInrushes(
  loads: readonly { ways: CurrentPaths; share: number }[],
  loadA: number,
  linkId: string | null,
  kinds: ReadonlyMap<string, SwitchgearLink['kind']>,
): Inrush[] {
  const groups = new Map<string, { inrushA: number; onA: number; seconds: number }>();
  for (const { ways, share } of loads) {
    const { currentA, inrushA, inrushMs } = ways.load;
    const key = findWaker(ways, linkId, kinds);
    const group = groups.get(key) ?? { inrushA: 0, onA: 0, seconds: 0 };
    groups.set(key, group);
    group.inrushA += share * (inrushA === null || inrushMs === null ? currentA : Math.max(inrushA, currentA));
    group.onA += share * currentA;
    if (inrushA !== null && inrushMs !== null) group.seconds = Math.max(group.seconds, inrushMs / 1000);
  }
  return [...groups.values()]
    .filter(({ seconds }) => seconds > 0)
    .map(({ inrushA, onA, seconds }) => ({ currentA: Math.max(0, loadA - onA) + inrushA, seconds }));
}

/** What wakes a load as seen from a link: its driver, the switch nearest to it at or beyond the link; else its own branch. */
function findWaker({ load, wokenBy }: CurrentPaths, linkId: string | null, kinds: ReadonlyMap<string, SwitchgearLink['kind']>): string {
  if (load.switches.some(({ side }) => side === 'low')) return `driver ${wokenBy}`;
  const { linkIds } = load;
  const from = linkId === null ? 0 : linkIds.indexOf(linkId);
  const beyond = linkIds.slice(Math.max(0, from));
  const waker = beyond.findLast((id) => kinds.get(id) !== 'fuse' && kinds.get(id) !== 'bar');
  if (waker !== undefined) return waker;
  // different branch fuses do not wake together
  return `branch ${beyond.slice(linkId === null ? 0 : 1).find((id) => kinds.get(id) === 'fuse') ?? ''}`;
}

/** The largest of them; 0 A where there is none. */
export function findWorst(inrushes: readonly Inrush[]): Inrush {
  const currentA = mostOf(inrushes.map((one) => one.currentA));
  return { currentA, seconds: mostOf(inrushes.filter((one) => one.currentA === currentA).map((one) => one.seconds)) };
}
