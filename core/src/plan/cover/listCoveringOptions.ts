import { findBuying, isOffered, isTape, type CoveringItem, type CoveringKind, type Surroundings } from '../../model';
import type { Catalogue, ShopStandard } from '../../catalogue';
import { pushTo } from '../../units';
import type { CoveringDemand } from '../types';
import { isCoveringFit, measureCoveringCut, measureCoveringOutside } from './measureCovering';

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
  /** price and work; work alone where no price is stated */
  cost: number;
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

const isMet = (item: CoveringItem, demand: CoveringDemand, zone: Surroundings): boolean =>
  ({
    opens: item.opens,
    water: item.keepsOut === 'water',
    heat: item.limitC >= (zone.ambientC ?? 0),
    moves: item.stiffness === 'limp',
    wears: item.wears,
    handled: item.handled,
  })[demand];

/** How ill it does: a grave want counts more than all that are less grave. */
const toIll = (unmet: readonly CoveringDemand[]) => unmet.reduce((sum, demand) => sum + 2 ** (DEMANDS.length - DEMANDS.indexOf(demand)), 0);

/** No run is covered with what closes ends, but by hand. */
const isForRuns = (item: CoveringItem) => !(isTape(item) && item.endsOnly);

/** Kinds in the shop's order: the one that comes first, the others as they are named, what is not named last. */
export const orderKinds = (
  kinds: readonly CoveringOption['kind'][],
  { covering, coveringOrder }: Pick<ShopStandard, 'covering' | 'coveringOrder'>,
): CoveringOption['kind'][] => {
  const order = [covering, ...coveringOrder];
  const place = (kind: CoveringKind) => (order.includes(kind) ? order.indexOf(kind) : order.length);
  return [...new Set(kinds)].sort((a, b) => place(a) - place(b));
};

/** Every kind that the shop has, on a run, in the order in which they would be taken. */
export function listCoveringOptions(run: CoveredRun, catalogue: Catalogue, standard: ShopStandard): CoveringOption[] {
  const demands = listDemands(run.zone);
  const kinds = orderKinds([...findStock(catalogue).keys()], standard);
  // a shop that has none left still says what is missing
  const asked = kinds.length > 0 || standard.covering === 'none' ? kinds : [standard.covering];
  const options = asked.map((kind) => chooseSize(kind, run, demands, catalogue, standard));
  const place = new Map(options.map((option, at) => [option, at]));
  const by = (option: CoveringOption) => (standard.coveringBy === 'cost' ? option.cost : place.get(option)!);
  return options.sort((a, b) => toRank(a) - toRank(b) || toIll(a.unmet) - toIll(b.unmet) || by(a) - by(b) || place.get(a)! - place.get(b)!);
}

const toRank = ({ problem }: CoveringOption) => (problem === null ? 0 : problem === 'cannot-pass' ? 1 : 2);

const stocks = new WeakMap<Catalogue, ReadonlyMap<CoveringOption['kind'], readonly CoveringItem[]>>();

/** Coverings for runs that are still bought, by kind: looked up once for a catalogue, for every run of every plan asks. */
function findStock(catalogue: Catalogue): ReadonlyMap<CoveringOption['kind'], readonly CoveringItem[]> {
  const known = stocks.get(catalogue);
  if (known) return known;
  const byKind = new Map<CoveringOption['kind'], CoveringItem[]>();
  for (const item of catalogue.coverings)
    if (isForRuns(item) && isOffered(catalogue, 'coverings', item.id)) pushTo(byKind, item.kind, item);
  stocks.set(catalogue, byKind);
  return byKind;
}

/** The size of one kind for a run; pinnedId: chosen by hand, it stays though it is retired or does not fit. */
export function chooseSize(
  kind: CoveringOption['kind'],
  run: CoveredRun,
  demands: readonly CoveringDemand[],
  catalogue: Catalogue,
  standard: ShopStandard,
  pinnedId: string | null = null,
): CoveringOption {
  const { odMm, mustPassMm, zone } = run;
  const stock = findStock(catalogue).get(kind) ?? [];
  // one that was chosen by hand stays though it is retired or closes ends
  const pinned = pinnedId === null ? undefined : catalogue.coverings.find((item) => item.id === pinnedId && item.kind === kind);
  const sizes = pinned && !stock.includes(pinned) ? [...stock, pinned] : stock;
  const fits = sizes.map((item) => ({ item, ...isCoveringFit(item, odMm, mustPassMm, standard) })).filter(({ grips }) => grips);
  const gripping = fits.map(({ item }) => item);
  const fitting = fits.flatMap(({ item, passes }) => (passes ? [item] : []));
  const listUnmet = (item: CoveringItem) => (zone === null ? [] : demands.filter((demand) => !isMet(item, demand, zone)));
  const least = Math.min(...fitting.map((item) => toIll(listUnmet(item))));
  const best = fitting.filter((item) => toIll(listUnmet(item)) === least);
  // a braid that opens least shortens least; of shrink the smallest that fits is the lightest
  const item = pinned ?? (kind === 'braid' ? best.at(-1) : best[0]) ?? gripping.at(-1);
  const alsoFits = fitting.filter((one) => one !== item).map(({ id }) => id);
  const none = { kind, cutMm: 0, odOutsideMm: odMm, massG: 0, price: null, minutes: 0, cost: 0, alsoFits };
  if (!item || (pinnedId !== null && !pinned)) return { ...none, item: null, problem: 'no-size', unmet: [] };
  const unmet = listUnmet(item);
  if (!gripping.includes(item)) return { ...none, item, problem: 'no-size', unmet };
  return { ...none, ...measure(item, run, catalogue, standard), item, problem: fitting.includes(item) ? null : 'cannot-pass', unmet };
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
    cost: (price ?? 0) + (minutes * standard.labourPerHour) / 60,
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
    option.price === null || taken.price === null ? null : toDifference(option.cost - taken.cost, '', 'dearer', 'cheaper', 0.05, 2),
  ].filter((words) => words !== null);
  const reason = standard.coveringBy === 'cost' ? 'dearer with its work' : 'after it in the shop’s order';
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
