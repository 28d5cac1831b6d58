import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { createListStage, roundUp, type Stage } from '../units';
import { joinLooms, keepWiring, type JoinedLooms } from './joinLooms';
import { buildLoom, draftWires, listLayups, measureLoom, planLoom, type BuiltLoom, type LoomContext, type MeasuredLoom } from './planLoom';
import type { PlanStore } from './planStore';
import { keepRoutes } from './route/keepRoute';
import { listOnward } from './route/createTree';
import { routeLoom, toUnfitted, type RoutedLoom } from './route/routeLoom';
import { measureRoughCut, type DraftedWire } from './length/measureWires';
import { toCoiledKey } from './length/listHolds';
import type { MinimumSize } from './size/chooseConductors';
import type { LoomPlan, PlannedLayup } from './types';

/** Drafts of several rounds are kept: the rounds of the next edit ask for the same. */
const MOST_DRAFTS = 12;

/** Looms are built a few times in a plan, to be slimmed and tried: those that an edit did not touch are found. */
const MOST_BUILT = 6;

/** What every stage of one plan works on. */
export interface JobContext {
  job: Job;
  /** in order */
  loomIds: readonly string[];
  catalogue: Catalogue;
  standard: ShopStandard;
  store: PlanStore;
}

/** Led along the tree, splices placed: by itself, without sizes. What is as it was stays the same object. */
export const ROUTE: Stage<JobContext & { loomId: string }, RoutedLoom> = {
  name: 'route',
  keep: 2,
  inputs: ({ job, loomId, standard }) => [job.looms[loomId], job.zones, job.families, standard],
  run: ({ job, loomId, catalogue, standard, store: { routes } }) => {
    const loom = job.looms[loomId]!;
    const before = routes.get(loomId) ?? [];
    const { route, kept } = keepRoutes(routeLoom(job, loomId, catalogue, standard, before[0]?.route), loom, before);
    routes.set(loomId, kept);
    return route;
  },
};

/** What flows in every wire of the whole vehicle, whatever its size. wirings: of each loom, its wires without their ways. */
export const JOIN: Stage<JobContext & { routes: readonly RoutedLoom[]; wirings: readonly unknown[] }, JoinedLooms> = {
  name: 'join',
  keep: 2,
  inputs: ({ job, routes, wirings, standard }) => [
    ...[job.devices, job.mates, job.modes, job.source, job.zones, job.families, job.deviceTemplates, standard],
    ...routes.flatMap(({ loomId }, index) => [loomId, job.looms[loomId]!.ends, job.looms[loomId]!.circuits, wirings[index]]),
  ],
  run: ({ job, routes, catalogue, standard, store }) => joinLooms(job, routes, catalogue, standard, store),
};

/** What a loom is led and built by, its sizes apart. */
const listLoomInputs = ({ job, routed, standard }: LoomContext) => [
  ...[job.looms[routed.loomId], job.zones, job.families, standard, job.openItems, job.anchors, toCoiledKey(job, routed.loomId)],
];

/** How the wires of each run lie: what a draft reads of a loom beside its circuits and ends. */
const toBundlingKey = ({ bundling, segments }: Loom) =>
  Object.entries(segments).reduce((key, [id, one]) => (one.bundling === null ? key : `${key};${id} ${one.bundling}`), `${bundling}`);

/** All that makes the length of a wire beside its runs and its size. */
const listEndInputs = ({ job, routed, standard, store }: LoomContext) => {
  const loom = job.looms[routed.loomId]!;
  return [
    ...[routed.shape, keepWiring(store, routed), loom.circuits, loom.ends, loom.nodes, job.families, standard],
    ...[toBundlingKey(loom), listOnward(routed.tree)],
  ];
};

/** Its wires before they have sizes: what makes their lengths beside the runs. */
const DRAFT_WIRES: Stage<LoomContext, readonly DraftedWire[]> = {
  name: 'draft-wires',
  keep: 4,
  inputs: listEndInputs,
  run: (context) => draftWires(context, NO_MINIMUMS, null),
};

/** nothing asks for more than the ends of the wires do */
export const NO_MINIMUMS: ReadonlyMap<string, MinimumSize> = new Map();

/** Runs of a draft count as up to the next so much; what that asks for too much is taken away before anything is built. */
const DRAFT_RUN_MM = 25;

/**
 * Lengths of its wires, before they have sizes: every run up to the next step, the same list as long as none passes it, so that an edit that
 * moves a run by a hair leaves the draft as it was.
 */
export const MEASURE: Stage<LoomContext, readonly number[]> = {
  name: 'measure',
  keep: 2,
  inputs: (context) => [context.routed, context.store.memo(DRAFT_WIRES, context.routed.loomId, context)],
  run: (context) => {
    const { routed, store } = context;
    const drafted = store.memo(DRAFT_WIRES, routed.loomId, context);
    return store.memo(
      LENGTHS,
      routed.loomId,
      sumRuns(routed, drafted, (mm) => roundUp(mm, DRAFT_RUN_MM)),
    );
  },
};
const LENGTHS = createListStage<number>('lengths');

