import type { Job } from '../job/job';

/** How many runs and devices lie in a zone. */
export const countZoneUses = ({ looms, devices }: Pick<Job, 'looms' | 'devices'>, zoneId: string): number =>
  [...Object.values(looms).flatMap(({ segments }) => Object.values(segments)), ...Object.values(devices)].filter(
    (one) => one.zoneId === zoneId,
  ).length;
