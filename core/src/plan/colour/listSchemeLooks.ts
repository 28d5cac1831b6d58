import type { ShopStandard } from '../../catalogue';
import { fromColourWords, type CircuitKind, type Colour, type ColourName } from '../../model';
import { isNearColour } from './measureColours';

type Scheme = Pick<
  ShopStandard,
  | ('colourScheme' | 'functionColours' | 'oneColour' | 'bandColours' | 'mostBands' | 'colours')
  | ('colourApart' | 'colourApartSimulated' | 'stripeShare' | 'stripeLeastShare')
>;

/** Insulation by function, the first that the shop names first. */
export const listBases = (kind: CircuitKind, { functionColours }: Pick<ShopStandard, 'functionColours'>): ColourName[] =>
  functionColours[kind].split(/,\s*/) as ColourName[];

const remembered = new WeakMap<Scheme, Map<CircuitKind, readonly Colour[]>>();

/** Looks that a circuit may have under the scheme of a shop, best first (craft A6). Made once for a house style: assignment asks for each circuit. */
export function listSchemeLooks(kind: CircuitKind, standard: Scheme): readonly Colour[] {
  let known = remembered.get(standard);
  if (!known) remembered.set(standard, (known = new Map()));
  let looks = known.get(kind);
  if (!looks) known.set(kind, (looks = makeLooks(kind, standard)));
  return looks;
}

function makeLooks(kind: CircuitKind, standard: Scheme): readonly Colour[] {
  const { colourScheme, colours, oneColour } = standard;
  // where no maker has a lead it is told by its function
  if (colourScheme !== 'one-colour' && colourScheme !== 'bands') {
    const bases = listBases(kind, standard);
    const looks = colours.map((words) => fromColourWords(words)!).filter(({ base }) => bases.includes(base));
    // plain before striped, stripe by stripe as the stock has them, and the first base first among each
    const stripes = [null, ...new Set(looks.flatMap(({ stripe }) => stripe ?? []))];
    const rank = ({ base, stripe }: Colour) => stripes.indexOf(stripe) * bases.length + bases.indexOf(base);
    const stocked = looks.sort((a, b) => rank(a) - rank(b));
    // nothing of its function in stock: as it is named all the same, to be bought
    return stocked.length > 0 ? stocked : bases.map((base): Colour => ({ base, stripe: null, bands: [] }));
  }
  const { base, stripe } = fromColourWords(oneColour)!;
  const plain: Colour = { base, stripe, bands: [] };
  if (colourScheme === 'one-colour') return [plain];
  return listBandings(base, standard).map((bands): Colour => ({ base, stripe, bands }));
}

/** Sequences of bands that can be seen on an insulation, the shortest first. */
function listBandings(base: ColourName, standard: Scheme): ColourName[][] {
  // bands of two colours that are near tell nothing apart: the one that the shop names first
  const seen = standard.bandColours.reduce<ColourName[]>(
    (kept, one) => ([base, ...kept].some((other) => isNearColour(one, other, standard)) ? kept : [...kept, one]),
    [],
  );
  let longest: ColourName[][] = [[]];
  const all: ColourName[][] = [[]];
  for (let count = 0; count < standard.mostBands; count += 1) {
    longest = longest.flatMap((before) => seen.map((one) => [...before, one]));
    all.push(...longest);
  }
  return all;
}
