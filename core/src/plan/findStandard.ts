import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job } from '../model';

/** The shop standard that a job works to; throws where the catalogue does not have it. */
export function findStandard(job: Pick<Job, 'standardId'>, catalogue: Catalogue): ShopStandard {
  const standard = Object.hasOwn(catalogue.standards, job.standardId) ? catalogue.standards[job.standardId] : undefined;
  if (!standard) throw new Error(`standardId: expected one of ${Object.keys(catalogue.standards).join(', ')}, got "${job.standardId}"`);
  return standard;
}
