import type { ShopStandard } from '../catalogue';
import { isSameMinimum, type MinimumSizes } from './electrical/copper/minimumSizes';
import type { PowerPlan } from './electrical/types';
import { NOT_TIGHT } from './electrical/copper/slimMinimumSizes';
import { isOver, type VehicleSums } from './electrical/createVehicleSums';
import type { VehicleCurrents } from './electrical/currents/vehicleCurrents';
import type { JoinedLooms } from './joinLooms';
import type { BuiltLoom, LoomContext } from './planLoom';
import type { MinimumSize } from './size/chooseConductors';
import { once, type Stage } from '../units';
import type { SizedLoom } from './electrical/sizedLoom';
import type { PlanStore } from './planStore';
import { BUILD, DRAFT, listDraftInputs, MEASURE, measureSized, NO_MINIMUMS, type SizedContext } from './stages';
import type { LoomPlan } from './types';

const MOST_ROUNDS = 8;
/** rounds in which drop, heat and fuses all choose anew */
const FRESH_ROUNDS = 2;
/** rounds in which the drop still chooses anew, around what heat and fuses asked for; later all only add, so that the rounds come to an end */
const EARLY_ROUNDS = 3;
/** what comes out over a limit keeps to so much less of it each time, so often */
const TIGHTER = 0.01;
const SLIM_ROUNDS = 5;

/** Sizes of a vehicle, as far as they are found. */
export interface Sizing {
  minimums: MinimumSizes;
  /** rounds that it took */
  rounds: number;
  /** did the rounds end by themselves */
  settled: boolean;
}

/** The looms as they are built with those sizes, and the sums on them. */
export interface BuiltVehicle {
  minimums: MinimumSizes;
  built: readonly BuiltLoom[];
  sums: VehicleSums;
  shorts: Shorts;
}

/** Sizes of one loom. */
export const findMinimums = (minimums: MinimumSizes, loomId: string): ReadonlyMap<string, MinimumSize> =>
  minimums.get(loomId) ?? NO_MINIMUMS;

const sum = (looms: readonly LoomContext[], { sum: sumOf }: JoinedLooms, minimums: MinimumSizes, standard: ShopStandard): BuiltVehicle => {
  const built = looms.map((context) => {
    const { loomId } = context.routed;
    return context.store.memo(BUILD, loomId, { context, minimums: findMinimums(minimums, loomId) });
  });
  const sums = sumOf(built);
  return { minimums, built, sums, shorts: findShorts(built, sums, standard) };
};

/** Another round: what the sums ask of the sizes. */
function askMore(sizing: Sizing, sums: VehicleSums): Sizing {
  const rounds = sizing.rounds + 1;
  const stage = rounds <= FRESH_ROUNDS ? 'fresh' : rounds <= EARLY_ROUNDS ? 'fitting' : 'adding';
  const minimums = sums.ask(sizing.minimums, stage);
  const ids = new Set([...minimums.keys(), ...sizing.minimums.keys()]);
  const settled = [...ids].every((id) => isSameMinimum(minimums.get(id), sizing.minimums.get(id)));
  return { minimums, rounds, settled };
}

/** Sizes of drafts, and what was short before it was built: no size mends that. */
export interface DraftSizing {
  sizing: Sizing;
  shorts: Shorts;
}

/** What sizes are found from: looms without sizes, and the vehicle that they are joined into. */
interface SizingInputs {
  looms: readonly LoomContext[];
  joined: JoinedLooms;
  standard: ShopStandard;
}

/** Sizes from drafts, and then without what only their steps asked for. */
export function sizeDrafts({ looms, joined, standard, store }: SizingInputs & { store: PlanStore }): DraftSizing {
  const settled = !hasCurrent(joined.flows);
  // where nothing flows nothing can be asked
  if (settled) return { sizing: { minimums: new Map(), rounds: 0, settled }, shorts: NOTHING_SHORT };
  const lengthsMm = looms.map((context) => store.memo(MEASURE, context.routed.loomId, context));
  const sizing = store.memo(SIZE, '', { looms, lengthsMm, joined, standard });
  if (![...sizing.minimums.values()].some(({ size }) => size > 0)) return { sizing, shorts: NOTHING_SHORT };
  const drafts = draftLooms(looms, sizing, (sized) => measureSized(sized.context.routed.loomId, sized));
  const sums = joined.sum(drafts);
  const { minimums } = sums.slim(sizing.minimums, NOT_TIGHT);
  return { sizing: { ...sizing, minimums }, shorts: findShorts(drafts, sums, standard) };
}

const draftLooms = (
  looms: readonly LoomContext[],
  { minimums }: Sizing,
  toLengths: (sized: SizedContext, index: number) => readonly number[],
): SizedLoom[] =>
  looms.map((context, index) => {
    const { loomId } = context.routed;
    const sized = { context, minimums: findMinimums(minimums, loomId) };
    return { ...context.store.memo(DRAFT, loomId, sized), loomId, lengthsMm: toLengths(sized, index) };
  });

