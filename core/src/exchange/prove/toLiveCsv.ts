import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { listLive, listStandingModes, type JobPlan } from '../../plan';
import { writeCsv } from '../toCsv';

const COLUMNS = ['mode', 'isolator open', 'net', 'state', 'fuse', 'fuse A', 'round the isolator', 'by', 'feeds', 'mean A', 'battery h'];

/** What is live in each mode, behind which fuse, one line a net; and for how long the battery gives it while the engine is off. */
export function toLiveCsv(job: Job, planned: Pick<JobPlan, 'power'>, standard: Pick<ShopStandard, 'batteryShare'>): string {
  const standing = new Map(listStandingModes(job, planned, standard).map((one) => [one.mode, one]));
  return writeCsv(
    COLUMNS,
    planned.power.states.flatMap(({ modeId, isIsolated }, mode) => {
      const battery = standing.get(mode);
      const rest = [battery ? Number(battery.meanA.toPrecision(6)) : '', battery?.hours ? Number(battery.hours.toPrecision(6)) : ''];
      const head = [job.modes[modeId]!.name, isIsolated ? 'yes' : 'no'];
      const lines = listLive(job, planned, mode);
      if (lines.length === 0) return [[...head, 'nothing', 'dead', '', '', '', '', '', ...rest]];
      return lines.map(({ name, state, fuse, isByPassed, via, loads }) => [
        ...[...head, name, state, fuse?.name ?? '', fuse?.ratingA ?? '', isByPassed ? 'yes' : 'no'],
        ...[via.join(', '), loads.map((load) => load.name).join(', '), ...rest],
      ]);
    }),
  );
}
