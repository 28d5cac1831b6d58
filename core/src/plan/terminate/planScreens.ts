import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { isOffered, isShrink, type Job, type Loom } from '../../model';
import { compareIds, pushTo } from '../../units';
import { packCircles } from '../bundle/packCircles';
import { GRIPS, PASSES } from '../cover/measureCovering';
import type { PlannedTermination, PlannedWire } from '../types';
import type { PlannedScreen } from './endTypes';

export interface ScreensContext {
  job: Job;
  loom: Loom;
  terminations: readonly PlannedTermination[];
  wires: readonly PlannedWire[];
  catalogue: Catalogue;
  standard: ShopStandard;
}

/** Every screened cable at every end that it reaches, in the order of ends and groups (craft A5). */
export function planScreens(context: ScreensContext): PlannedScreen[] {
  const { terminations, wires, catalogue } = context;
  const screened = new Map(catalogue.cables.filter((item) => item.screened).map((item) => [item.id, item]));
  if (!wires.some(({ cable }) => cable && screened.has(cable.itemId))) return [];
  const byId = new Map(wires.map((wire) => [wire.id, wire]));
  const groups = new Map<string, { wire: PlannedWire; stripMm: number }[]>();
  for (const { endId, wireIds, stripMm } of terminations)
    for (const wire of wireIds.map((id) => byId.get(id)!))
      if (wire.cable && screened.has(wire.cable.itemId)) pushTo(groups, `${endId} ${wire.cable.groupId}`, { wire, stripMm: stripMm ?? 0 });
  return [...groups.keys()].sort(compareIds).flatMap((key) => {
    const here = groups.get(key)!;
    const cores = here.filter(({ wire }) => wire.kind !== 'screen');
    return cores.length === 0 ? [] : [planScreen(context, key.slice(0, key.indexOf(' ')), here, cores)];
  });
}

function planScreen(
  { job, loom, catalogue, standard }: ScreensContext,
  endId: string,
  here: readonly { wire: PlannedWire; stripMm: number }[],
  cores: readonly { wire: PlannedWire; stripMm: number }[],
): PlannedScreen {
  const { cable, conductor } = cores[0]!.wire;
  const item = catalogue.cables.find(({ id }) => id === cable!.itemId)!;
  const stripMm = Math.max(...cores.map((core) => core.stripMm));
  // the screen stays outside of the housing
  const insulationMm = Math.max(standard.coreOverScreenMm, findFamily(job, catalogue, loom.ends[endId]!.familyId)?.entryDepthMm ?? 0);
  const screenMm = standard.screenOverJacketMm;
  // all cores of the cable come out of its jacket, whether something is wired to them here or not
  const coresMm = packCircles(Array<number>(item.conductors).fill(conductor.odMm)).odMm;
  const sleeve = catalogue.coverings
    .filter(isShrink)
    .filter(({ id, kind }) => kind !== 'clear-shrink' && isOffered(catalogue, 'coverings', id))
    .sort((a, b) => a.suppliedBoreMm - b.suppliedBoreMm)
    .find(({ suppliedBoreMm, recoveredBoreMm }) => suppliedBoreMm >= PASSES * item.odMm && recoveredBoreMm <= GRIPS * coresMm);
  return {
    ...{ endId, groupId: cable!.groupId, cableName: item.name, jacketMm: item.odMm, coreMm: conductor.odMm },
    wireIds: cores.map(({ wire }) => wire.id),
    unused: Math.max(0, item.conductors - cores.length),
    drainId: here.find(({ wire }) => wire.kind === 'screen')?.wire.id ?? null,
    ...{ stripMm, insulationMm, screenMm, backMm: stripMm + insulationMm + screenMm },
    ...{ sleeveId: sleeve?.id ?? null, sleeveName: sleeve?.name ?? 'no sleeve of the shop goes over it and grips' },
    // as far on the jacket as on the cores
    sleeveMm: 3 * screenMm,
  };
}
