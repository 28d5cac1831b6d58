import { findFamily, toSizeWords } from '../../catalogue';
import { listCutPieces } from '../../make';
import type { DressPiece, PlannedTermination, PlannedWire } from '../../plan';
import { roundTo } from '../../units';
import { BUILD_FORMAT_VERSION, type BuildJson } from './buildSchema';
import type { ListSource } from './listTables';

type Source = Omit<ListSource, 'findings'>;

/** A planned loom with its build as BuildSchema says. revision: as people read it. */
export function toBuildJson({ job, plan, build, catalogue }: Source, revision: string): BuildJson {
  const loom = job.looms[plan.loomId]!;
  return {
    format: 'wattograph-build',
    formatVersion: BUILD_FORMAT_VERSION,
    job: job.name,
    revision,
    loom: { id: plan.loomId, name: loom.name, datum: plan.tree.datumId },
    wires: plan.wires.map((wire) => toWire(wire, loom.circuits[wire.circuitId]!.name)),
    cuts: build.cuts.map((cut) => ({
      reel: cut.reel,
      pieces: listCutPieces(cut).map(({ wires, roughMm, cutMm, isHeld }) => ({
        wires: wires.map(({ id }) => id),
        roughMm,
        cutMm,
        held: isHeld,
      })),
    })),
    deadWire: build.fillers.map(({ number, reel, cutMm }) => ({ number, reel, cutMm })),
    ends: Object.entries(loom.ends).map(([id, { name, kind, familyId, key, nodeId }]) => {
      const family = findFamily(job, catalogue, familyId);
      return {
        ...{ id, name, kind, node: nodeId },
        housing: family && familyId !== null ? { id: familyId, name: family.name, key } : null,
        cavities: plan.terminations.filter(({ endId }) => endId === id).map(toCavity),
        plugs: plan.plugs.filter(({ endId }) => endId === id).map(({ cavity }) => cavity),
      };
    }),
    splices: plan.splices.map(({ id, label, circuitId, distanceMm }) => {
      const { sides, barrelId, stripMm, tool } = plan.barrels.find(({ spliceId }) => spliceId === id)!;
      return { ...{ id, label, circuit: circuitId, distanceMm: roundTo(distanceMm, 1), barrel: barrelId, stripMm, tool }, ...sides };
    }),
    runs: plan.coverings.map(({ segmentId, kind, itemId, itemName, cutMm, odOutsideMm, because }) => {
      const { nearNodeId, farNodeId, startMm, lengthMm, sigmaMm } = plan.tree.segments[segmentId]!;
      const toNode = (node: string) => ({ node, name: loom.nodes[node]!.name });
      return {
        ...{ id: segmentId, near: toNode(nearNodeId), far: toNode(farNodeId), startMm, lengthMm, sigmaMm },
        bundleMm: plan.bundles.find((bundle) => bundle.segmentId === segmentId)!.odMm,
        covering: { kind, item: itemId, name: itemName, cutMm, overMm: odOutsideMm, because },
      };
    }),
    dress: [
      ...plan.breakoutDress.flatMap(({ nodeId, pieces }) => pieces.map((piece) => toPiece({ node: nodeId }, piece))),
      ...plan.endDress.flatMap(({ endId, pieces }) => pieces.map((piece) => toPiece({ end: endId }, piece))),
    ],
    parts: build.parts.map(({ group, id, name, pieces, lengthMm, packs, cost }) => ({ group, id, name, pieces, lengthMm, packs, cost })),
    steps: build.steps.map(({ id, operation, title, endId, segmentId, spliceId, tool, parts, caution, needs, items }) => ({
      ...{ id, operation, title, end: endId, run: segmentId, splice: spliceId, tool, parts, caution },
      needs: needs.map(({ stepId, because }) => ({ step: stepId, because })),
      items: items.map(({ id: itemId, words, wireIds, cavity, heldBecause, reads }) => ({
        ...{ id: itemId, words, wires: wireIds, cavity, held: heldBecause },
        reads: reads.map(({ id: readId, words: what, unit, least, most }) => ({ id: readId, words: what, unit, least, most })),
      })),
    })),
    continuity: build.continuity.map(({ circuitId, from, to, wires, expectedOhm, mostOhm, millivolts }) => ({
      circuit: circuitId,
      from: { end: from.endId, cavity: from.cavity },
      to: { end: to.endId, cavity: to.cavity },
      ...{ wires, expectedOhm, mostOhm },
      millivolts: millivolts ? { atA: millivolts.atA, expected: millivolts.expectedMv, most: millivolts.mostMv } : null,
    })),
  };
}

const toPlace = (end: PlannedWire['from']) => (end.kind === 'cavity' ? { end: end.endId, cavity: end.cavity } : { splice: end.spliceId });

const toWire = (wire: PlannedWire, circuit: string): BuildJson['wires'][number] => ({
  id: wire.id,
  number: wire.number,
  circuit: { id: wire.circuitId, name: circuit },
  from: toPlace(wire.from),
  to: toPlace(wire.to),
  colour: wire.colour,
  size: { table: wire.conductor.table, size: wire.conductor.size, words: toSizeWords(wire.conductor) },
  cutMm: wire.cutMm,
  roughMm: wire.roughMm,
  sigmaMm: wire.sigmaMm,
  terms: wire.addends.map(({ words, mm }) => ({ words, mm })),
  runs: wire.pieces.map(({ segmentId, fromMm, toMm }) => ({ run: segmentId, fromMm, toMm })),
  cable: wire.cable ? { group: wire.cable.groupId, item: wire.cable.itemId } : null,
  held: wire.heldBy.filter(({ stops }) => stops === 'cut').map(({ words }) => words),
  waits: wire.heldBy.filter(({ stops }) => stops !== 'cut').map(({ stops, words }) => ({ from: stops, because: words })),
});

const toCavity = (one: PlannedTermination): BuildJson['ends'][number]['cavities'][number] => ({
  cavity: one.cavity,
  wires: one.wireIds,
  contact: one.contactId === null ? null : { id: one.contactId, name: one.contactName },
  seal: one.sealId === null ? null : { id: one.sealId, name: one.sealName },
  stripMm: one.stripMm,
  tool: one.tool,
  setting: one.positioner,
  pullN: one.pullOffsN,
});

const toPiece = (at: { node: string } | { end: string }, { role, itemName, cutMm, fromMm, toMm, underMm, overMm }: DressPiece) => ({
  ...{ at, role, item: itemName, cutMm, fromMm, toMm, underMm, overMm },
});
