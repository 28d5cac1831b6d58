import type { LayupRules, LayupStrip, Thread, ThreadEnd } from '../plan/layup/layupTypes';

/** What strips are laid up by in tests: the trade's figures, dead wire as thick as what it lies beside. */
export const LAYUP_RULES: LayupRules = {
  ratio: 10,
  leastRatio: 8,
  mostRatio: 16,
  leastLayMm: 25,
  squeeze: 0.03,
  fillerOdsMm: [],
  fillerPerM: 0.2,
  fillerEach: 1.2,
  relayCost: 8,
  relayThinner: 0.08,
};

/** A strip made up: so many threads all the way, some that leave at breakouts, some that come and go. */
export function createTestStrip({
  through,
  odMm = 1,
  lengthMm = 1000,
  leaving = [],
  spans = [],
}: {
  through: number;
  odMm?: number;
  lengthMm?: number;
  leaving?: { count: number; atMm: number; sideDeg: number; odMm?: number }[];
  spans?: { fromMm: number; toMm: number }[];
}): LayupStrip {
  const places = [...leaving.map(({ atMm }) => atMm), ...spans.flatMap(({ fromMm, toMm }) => [fromMm, toMm])];
  const mms = [...new Set([0, ...places, lengthMm])].sort((a, b) => a - b);
  const toEnd = (mm: number, sideDeg: number | null): ThreadEnd => {
    const kind = mm === 0 || mm === lengthMm ? 'strip' : 'breakout';
    return { mark: mms.indexOf(mm), kind, sideDeg: kind === 'strip' ? null : sideDeg, besideId: null };
  };
  const toThread = (id: string, od: number, fromMm: number, toMm: number, sideDeg: number | null = null): Thread => {
    const [from, to] = [toEnd(fromMm, sideDeg), toEnd(toMm, sideDeg)];
    const parts = [{ wireIds: [id], fromMark: from.mark, toMark: to.mark }];
    return { id, kind: 'wire', odMm: od, areaMm2: 0.3, from, to, joints: [], parts };
  };
  return {
    id: 'strip',
    segmentIds: ['strip'],
    segmentMarks: [0],
    marks: mms.map((mm, at) => ({ mm, kind: at === 0 ? 'start' : mm === lengthMm ? 'end' : 'breakout', nodeId: `at ${mm}` })),
    threads: [
      ...Array.from({ length: through }, (_, index) => toThread(`t${index}`, odMm, 0, lengthMm)),
      ...leaving.flatMap(({ count, atMm, sideDeg, odMm: od = odMm }, group) =>
        Array.from({ length: count }, (_, index) => toThread(`l${group}.${index}`, od, 0, atMm, sideDeg)),
      ),
      ...spans.map(({ fromMm, toMm }, index) => toThread(`s${index}`, odMm, fromMm, toMm)),
    ],
  };
}
