import { HOUSE_STYLE, type Catalogue, type ShopStandard } from '../catalogue';
import type { Brief, Job } from '../model';

/** Standards with the departures of a job in them, made once: what is planned with one is remembered by it. */
const departed = new WeakMap<Brief['departures'], { standard: ShopStandard; made: ShopStandard }>();

/** The shop standard that a job works to, with what the job does otherwise; throws where the catalogue does not have it. */
export function findStandard(job: Pick<Job, 'standardId' | 'brief'>, catalogue: Catalogue): ShopStandard {
  const standard = Object.hasOwn(catalogue.standards, job.standardId) ? catalogue.standards[job.standardId] : undefined;
  if (!standard) throw new Error(`standardId: expected one of ${Object.keys(catalogue.standards).join(', ')}, got "${job.standardId}"`);
  const { departures } = job.brief;
  const known = departed.get(departures);
  if (known?.standard === standard) return known.made;
  const sets = HOUSE_STYLE.flatMap(({ id, sides }) => (Object.hasOwn(departures, id) ? (sides[departures[id]!.side]?.sets ?? []) : []));
  const made = sets.length === 0 ? standard : Object.assign({}, standard, ...sets);
  departed.set(departures, { standard, made });
  return made;
}
