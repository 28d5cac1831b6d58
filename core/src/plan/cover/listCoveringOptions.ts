import { findBuying, isOffered, isTape, type CoveringItem, type CoveringKind, type Surroundings } from '../../model';
import type { Catalogue, ShopStandard } from '../../catalogue';
import { pushTo } from '../../units';
import type { CoveringDemand } from '../types';
import { isGripped, isPassed, measureCoveringCut, measureCoveringOutside, measureWindow, type CoveringWindow } from './measureCovering';

/** A run to cover: what it is, what its sleeve goes over on its way, how long it is; mm. */
export interface CoveredRun {
  odMm: number;
  mustPassMm: number;
  lengthMm: number;
  /** null where neither zone nor tick says anything */
  zone: Surroundings | null;
}

/** One kind of covering on a run: the size of it that does best, and what it comes to. */
export interface CoveringOption {
  kind: Exclude<CoveringKind, 'none'>;
  /** null: no size of it grips the bundle */
  item: CoveringItem | null;
  cutMm: number;
  odOutsideMm: number;
  massG: number;
  /** null: nobody stated a price */
  price: number | null;
  minutes: number;
  /** price and work; null: nobody stated a price */
  cost: number | null;
  problem: null | 'no-size' | 'cannot-pass';
  /** what the zone asks for and this does not do, the gravest first */
  unmet: CoveringDemand[];
  /** other sizes of this kind that fit as well */
  alsoFits: string[];
}

/** What a run may ask of its covering, the gravest first: one that cannot be met gives way to those before it. */
const DEMANDS = ['opens', 'water', 'heat', 'moves', 'wears', 'handled'] as const satisfies readonly CoveringDemand[];

/** What the surroundings ask for. Water is not kept out where it must open: nothing does both for good. */
export function listDemands(zone: Surroundings | null): CoveringDemand[] {
  if (zone === null) return [];
  const asked: Record<CoveringDemand, boolean> = {
    opens: zone.reopen,
    water: zone.wet && !zone.reopen,
    heat: zone.ambientC !== null,
    moves: zone.flexing,
    wears: zone.abrasion,
    handled: zone.handled,
  };
  return DEMANDS.filter((demand) => asked[demand]);
}

/** What each demand weighs, as a bit: a grave one more than all that are less grave together. */
const BIT = Object.fromEntries(DEMANDS.map((demand, at) => [demand, 2 ** (DEMANDS.length - at)])) as Record<CoveringDemand, number>;

/** A covering with what every run of every plan asks of it, worked out once. */
interface Stocked extends CoveringWindow {
  item: CoveringItem;
  /** what it does, as bits, but for heat */
  does: number;
}

interface Stock {
  byKind: ReadonlyMap<CoveringOption['kind'], readonly Stocked[]>;
  /** kinds in the shop's order: the one that comes first, the others as they are named, what is not named last */
  kinds: readonly CoveringOption['kind'][];
}

/** No run is covered with what closes ends, but by hand. */
const isForRuns = (item: CoveringItem) => item.kind !== 'clear-shrink' && !(isTape(item) && item.endsOnly);

const stocks = new WeakMap<Catalogue, WeakMap<ShopStandard, Stock>>();

/** Coverings for runs that are still bought, looked up once for a catalogue and a standard: sizing asks for every run many times over. */
function findStock(catalogue: Catalogue, standard: ShopStandard): Stock {
  let ofStandards = stocks.get(catalogue);
  if (!ofStandards) stocks.set(catalogue, (ofStandards = new WeakMap()));
  let stock = ofStandards.get(standard);
  if (!stock) ofStandards.set(standard, (stock = createStock(catalogue, standard)));
  return stock;
}

function createStock(catalogue: Catalogue, standard: ShopStandard): Stock {
  const byKind = new Map<CoveringOption['kind'], Stocked[]>();
  for (const item of catalogue.coverings)
    if (isForRuns(item) && isOffered(catalogue, 'coverings', item.id)) pushTo(byKind, item.kind, toStocked(item, standard));
  const order = [standard.covering, ...standard.coveringOrder];
  const place = (kind: CoveringKind) => (order.includes(kind) ? order.indexOf(kind) : order.length);
  return { byKind, kinds: [...byKind.keys()].sort((a, b) => place(a) - place(b)) };
}

