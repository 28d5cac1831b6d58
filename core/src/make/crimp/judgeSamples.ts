import type { ShopStandard } from '../../catalogue';
import { LOOK_WORDS, type CrimpSample, type CrimpSeries, type SampleSet } from './types';

type Limits = Pick<CrimpSeries, 'leastN' | 'heightMm'>;
type SampleStandard = Pick<ShopStandard, 'sampleWarnShare' | 'crimpHeightMm'>;

/** How a set of samples came out, and what to say of each that is not plainly good. */
export interface SampleVerdict {
  grade: 'pass' | 'warn' | 'fail';
  lines: { sample: number; grade: 'warn' | 'fail'; words: string }[];
}

/** mm; a height is read to a hundredth, and at its limit it passes. */
const ROUNDING_MM = 1e-9;

/**
 * Samples against what the crimp must stand (craft D3): its looks, its height where the maker's sheet gives one, and the force of IEC 60352-2 or of
 * the contact, whichever is larger, for each wire by itself. A set without samples proves nothing and fails nothing: it passes as told.
 */
export function judgeSamples({ samples }: Pick<SampleSet, 'samples'>, limits: Limits, standard: SampleStandard): SampleVerdict {
  const lines = samples.flatMap((sample, at) => [
    ...sample.bad.map((look) => ({ sample: at + 1, grade: 'fail' as const, words: `not so: ${LOOK_WORDS[look]}` })),
    ...judgeHeight(sample, limits, standard).map((words) => ({ sample: at + 1, grade: 'fail' as const, words })),
    ...judgePulls(sample, limits, standard).map((one) => ({ sample: at + 1, ...one })),
  ]);
  const grade = lines.some((line) => line.grade === 'fail') ? 'fail' : lines.length > 0 ? 'warn' : 'pass';
  return { grade, lines };
}

function judgeHeight({ heightMm }: CrimpSample, limits: Limits, { crimpHeightMm }: SampleStandard): string[] {
  if (limits.heightMm === null) return [];
  if (heightMm === null) return [`height not measured: ${limits.heightMm} mm by its sheet`];
  const offMm = heightMm - limits.heightMm;
  if (Math.abs(offMm) <= crimpHeightMm + ROUNDING_MM) return [];
  return [`height ${heightMm} mm: ${limits.heightMm} ± ${crimpHeightMm} mm by its sheet, ${offMm > 0 ? 'too loose' : 'too tight'}`];
}

function judgePulls({ pullsN }: CrimpSample, { leastN }: Limits, { sampleWarnShare }: SampleStandard) {
  return leastN.flatMap((least, at): { grade: 'warn' | 'fail'; words: string }[] => {
    if (least === null) return [];
    const pull = pullsN[at] ?? null;
    const which = leastN.length > 1 ? ` wire ${at + 1}:` : '';
    if (pull === null) return [{ grade: 'fail', words: `${which} not pulled: at least ${least} N`.trim() }];
    if (pull < least) return [{ grade: 'fail', words: `${which} ${pull} N, at least ${least} N`.trim() }];
    // 40 × 1.15 is 46 and a little less in binary
    if (pull < least * sampleWarnShare - ROUNDING_MM) return [{ grade: 'warn', words: `${which} ${pull} N: look at the die`.trim() }];
    return [];
  });
}