/**
 * Draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more or eight rounds are over (PO10). Thick
 * conductors are stripped longer, so lengths hang on sizes; what that comes to shows on the looms as built. It is done once as long as no
 * run passes its step and nothing else is touched that the sizes hang on.
 */
const SIZE: Stage<SizingInputs & { lengthsMm: readonly (readonly number[])[] }, Sizing> = {
  name: 'size',
  keep: 4,
  inputs: ({ looms, lengthsMm, joined, standard }) => [joined, standard, ...lengthsMm, ...looms.flatMap(listDraftInputs)],
  run: ({ looms, lengthsMm, joined }) => {
    const toLengths = (_: SizedContext, index: number) => lengthsMm[index]!;
    let sizing: Sizing = { minimums: new Map(), rounds: 0, settled: false };
    while (!sizing.settled && sizing.rounds < MOST_ROUNDS) sizing = askMore(sizing, joined.sum(draftLooms(looms, sizing, toLengths)));
    return sizing;
  },
};

/** The looms as they are built, and the sums on them; where a bundle came out warmer or a wire longer than its draft, once more. */
export function buildLooms(
  looms: readonly LoomContext[],
  joined: JoinedLooms,
  draft: DraftSizing,
  standard: ShopStandard,
): { sizing: Sizing; full: BuiltVehicle } {
  let { sizing } = draft;
  let full = sum(looms, joined, sizing.minimums, standard);
  while (listNew(full.shorts, draft.shorts).length > 0 && sizing.rounds < MOST_ROUNDS) {
    const next = askMore(sizing, full.sums);
    sizing = { ...next, settled: sizing.settled };
    if (next.settled) return { sizing, full: { ...full, minimums: sizing.minimums } };
    full = sum(looms, joined, sizing.minimums, standard);
  }
  return { sizing, full };
}

/** Thinner where nothing asks for the size any more; what then falls short as built keeps to less of its limit, else all stays. */
export function slimLooms(
  looms: readonly LoomContext[],
  joined: JoinedLooms,
  full: BuiltVehicle,
  standard: ShopStandard,
): BuiltVehicle & { copper: PowerPlan['copper'] } {
  const tight = new Map<string, number>();
  for (let round = 0; ; round += 1) {
    const slimmed = full.sums.slim(full.minimums, tight);
    const anew = sum(looms, joined, slimmed.minimums, standard);
    // as a rule nothing gets thinner, and the sums hold
    const isAsBefore = anew.built.every((loom, index) => loom === full.built[index]);
    const slim = isAsBefore ? { ...full, minimums: slimmed.minimums } : anew;
    const short = isAsBefore ? [] : listNew(slim.shorts, full.shorts);
    if (short.length === 0) return withCopper(slim, slimmed.measureCopper());
    if (round === SLIM_ROUNDS) return withCopper(full, full.sums.measureCopper(full.minimums));
    for (const one of short) tight.set(one, (tight.get(one) ?? 1) - TIGHTER);
  }
}

const withCopper = (vehicle: BuiltVehicle, copper: Omit<PowerPlan['copper'], 'oneSizeMassG'>) => ({
  ...vehicle,
  copper: { ...copper, oneSizeMassG: vehicle.sums.measureOneSize(vehicle.minimums) },
});

/** What is short: protections over a wire by id, budgets passed by the load's name, bundles too warm by loom and segment. */
interface Shorts {
  list: () => readonly string[];
  has: (one: string) => boolean;
}

const NOTHING_SHORT: Shorts = { list: () => [], has: () => false };

const findShorts = (
  looms: readonly Pick<LoomPlan, 'loomId' | 'heats'>[],
  { listOverWires, findLoads, isOverBudget }: VehicleSums,
  standard: ShopStandard,
): Shorts => {
  const others = once(() => new Set([...listOverWires(), ...listTooWarm(looms, standard)]));
  return {
    list: once(() => [...others(), ...findLoads().flatMap((one) => (isOver(one) ? [one.load.name] : []))]),
    has: (one) => others().has(one) || isOverBudget(one),
  };
};

const listTooWarm = (looms: readonly Pick<LoomPlan, 'loomId' | 'heats'>[], { heatMarginK }: ShopStandard): string[] =>
  looms.flatMap(({ loomId, heats }) =>
    heats.flatMap(({ segmentId, middleC, limitC, wattsPerM }) =>
      limitC !== null && wattsPerM !== 0 && (middleC === null || middleC > limitC - heatMarginK) ? [`${loomId}/${segmentId}`] : [],
    ),
  );

/** What is short and was not before. */
const listNew = (now: Shorts, before: Shorts): string[] => now.list().filter((one) => !before.has(one));

const hasCurrent = ({ edges }: VehicleCurrents) => edges.some((one) => one !== null && one.on.some((value) => value > 0));
