import type { ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { listLaidCircles, priceBreakouts, type LoomPlan, type PlannedLayup, type WayOn } from '../plan';
import { roundTo } from '../units';

const round = (value: number) => roundTo(value, 3);
const toWay = (way: WayOn | null) => way && Object.fromEntries(Object.entries(way).map(([key, value]) => [key, round(value)]));

/**
 * The lay-up of a loom so that another program can check it (docs/format.md): every strip, section by section, layer by layer, with where each
 * element starts, what ends or is laid anew at each breakout, crossings, dead wire and bounds. Lengths mm, angles degrees from 12 o'clock,
 * clockwise seen from the datum.
 */
export function toLayupJson(job: Job, plan: LoomPlan, standard: ShopStandard): object {
  return { loom: plan.loomId, units: 'mm, degrees, g', strips: plan.layups.map((layup) => toStrip(job, plan, layup, standard)) };
}

function toStrip(job: Job, plan: LoomPlan, layup: PlannedLayup, standard: ShopStandard): object {
  const { nodes } = job.looms[plan.loomId]!;
  const { marks, stretches, crossings, threads, fillers } = layup;
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const toPlace = (mark: number) => {
    const { mm, kind, nodeId } = marks[mark]!;
    return { mm: round(mm), kind, node: nodeId, name: nodeId === null ? null : nodes[nodeId]!.name };
  };
  return {
    id: layup.id,
    segments: layup.segmentIds,
    fromDatumMm: round(plan.tree.segments[layup.id]!.startMm),
    lengthMm: round(marks.at(-1)!.mm),
    foundBy: layup.by,
    sections: marks.slice(1).map((_, mark) => toSection(plan, layup, mark, toPlace)),
    breakouts: priceBreakouts(layup, standard, wires).map(({ mark, ends, begins, taken, fill, relay, drop }) => ({
      ...toPlace(mark),
      ...{ ends, begins, taken },
      ways: { fill: toWay(fill), relay: toWay(relay), drop: toWay(drop) },
    })),
    crossings: crossings.map(({ threadId, mark, layers }) => ({ element: threadId, ...toPlace(mark), layers })),
    crossingsBound: 0,
    relaid: stretches.slice(1).map(({ fromMark }) => toPlace(fromMark)),
    elements: threads.map(({ id, kind, odMm, from, to, parts }) => ({
      ...{
        id,
        kind: KIND_NAMES[kind],
        odMm: round(odMm),
        wires: parts.flatMap(({ wireIds }) => wireIds.map((one) => wires.get(one)!.number)),
      },
      from: { ...toPlace(from.mark), sideDeg: from.sideDeg },
      to: { ...toPlace(to.mark), sideDeg: to.sideDeg },
    })),
    fillers: fillers.map(({ stretch, layer, slot, afterThreadId, conductor, fromMm, toMm, cutMm, massG }) => ({
      ...{ stretch, layer, slot, after: afterThreadId, size: conductor.size, table: conductor.table, odMm: conductor.odMm },
      ...{ fromMm: round(fromMm), toMm: round(toMm), cutMm, massG: round(massG) },
    })),
  };
}

const KIND_NAMES = { wire: 'wire', twist: 'pair', cable: 'cable' } as const;

function toSection(plan: LoomPlan, layup: PlannedLayup, mark: number, toPlace: (mark: number) => object): object {
  const { marks, stretches, threads, segmentIds, segmentMarks } = layup;
  const { mm } = marks[mark]!;
  const circles = listLaidCircles(layup, mm);
  const stretch = stretches.findLastIndex(({ fromMark }) => fromMark <= mark);
  const kinds = new Map(threads.map(({ id, kind }) => [id, KIND_NAMES[kind]]));
  const segment = segmentMarks.findLastIndex((first) => first <= mark);
  const bundle = plan.bundles.find(({ segmentId }) => segmentId === segmentIds[segment])!;
  const { odMm, boundMm } = bundle.sections[mark - segmentMarks[segment]!]!;
  const layers = stretches[stretch]!.layers.flatMap(({ hand, layMm, innerOdMm, outerOdMm }, layer) => {
    const here = circles.filter((circle) => circle.layer === layer);
    if (here.length === 0) return [];
    const elements = here.map(({ threadId, wireIds, r, deg, x, y, takeUp, slot }) => ({
      id: wireIds.length ? threadId : null,
      kind: wireIds.length ? kinds.get(threadId!)! : 'filler',
      ...{ slot, odMm: round(2 * r), pitchRadiusMm: round(Math.hypot(x, y)), deg: round(deg), takeUp: roundTo(takeUp, 5) },
    }));
    return [
      { layer, hand, layMm: layMm === null ? null : round(layMm), innerOdMm: round(innerOdMm), outerOdMm: round(outerOdMm), elements },
    ];
  });
  return {
    from: toPlace(mark),
    to: toPlace(mark + 1),
    segment: segmentIds[segment],
    stretch,
    odMm: round(odMm),
    boundMm: round(boundMm),
    layers,
  };
}
