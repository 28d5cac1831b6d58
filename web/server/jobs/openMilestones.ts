import { createUndoStep, listMinutes, listNeeds } from 'wattograph-core';
import type { MilestoneLoomPack, MilestonePack } from '../../stations/milestones/milestonePack';
import { readFrozen } from '../frozen';
import type { FloorEvent } from '../floorEvent';
import { readRelease } from '../releases';
import { toJobId } from '../requests';
import { readShopOf } from '../shop';
import { listEarlierChecks, readStandardOf } from './checks';
import { listEarlierCrimps, openCrimping } from './openCrimping';
import { openPower } from './openPower';

/** A vehicle of a revision with what each of its milestones asks for: the revision asked for, or the newest. pack null: none is released. */
export async function openMilestones(
  id: string,
  query: { release?: string },
): Promise<{ jobName: string; pack: MilestonePack | null; events: FloorEvent[] }> {
  const { jobName, pack: power, events } = await openPower(id, query);
  if (!power) return { jobName, pack: null, events };
  const jobId = toJobId(id);
  const { release } = power;
  const { document: job } = await readRelease(jobId, release);
  const standard = await readStandardOf(job);
  const past = await listEarlierCrimps(jobId, release);
  const looms: MilestoneLoomPack[] = [];
  const wires: { loomId: string; wires: Awaited<ReturnType<typeof readFrozen>>['plan']['wires'] }[] = [];
  for (const { loomId, name, carried } of power.looms) {
    const { plan, build } = await readFrozen(jobId, release, loomId);
    wires.push({ loomId, wires: plan.wires });
    const undo = createUndoStep(carried.undo);
    const steps = undo ? [undo, ...build.steps] : build.steps;
    looms.push({
      ...{ loomId, name, carried, steps },
      minutes: [...listMinutes(steps, plan, standard.minutes)],
      numbers: plan.wires.map(({ id: wireId, number }) => [wireId, number]),
      crimping: await openCrimping(jobId, { release, job, plan, steps: build.steps }, past),
    });
  }
  const { shop } = await readShopOf(job);
  const needs = listNeeds(job, shop, standard, wires);
  const { firstOffMin, pauseMin, sessionMin } = standard;
  const checked = await listEarlierChecks(jobId, release);
  return { jobName, pack: { power, looms, needs, checked, firstOffMin, pauseMin, sessionMin }, events };
}
