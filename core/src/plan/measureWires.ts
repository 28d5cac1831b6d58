import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { roundUp, pushTo } from '../units';
import { createHolds } from './createHolds';
import type { WireMark } from './listMarks';
import { measurePathSigma, measureRough } from './measureRough';
import { measurePitchDiameter, measureTakeUp } from './measureTakeUp';
import type {
  Addend,
  Hold,
  PlannedBarrel,
  PlannedBundle,
  PlannedSplice,
  PlannedTermination,
  PlannedWire,
  SizedWire,
  Tree,
  WireEnd,
} from './types';

interface Context {
  job: Job;
  loom: Loom;
  tree: Tree;
  standard: ShopStandard;
  catalogue: Catalogue;
  bundles: Map<string, PlannedBundle>;
  barrels: Map<string, PlannedBarrel>;
  splices: Map<string, PlannedSplice>;
  stripMm: Map<string, number | null>;
  /** terms that many wires share, made once: at an end, along a whole run, out of one run into another */
  endAddends: Map<string, Addend[]>;
  runs: Map<string, Addend>;
  turns: Map<string, Addend>;
  wires: Map<string, SizedWire[]>;
}

/** What the length of a loom's wires is made of. */
export interface WireInputs {
  job: Job;
  loomId: string;
  tree: Tree;
  wires: readonly SizedWire[];
  splices: readonly PlannedSplice[];
  bundles: readonly PlannedBundle[];
  terminations: readonly PlannedTermination[];
  barrels: readonly PlannedBarrel[];
  catalogue: Catalogue;
  standard: ShopStandard;
}

/** The terms that make the length of every wire, in their order, before any rounding (calculations 1). */
export function listAddends(inputs: WireInputs): Addend[][] {
  const context = createContext(inputs);
  return inputs.wires.map((wire) => listOfWire(context, wire));
}

export const sumAddends = (addends: readonly Addend[]): number => addends.reduce((sum, { mm }) => sum + mm, 0);

/**
 * Cut length of every wire with each term that makes it, and the spread it comes with; mm (calculations 1). addends: of each wire; before:
 * the wires as planned from the readings alone, whose rough lengths they were cut to; null where nothing is fitted.
 */
export function measureWires(
  inputs: WireInputs,
  addends: readonly (readonly Addend[])[],
  marks: readonly WireMark[],
  before: readonly PlannedWire[] | null,
): PlannedWire[] {
  const { job, loomId, wires, catalogue } = inputs;
  const rest = {
    cables: new Map(catalogue.cables.map(({ id, name }) => [id, name])),
    holds: createHolds(job, loomId, job.looms[loomId]!),
    firstCuts: before && new Map(before.map(({ id, roughMm }) => [id, roughMm])),
  };
  return wires.map((wire, index) => measureWire(inputs, wire, addends[index]!, marks[index]!, rest));
}

function createContext({ job, loomId, tree, wires, splices, bundles, terminations, barrels, catalogue, standard }: WireInputs): Context {
  const loom = job.looms[loomId]!;
  const groups = new Map<string, SizedWire[]>();
  for (const wire of wires) {
    const groupId = loom.circuits[wire.circuitId]!.twist?.groupId;
    if (groupId !== undefined) pushTo(groups, groupId, wire);
  }
  return {
    ...{ job, loom, tree, standard, catalogue },
    bundles: new Map(bundles.map((bundle) => [bundle.segmentId, bundle])),
    barrels: new Map(barrels.map((barrel) => [barrel.spliceId, barrel])),
    splices: new Map(splices.map((splice) => [splice.id, splice])),
    stripMm: new Map(
      terminations.flatMap(({ endId, cavity, wireIds, stripMm }) => wireIds.map((id) => [`${endId} ${cavity} ${id}`, stripMm])),
    ),
    endAddends: new Map(),
    runs: new Map(),
    turns: new Map(),
    wires: groups,
  };
}

