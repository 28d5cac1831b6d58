import type { Resin } from '../../model';
import type { Potting } from '../../model/loom/potting';

/** Resin for one cavity. */
export interface PottingFill {
  /** free of wires and contacts, ml */
  volumeMl: number;
  /** with what stays in the cup */
  pouredMl: number;
  massG: number;
  /** of the two parts, g */
  partAG: number;
  partBG: number;
}

/** What fills a cavity round its wires and contacts (craft A4); odsMm: of the wires. waste: share that stays in the cup. */
export function measurePottingFill(
  cavity: Pick<Potting, 'lengthMm' | 'widthMm' | 'depthMm' | 'contactsMm3'>,
  odsMm: readonly number[],
  resin: Resin,
  waste: number,
): PottingFill {
  const { lengthMm, widthMm, depthMm, contactsMm3 } = cavity;
  const wiresMm3 = odsMm.reduce((sum, od) => sum + (Math.PI / 4) * od * od * depthMm, 0);
  const volumeMl = Math.max(0, lengthMm * widthMm * depthMm - wiresMm3 - contactsMm3) / 1000;
  const pouredMl = volumeMl * (1 + waste);
  const massG = pouredMl * resin.densityGPerMl;
  const partAG = (massG * resin.partA) / (resin.partA + resin.partB);
  return { volumeMl, pouredMl, massG, partAG, partBG: massG - partAG };
}

/** Temperature for which the times of a resin are given, °C */
const STATED_C = 23;

/** Hours of cure at the temperature of the workshop: halved for every step that it is warmer. */
export const measureCure = ({ cureH, halvingK }: Pick<Resin, 'cureH' | 'halvingK'>, workshopC: number): number =>
  cureH * 2 ** ((STATED_C - workshopC) / halvingK);

/** Three quarters of a turn behind the resin, so wide that its hard edge does not bend the wires; mm. */
export function measurePottingLoop(odMm: number, loopRatio: number): { radiusMm: number; lengthMm: number } {
  const radiusMm = loopRatio * odMm;
  return { radiusMm, lengthMm: 2 * Math.PI * radiusMm * 0.75 };
}
