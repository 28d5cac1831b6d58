import { Type } from '@sinclair/typebox';
import type { CatalogueLookup } from './catalogueLookup';
import { checkIntegrity } from './checkIntegrity';
import { checkShape, MOST_PROBLEMS } from '../checkShape';
import { recordOf } from '../ids';
import { JobSchema, type Job } from './job';
import { LoomSchema } from '../loom/loom';
import { toPresentFormat } from './migrations';
import type { Checked, Problem } from '../problem';

/** The one gate at every border: bring to the present format, check the shape, check what the shape cannot say. */
export function checkJob(value: unknown, lookup: CatalogueLookup): Checked<Job> {
  const pieces = checkJobInPieces(value, lookup);
  for (;;) {
    const { done, value: checked } = pieces.next();
    if (done) return checked;
  }
}

/** The same gate, loom by loom, for who has others waiting. */
export function* checkJobInPieces(value: unknown, lookup: CatalogueLookup): Generator<undefined, Checked<Job>> {
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
  yield;
  const misshapen = yield* checkShapes(present);
  if (misshapen.length > 0) return { ok: false, problems: misshapen };
  const job = present as unknown as Job;
  const problems = yield* checkIntegrity(job, lookup);
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: job };
}

/** The job around its looms: each of them is checked by itself. */
const AROUND = Type.Object({ ...JobSchema.properties, looms: recordOf(Type.Null()) }, { additionalProperties: false });

function* checkShapes(job: Record<string, unknown>): Generator<undefined, Problem[]> {
  const { looms } = job;
  const isRecord = typeof looms === 'object' && looms !== null && !Array.isArray(looms);
  const around = checkShape(AROUND, isRecord ? { ...job, looms: Object.fromEntries(Object.keys(looms).map((id) => [id, null])) } : job);
  const problems = around.ok ? [] : around.problems;
  yield;
  for (const [loomId, loom] of isRecord ? Object.entries(looms) : []) {
    if (problems.length >= MOST_PROBLEMS) break;
    const checked = checkShape(LoomSchema, loom, `/looms/${loomId}`);
    if (!checked.ok) problems.push(...checked.problems);
    yield;
  }
  return problems.sort((a, b) => b.path.split('/').length - a.path.split('/').length).slice(0, MOST_PROBLEMS);
}
