import type { BenchTool, CrimpSeries } from 'wattograph-core';
import type { Crimping, FloorTimes } from '../client/floor/useFloorStore';

/** Crimps that nothing is asked of. */
export const NOTHING_CRIMPED: Crimping = {
  series: [],
  elsewhere: {},
  sampling: { sampleFirst: 0, sampleEvery: 100, sampleWarnShare: 1.15, crimpHeightMm: 0.05, sessionMin: 240 },
  kept: { reterminations: 2, reterminationMm: 8 },
  tools: {},
  earlier: [],
};

/** Steps that nothing is counted for. */
export const NOT_TIMED: FloorTimes = { minutes: {}, pauseMin: 10, sessionMin: 240 };

/** Crimps of a loom with what the demo shop asks of them; its tools in order. */
export const createCrimping = (series: CrimpSeries[], part: Partial<BenchTool> = {}): Crimping => ({
  ...NOTHING_CRIMPED,
  sampling: { ...NOTHING_CRIMPED.sampling, sampleFirst: 3 },
  series,
  tools: Object.fromEntries(
    series.map(({ tool }) => [
      tool,
      {
        ...{
          name: tool,
          isListed: true,
          setting: '',
          dueDay: '2027-10-05',
          isPast: false,
          gauged: false,
          crimps: 12,
          serviceCrimps: 10_000,
        },
        ...part,
      },
    ]),
  ),
});
