import { findBundling, type Loom } from '../../model';
import type { ShopStandard } from '../../catalogue';
import { roundUp, type Memo, type Stage } from '../../units';
import type { PackingStore } from '../bundle/findPacking';
import type { PlannedBundle, PlannedFiller, PlannedLayup, PlannedSplice, SizedWire, Tree } from '../types';
import { chooseAtOnce } from './chooseStretches';
import { layOutStretch } from './layOutStretch';
import type { LaidLayer, LayupRules, LayupStrip } from './layupTypes';
import { listCrossings } from './listCrossings';
import { listStrips } from './listStrips';
import { takeDecision } from './takeDecision';

/** What a loom is laid up from. */
export interface LayupContext {
  loom: Loom;
  tree: Tree;
  wires: readonly SizedWire[];
  bundles: readonly PlannedBundle[];
  splices: readonly PlannedSplice[];
  standard: ShopStandard;
  loomId: string;
  packings: PackingStore;
  memo: Memo;
}

/** beginnings kept where nobody has searched yet */
const QUICK_BEAM = 3;

const isLaidAt = (loom: Loom, segmentId: string, standard: ShopStandard) => findBundling(loom, segmentId, standard) === 'concentric';

/** Is any run of a loom laid in layers? */
export const isLaidUp = (loom: Loom, standard: ShopStandard): boolean =>
  Object.keys(loom.segments).some((segmentId) => isLaidAt(loom, segmentId, standard));

/** Strips of a loom that are laid in layers, with what the shop lays up by; none where nothing is. */
export function listLayupStrips({
  loom,
  tree,
  wires,
  bundles,
  splices,
  standard,
}: Omit<LayupContext, 'packings' | 'memo' | 'loomId'>): LayupStrip[] {
  if (!isLaidUp(loom, standard)) return [];
  const isLaid = (segmentId: string) => isLaidAt(loom, segmentId, standard);
  return listStrips({ loom, tree, wires, bundles, splices, isLaid }).filter(({ threads }) => threads.length > 1);
}

/** What a strip is laid up by: the shop's figures, and as dead wire the wires that lie in it anyway, so that no reel is added. */
export function toLayupRules(standard: ShopStandard, strip: LayupStrip, wires: ReadonlyMap<string, SizedWire>): LayupRules {
  const ods = new Set(
    strip.threads
      .filter(({ kind }) => kind === 'wire')
      .flatMap(({ parts }) => parts.flatMap(({ wireIds }) => wireIds.map((id) => wires.get(id)!.conductor.odMm))),
  );
  return {
    ratio: standard.layRatio,
    leastRatio: standard.layRatioLeast,
    mostRatio: standard.layRatioMost,
    leastLayMm: standard.layLeastMm,
    squeeze: standard.laySqueeze,
    fillerOdsMm: [...ods].sort((a, b) => a - b),
    fillerPerM: standard.fillerPerM,
    fillerEach: (standard.fillerMinutes / 60) * standard.labourPerHour,
    relayCost: (standard.relayMinutes / 60) * standard.labourPerHour,
    relayThinner: standard.relayThinner,
  };
}

/** Layer by thread of a loom that was pinned by hand. */
export const toLayerPins = ({ layerPins }: Pick<Loom, 'layerPins'>): Map<string, number> =>
  new Map(Object.entries(layerPins).map(([id, { layer }]) => [id, layer]));

interface StripContext {
  strip: LayupStrip;
  of: LayupContext;
  wires: ReadonlyMap<string, SizedWire>;
}

/** A strip by what lies in it: an edit elsewhere finds it as it was. */
const LAY_UP: Stage<StripContext, PlannedLayup> = {
  name: 'lay up',
  keep: 4,
  inputs: ({ strip, of: { loom, standard }, wires }) => {
    const inputs: unknown[] = [JSON.stringify(strip), loom.laidUp[strip.id], loom.layerPins, standard];
    for (const { parts } of strip.threads) for (const { wireIds } of parts) for (const id of wireIds) inputs.push(wires.get(id)!.conductor);
    return inputs;
  },
  run: ({ strip, of: { loom, standard, packings }, wires }) => {
    const rules = toLayupRules(standard, strip, wires);
    const pins = toLayerPins(loom);
    const found = takeDecision(strip, loom.laidUp[strip.id], pins);
    const decision = found ?? chooseAtOnce(strip, rules, { beam: QUICK_BEAM, pins, packings }).decision;
    const by = found ? 'search' : Object.hasOwn(loom.laidUp, strip.id) ? 'stale' : 'quick';
    const stretches = decision.stretches.map((stretch) => layOutStretch(strip, stretch, rules, packings));
    const crossings = decision.stretches.flatMap((stretch) => listCrossings(strip, stretch));
    const fillers = stretches.flatMap(({ layers }, at) =>
      layers.flatMap((layer, index) => listFillers(strip, layer, at, index, wires, standard)),
    );
    return { ...strip, by, stretches, crossings, fillers };
  },
};

/**
 * Every strip of a loom as it is laid up: by what a search found where that still fits what lies there, else laid once from end to end, which
 * is quick and safe and says so.
 */
export function planLayups(context: LayupContext): PlannedLayup[] {
  const strips = listLayupStrips(context);
  if (strips.length === 0) return [];
  const wires = new Map(context.wires.map((wire) => [wire.id, wire]));
  return strips.map((strip) => context.memo(LAY_UP, `${context.loomId} ${strip.id}`, { strip, of: context, wires }));
}

/** Dead wire of a layer, piece by piece. */
function listFillers(
  { marks, threads }: LayupStrip,
  { slots }: LaidLayer,
  stretch: number,
  layer: number,
  wires: ReadonlyMap<string, SizedWire>,
  { cutIncrementMm }: ShopStandard,
): PlannedFiller[] {
  // off a reel: the cores of a cable are on none, unless there is nothing else
  const onReels = threads.filter(({ kind }) => kind !== 'cable');
  const conductors = (onReels.length ? onReels : threads).flatMap(({ parts }) =>
    parts.flatMap(({ wireIds }) => wireIds.map((id) => wires.get(id)!.conductor)),
  );
  return slots.flatMap(({ threadId, odMm, takeUp, fillers }, slot) =>
    fillers.map(({ fromMark, toMark }): PlannedFiller => {
      // where a group or a cable left: the thickest wire that does not stand out
      const fitting = conductors.filter((one) => one.odMm <= odMm + 1e-9).sort((a, b) => b.odMm - a.odMm || (a.size < b.size ? -1 : 1));
      const conductor = fitting[0] ?? conductors.reduce((thin, one) => (one.odMm < thin.odMm ? one : thin));
      const [fromMm, toMm] = [marks[fromMark]!.mm, marks[toMark]!.mm];
      const cutMm = roundUp((toMm - fromMm) * takeUp, cutIncrementMm);
      return { stretch, layer, slot, afterThreadId: threadId, conductor, fromMm, toMm, cutMm, massG: (conductor.massGPerM * cutMm) / 1000 };
    }),
  );
}
