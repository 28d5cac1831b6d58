import { carryPower, NO_CARRIED_POWER, type EarlierPower, type Step } from 'wattograph-core';
import type { FirstPowerPack, PowerLoom } from '../../stations/firstPower/firstPowerPack';
import { readJob } from '../documents';
import { listFrozen, readFrozen } from '../frozen';
import type { FloorEvent } from '../floorEvent';
import { listFloorEvents, listReleases, readCarried, readRelease } from '../releases';
import { toJobId, toReleaseNumber } from '../requests';
import { readShop } from '../shop';
import { listPowerHolds, listPowerRevisions, readPower } from './firstPower';

/** A vehicle of a revision as it gets power: the revision asked for, or the newest. pack null: none is released. */
export async function openPower(
  id: string,
  query: { release?: string },
): Promise<{ jobName: string; pack: FirstPowerPack | null; events: FloorEvent[] }> {
  const jobId = toJobId(id);
  const { document: job } = await readJob(jobId, '');
  const newest = (await listReleases(jobId)).at(-1)?.number;
  if (newest === undefined) return { jobName: job.name, pack: null, events: [] };
  const release = query.release ? toReleaseNumber(query.release) : newest;
  const { document } = await readRelease(jobId, release);
  const sheet = await readPower(jobId, release);
  const looms: PowerLoom[] = [];
  const wireEnds: [string, string[]][] = [];
  for (const { loomId, wires } of await listFrozen(jobId, release)) {
    if (wires === 0) continue;
    const { plan, build } = await readFrozen(jobId, release, loomId);
    for (const { id: wireId, from, to } of plan.wires)
      wireEnds.push([`${loomId}/${wireId}`, [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : []))]);
    looms.push({
      loomId,
      name: document.looms[loomId]!.name,
      steps: build.steps.map(toTouched),
      carried: await readCarried(jobId, release, loomId),
      held: listPowerHolds(plan),
    });
  }
  const { tools } = (await readShop()).shop;
  const earlier = sheet ? carryPower(sheet, await listEarlierPower(jobId, release), looms) : NO_CARRIED_POWER;
  const pack = { release, newest, jobName: document.name, sheet, looms, earlier, wireEnds, instruments: tools.map(({ name }) => name) };
  return { jobName: document.name, pack, events: await listFloorEvents(jobId, release) };
}

const toTouched = ({ id, title, operation, endId, items, needs }: Step): PowerLoom['steps'][number] => ({
  ...{ id, title, operation, endId, items },
  needs,
});

/** Revisions before one, from the first on in which something was read at first power. */
async function listEarlierPower(jobId: string, release: number): Promise<EarlierPower[]> {
  const numbers = await listPowerRevisions(jobId, release);
  const first = numbers[0];
  if (first === undefined) return [];
  const earlier: EarlierPower[] = [];
  for (let number = first; number < release; number += 1)
    earlier.push({
      number,
      sheet: numbers.includes(number) ? ((await readPower(jobId, number)) ?? null) : null,
      events: await listFloorEvents(jobId, number),
    });
  return earlier;
}