const toStocked = (item: CoveringItem, standard: ShopStandard): Stocked => ({
  item,
  ...measureWindow(item, standard),
  does:
    (item.opens ? BIT.opens : 0) |
    (item.keepsOut === 'water' ? BIT.water : 0) |
    (item.stiffness === 'limp' ? BIT.moves : 0) |
    (item.wears ? BIT.wears : 0) |
    (item.handled ? BIT.handled : 0),
});

/** What is asked for, as bits. */
const toBits = (demands: readonly CoveringDemand[]) => demands.reduce((bits, demand) => bits | BIT[demand], 0);

/** The size of a kind that does best on a run, not yet measured. */
interface Chosen {
  kind: CoveringOption['kind'];
  /** in the shop's order */
  place: number;
  item: CoveringItem | null;
  /** 0: fits; 1: grips, does not pass; 2: grips not */
  rank: 0 | 1 | 2;
  /** what it does not do, as bits */
  ill: number;
}

function chooseOf(kind: CoveringOption['kind'], place: number, sizes: readonly Stocked[], run: CoveredRun, asked: number): Chosen {
  const { odMm, mustPassMm } = run;
  let best: Stocked | null = null;
  let bestIll = Infinity;
  let gripping: Stocked | null = null;
  for (const size of sizes) {
    if (!isGripped(size, odMm)) continue;
    gripping = size;
    if (!isPassed(size, mustPassMm)) continue;
    const ill = toIll(size, run, asked);
    // a braid that opens least shortens least; of shrink the smallest that fits is the lightest
    if (ill < bestIll || (ill === bestIll && kind === 'braid')) [best, bestIll] = [size, ill];
  }
  if (best) return { kind, place, item: best.item, rank: 0, ill: bestIll };
  return gripping
    ? { kind, place, item: gripping.item, rank: 1, ill: toIll(gripping, run, asked) }
    : { kind, place, item: null, rank: 2, ill: 0 };
}

function toIll({ does, item }: Stocked, { zone }: CoveredRun, asked: number): number {
  const isCool = item.limitC >= (zone?.ambientC ?? -Infinity);
  return asked & ~(isCool ? does | BIT.heat : does);
}

/** Every kind that the shop has, the one that is taken first. */
function rankKinds(run: CoveredRun, catalogue: Catalogue, standard: ShopStandard): Chosen[] {
  const asked = toBits(listDemands(run.zone));
  const { byKind, kinds } = findStock(catalogue, standard);
  // a shop that has none left still says what is missing
  const of = kinds.length > 0 || standard.covering === 'none' ? kinds : [standard.covering];
  const chosen = of.map((kind, place) => chooseOf(kind, place, byKind.get(kind) ?? [], run, asked));
  const costs = new Map(standard.coveringBy === 'cost' ? chosen.map((one) => [one, toCost(one, run, catalogue, standard)]) : []);
  return chosen.sort((a, b) => a.rank - b.rank || a.ill - b.ill || compareCosts(costs.get(a), costs.get(b)) || a.place - b.place);
}

const toCost = ({ item, rank }: Chosen, run: CoveredRun, catalogue: Catalogue, standard: ShopStandard) =>
  item === null || rank === 2 ? null : measure(item, run, catalogue, standard).cost;

/** What nobody stated a price of is not taken for cheap. */
const compareCosts = (a: number | null | undefined, b: number | null | undefined) =>
  a === undefined || b === undefined || a === b ? 0 : (a ?? Number.MAX_VALUE) - (b ?? Number.MAX_VALUE);

/** The kind that is taken, and the next; null: a shop that has none, or has one only. */
export function chooseFirst(
  run: CoveredRun,
  catalogue: Catalogue,
  standard: ShopStandard,
): { first: CoveringOption | null; second: CoveringOption | null; preferred: CoveringOption | null } {
  const ranked = rankKinds(run, catalogue, standard);
  const toWhole = (one: Chosen | undefined) => (one ? toOption(one, run, catalogue, standard) : null);
  return {
    first: toWhole(ranked[0]),
    second: toWhole(ranked[1]),
    preferred: toWhole(ranked.find(({ kind }) => kind === standard.covering)),
  };
}

/** Every kind that the shop has, on a run, in the order in which they would be taken. */
export const listCoveringOptions = (run: CoveredRun, catalogue: Catalogue, standard: ShopStandard): CoveringOption[] =>
  rankKinds(run, catalogue, standard).map((one) => toOption(one, run, catalogue, standard));

