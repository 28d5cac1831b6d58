import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { findBundling, type Job, type Loom } from '../../model';
import { listLayerTakeUps, type LayerTakeUp } from '../layup/listLayerTakeUps';
import { measurePottingLoop } from '../potting/measurePotting';
import { findLeg } from '../route/findLeg';
import { findTurn } from '../route/findTurn';
import { createKeeper, roundUp, pushTo } from '../../units';
import { listHolds } from './listHolds';
import type { WireMark } from './numberWires';
import { measurePathSigma, measureRough } from './measureRough';
import { measurePitchDiameter, measureTakeUp } from './measureTakeUp';
import type {
  LengthAllowance,
  Hold,
  PlannedBarrel,
  PlannedBundle,
  PlannedLayup,
  PlannedSplice,
  PlannedTermination,
  PlannedWire,
  SizedWire,
  Tree,
} from '../types';
import type { WireEnd } from '../../netlist';

type TreeSegment = Tree['segments'][string];

interface Context {
  job: Job;
  loom: Loom;
  tree: Tree;
  standard: ShopStandard;
  catalogue: Catalogue;
  bundles: Map<string, PlannedBundle>;
  barrels: Map<string, PlannedBarrel>;
  splices: Map<string, PlannedSplice>;
  stripMm: ReadonlyMap<string, number | null>;
  /** terms that many wires share, made once: at an end, along a whole run, out of one run into another */
  endAddends: Map<string, LengthAllowance[]>;
  runs: Map<string, LengthAllowance>;
  turns: Map<string, Map<string, LengthAllowance | null>>;
  wires: Map<string, SizedWire[]>;
  /** by segment and wire: what the layers of its bundle take up */
  layers: ReadonlyMap<string, ReadonlyMap<string, LayerTakeUp>>;
}

/** What the length of a loom's wires is made of. */
export interface WireInputs {
  job: Job;
  loomId: string;
  tree: Tree;
  wires: readonly SizedWire[];
  splices: readonly PlannedSplice[];
  bundles: readonly PlannedBundle[];
  layups: readonly PlannedLayup[];
  terminations: readonly PlannedTermination[];
  barrels: readonly PlannedBarrel[];
  catalogue: Catalogue;
  standard: ShopStandard;
}

/** The terms that make the length of every wire, in their order, before any rounding (calculations 1). */
export function listLengthAllowances(inputs: WireInputs): LengthAllowance[][] {
  const context = createContext(inputs);
  return inputs.wires.map((wire) => addOfWire(context, wire, []));
}

/** What the length of a wire is made of beside how long its runs are. */
export interface DraftedWire {
  /** breakouts and ends, mm */
  othersMm: number;
  /** of each of its pieces, what its twist and its layer take up; null: nothing of any */
  takeUps: readonly number[] | null;
}

/** Every wire without its runs: with the lengths of its pieces all that its length is made of. */
export function listDraftedWires(inputs: WireInputs): DraftedWire[] {
  const context = createContext(inputs);
  return inputs.wires.map((wire) => {
    const terms: LengthAllowance[] = [];
    addBreakouts(context, wire, terms);
    addEnds(context, wire, terms);
    const isLonger = context.layers.size > 0 || context.loom.circuits[wire.circuitId]!.twist !== null;
    const takeUps = isLonger ? wire.pieces.map(({ segmentId }) => measureRunTakeUp(context, wire, segmentId)) : null;
    return { othersMm: sumAllowances(terms), takeUps };
  });
}

export const sumAllowances = (addends: readonly LengthAllowance[]): number => addends.reduce((sum, { mm }) => sum + mm, 0);

/**
 * Cut length of every wire with each term that makes it, and the spread it comes with; mm (calculations 1). addends: of each wire; firstCuts:
 * rough lengths by the readings alone, which they were cut to, by wire id; null where nothing is fitted.
 */
export function measureWires(
  inputs: WireInputs,
  addends: readonly (readonly LengthAllowance[])[],
  marks: readonly WireMark[],
  firstCuts: ReadonlyMap<string, number> | null,
): PlannedWire[] {
  const { job, loomId, wires, catalogue } = inputs;
  const rest = {
    cables: new Map(catalogue.cables.map(({ id, name }) => [id, name])),
    holds: listHolds(job, loomId, job.looms[loomId]!, inputs.standard),
    firstCuts,
  };
  return wires.map((wire, index) => measureWire(inputs, wire, addends[index]!, marks[index]!, rest));
}

function createContext({
  job,
  loomId,
  tree,
  wires,
  splices,
  bundles,
  layups,
  terminations,
  barrels,
  catalogue,
  standard,
}: WireInputs): Context {
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
    stripMm: listStrips(terminations),
    endAddends: new Map(),
    runs: new Map(),
    turns: new Map(),
    wires: groups,
    layers: listLayerTakeUps(layups),
  };
}

