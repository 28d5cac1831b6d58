import type { Catalogue, ShopStandard } from '../../catalogue';
import { CAUTION_LABEL_WORDS, findSurroundings, type Job } from '../../model';
import { compareIds } from '../../units';
import { findStandard } from '../findStandard';
import type { PlannedEndDress } from '../dress/dressTypes';
import type { PlannedCovering, PlannedWire, TreeNode, TreeSegment } from '../types';
import { chooseClear, type ClearSleeve } from './chooseClear';
import { chooseLabel } from './chooseLabel';
import { layoutLegend, type Legend } from './layoutLegend';

/** What is printed for one wire, one end, the device at it, a warning at an end, or a run that leads into another zone. */
export interface PlannedMark {
  kind: 'wire' | 'end' | 'device' | 'caution' | 'zone';
  /** of the wire, the end, the device or the run */
  id: string;
  text: string;
  /** alike: a wire has one at each of its ends */
  pieces: number;
  /** outside of what it lies on; null: no single run leaves the end and a tag is tied to it, or it sticks on a device */
  odMm: number | null;
  stockId: string | null;
  stockName: string | null;
  legend: Legend | null;
  /** what goes over it where it is wet; null: nothing */
  clear: ClearSleeve | null;
  problem: 'no-sleeve' | 'too-long' | 'no-clear' | null;
}

/** All of a planned loom that its marks hang on: nothing of lengths. */
export interface MarkedPlan extends ZonedPlan {
  wires: readonly Pick<PlannedWire, 'id' | 'number' | 'conductor' | 'labelId'>[];
  endDress: readonly Pick<PlannedEndDress, 'endId' | 'segmentId' | 'leadMm'>[];
}

interface ZonedPlan {
  loomId: string;
  tree: {
    nodes: Readonly<Record<string, Pick<TreeNode, 'parentSegmentId'>>>;
    segments: Readonly<Record<string, Pick<TreeSegment, 'nearNodeId'>>>;
  };
  coverings: readonly Pick<PlannedCovering, 'segmentId' | 'kind' | 'odOutsideMm'>[];
}

/** Marks of a loom in the order in which they go on: wires as they are cut, ends with their warnings, then devices and zones. */
export function listMarks(job: Job, plan: MarkedPlan, catalogue: Catalogue): PlannedMark[] {
  const loom = job.looms[plan.loomId]!;
  const standard = findStandard(job, catalogue);
  const stocks = new Map(catalogue.labels.map((stock) => [stock.id, stock]));
  const wires = plan.wires.map(({ id, number, conductor: { odMm }, labelId }): PlannedMark => {
    const stock = labelId === null ? undefined : stocks.get(labelId);
    const legend = stock ? layoutLegend(number, stock, standard) : null;
    return { kind: 'wire', id, text: number, pieces: 2, odMm, clear: null, ...toSleeve(stock, legend) };
  });
  const leads = new Map(plan.endDress.map(({ endId, leadMm }) => [endId, leadMm]));
  const legs = new Map(plan.endDress.map(({ endId, segmentId }) => [endId, segmentId]));
  const around = (segmentId: string | null | undefined) =>
    typeof segmentId === 'string' ? findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC) : null;
  const isWashed = (segmentId: string | null | undefined) => standard.clearOverLabels && (around(segmentId)?.wet ?? false);
  const over = (odMm: number | null, text: string, segmentId: string | null | undefined) => {
    if (odMm === null) return { stockId: null, stockName: null, legend: null, clear: null, problem: null };
    const chosen = chooseLabel(catalogue, odMm, text, standard, around(segmentId)?.ambientC ?? null);
    const sleeve = toSleeve(chosen?.stock, chosen?.legend ?? null);
    if (!chosen || !isWashed(segmentId)) return { ...sleeve, clear: null };
    const clear = chooseClear(catalogue, odMm, chosen.stock, standard);
    return { ...sleeve, clear, problem: sleeve.problem ?? (clear ? null : ('no-clear' as const)) };
  };
  const ends = Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((id): PlannedMark[] => {
      const { name, cautions } = loom.ends[id]!;
      const odMm = leads.get(id) ?? null;
      const texts = [
        { kind: 'end' as const, text: name },
        ...cautions.map((one) => ({ kind: 'caution' as const, text: CAUTION_LABEL_WORDS[one] })),
      ];
      return texts.map(({ kind, text }) => ({ kind, id, text, pieces: 1, odMm, ...over(odMm, text, legs.get(id)) }));
    });
  const zones = listZoneLabels(job, plan, standard).map(({ segmentId, text, odMm }): PlannedMark => ({
    kind: 'zone',
    id: segmentId,
    text,
    pieces: 1,
    odMm,
    ...over(odMm, text, segmentId),
  }));
  const devices = listDeviceLabels(job, plan.loomId, standard).map(({ deviceId, text }): PlannedMark => ({
    kind: 'device',
    id: deviceId,
    text,
    pieces: 1,
    odMm: null,
    ...over(null, text, null),
  }));
  return [...wires, ...ends, ...devices, ...zones];
}

/** A label for each device that a loom ends at, with its name and that of the loom; none where the shop leaves that to the ends. */
export function listDeviceLabels(
  { devices, looms }: Pick<Job, 'devices' | 'looms'>,
  loomId: string,
  { deviceLabels }: Pick<ShopStandard, 'deviceLabels'>,
): { deviceId: string; endId: string; text: string }[] {
  if (!deviceLabels) return [];
  return Object.keys(devices)
    .sort(compareIds)
    .flatMap((deviceId) => {
      const { name, at } = devices[deviceId]!;
      return at?.loomId === loomId ? [{ deviceId, endId: at.endId, text: `${name} · ${looms[loomId]!.name}` }] : [];
    });
}

/** Runs that lead into another zone than the run before, with its name; none where the shop does not say so on the loom. */
export function listZoneLabels(
  job: Job,
  { loomId, tree, coverings }: ZonedPlan,
  { zoneLabels }: Pick<ShopStandard, 'zoneLabels'>,
): { segmentId: string; text: string; odMm: number }[] {
  if (!zoneLabels) return [];
  const { segments } = job.looms[loomId]!;
  return coverings.flatMap(({ segmentId, kind, odOutsideMm }) => {
    const { zoneId } = segments[segmentId]!;
    const before = tree.nodes[tree.segments[segmentId]!.nearNodeId]!.parentSegmentId;
    // a bare run has nothing that a label would lie on for good
    if (zoneId === null || before === null || kind === 'none' || segments[before]!.zoneId === zoneId) return [];
    return [{ segmentId, text: job.zones[zoneId]!.name, odMm: odOutsideMm }];
  });
}

const toSleeve = (stock: Catalogue['labels'][number] | undefined, legend: Legend | null) => ({
  stockId: stock?.id ?? null,
  stockName: stock?.name ?? null,
  legend,
  problem: stock ? (legend!.fits ? null : ('too-long' as const)) : ('no-sleeve' as const),
});

/** What is printed alike on so many sleeves. */
export interface LabelOrder {
  stockId: string;
  lines: readonly string[];
  capMm: number;
  pieces: number;
}

/** What goes through the printer for the marks of a loom; a mark without a sleeve does not. */
export const toLabelOrders = (marks: readonly PlannedMark[]): LabelOrder[] =>
  marks.flatMap(({ stockId, legend, pieces }) =>
    stockId === null || legend === null ? [] : [{ stockId, lines: legend.lines, capMm: legend.capMm, pieces }],
  );
