import { toSizeWords, type Conductor, type ShopStandard } from '../../catalogue';
import { listHottest, measureHeat } from '../measureHeat';
import type { Section } from '../types';
import { findHarm, toGuarded, type RatedLink } from './chooseProtections';
import { mostOf } from './currents';
import { measureResistance, type GridWire } from './measureLoads';
import type { PlannedProtection } from './types';

/** Drop of a wire with another conductor, V: a thicker one heats less, a thinner one more. */
export function measureTrialDrop(
  { wire, lengthMm, runningC, current }: GridWire,
  { r20MilliohmPerM }: Conductor,
  currentA: number,
): number {
  const temperatureC = runningC + current.ownK * (r20MilliohmPerM / wire.conductor.r20MilliohmPerM - 1);
  return (measureResistance(r20MilliohmPerM, lengthMm, temperatureC) * currentA) / 1000;
}

/** Does a wire with another conductor bear a protection until that opens? True where nothing is known of what it bears. */
export function isTrialBorne(
  gridWire: GridWire,
  conductor: Conductor,
  { ratingA, tripS }: Pick<PlannedProtection, 'ratingA' | 'tripS'>,
  standard: ShopStandard,
): boolean {
  const bears = toGuarded(gridWire, standard);
  if (ratingA === null || bears === null || bears.steadyA === 0) return true;
  // the bundle lets it give off so much heat: a thicker wire makes that at more current
  const more = Math.sqrt(gridWire.wire.conductor.r20MilliohmPerM / conductor.r20MilliohmPerM);
  const steadyA = bears.steadyA * more;
  return (
    steadyA >= ratingA && findHarm(ratingA, tripS, { ...bears, steadyA, shortA: bears.shortA * more, areaMm2: conductor.areaMm2 }) === null
  );
}

/** Why a wire must be thicker than this conductor: what it bears for good, or that a fault spoils it before the protection opens. */
export function explainFuse(gridWire: GridWire, conductor: Conductor, guard: RatedLink, standard: ShopStandard): string {
  const { wire, current } = gridWire;
  const bearsA = (current.steadyA ?? 0) * Math.sqrt(wire.conductor.r20MilliohmPerM / conductor.r20MilliohmPerM);
  const isLess = bearsA < (guard.ratingA ?? 0);
  const asBuilt = isTrialBorne(gridWire, conductor, guard, standard) ? ', and less as built' : ', but a fault spoils it before that opens';
  return `bears the ${guard.ratingA} A of ${guard.name} until it opens; ${toSizeWords(conductor)} bears ${bearsA.toFixed(1)} A here${isLess ? '' : asBuilt}`;
}

/** Middle of a section in its worst mode with these conductors, °C; null: it would run away. */
export function measureTrialMiddle(
  here: readonly { gridWire: GridWire; conductor: Conductor }[],
  { odMm }: Pick<Section, 'odMm'>,
  wallMm: number,
  ambientC: number,
  altitudeM: number,
): number | null {
  const modes = here[0]?.gridWire.current.heatA.length ?? 0;
  const watts = Array.from({ length: modes }, (_, mode) =>
    here.map(({ gridWire, conductor }) => ((gridWire.current.heatA[mode] ?? 0) ** 2 * conductor.r20MilliohmPerM) / 1000),
  );
  const sums = watts.map((one) => one.reduce((sum, value) => sum + value, 0));
  const most = mostOf(sums);
  if (most === 0) return ambientC;
  const worst = watts[sums.indexOf(most)]!;
  const heat = measureHeat({
    ambientC,
    bundleMm: odMm,
    outsideMm: odMm + wallMm,
    wattsPerMAt20: most,
    hottest: listHottest(worst).map((at) => ({ wattsPerMAt20: worst[at]!, odMm: here[at]!.conductor.odMm })),
    altitudeM,
  });
  return heat && heat.middleC;
}