/** The size of one kind for a run; pinnedId: chosen by hand, it stays though it is retired, closes ends or does not fit. */
export function chooseSize(
  kind: CoveringOption['kind'],
  run: CoveredRun,
  catalogue: Catalogue,
  standard: ShopStandard,
  pinnedId: string | null = null,
): CoveringOption {
  const asked = toBits(listDemands(run.zone));
  const sizes = findStock(catalogue, standard).byKind.get(kind) ?? [];
  if (pinnedId === null) return toOption(chooseOf(kind, 0, sizes, run, asked), run, catalogue, standard);
  const item = catalogue.coverings.find((one) => one.id === pinnedId && one.kind === kind);
  const chosen = chooseOf(kind, 0, item ? [toStocked(item, standard)] : [], run, asked);
  return toOption({ ...chosen, item: item ?? null }, run, catalogue, standard);
}

const PROBLEMS = [null, 'cannot-pass', 'no-size'] as const;

function toOption({ kind, item, rank, ill }: Chosen, run: CoveredRun, catalogue: Catalogue, standard: ShopStandard): CoveringOption {
  const { odMm, mustPassMm } = run;
  const alsoFits = (findStock(catalogue, standard).byKind.get(kind) ?? [])
    .filter((one) => one.item !== item && isGripped(one, odMm) && isPassed(one, mustPassMm))
    .map((one) => one.item.id);
  const none = { cutMm: 0, odOutsideMm: odMm, massG: 0, price: null, minutes: 0, cost: null };
  const figures = item === null || rank === 2 ? none : measure(item, run, catalogue, standard);
  return { kind, item, ...figures, alsoFits, problem: PROBLEMS[rank], unmet: DEMANDS.filter((demand) => ill & BIT[demand]) };
}

function measure(
  item: CoveringItem,
  { odMm, lengthMm }: CoveredRun,
  catalogue: Catalogue,
  standard: ShopStandard,
): Pick<CoveringOption, 'cutMm' | 'odOutsideMm' | 'massG' | 'price' | 'minutes' | 'cost'> {
  const cutMm = measureCoveringCut(item, lengthMm, odMm, standard.shrinkOverlapMm);
  const perM = findBuying(catalogue, 'coverings', item.id)?.price ?? null;
  const price = perM === null ? null : (perM * cutMm) / 1000;
  const minutes = (item.minutesPerM * lengthMm) / 1000;
  return {
    cutMm,
    odOutsideMm: measureCoveringOutside(item, odMm),
    massG: (item.massGPerM * cutMm) / 1000,
    price,
    minutes,
    cost: price === null ? null : price + (minutes * standard.labourPerHour) / 60,
  };
}

/** Why an option is not the one that was taken. */
export function toWhyNot(option: CoveringOption, taken: CoveringOption, run: CoveredRun, standard: ShopStandard): string {
  const { problem, item, unmet } = option;
  if (problem === 'no-size') return `no size of it grips ${run.odMm.toFixed(1)} mm`;
  if (problem === 'cannot-pass') return `none that grips ${run.odMm.toFixed(1)} mm passes ${run.mustPassMm.toFixed(1)} mm`;
  const worse = unmet.filter((demand) => !taken.unmet.includes(demand));
  if (worse.length > 0) return worse.map((demand) => toWantWords(demand, item!, run.zone)).join(', ');
  const beside = [
    toDifference(option.massG - taken.massG, 'g', 'heavier', 'lighter', 0.05, 1),
    option.cost === null || taken.cost === null ? null : toDifference(option.cost - taken.cost, '', 'dearer', 'cheaper', 0.05, 2),
  ].filter((words) => words !== null);
  const reason =
    standard.coveringBy === 'cost'
      ? option.cost === null
        ? 'no price is stated'
        : 'dearer with its work'
      : 'after it in the shop’s order';
  return [reason, ...beside].join('; ');
}

function toDifference(more: number, unit: string, above: string, below: string, least: number, digits = 0): string | null {
  if (Math.abs(more) < least) return null;
  return `${Math.abs(more).toFixed(digits)}${unit && ` ${unit}`} ${more > 0 ? above : below}`;
}

/** What a covering does not do, as a reason against it. */
export function toWantWords(demand: CoveringDemand, item: CoveringItem, zone: Surroundings | null): string {
  return {
    opens: 'does not open again',
    water: item.keepsOut === 'splash' ? 'keeps splash out, not water' : 'keeps no water out',
    heat: `stands ${item.limitC} °C, ${zone?.ambientC ?? '?'} °C are there`,
    moves: `is ${item.stiffness}, and the run moves`,
    wears: 'wears through at edges',
    handled: 'is not for hands',
  }[demand];
}
