import type { Proving, ProvingKind } from '../../model';
import { compareIds } from '../../units';
import { createPowerTest, type PowerContext } from './powerContext';
import type { PowerPart, PowerTest } from './types';

const PART: Readonly<Record<ProvingKind, PowerPart>> = { coding: 'coding', value: 'inputs', later: 'later' };

/** What the brief says is to be proved beside what the wires say: coding, voltages for the controller's file, what waits for a condition. */
export function listProvingTests({ job }: PowerContext): PowerTest[] {
  return Object.keys(job.provings)
    .sort(compareIds)
    .map((id) => {
      const proving = job.provings[id]!;
      const device = proving.deviceId === null ? undefined : job.devices[proving.deviceId];
      const about = {
        id: toProvingId(id, proving),
        part: PART[proving.kind],
        words: device ? `${device.name}: ${proving.what}` : proving.what,
        note: toNote(proving),
        endIds: device?.at ? [`${device.at.loomId}/${device.at.endId}`] : [],
      };
      // whatever a voltage for the file comes to is right: it is what this vehicle has
      if (proving.kind === 'value') return createPowerTest({ ...about, unit: 'V' });
      return createPowerTest({ ...about, unit: 'look', expected: 1, least: 1 });
    });
}

const toProvingId = (id: string, { kind }: Proving) => `${kind} ${id}`;

/** Is it a voltage that goes into the file of the controller? */
export const isFileValue = ({ id, part, unit }: Pick<PowerTest, 'id' | 'part' | 'unit'>): boolean =>
  part === 'inputs' && unit === 'V' && id.startsWith('value ');

function toNote({ kind, when }: Proving): string {
  if (kind === 'value') return 'It goes into the file of the controller, as the controller reads it.';
  if (kind === 'later') return when ? `Under its condition alone: ${when}.` : 'Its condition is not said yet.';
  return '';
}

/** Before the first start on a stand (craft E2): what makes the stand safe, and what makes a no-start speak about the loom. */
export function listStandTests({ job, planned }: PowerContext): PowerTest[] {
  if (job.startsOn !== 'stand' || !planned.power.modeIds.some((id) => job.modes[id]!.engine === 'running')) return [];
  const look = (id: string, words: string, hazard = '') =>
    createPowerTest({ id: `stand ${id}`, part: 'stand', words, hazard, unit: 'look', expected: 1, least: 1 });
  return [
    look('feed', 'the stand is fed through a fuse, never by the bare battery'),
    look('fuel', 'a small fuel cell with fresh fuel, its cover on, away from exhaust and battery', 'Extinguisher in reach, nobody smokes.'),
    look('guards', 'guards before belt and fan, the engine bolted down, exhaust led outside', 'Hands, hair and sleeves away.'),
    look('causes', 'spark, fuel pressure, compression and timing are proved by themselves: then a no-start speaks about the loom'),
  ];
}
