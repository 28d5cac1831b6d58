import type { Catalogue } from '../../catalogue';
import type { Job } from '../../model';
import { compareIds } from '../../units';
import { findStandard } from '../findStandard';
import type { LoomPlan } from '../types';
import { chooseLabel } from './chooseLabel';
import { layoutLegend, type Legend } from './layoutLegend';

/** What is printed for one wire or one end. */
export interface PlannedMark {
  kind: 'wire' | 'end';
  id: string;
  text: string;
  /** alike: a wire has one at each of its ends */
  pieces: number;
  /** outside of what it lies on; null: no single run leaves the end, and a tag is tied to it */
  odMm: number | null;
  stockId: string | null;
  stockName: string | null;
  legend: Legend | null;
  problem: 'no-sleeve' | 'too-long' | null;
}

/** Marks of a loom in the order in which they go on: wires as they are cut, then ends. */
export function listMarks(job: Job, plan: LoomPlan, catalogue: Catalogue): PlannedMark[] {
  const loom = job.looms[plan.loomId]!;
  const standard = findStandard(job, catalogue);
  const stocks = new Map(catalogue.labels.map((stock) => [stock.id, stock]));
  const wires = plan.wires.map(({ id, number, conductor: { odMm }, labelId }): PlannedMark => {
    const stock = labelId === null ? undefined : stocks.get(labelId);
    const legend = stock ? layoutLegend(number, stock, standard) : null;
    return { kind: 'wire', id, text: number, pieces: 2, odMm, ...toSleeve(stock, legend) };
  });
  const leads = new Map(plan.endDress.map(({ endId, leadMm }) => [endId, leadMm]));
  const ends = Object.keys(loom.ends)
    .sort(compareIds)
    .map((id): PlannedMark => {
      const text = loom.ends[id]!.name;
      const odMm = leads.get(id) ?? null;
      const common = { kind: 'end', id, text, pieces: 1, odMm } as const;
      if (odMm === null) return { ...common, stockId: null, stockName: null, legend: null, problem: null };
      const chosen = chooseLabel(catalogue, odMm, text, standard);
      return { ...common, ...toSleeve(chosen?.stock, chosen?.legend ?? null) };
    });
  return [...wires, ...ends];
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