const sumRuns = ({ wires }: RoutedLoom, drafted: readonly DraftedWire[], toRun: (mm: number) => number) =>
  wires.map(({ pieces }, place) => {
    const { othersMm, takeUps } = drafted[place]!;
    return pieces.reduce((sum, { fromMm, toMm }, at) => sum + toRun(toMm - fromMm) * (takeUps?.[at] ?? 1), othersMm);
  });

/** Of a loom with sizes asked for: what they are, without the reasons, which move with every edit. */
export interface SizedContext {
  context: LoomContext;
  minimums: ReadonlyMap<string, MinimumSize>;
}

const toMinimumKey = (minimums: ReadonlyMap<string, MinimumSize>) =>
  [...minimums].map(([wireId, { conductor, ruledBy }]) => `${wireId} ${conductor.size} ${ruledBy}`).join(';');

/** Its wires with sizes, tied or laid up: what makes their lengths beside the runs. */
const SIZED_WIRES: Stage<SizedContext & { layups: readonly PlannedLayup[] }, readonly DraftedWire[]> = {
  name: 'sized-wires',
  keep: 4,
  inputs: ({ context, minimums, layups }) => [...listEndInputs(context), toMinimumKey(minimums), ...layups],
  run: ({ context, minimums, layups }) => draftWires(context, minimums, layups),
};

/** Lengths of its wires with sizes, mm: what they come to as built. id: what is remembered of it goes by that. */
export function measureSized(id: string, sized: SizedContext): readonly number[] {
  const { routed, store } = sized.context;
  return sumRuns(routed, store.memo(SIZED_WIRES, id, { ...sized, layups: listLayups(sized.context, sized.minimums) }), (mm) => mm);
}

/** All that decides how a loom is drafted, its lengths and sizes apart. */
export const listDraftInputs = ({ job, routed, flows, standard }: LoomContext) => [
  ...[job.looms[routed.loomId]!.circuits, job.looms[routed.loomId]!.ends, job.zones, job.families, standard],
  ...[routed.shape, flows, toBundlingKey(job.looms[routed.loomId]!)],
];

/** How warm its wires get. A draft asks what lies where, not how long it is: most edits of lengths find it as it was. */
export const DRAFT: Stage<SizedContext, MeasuredLoom> = {
  name: 'draft',
  keep: MOST_DRAFTS,
  inputs: ({ context, minimums }) => [...listDraftInputs(context), toMinimumKey(minimums)],
  run: ({ context, minimums }) => measureLoom(context, minimums, true),
};

/** As it is built: bundles packed and covered, ends terminated, lengths summed. */
export const BUILD: Stage<SizedContext, BuiltLoom> = {
  name: 'build',
  keep: MOST_BUILT,
  inputs: ({ context, minimums }) => [...listLoomInputs(context), context.flows, toMinimumKey(minimums)],
  run: ({ context, minimums }) => buildLoom(context, minimums),
};

/** The plan of a loom as it is built, with the reasons of its sizes as they are now. */
export const WRITE: Stage<SizedContext & { built: BuiltLoom }, LoomPlan> = {
  name: 'write',
  keep: 4,
  inputs: ({ built, minimums }) => [built, ...[...minimums.values()].map(({ because }) => because)],
  run: ({ context, built, minimums }) => withReasons(planLoom(context, built, measureFirstCuts(context, minimums)), minimums),
};

/** Rough lengths of its wires by the readings alone, as they were cut before the trial fit, by id; null: nothing is fitted. */
function measureFirstCuts(context: LoomContext, minimums: ReadonlyMap<string, MinimumSize>): ReadonlyMap<string, number> | null {
  const { job, routed, standard } = context;
  if (!routed.first) return null;
  const unfitted = { ...context, job: toUnfitted(job, routed.loomId), routed: routed.first };
  const lengthsMm = measureSized(`first ${routed.loomId}`, { context: unfitted, minimums });
  return new Map(
    routed.first.wires.map((wire, place) => [wire.id, measureRoughCut(routed.first!.tree, wire, lengthsMm[place]!, standard)]),
  );
}

/** A plan with the reasons of its sizes as they are now: their figures move with every edit, the sizes seldom do. */
function withReasons(loom: LoomPlan, minimums: ReadonlyMap<string, MinimumSize>): LoomPlan {
  const isStale = ({ id, ruledBy, because }: LoomPlan['wires'][number]) => {
    const minimum = minimums.get(id);
    return minimum !== undefined && minimum.ruledBy === ruledBy && minimum.because !== because;
  };
  if (!loom.wires.some(isStale)) return loom;
  return { ...loom, wires: loom.wires.map((wire) => (isStale(wire) ? { ...wire, because: minimums.get(wire.id)!.because } : wire)) };
}
