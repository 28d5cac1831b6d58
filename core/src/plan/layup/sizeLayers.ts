import { findPacking, type PackingStore } from '../bundle/findPacking';
import type { LayupRules, LayupStrip, Stretch, Thread } from './layupTypes';
import { chooseFiller, countFillers, measureLay, measureRoom, measureTurn } from './measureLayer';

/** A layer by what lies in it, before anything is said about its order. */
export interface SizedLayer {
  threads: readonly Thread[];
  /** dead wire all along */
  fillers: number;
  fillerOdMm: number;
  innerRadiusMm: number;
  outerRadiusMm: number;
  /** what it may take up, rad; null: a core */
  turn: number | null;
  /** as far as anything in it or over it lies, marks */
  fromMark: number;
  toMark: number;
}

/** Layers of a stretch, from the core outwards: how thick each is, what dead wire makes it round, from where to where it lies. */
export function sizeLayers(strip: LayupStrip, stretch: Stretch, rules: LayupRules, packings: PackingStore): SizedLayer[] {
  const layers = listLayers(strip, stretch, rules, packings);
  const lives = listLives(layers, stretch);
  return layers.map((layer, index) => ({ ...layer, ...lives[index]! }));
}

/** Over what lies at a mark and on to the next one, mm. */
export const measureOdAt = (layers: readonly SizedLayer[], mark: number): number =>
  2 * layers.reduce((most, { fromMark, toMark, outerRadiusMm }) => (fromMark <= mark && mark < toMark ? outerRadiusMm : most), 0);

type Layer = Omit<SizedLayer, 'fromMark' | 'toMark'>;

function listLayers({ threads }: LayupStrip, { layers, coreFillers }: Stretch, rules: LayupRules, packings: PackingStore): Layer[] {
  const byId = new Map(threads.map((thread) => [thread.id, thread]));
  const all = layers.map((ids) => ids.map((id) => byId.get(id)!));
  const thickest = all.flat().reduce((most, { odMm }) => Math.max(most, odMm), 0);
  const laid: Layer[] = [];
  all.forEach((members, index) => {
    const mostOdMm = members.length ? Math.max(...members.map(({ odMm }) => odMm)) : thickest;
    const fillerOdMm = chooseFiller(mostOdMm, rules);
    if (index === 0) {
      const ods = [...members.map(({ odMm }) => odMm), ...Array.from({ length: coreFillers }, () => fillerOdMm)].sort((a, b) => b - a);
      const outerRadiusMm = findPacking(packings, ods).packing.odMm / 2;
      laid.push({ threads: members, fillers: coreFillers, fillerOdMm, innerRadiusMm: 0, outerRadiusMm, turn: null });
      return;
    }
    const before = laid[index - 1]!;
    const turn = measureTurn(index === 1 && before.threads.length + before.fillers === 2, rules);
    const innerRadiusMm = before.outerRadiusMm;
    const layMm = measureLay(2 * (innerRadiusMm + mostOdMm), rules);
    const used = members.reduce((sum, { odMm }) => sum + measureRoom(odMm, innerRadiusMm, layMm), 0);
    const fillers = countFillers(turn - used, measureRoom(fillerOdMm, innerRadiusMm, layMm));
    const outerRadiusMm = innerRadiusMm + Math.max(mostOdMm, fillers ? fillerOdMm : 0);
    laid.push({ threads: members, fillers, fillerOdMm, innerRadiusMm, outerRadiusMm, turn });
  });
  return laid;
}

/** From which mark to which each layer lies: as far as anything in it or over it does. */
function listLives(layers: readonly Layer[], { fromMark, toMark }: Stretch): { fromMark: number; toMark: number }[] {
  const lives: { fromMark: number; toMark: number }[] = [];
  let [from, to] = [Infinity, -Infinity];
  for (const { threads } of [...layers].reverse()) {
    for (const thread of threads) {
      from = Math.min(from, Math.max(fromMark, thread.from.mark));
      to = Math.max(to, Math.min(toMark, thread.to.mark));
    }
    lives.unshift({ fromMark: from, toMark: to });
  }
  return lives;
}
