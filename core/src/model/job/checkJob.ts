import { Type } from '@sinclair/typebox';
import type { CatalogueLookup } from './catalogueLookup';
import { checkIntegrity } from './checkIntegrity';
import { checkShape, MOST_PROBLEMS, readyShape } from '../checkShape';
import { recordOf } from '../ids';
import { JobSchema, type Job } from './job';
import { LoomSchema } from '../loom/loom';
import { isRecord } from '../mapRecord';
import { createPassed } from '../passed';
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

/** The same gate, a few hundred things at a time, for who has others waiting. */
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

/** The job around its looms, and a loom around what it has many of: those are checked by themselves. */
const AROUND_LOOMS = Type.Object({ ...JobSchema.properties, looms: recordOf(Type.Null()) }, { additionalProperties: false });
const MANY = ['nodes', 'segments', 'ends', 'circuits'] as const;
const AROUND_MANY = Type.Object(
  { ...LoomSchema.properties, ...Object.fromEntries(MANY.map((field) => [field, recordOf(Type.Null())])) },
  { additionalProperties: false },
);
/** of which so many are looked at between two pauses */
const BATCH = 300;

/** Compiles what the gate goes by, a schema at a time: for a server, before anybody asks. */
export function* readyGate(): Generator<undefined, void> {
  for (const schema of [AROUND_LOOMS, AROUND_MANY, ...MANY.map((field) => LoomSchema.properties[field])]) {
    readyShape(schema);
    yield;
  }
}

function* checkShapes(job: Record<string, unknown>): Generator<undefined, Problem[]> {
  const looms = isRecord(job.looms) ? job.looms : null;
  const around = looms ? { ...job, looms: Object.fromEntries(Object.keys(looms).map((id) => [id, null])) } : job;
  const problems = listProblems(checkShape(AROUND_LOOMS, around));
  yield;
  for (const [loomId, loom] of Object.entries(looms ?? {})) {
    if (problems.length >= MOST_PROBLEMS) break;
    problems.push(...(yield* checkLoomShape(loom, `/looms/${loomId}`)));
  }
  return problems.sort((a, b) => b.path.split('/').length - a.path.split('/').length).slice(0, MOST_PROBLEMS);
}

/** looms, and what they have many of, that have the shape */
const shaped = createPassed();

function* checkLoomShape(loom: unknown, at: string): Generator<undefined, Problem[]> {
  if (shaped.has(loom, 'loom')) return [];
  if (!isRecord(loom)) return listProblems(checkShape(LoomSchema, loom, at));
  const many = MANY.flatMap((field) => (isRecord(loom[field]) ? [{ field, of: loom[field] }] : []));
  const problems = listProblems(checkShape(AROUND_MANY, { ...loom, ...Object.fromEntries(many.map(({ field }) => [field, {}])) }, at));
  yield;
  for (const { field, of } of many) {
    const entries = Object.entries(of).filter(([id, one]) => !shaped.has(one, `${field} ${id}`));
    for (let from = 0; from < entries.length && problems.length < MOST_PROBLEMS; from += BATCH) {
      const batch = entries.slice(from, from + BATCH);
      const found = listProblems(checkShape(LoomSchema.properties[field], Object.fromEntries(batch), `${at}/${field}`));
      if (found.length === 0) for (const [id, one] of batch) shaped.add(one, `${field} ${id}`);
      problems.push(...found);
      yield;
    }
  }
  if (problems.length === 0) shaped.add(loom, 'loom');
  return problems;
}

const listProblems = (checked: Checked<unknown>): Problem[] => (checked.ok ? [] : checked.problems);
