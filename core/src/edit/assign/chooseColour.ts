import type { ShopStandard } from '../../catalogue';
import { toColourWords, toInsulationWords, type Circuit, type CircuitKind, type Colour } from '../../model';
import { listSchemeLooks } from '../../plan';

/** A look of the shop's scheme that no wire, or the fewest, of these circuits has. */
export function chooseColour(kind: CircuitKind, circuits: readonly Pick<Circuit, 'colour'>[], standard: ShopStandard): Colour {
  // bands of a draft are dear to look at: only where there are any
  const toKey = standard.colourScheme === 'bands' ? toColourWords : toInsulationWords;
  const count = new Map<string, number>();
  for (const { colour } of circuits) {
    const key = toKey(colour);
    count.set(key, (count.get(key) ?? 0) + 1);
  }
  const looks = listSchemeLooks(kind, standard);
  // by function grounds of sensors have a stripe: the plain ones are those of power
  const striped = standard.colourScheme === 'function' && kind === 'sensor-ground' ? looks.filter(({ stripe }) => stripe !== null) : [];
  const from = striped.length > 0 ? striped : looks;
  let chosen = from[0]!;
  let fewest = Infinity;
  for (const look of from) {
    const here = count.get(toKey(look)) ?? 0;
    if (here < fewest) [chosen, fewest] = [look, here];
    // none is fewer
    if (here === 0) break;
  }
  return { ...chosen, bands: [...chosen.bands] };
}