/** What is stripped of each wire at each of its ends, mm. */
const listStrips = (terminations: readonly PlannedTermination[]): ReadonlyMap<string, number | null> =>
  remember(
    terminations,
    [],
    () =>
      new Map(terminations.flatMap(({ endId, cavity, wireIds, stripMm }) => wireIds.map((id) => [`${endId} ${cavity} ${id}`, stripMm]))),
  );
const remember = createKeeper<readonly PlannedTermination[], ReadonlyMap<string, number | null>>();

/** Adds what makes the length of a wire to a list. */
function addOfWire(context: Context, wire: SizedWire, terms: LengthAllowance[]): LengthAllowance[] {
  addRuns(context, wire, terms);
  addBreakouts(context, wire, terms);
  addEnds(context, wire, terms);
  return terms;
}

function addEnds(context: Context, { id, from, to }: SizedWire, terms: LengthAllowance[]): void {
  addEnd(context, id, from, terms);
  addEnd(context, id, to, terms);
}

/** What a plan says of a wire besides its length. */
interface Rest {
  /** names of the cables of the catalogue */
  cables: Map<string, string>;
  holds: (wire: SizedWire) => Hold[];
  /** rough lengths by the readings alone, by wire id; null where nothing is fitted */
  firstCuts: ReadonlyMap<string, number> | null;
}

