import { findFamily, type Catalogue, type Conductor, type ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { chooseBarrels } from './splice/chooseBarrels';
import { chooseConductors, type MinimumSize } from './size/chooseConductors';
import { chooseCoverings } from './cover/chooseCoverings';
import { chooseTerminations } from './terminate/chooseTerminations';
import { numberWires, type WireMark } from './length/numberWires';
import { measureBundles, type LaidBundle } from './bundle/measureBundles';
import { applyLayups } from './layup/applyLayups';
import { isLaidUp, planLayups } from './layup/planLayups';
import { planScreens } from './terminate/planScreens';
import { planStuds } from './terminate/planStuds';
import { planFeeds } from './feed/planFeeds';
import { planDress } from './dress/planDress';
import { measureHeats } from './heat/measureHeats';
import { measureJoints } from './splice/measureJoints';
import {
  listDraftedWires,
  listLengthAllowances,
  measureWires,
  sumAllowances,
  type DraftedWire,
  type WireInputs,
} from './length/measureWires';
import { keepWires } from './length/keepWires';
import type { CarriedCurrent } from './electrical/currents/listCarriedCurrents';
import { measureAmpacities, type WireAmpacity } from './heat/measureAmpacity';
import type { SizedLoom } from './electrical/sizedLoom';
import type { WireCurrent } from './electrical/types';
import { listOnward } from './route/createTree';
import type { RoutedLoom } from './route/routeLoom';
import { createListStage, type Stage } from '../units';
import type { PlanStore } from './planStore';
import type { LengthAllowance, LoomPlan, PlannedLayup, PlannedWire, SizedWire } from './types';

/** What the stages of one loom work on. */
export interface LoomContext {
  job: Job;
  routed: RoutedLoom;
  /** by wire id */
  flows: ReadonlyMap<string, CarriedCurrent>;
  modeIds: readonly string[];
  catalogue: Catalogue;
  standard: ShopStandard;
  store: PlanStore;
}

/** What is laid in layers with these sizes: nothing where all is tied. */
export function listLayups(context: LoomContext, minimums: ReadonlyMap<string, MinimumSize>): readonly PlannedLayup[] {
  if (!isLaidUp(toLoom(context), context.standard)) return [];
  const wires = chooseConductors(context.routed, minimums);
  return layUp(context, wires, bundle(context, wires, false)).layups;
}

/** Every wire with the size that its ends and minimums ask for. layups: of the loom with those; null: bundles as thin as they could be. */
export function draftWires(
  context: LoomContext,
  minimums: ReadonlyMap<string, MinimumSize>,
  layups: readonly PlannedLayup[] | null,
): DraftedWire[] {
  const { routed, catalogue, standard } = context;
  const wires = chooseConductors(routed, minimums);
  const laid = applyLayups(bundle(context, wires, layups === null), layups ?? [], wires);
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  const bundles = laid.map((one) => one.bundle);
  return listDraftedWires(endWires(context, { wires, bundles, layups: layups ?? [], barrels }).inputs);
}

const bundle = (context: LoomContext, wires: readonly SizedWire[], isDraft: boolean) =>
  measureBundles({ ...context, loom: toLoom(context), wires, isDraft });

/** A loom as it is built: what its wires bear, what their ends get, and how long they come out. */
export interface BuiltLoom extends MeasuredLoom {
  loomId: string;
  /** what makes the length of each wire */
  addends: readonly (readonly LengthAllowance[])[];
  lengthsMm: readonly number[];
  barrels: LoomPlan['barrels'];
  ended: EndedWires;
}

/** From sizes to lengths: all that the sums of the vehicle ask of a loom as it is built. */
export function buildLoom(context: LoomContext, minimums: ReadonlyMap<string, MinimumSize>): BuiltLoom {
  // size, bundle, cover, warm
  const measured = measureLoom(context, minimums, false);
  // terminate
  const ended = endWires(context, measured);
  const addends = listLengthAllowances(ended.inputs);
  return { ...measured, loomId: context.routed.loomId, addends, lengthsMm: addends.map(sumAllowances), ended };
}

/** The plan of a loom as it is built, every term of its lengths kept. firstCuts: rough lengths before its trial fit, null where it had none. */
export function planLoom(context: LoomContext, built: BuiltLoom, firstCuts: ReadonlyMap<string, number> | null): LoomPlan {
  const { job, routed, catalogue, standard, store } = context;
  const { loomId, tree, splices } = routed;
  const { wires: sized, barrels, bundles, layups, coverings, heats, currents, ended } = built;
  const { terminations, plugs } = ended;
  // mark, measure
  const loom = toLoom(context);
  const plain: PlainContext = {
    context,
    sized,
    sizes: store.memo(
      SIZES,
      loomId,
      sized.map(({ conductor }) => conductor),
    ),
    terminations,
  };
  const wires = keepWires(store.wires.get(loomId), measureWires(ended.inputs, built.addends, store.memo(NUMBER, loomId, plain), firstCuts));
  store.wires.set(loomId, wires);
  // dress: what finishes ends and breakouts
  const planned = { tree, bundles, coverings, layups, terminations };
  const dress = planDress({ job, loom, loomId, plan: planned, catalogue, standard, packings: store.packings, memo: store.memo });
  // lead through holes
  const feeds = store.memo(FEED, loomId, { ...plain, plan: planned });
  // open cables, stack rings
  const { screens, studs } = store.memo(OPEN, loomId, { ...plain, wires });
  const massG = sumMass(context, wires, built, dress);
  return { loomId, wires, splices, barrels, ...planned, ...dress, feeds, screens, studs, heats, currents, plugs, massG };
}

/** What of a loom does not hang on how long its wires are. sizes: the conductors of its wires, the same object as long as they are. */
interface PlainContext {
  context: LoomContext;
  sized: readonly SizedWire[];
  sizes: readonly Conductor[];
  terminations: LoomPlan['terminations'];
}

const SIZES = createListStage<Conductor>('sizes');

const listPlainInputs = ({ context: { job, routed, standard }, sizes }: PlainContext): unknown[] => {
  const { circuits, ends, nodes, prefix, clampedBy } = job.looms[routed.loomId]!;
  return [routed.shape, circuits, ends, nodes, prefix, clampedBy, job.zones, job.families, standard, sizes];
};

const NUMBER: Stage<PlainContext, readonly WireMark[]> = {
  name: 'number',
  keep: 4,
  inputs: listPlainInputs,
  run: ({ context, sized }) => numberWires({ ...context, loom: toLoom(context) }, sized),
};

/** Through a hole go ends and the runs behind them: how thick, not how long. */
const FEED: Stage<PlainContext & { plan: Parameters<typeof planFeeds>[0]['plan'] }, LoomPlan['feeds']> = {
  name: 'feed',
  keep: 4,
  inputs: ({ plan: { tree, coverings }, ...plain }) => [
    ...[...listPlainInputs(plain), plain.terminations, listOnward(tree)],
    ...coverings.map(({ odOutsideMm }) => odOutsideMm),
  ],
  run: ({ context, plan }) => planFeeds({ ...context, loom: toLoom(context), plan }),
};

const OPEN: Stage<PlainContext & { wires: readonly PlannedWire[] }, Pick<LoomPlan, 'screens' | 'studs'>> = {
  name: 'open',
  keep: 4,
  inputs: (plain) => [...listPlainInputs(plain), plain.terminations],
  run: ({ context, terminations, wires }) => ({
    screens: planScreens({ ...context, loom: toLoom(context), terminations, wires }),
    studs: planStuds(toLoom(context), terminations, wires, context.catalogue, context.standard),
  }),
};

const NO_JOINTS: ReadonlyMap<string, number> = new Map();
const NO_FLOW: CarriedCurrent = { onA: [], heatA: [], designA: null, inrushA: 0, guardIds: [], isFused: false };

const toLoom = ({ job, routed }: LoomContext) => job.looms[routed.loomId]!;

export type MeasuredLoom = Omit<SizedLoom, 'loomId' | 'lengthsMm'>;

/**
 * From sizes to what the wires bear. A draft, while sizes are still chosen, has bundles as thin as they could be: thinner is warmer, the
 * safe side.
 */
export function measureLoom(context: LoomContext, minimums: ReadonlyMap<string, MinimumSize>, isDraft: boolean) {
  const { job, routed, flows, modeIds, catalogue, standard, store } = context;
  const loom = toLoom(context);
  // size: a conductor for every wire
  const wires = chooseConductors(routed, minimums);
  // bundle: what lies in each section and how thick it is
  const straight = bundle(context, wires, isDraft);
  // lay up: what is twisted in layers, with its own diameters; a draft asks for the least there could be
  const { laid, layups } = isDraft ? { laid: straight, layups: [] } : layUp(context, wires, straight);
  const bundles = laid.map(({ bundle }) => bundle);
  // cover, and what it gets to
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  // a draft asks how warm its runs get, not what their sleeves pass
  const joints = isDraft ? NO_JOINTS : measureJoints(bundles, routed.splices, barrels, store.packings);
  const coverings = chooseCoverings(
    { job, loomId: routed.loomId, loom, tree: routed.tree, catalogue, standard, memo: store.memo },
    bundles,
    joints,
  );
  const heated = { job, loomId: routed.loomId, wires, laid, coverings, flows, modeIds, standard, memo: store.memo };
  const heats = measureHeats(heated);
  const ampacities = measureAmpacities(heated, heats, isDraft);
  const currents = store.memo(CURRENTS, routed.loomId, { routed, flows, ampacities });
  return { wires, barrels, bundles, layups, coverings, heats, currents };
}

/** What flows in each wire and what it bears. */
const CURRENTS: Stage<Pick<LoomContext, 'routed' | 'flows'> & { ampacities: readonly WireAmpacity[] }, readonly WireCurrent[]> = {
  name: 'currents',
  keep: 8,
  inputs: ({ routed, flows, ampacities }) => [routed.shape, flows, ampacities],
  run: ({ routed, flows, ampacities }) =>
    routed.wires.map(({ id }, place): WireCurrent => {
      const { onA, heatA, designA, inrushA, guardIds } = flows.get(id) ?? NO_FLOW;
      return { wireId: id, onA, heatA, designA, inrushA, guardIds, ...ampacities[place]! };
    }),
};

function layUp({ job, routed, standard, store }: LoomContext, wires: readonly SizedWire[], straight: readonly LaidBundle[]) {
  const loom = job.looms[routed.loomId]!;
  const bundles = straight.map(({ bundle }) => bundle);
  const { tree, splices } = routed;
  const layups = planLayups({
    loomId: routed.loomId,
    loom,
    tree,
    wires,
    bundles,
    splices,
    standard,
    packings: store.packings,
    memo: store.memo,
  });
  return { layups, laid: applyLayups(straight, layups, wires) };
}

interface EndedWires extends Pick<LoomPlan, 'terminations' | 'plugs'> {
  inputs: WireInputs;
}

/** What the ends of the wires get, and with that all that their lengths are made of. */
function endWires(
  { job, routed, catalogue, standard, store }: LoomContext,
  { wires, bundles, layups, barrels }: Pick<WireInputs, 'wires' | 'bundles' | 'layups' | 'barrels'>,
): EndedWires {
  const { loomId, tree, splices } = routed;
  const { terminations, plugs } = chooseTerminations({
    job,
    routed,
    wires,
    catalogue,
    tailStripMm: standard.tailStripMm,
    memo: store.memo,
  });
  return {
    terminations,
    plugs,
    inputs: { job, loomId, tree, wires, splices, bundles, layups, terminations, barrels, catalogue, standard },
  };
}

function sumMass(
  { job, routed, catalogue }: LoomContext,
  wires: readonly PlannedWire[],
  { coverings, layups, barrels, ended }: BuiltLoom,
  { endDress, breakoutDress }: Pick<LoomPlan, 'endDress' | 'breakoutDress'>,
): LoomPlan['massG'] {
  const dead = layups.reduce((sum, { fillers }) => fillers.reduce((all, one) => all + one.massG, sum), 0);
  const wire = wires.reduce((sum, one) => sum + one.massG, dead);
  const dressed = [...endDress, ...breakoutDress].flatMap(({ pieces }) => pieces);
  const covering = [...coverings, ...dressed].reduce((sum, one) => sum + one.massG, 0);
  const ends = Object.values(job.looms[routed.loomId]!.ends);
  const housings = ends.reduce((sum, end) => sum + (findFamily(job, catalogue, end.familyId)?.massG ?? 0), 0);
  const unit = new Map([...catalogue.contacts, ...catalogue.rings].map(({ id, massG }) => [id, massG]));
  const contacts = ended.terminations.reduce((sum, { contactId }) => sum + (contactId === null ? 0 : unit.get(contactId)!), 0);
  const joints = new Map(catalogue.barrels.map(({ id, massG, sleeveMassG }) => [id, massG + sleeveMassG]));
  const splices = barrels.reduce((sum, { barrelId }) => sum + (barrelId === null ? 0 : joints.get(barrelId)!), 0);
  return { wire, covering, housings, contacts, splices, total: wire + covering + housings + contacts + splices };
}
