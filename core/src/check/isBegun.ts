import type { Job } from '../model';
import type { FindingStation } from './register';

/** Is there anything yet that a station is about? What is empty is neither in order nor wrong. */
export function isBegun(job: Job, loomId: string, station: FindingStation): boolean {
  const { ends, circuits, segments } = job.looms[loomId] ?? { ends: {}, circuits: {}, segments: {} };
  const has = (record: object) => Object.keys(record).length > 0;
  switch (station) {
    case 'brief':
      return has(job.devices) || job.brief.agreed !== null;
    case 'survey':
      return has(segments);
    case 'circuits':
      return has(circuits) || Object.values(ends).some(({ pins, offers }) => has(pins) || has(offers));
    case 'power':
      return Object.values(job.looms).some((loom) =>
        Object.values(loom.ends).some(({ pins }) =>
          Object.values(pins).some(({ kind, currentA }) => kind === 'supply' && currentA !== null),
        ),
      );
    case 'bundle':
    case 'dress':
      return has(circuits);
    case 'ends':
      return has(ends);
  }
}
