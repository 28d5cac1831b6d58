import type { ShopStandard } from '../../catalogue';
import { toColourWords, type Circuit, type CircuitKind, type Colour } from '../../model';
import { listSchemeLooks } from '../../plan';

/** A look of the shop's scheme that no wire, or the fewest, of these circuits has. */
export function chooseColour(kind: CircuitKind, circuits: readonly Circuit[], standard: ShopStandard): Colour {
  const count = new Map<string, number>();
  for (const { colour } of circuits) {
    const key = toColourWords(colour);
    count.set(key, (count.get(key) ?? 0) + 1);
  }
  const looks = listSchemeLooks(kind, standard);
  // by function grounds of sensors have a stripe: the plain ones are those of power
  const striped = standard.colourScheme === 'function' && kind === 'sensor-ground' ? looks.filter(({ stripe }) => stripe !== null) : [];
  const from = striped.length > 0 ? striped : looks;
  const countOf = (look: Colour) => count.get(toColourWords(look)) ?? 0;
  const chosen = from.reduce((best, look) => (countOf(look) < countOf(best) ? look : best));
  return { ...chosen, bands: [...chosen.bands] };
}
