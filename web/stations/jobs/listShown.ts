import type { JobSummary } from '../../server/jobSummaries';

export const FILTERS = ['work', 'mend', 'release', 'floor', 'archived', 'deleted'] as const;
export type Filter = (typeof FILTERS)[number];
export const ORDERS = ['touched', 'promised', 'name'] as const;
export type Order = (typeof ORDERS)[number];

const isReleased = ({ revision, editsSince }: JobSummary) => revision > 0 && editsSince === 0;

const isInWork = ({ isArchived, deleted }: JobSummary) => !isArchived && deleted === null;

/** Which jobs each word of the bar stands for. */
const IS: Record<Filter, (job: JobSummary) => boolean> = {
  work: isInWork,
  mend: (job) => isInWork(job) && job.counted !== null && (job.counted.stops > 0 || job.counted.problem !== null),
  release: (job) => isInWork(job) && job.counted !== null && job.counted.wires > 0 && job.counted.stops === 0 && !isReleased(job),
  floor: (job) => isInWork(job) && job.revision > 0,
  archived: ({ isArchived, deleted }) => isArchived && deleted === null,
  deleted: ({ deleted }) => deleted !== null,
};

export const countShown = (jobs: readonly JobSummary[], filter: Filter): number => jobs.filter(IS[filter]).length;

const COMPARE: Record<Order, (a: JobSummary, b: JobSummary) => number> = {
  touched: (a, b) => (a.changedAt < b.changedAt ? 1 : a.changedAt > b.changedAt ? -1 : 0),
  // what nobody promised comes last
  promised: (a, b) => (a.promisedOn ?? '9999').localeCompare(b.promisedOn ?? '9999') || COMPARE.touched(a, b),
  name: (a, b) => a.name.localeCompare(b.name) || COMPARE.touched(a, b),
};

/** The jobs to show: every word that is searched for stands in its name, customer, next action, or who touched it last. */
export function listShown(
  jobs: readonly JobSummary[],
  { words, filter, order }: { words: string; filter: Filter; order: Order },
): JobSummary[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const textOf = ({ name, customer, next, changedBy }: JobSummary) => `${name} ${customer} ${next} ${changedBy ?? ''}`.toLowerCase();
  return jobs.filter((job) => IS[filter](job) && wanted.every((word) => textOf(job).includes(word))).sort(COMPARE[order]);
}

/** "3 min ago", "yesterday", "12 Nov 2026": when a job was touched last, as the wall says it. now: ms. */
export function toTouchedWords(changedAt: string, now: number, locale?: string): string {
  const minutes = Math.max(0, Math.floor((now - Date.parse(changedAt)) / 60_000));
  if (minutes < 1) return 'just now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h ago`;
  if (minutes < 48 * 60) return 'yesterday';
  return new Intl.DateTimeFormat(locale, { dateStyle: 'medium' }).format(new Date(changedAt));
}