const listOfWire = (context: Context, wire: SizedWire): Addend[] => [
  ...listRuns(context, wire),
  ...listBreakouts(context, wire),
  ...listEndAddends(context, wire.id, wire.from),
  ...listEndAddends(context, wire.id, wire.to),
];

/** What a plan says of a wire besides its length. */
interface Rest {
  /** names of the cables of the catalogue */
  cables: Map<string, string>;
  holds: (wire: SizedWire) => Hold[];
  /** rough lengths by the readings alone, by wire id; null where nothing is fitted */
  firstCuts: Map<string, number> | null;
}

function measureWire(
  { job, loomId, tree, standard }: WireInputs,
  wire: SizedWire,
  terms: readonly Addend[],
  mark: WireMark,
  { holds, firstCuts, cables }: Rest,
): PlannedWire {
  const loom = job.looms[loomId]!;
  const circuit = loom.circuits[wire.circuitId]!;
  const addends = [...terms];
  const lengthMm = sumAddends(terms);
  const cutMm = roundUp(lengthMm, standard.cutIncrementMm);
  if (cutMm - lengthMm > 1e-6)
    addends.push({ kind: 'rounding', of: wire.id, words: `up to the next ${standard.cutIncrementMm} mm`, mm: cutMm - lengthMm });
  const passed = wire.pieces.map(({ segmentId }) => segmentId);
  const sigmaMm = measurePathSigma(passed.map((id) => tree.segments[id]!.spread));
  const unfittedIds = passed.filter((id) => loom.segments[id]!.fittedMm === null);
  const fitted = unfittedIds.length === 0;
  const roughMm = fitted ? cutMm : roundUp(measureRough(lengthMm, sigmaMm, standard.roughExtraMm), standard.cutIncrementMm);
  const { id, circuitId, from, to, pieces, conductor, ruledBy, because } = wire;
  // written out: spreading thousands of wires in every plan is slow
  return {
    id,
    circuitId,
    from,
    to,
    pieces,
    conductor,
    ruledBy,
    because,
    number: mark.number,
    labelId: mark.labelId,
    colour: circuit.colour,
    kind: circuit.kind,
    cable: circuit.cable && { ...circuit.cable, name: cables.get(circuit.cable.itemId)! },
    addends,
    lengthMm,
    cutMm,
    sigmaMm,
    unfittedIds,
    heldBy: holds(wire),
    roughMm,
    firstCutMm: firstCuts?.get(id) ?? roughMm,
    massG: (conductor.massGPerM * cutMm) / 1000,
  };
}

function listRuns({ loom, tree, wires, runs }: Context, wire: SizedWire): Addend[] {
  const twist = loom.circuits[wire.circuitId]!.twist;
  const partners = twist ? wires.get(twist.groupId)!.filter((other) => other !== wire) : [];
  return wire.pieces.map(({ segmentId, fromMm, toMm }) => {
    const { nearNodeId, farNodeId, lengthMm } = tree.segments[segmentId]!;
    const isWhole = !twist && fromMm === 0 && toMm === lengthMm;
    const known = isWhole ? runs.get(segmentId) : undefined;
    if (known) return known;
    const together = partners.filter((other) => other.pieces.some((piece) => piece.segmentId === segmentId)).length + 1;
    const factor = twist && together > 1 ? measureTakeUp(measurePitchDiameter(together, wire.conductor.odMm), twist.pitchMm) : 1;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const addend: Addend = {
      kind: 'segment',
      of: segmentId,
      words: factor === 1 ? run : `${run}, twisted × ${factor.toFixed(5)}`,
      mm: (toMm - fromMm) * factor,
    };
    if (isWhole) runs.set(segmentId, addend);
    return addend;
  });
}

