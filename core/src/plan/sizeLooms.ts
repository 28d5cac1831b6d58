import type { ShopStandard } from '../catalogue';
import type { Copper } from './electrical/copper/chooseMinimumSizes';
import { isSameMinimum, type MinimumSizes } from './electrical/copper/minimumSizes';
import type { VehicleSums } from './electrical/createVehicleSums';
import type { VehicleCurrents } from './electrical/currents/vehicleCurrents';
import type { JoinedLooms } from './joinLooms';
import type { BuiltLoom, LoomContext } from './planLoom';
import type { MinimumSize } from './size/chooseConductors';
import { BUILD, DRAFT, MEASURE } from './stages';
import type { LoomPlan } from './types';

const MOST_ROUNDS = 8;
/** rounds in which drop, heat and fuses all choose anew */
const FRESH_ROUNDS = 2;
/** rounds in which the drop still chooses anew, around what heat and fuses asked for; later all only add, so that the rounds come to an end */
const EARLY_ROUNDS = 3;
/** share of each limit that slimming a draft uses: its lengths and warmth are not quite those of the loom as built */
const DRAFT_KEEP = 0.995;
/** what comes out over a limit keeps to so much less of it each time, so often */
const TIGHTER = 0.01;
const SLIM_ROUNDS = 5;
const NONE: ReadonlyMap<string, MinimumSize> = new Map();

/** Sizes of a vehicle, as far as they are found. */
export interface Sizing {
  minimums: MinimumSizes;
  /** rounds that it took */
  rounds: number;
  /** did the rounds end by themselves */
  settled: boolean;
  measureCopper: () => Copper;
}

/** The looms as they are built with those sizes, and the sums on them. */
export interface BuiltVehicle {
  minimums: MinimumSizes;
  built: readonly BuiltLoom[];
  sums: VehicleSums;
}

/** Sizes of one loom. */
export const findMinimums = (minimums: MinimumSizes, loomId: string): ReadonlyMap<string, MinimumSize> => minimums.get(loomId) ?? NONE;

const sum = (looms: readonly LoomContext[], { sum: sumOf }: JoinedLooms, minimums: MinimumSizes): BuiltVehicle => {
  const built = looms.map((context) => {
    const { loomId } = context.routed;
    return context.store.memo(BUILD, loomId, { context, minimums: findMinimums(minimums, loomId) });
  });
  return { minimums, built, sums: sumOf(built) };
};

/** Another round: what the sums ask of the sizes. */
function askMore(sizing: Sizing, sums: VehicleSums): Sizing {
  const rounds = sizing.rounds + 1;
  const stage = rounds <= FRESH_ROUNDS ? 'fresh' : rounds <= EARLY_ROUNDS ? 'fitting' : 'adding';
  const next = sums.ask(sizing.minimums, stage);
  const ids = new Set([...next.minimums.keys(), ...sizing.minimums.keys()]);
  const settled = [...ids].every((id) => isSameMinimum(next.minimums.get(id), sizing.minimums.get(id)));
  return { ...next, rounds, settled };
}

/**
 * Sizes from drafts: draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more or eight rounds are over
 * (PO10). Thick conductors are stripped longer, so lengths hang on sizes; what that comes to shows on the looms as built. What was asked
 * for on the way and is no more need not be built. countShort: what was short before it was built, and no size mends.
 */
