import { toSizeWords, type Conductor, type ShopStandard } from '../../../catalogue';
import { listHottest, measureHeat } from '../../heat/measureHeat';
import type { Section } from '../../types';
import { findHarm, toGuarded, type RatedLink } from '../protection/chooseProtections';
import { mostOf } from '../currents/currents';
import { measureResistance, type NetlistWire } from './measureLoads';
import type { PlannedProtection } from '../types';

/** Drop of a wire with another conductor, V. */
export function measureTrialDrop(
  { wire, lengthMm, runningC, current }: NetlistWire,
  { r20MilliohmPerM }: Conductor,
  currentA: number,
): number {
  const { ownK } = current;
  const was = { lengthMm, runningC, ownK, r20: wire.conductor.r20MilliohmPerM };
  return (measureTrialResistance(was, r20MilliohmPerM) * currentA) / 1000;
}

/** Resistance of a wire with another conductor, mΩ: a thicker one heats less, a thinner one more. ownK: of its rise, what it makes itself. */
export function measureTrialResistance(
  { lengthMm, runningC, ownK, r20 }: { lengthMm: number; runningC: number; ownK: number; r20: number },
  trialR20: number,
): number {
  return measureResistance(trialR20, lengthMm, runningC + ownK * (trialR20 / r20 - 1));
}

/** Does a wire with another conductor bear a protection until that opens? True where nothing is known of what it bears. */
export function isTrialBorne(
  netlistWire: NetlistWire,
  conductor: Conductor,
  { ratingA, tripS }: Pick<PlannedProtection, 'ratingA' | 'tripS'>,
  standard: ShopStandard,
): boolean {
  const bears = toGuarded(netlistWire, standard);
  if (ratingA === null || bears === null || bears.steadyA === 0) return true;
  // the bundle lets it give off so much heat: a thicker wire makes that at more current
  const more = Math.sqrt(netlistWire.wire.conductor.r20MilliohmPerM / conductor.r20MilliohmPerM);
  const steadyA = bears.steadyA * more;
  return (
    steadyA >= ratingA && findHarm(ratingA, tripS, { ...bears, steadyA, shortA: bears.shortA * more, areaMm2: conductor.areaMm2 }) === null
  );
}

/** Why a wire must be thicker than this conductor: what it bears for good, or that a fault spoils it before the protection opens. */
export function explainFuse(netlistWire: NetlistWire, conductor: Conductor, guard: RatedLink, standard: ShopStandard): string {
  const { wire, current } = netlistWire;
  const bearsA = (current.steadyA ?? 0) * Math.sqrt(wire.conductor.r20MilliohmPerM / conductor.r20MilliohmPerM);
  const isLess = bearsA < (guard.ratingA ?? 0);
  const asBuilt = isTrialBorne(netlistWire, conductor, guard, standard)
    ? ', and less as built'
    : ', but a fault spoils it before that opens';
  return `bears the ${guard.ratingA} A of ${guard.name} until it opens; ${toSizeWords(conductor)} bears ${bearsA.toFixed(1)} A here${isLess ? '' : asBuilt}`;
}

/** Middle of a section in its worst mode with these conductors, °C; null: it would run away. */
export function measureTrialMiddle(
  here: readonly { netlistWire: NetlistWire; conductor: Conductor }[],
  { odMm }: Pick<Section, 'odMm'>,
  wallMm: number,
  ambientC: number,
  altitudeM: number,
): number | null {
  const modes = here[0]?.netlistWire.current.heatA.length ?? 0;
  const watts = Array.from({ length: modes }, (_, mode) =>
    here.map(({ netlistWire, conductor }) => ((netlistWire.current.heatA[mode] ?? 0) ** 2 * conductor.r20MilliohmPerM) / 1000),
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