/** Half the bundle's diameter there, wherever the wire turns out of a bundle: from its middle to its side. */
function listBreakouts({ loom, tree, bundles, turns }: Context, wire: SizedWire): Addend[] {
  const addends: Addend[] = [];
  for (let index = 0; index + 1 < wire.pieces.length; index += 1) {
    const one = tree.segments[wire.pieces[index]!.segmentId]!;
    const other = tree.segments[wire.pieces[index + 1]!.segmentId]!;
    const nodeId = one.farNodeId === other.nearNodeId || one.farNodeId === other.farNodeId ? one.farNodeId : one.nearNodeId;
    if (loom.nodes[nodeId]!.kind !== 'breakout') continue;
    const turn = `${one.id} ${other.id}`;
    const known = turns.get(turn);
    if (known) {
      addends.push(known);
      continue;
    }
    const outward = [one, other].filter((segment) => segment.nearNodeId === nodeId);
    if (outward.length === 1 && outward[0]!.onward) continue;
    const inward = [one, other].find((segment) => segment.farNodeId === nodeId) ?? outward.find((segment) => segment.onward);
    const odAt = ({ id, farNodeId }: (typeof outward)[number]) => bundles.get(id)!.sections.at(farNodeId === nodeId ? -1 : 0)!.odMm;
    const od = inward ? odAt(inward) : Math.max(...outward.map(odAt));
    const addend: Addend = {
      kind: 'breakout',
      of: nodeId,
      words: `out of the bundle at ${loom.nodes[nodeId]!.name}, half of ${od.toFixed(1)}`,
      mm: od / 2,
    };
    turns.set(turn, addend);
    addends.push(addend);
  }
  return addends;
}

function listEndAddends(context: Context, wireId: string, wireEnd: WireEnd): Addend[] {
  const { loom, barrels, splices } = context;
  if (wireEnd.kind === 'splice') {
    return [
      {
        kind: 'splice',
        of: wireEnd.spliceId,
        words: `half of splice ${splices.get(wireEnd.spliceId)!.label}`,
        mm: barrels.get(wireEnd.spliceId)!.lengthMm / 2,
      },
    ];
  }
  const { endId, cavity } = wireEnd;
  const known = context.endAddends.get(endId) ?? listAllowances(context, endId);
  context.endAddends.set(endId, known);
  const stripMm = context.stripMm.get(`${endId} ${cavity} ${wireId}`);
  return stripMm ? [...known, { kind: 'strip', of: endId, words: `stripped at ${loom.ends[endId]!.name}`, mm: stripMm }] : known;
}

/** What an end takes of every wire that goes into it: the depth of a housing; loop, re-terminations and clocking at any. */
function listAllowances({ job, loom, catalogue, standard }: Context, endId: string): Addend[] {
  const end = loom.ends[endId]!;
  const addends: Addend[] = [];
  if (end.kind === 'connector') {
    const family = findFamily(job, catalogue, end.familyId);
    addends.push(
      family
        ? { kind: 'entry', of: endId, words: `into ${end.name}, rear face to barrel`, mm: family.entryDepthMm }
        : // EN6 stops a release until it is chosen
          { kind: 'entry', of: endId, words: `into ${end.name}: nothing yet, its housing is still to be chosen`, mm: 0 },
    );
  }
  const times = end.reterminations ?? standard.reterminations;
  if (end.serviceLoopMm) addends.push({ kind: 'service-loop', of: endId, words: `service loop at ${end.name}`, mm: end.serviceLoopMm });
  if (times)
    addends.push({
      kind: 're-termination',
      of: endId,
      words: `${times} re-terminations at ${end.name}, ${standard.reterminationMm} each`,
      mm: times * standard.reterminationMm,
    });
  if (end.clocking) {
    const { radiusMm, angleDeg } = end.clocking;
    addends.push({
      kind: 'clocking',
      of: endId,
      words: `${end.name} may turn ${angleDeg}° at radius ${radiusMm}`,
      mm: (radiusMm * angleDeg * Math.PI) / 180,
    });
  }
  return addends;
}