function measureWire(
  { job, loomId, tree, standard }: WireInputs,
  wire: SizedWire,
  terms: readonly LengthAllowance[],
  mark: WireMark,
  { holds, firstCuts, cables }: Rest,
): PlannedWire {
  const loom = job.looms[loomId]!;
  const circuit = loom.circuits[wire.circuitId]!;
  const addends = [...terms];
  const lengthMm = sumAllowances(terms);
  const cutMm = roundUp(lengthMm, standard.cutIncrementMm);
  if (cutMm - lengthMm > 1e-6)
    addends.push({ kind: 'rounding', of: wire.id, words: `up to the next ${standard.cutIncrementMm} mm`, mm: cutMm - lengthMm });
  const passed = wire.pieces.map(({ segmentId }) => segmentId);
  const sigmaMm = measureWireSigma(tree, wire);
  const unfittedIds = passed.filter((id) => loom.segments[id]!.fittedMm === null);
  const fitted = unfittedIds.length === 0;
  const roughMm = fitted ? cutMm : toRoughCut(lengthMm, sigmaMm, standard);
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

const measureWireSigma = ({ segments }: Tree, { pieces }: Pick<SizedWire, 'pieces'>): number =>
  measurePathSigma(pieces.map(({ segmentId }) => segments[segmentId]!.spread));

const toRoughCut = (lengthMm: number, sigmaMm: number, { roughExtraMm, cutIncrementMm }: ShopStandard): number =>
  roundUp(measureRough(lengthMm, sigmaMm, roughExtraMm), cutIncrementMm);

/** What a wire of that length is cut to before a trial fit, mm; one that goes through no run is not read and cut as it is. */
export const measureRoughCut = (tree: Tree, wire: Pick<SizedWire, 'pieces'>, lengthMm: number, standard: ShopStandard): number =>
  wire.pieces.length === 0 ? roundUp(lengthMm, standard.cutIncrementMm) : toRoughCut(lengthMm, measureWireSigma(tree, wire), standard);

function addRuns(context: Context, wire: SizedWire, terms: LengthAllowance[]): void {
  const { loom, tree, runs, layers } = context;
  const { twist } = loom.circuits[wire.circuitId]!;
  for (const { segmentId, fromMm, toMm } of wire.pieces) {
    const { nearNodeId, farNodeId, lengthMm } = tree.segments[segmentId]!;
    const layer = layers.get(segmentId)?.get(wire.id);
    const isWhole = !twist && !layer && fromMm === 0 && toMm === lengthMm;
    const known = isWhole ? runs.get(segmentId) : undefined;
    if (known) {
      terms.push(known);
      continue;
    }
    const pair = measurePairTakeUp(context, wire, segmentId);
    const factor = pair * (layer?.takeUp ?? 1);
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const how = [
      pair === 1 ? '' : `, twisted × ${pair.toFixed(5)}`,
      layer && layer.takeUp !== 1 ? `, ${layer.words} × ${layer.takeUp.toFixed(5)}` : '',
    ];
    const addend: LengthAllowance = { kind: 'segment', of: segmentId, words: `${run}${how.join('')}`, mm: (toMm - fromMm) * factor };
    if (isWhole) runs.set(segmentId, addend);
    terms.push(addend);
  }
}

/** Wire per length of a run, by its twist and by its layer. */
const measureRunTakeUp = (context: Context, wire: SizedWire, segmentId: string): number =>
  measurePairTakeUp(context, wire, segmentId) * (context.layers.get(segmentId)?.get(wire.id)?.takeUp ?? 1);

/** Wire per length of a run, by its twist with those of its group that lie there too. */
function measurePairTakeUp({ loom, standard, wires }: Context, wire: SizedWire, segmentId: string): number {
  const { twist } = loom.circuits[wire.circuitId]!;
  if (twist === null || findBundling(loom, segmentId, standard) === 'straight') return 1;
  const together = wires.get(twist.groupId)!.filter(({ pieces }) => pieces.some((piece) => piece.segmentId === segmentId)).length;
  return together > 1 ? measureTakeUp(measurePitchDiameter(together, wire.conductor.odMm), twist.pitchMm) : 1;
}

/** Half the bundle's diameter there, wherever the wire turns out of a bundle: from its middle to its side. */
function addBreakouts({ loom, tree, bundles, turns }: Context, { pieces }: SizedWire, terms: LengthAllowance[]): void {
  for (let index = 0; index + 1 < pieces.length; index += 1) {
    const one = tree.segments[pieces[index]!.segmentId]!;
    const other = tree.segments[pieces[index + 1]!.segmentId]!;
    let after = turns.get(one.id);
    if (!after) turns.set(one.id, (after = new Map<string, LengthAllowance | null>()));
    let addend = after.get(other.id);
    if (addend === undefined) after.set(other.id, (addend = toTurn(loom, bundles, one, other)));
    if (addend) terms.push(addend);
  }
}

/** What a wire takes out of one run into another; null: nothing. */
function toTurn(loom: Loom, bundles: Context['bundles'], one: TreeSegment, other: TreeSegment): LengthAllowance | null {
  const nodeId = findTurn(one, other);
  if (loom.nodes[nodeId]!.kind !== 'breakout') return null;
  const outward = [one, other].filter((segment) => segment.nearNodeId === nodeId);
  if (outward.length === 1 && outward[0]!.onward) return null;
  const inward = [one, other].find((segment) => segment.farNodeId === nodeId) ?? outward.find((segment) => segment.onward);
  const odAt = ({ id, farNodeId }: TreeSegment) => bundles.get(id)!.sections.at(farNodeId === nodeId ? -1 : 0)!.odMm;
  const od = inward ? odAt(inward) : Math.max(...outward.map(odAt));
  return { kind: 'breakout', of: nodeId, words: `out of the bundle at ${loom.nodes[nodeId]!.name}, half of ${od.toFixed(1)}`, mm: od / 2 };
}

function addEnd(context: Context, wireId: string, wireEnd: WireEnd, terms: LengthAllowance[]): void {
  const { loom, barrels, splices } = context;
  if (wireEnd.kind === 'splice') {
    terms.push({
      kind: 'splice',
      of: wireEnd.spliceId,
      words: `half of splice ${splices.get(wireEnd.spliceId)!.label}`,
      mm: barrels.get(wireEnd.spliceId)!.lengthMm / 2,
    });
    return;
  }
  const { endId, cavity } = wireEnd;
  let known = context.endAddends.get(endId);
  if (!known) context.endAddends.set(endId, (known = listAllowances(context, endId)));
  for (const one of known) terms.push(one);
  const loopMm = loom.ends[endId]!.wireLoops[cavity];
  if (loopMm)
    terms.push({ kind: 'service-loop', of: endId, words: `loop of its own at ${loom.ends[endId]!.name}, cavity ${cavity}`, mm: loopMm });
  const stripMm = context.stripMm.get(`${endId} ${cavity} ${wireId}`);
  if (stripMm) terms.push({ kind: 'strip', of: endId, words: `stripped at ${loom.ends[endId]!.name}`, mm: stripMm });
}

/** What an end takes of every wire that goes into it: the depth of a housing; loop, re-terminations and clocking at any. */
function listAllowances({ job, loom, tree, bundles, catalogue, standard }: Context, endId: string): LengthAllowance[] {
  const end = loom.ends[endId]!;
  const addends: LengthAllowance[] = [];
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
  if (end.potting) {
    const leg = findLeg(tree, end.nodeId);
    const { lengthMm } = measurePottingLoop((leg === null ? undefined : bundles.get(leg))?.odMm ?? 0, standard.potLoopRatio);
    addends.push({
      kind: 'potting',
      of: endId,
      words: `loop behind the resin of ${end.name}, ${standard.potStraightMm} straight before it`,
      mm: lengthMm + standard.potStraightMm,
    });
  }
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
