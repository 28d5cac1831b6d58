import type { CatalogueLookup } from './catalogueLookup';
import { checkIntegrity } from './checkIntegrity';
import { checkShape } from '../checkShape';
import { JobSchema, type Job } from './job';
import { toPresentFormat } from './migrations';
import type { Checked } from '../problem';

/** The one gate at every border: bring to the present format, check the shape, check what the shape cannot say. */
export function checkJob(value: unknown, lookup: CatalogueLookup): Checked<Job> {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return {
      ok: false,
      problems: [{ path: '', message: `expected a job (a JSON object), got ${Array.isArray(value) ? 'a list' : JSON.stringify(value)}` }],
    };
  }
  let present: Record<string, unknown>;
  try {
    present = toPresentFormat(value as Record<string, unknown>);
  } catch (error) {
    if (error instanceof RangeError)
      return { ok: false, problems: [{ path: '/formatVersion', message: error.message.replace('/formatVersion: ', '') }] };
    throw error;
  }
  const shaped = checkShape<Job>(JobSchema, present);
  if (!shaped.ok) return shaped;
  const problems = checkIntegrity(shaped.value, lookup);
  return problems.length ? { ok: false, problems } : shaped;
}
