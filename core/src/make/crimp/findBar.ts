import { toCount } from '../../units';
import type { SeriesState } from './followCrimps';
import type { ToolGate } from './toolGates';

/** Why samples are due, as the card says it. */
export function toDueWords({ due, dueCount, since }: Pick<SeriesState, 'due' | 'dueCount' | 'since'>): string {
  const samples = toCount(dueCount, 'sample', 'samples');
  switch (due) {
    case null:
      return '';
    case 'first':
      return `first-off: ${samples} before the first`;
    case 'every':
      return `${since} since the last sample: ${samples} before the next`;
    case 'reel':
      return `another reel: ${samples} before the next`;
    case 'lot':
      return `another lot of contacts: ${samples} before the next`;
    case 'tool':
      return `the tool was set anew: ${samples} before the next`;
    case 'mended':
      return `a sample failed: ${samples} before the next`;
    case 'last':
      return `last-off: ${samples}, for what was made since the one before`;
  }
}

/**
 * Why the next crimp of a series waits; null: it does not. A last-off holds nothing up: all is made. Where somebody said why there are no
 * samples, the tool is used as it is.
 */
export function findBar(state: SeriesState, gate: ToolGate): string | null {
  if (state.due !== null && state.due !== 'last') return toDueWords(state);
  if (state.last?.grade === 'none') return null;
  if (gate.stops.length > 0) return `${gate.tool.name}: ${gate.stops[0]!}`;
  return gate.asksGauge ? `${gate.tool.name}: go and no-go gauge before the first of this session` : null;
}
