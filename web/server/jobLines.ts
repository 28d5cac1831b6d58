import { today } from '../client/today';
import { createPlanner, listFindings, type Planner } from 'wattograph-core';
import { listJobs } from './documents';
import { listReleases } from './releases';
import { readShopOf, type PresentShop } from './shop';

/** One job on the wall. */
export interface JobLine {
  id: string;
  name: string;
  customer: string;
  looms: number;
  wires: number;
  stops: number;
  checks: number;
  revision: number;
  /** edits since the last release */
  editsSince: number;
  changedAt: string;
  next: string;
  promisedOn: string | null;
}

/** one for each version of the shop that jobs are planned with, for as long as that is held */
const planners = new WeakMap<PresentShop, Planner>();

function findPlanner(shop: PresentShop): Planner {
  const known = planners.get(shop) ?? createPlanner(shop.shop);
  planners.set(shop, known);
  return known;
}

/** The wall: every job with what is next for it. */
export async function listJobLines(): Promise<JobLine[]> {
  return Promise.all(
    (await listJobs()).map(async ({ id, document, version, changedAt }) => {
      const present = await readShopOf(document);
      const { shop } = present;
      const plan = findPlanner(present)(document);
      const open = listFindings(document, plan, shop, today()).filter(({ key }) => !Object.hasOwn(document.accepted, key));
      const last = (await listReleases(id)).at(-1);
      const stops = open.filter(({ grade }) => grade === 'stop').length;
      const wires = plan.looms.reduce((sum, loom) => sum + loom.wires.length, 0);
      const next =
        wires === 0
          ? 'Add ends and circuits'
          : stops
            ? `Settle ${stops} stop ${stops === 1 ? 'finding' : 'findings'}`
            : !last || last.version < version
              ? `Release revision ${(last?.number ?? 0) + 1}`
              : `Build revision ${last.number}`;
      return {
        id,
        name: document.name,
        customer: document.customer,
        looms: plan.looms.length,
        wires,
        stops,
        checks: open.filter(({ grade }) => grade === 'check').length,
        revision: last?.number ?? 0,
        editsSince: last ? version - last.version : version,
        changedAt: changedAt.toISOString(),
        next,
        promisedOn: document.brief.promisedOn,
      };
    }),
  );
}