export function sizeDrafts(
  looms: readonly LoomContext[],
  joined: JoinedLooms,
  standard: ShopStandard,
): { sizing: Sizing; countShort: () => number } {
  const noCopper = (): Copper => ({ massG: 0, oneSizeMassG: 0, alikeG: 0 });
  let sizing: Sizing = { minimums: new Map(), rounds: 0, settled: !hasCurrent(joined.flows), measureCopper: noCopper };
  // where nothing flows nothing can be asked
  if (sizing.settled) return { sizing, countShort: () => 0 };
  const lengthsMm = looms.map((context) => context.store.memo(MEASURE, context.routed.loomId, context));
  const draft = () =>
    looms.map((context, index) => {
      const { loomId } = context.routed;
      const measured = context.store.memo(DRAFT, loomId, { context, minimums: findMinimums(sizing.minimums, loomId) });
      return { ...measured, loomId, lengthsMm: lengthsMm[index]! };
    });
  while (!sizing.settled && sizing.rounds < MOST_ROUNDS) sizing = askMore(sizing, joined.sum(draft()));
  if (![...sizing.minimums.values()].some(({ size }) => size > 0)) return { sizing, countShort: () => 0 };
  const drafts = draft();
  const sums = joined.sum(drafts);
  const { minimums } = sums.slim(sizing.minimums, new Map([['', DRAFT_KEEP]]));
  return { sizing: { ...sizing, minimums }, countShort: () => listShort(drafts, sums, standard).length };
}

/** The looms as they are built, and the sums on them; where a bundle came out warmer or a wire longer than its draft, once more. */
export function buildLooms(
  looms: readonly LoomContext[],
  joined: JoinedLooms,
  draft: { sizing: Sizing; countShort: () => number },
  standard: ShopStandard,
): { sizing: Sizing; full: BuiltVehicle } {
  let { sizing } = draft;
  let full = sum(looms, joined, sizing.minimums);
  const isShort = () => {
    const short = listShort(full.built, full.sums, standard).length;
    return short > 0 && short > draft.countShort();
  };
  while (isShort() && sizing.rounds < MOST_ROUNDS) {
    const next = askMore(sizing, full.sums);
    sizing = { ...next, settled: sizing.settled };
    if (next.settled) return { sizing, full: { ...full, minimums: sizing.minimums } };
    full = sum(looms, joined, sizing.minimums);
  }
  return { sizing, full };
}

/** Thinner where nothing asks for the size any more; what then falls short as built keeps to less of its limit, else all stays. */
export function slimLooms(
  looms: readonly LoomContext[],
  joined: JoinedLooms,
  { sizing, full }: { sizing: Sizing; full: BuiltVehicle },
  standard: ShopStandard,
): BuiltVehicle & { copper: Copper } {
  const { oneSizeMassG } = sizing.measureCopper();
  const known = new Set(listShort(full.built, full.sums, standard));
  const tight = new Map<string, number>();
  for (let round = 0; ; round += 1) {
    const slimmed = full.sums.slim(full.minimums, tight);
    const copper = { ...slimmed.measureCopper(), oneSizeMassG };
    const slim = sum(looms, joined, slimmed.minimums);
    const isAsBefore = slim.built.every((loom, index) => loom === full.built[index]);
    const sums = isAsBefore ? full.sums : slim.sums;
    const short = listShort(slim.built, sums, standard).filter((one) => !known.has(one));
    if (short.length === 0) return { ...slim, sums, copper };
    if (round === SLIM_ROUNDS) return { ...full, copper };
    for (const one of short) tight.set(one, (tight.get(one) ?? 1) - TIGHTER);
  }
}

/** What is short: fuses over a wire by id, budgets passed by the load's name, bundles too warm by loom and segment. */
const listShort = (
  looms: readonly Pick<LoomPlan, 'loomId' | 'heats'>[],
  { findProtections, findLoads }: VehicleSums,
  { heatMarginK }: ShopStandard,
): string[] => [
  ...findProtections().flatMap(({ id, problems }) => (problems.includes('over-wire') || problems.includes('short-time') ? [id] : [])),
  ...findLoads().flatMap(({ load, dropV }) => (dropV > load.budgetV ? [load.name] : [])),
  ...looms.flatMap(({ loomId, heats }) =>
    heats.flatMap(({ segmentId, middleC, limitC, wattsPerM }) =>
      limitC !== null && wattsPerM !== 0 && (middleC === null || middleC > limitC - heatMarginK) ? [`${loomId}/${segmentId}`] : [],
    ),
  ),
];

const hasCurrent = ({ edges }: VehicleCurrents) => edges.some((one) => one !== null && one.on.some((value) => value > 0));
