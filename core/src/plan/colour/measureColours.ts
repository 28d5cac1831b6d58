import { differenceCiede2000, filterDeficiencyDeuter, filterDeficiencyProt, parse } from 'culori';
import type { ShopStandard } from '../../catalogue';
import { COLOUR_NAMES, WIRE_HEX, type Colour, type ColourName } from '../../model';

/** How far two colours are apart (CIEDE2000): to most eyes, and to those that see red, or green, not at all (Machado 2009). */
export interface ColourDifference {
  normal: number;
  protan: number;
  deutan: number;
}

const measure = differenceCiede2000();
const [seeProtan, seeDeutan] = [filterDeficiencyProt(1), filterDeficiencyDeuter(1)];
const WEAKEST = 1e-9;

let known: Map<string, ColourDifference> | null = null;

/** Difference of two insulation colours as they are drawn. */
export function measureColours(a: ColourName, b: ColourName): ColourDifference {
  known ??= new Map(
    COLOUR_NAMES.flatMap((one) =>
      COLOUR_NAMES.map((other) => {
        const [a, b] = [parse(WIRE_HEX[one])!, parse(WIRE_HEX[other])!];
        const difference = {
          normal: measure(a, b),
          protan: measure(seeProtan(a), seeProtan(b)),
          deutan: measure(seeDeutan(a), seeDeutan(b)),
        };
        return [`${one} ${other}`, difference] as const;
      }),
    ),
  );
  return known.get(`${a} ${b}`)!;
}

type Apart = Pick<ShopStandard, 'colourApart' | 'colourApartSimulated' | 'stripeShare' | 'stripeLeastShare'>;

/** Is one of these taken for the other? */
export function isNearColour(a: ColourName, b: ColourName, { colourApart, colourApartSimulated }: Apart): boolean {
  const { normal, protan, deutan } = measureColours(a, b);
  return normal + WEAKEST < colourApart || Math.min(protan, deutan) + WEAKEST < colourApartSimulated;
}

/** What is seen of a stripe: none where it is too narrow, or near its base. */
const toSeenStripe = ({ base, stripe }: Colour, standard: Apart): ColourName | null =>
  stripe === null || standard.stripeShare < standard.stripeLeastShare || isNearColour(base, stripe, standard) ? null : stripe;

/** Bands that are seen on their insulation. */
const toSeenBands = ({ base, bands }: Colour, standard: Apart): ColourName[] => bands.filter((one) => !isNearColour(one, base, standard));

function areBandsAlike(a: Colour, b: Colour, standard: Apart): boolean {
  if (a.bands.length === 0 && b.bands.length === 0) return true;
  const [one, other] = [toSeenBands(a, standard), toSeenBands(b, standard)];
  return one.length === other.length && one.every((name, at) => isNearColour(name, other[at]!, standard));
}

/** Is a wire of one look taken for a wire of the other (craft A6)? Base, stripe and bands, in their order, all have to be near. */
export function isLookAlike(a: Colour, b: Colour, standard: Apart): boolean {
  if (!isNearColour(a.base, b.base, standard) || !areBandsAlike(a, b, standard)) return false;
  const [one, other] = [toSeenStripe(a, standard), toSeenStripe(b, standard)];
  if (one === null || other === null) return one === other;
  return isNearColour(one, other, standard);
}
