import { listJobSummaries } from '../server/jobSummaries';
import { readShop } from '../server/shop';
import { JobsStation } from '../stations/jobs/JobsStation';

export const dynamic = 'force-dynamic';

export default async function JobsPage() {
  return <JobsStation jobs={await listJobSummaries()} people={(await readShop()).shop.people} />;
}
