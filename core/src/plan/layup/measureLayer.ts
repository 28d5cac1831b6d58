import type { LayupRules } from './layupTypes';

const { PI, asin, acos, hypot, max } = Math;

/** A pair is not round: its first layer takes 8 of 9 (calculations 6). */
export const PAIR_ROOM = 8 / 9;

/** Lay length of a layer so thick outside, mm: the shop's ratio, and no shorter than hands can lay. */
export const measureLay = (outerOdMm: number, { ratio, leastLayMm }: LayupRules): number => max(ratio * outerOdMm, leastLayMm);

/** 1 / cos of the helix angle at a pitch radius: how much longer the wire is than the axis, and how much wider its cut. */
export const measureLean = (pitchRadiusMm: number, layMm: number): number => hypot(1, (2 * PI * pitchRadiusMm) / layMm);

/** Angle that one element takes in a layer of its like, rad: θ = 2 asin(r / (ρ cos α)) (calculations 6); Infinity where none fits. */
export function measureRoom(odMm: number, innerRadiusMm: number, layMm: number): number {
  const pitchRadiusMm = innerRadiusMm + odMm / 2;
  const sine = (odMm / 2 / pitchRadiusMm) * measureLean(pitchRadiusMm, layMm);
  return sine < 1 ? 2 * asin(sine) : PI;
}

/** Angle between the middles of two neighbours in a layer, rad: cos θ = (ρi² + ρj² − ((ri + rj) / cos α)²) / 2ρiρj (calculations 6). */
export function measureStep(oneOdMm: number, otherOdMm: number, innerRadiusMm: number, layMm: number): number {
  const [a, b] = [innerRadiusMm + oneOdMm / 2, innerRadiusMm + otherOdMm / 2];
  const apart = ((oneOdMm + otherOdMm) / 2) * measureLean((a + b) / 2, layMm);
  const cosine = (a * a + b * b - apart * apart) / (2 * a * b);
  return cosine <= -1 ? PI : acos(cosine);
}

/** How many of these there is still room for, filler as thick as given; angles in rad. */
export const countFillers = (roomLeft: number, fillerRoom: number): number => max(0, Math.floor(roomLeft / fillerRoom + 1e-9));

/** What a layer may take up in all, rad. */
export const measureTurn = (isOnPair: boolean, { squeeze }: LayupRules): number => 2 * PI * (1 + squeeze) * (isOnPair ? PAIR_ROOM : 1);

/** The thickest filler that does not stand out of a layer of these, mm; where all stand out the thinnest; where there are none as thick as they. */
export function chooseFiller(mostOdMm: number, { fillerOdsMm }: LayupRules): number {
  if (fillerOdsMm.length === 0) return mostOdMm;
  const within = fillerOdsMm.filter((od) => od <= mostOdMm + 1e-9);
  return within.length ? Math.max(...within) : Math.min(...fillerOdsMm);
}
