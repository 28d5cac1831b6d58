import { createHash } from 'node:crypto';
import { and, eq, gte, isNull, lt, sql } from 'drizzle-orm';
import { database } from '../database';
import { hear } from '../listener';
import { enqueue } from './queue';
import { Refusal } from '../refusal';
import { tasks } from '../schema';
import type { Answer, TaskKind } from './taskKinds';
import { tell } from '../tell';

/** as long as a request waits where it does not say how long */
const WAIT_S = 20;
const MOST_WAIT_S = 30;
/** asked anew so often beside being told, for a message can be lost with its connection */
const LOOK_MS = 1000;
const BAD = 400;

/** One id for one thing asked for, so that who asks again, or at the same time, gets the same answer. */
function toTaskId(kind: TaskKind, key: unknown): string {
  const hex = createHash('sha256')
    .update(JSON.stringify([kind, key]))
    .digest('hex');
  return [hex.slice(0, 8), hex.slice(8, 12), `8${hex.slice(13, 16)}`, `8${hex.slice(17, 20)}`, hex.slice(20, 32)].join('-');
}

/**
 * Have a worker do something, and answer with what it says; where that takes longer than the request likes to wait, 202 with the id of the
 * task, to be asked for at /api/tasks.
 * @param key what the answer depends on: the same key has the same answer
 */
export async function answerByTask(request: Request, kind: TaskKind, key: unknown, input: unknown): Promise<Response> {
  return waitFor(await beginTask(kind, key, input), toWait(request));
}

/** Put a task in line where it is not there or done already. A refusal is not kept: what was in the way may be mended. */
export async function beginTask(kind: TaskKind, key: unknown, input: unknown): Promise<string> {
  const id = toTaskId(kind, key);
  const db = database();
  await db.delete(tasks).where(and(eq(tasks.id, id), gte(tasks.status, BAD)));
  await db.insert(tasks).values({ id, kind, input }).onConflictDoNothing();
  const [row] = await db.select({ status: tasks.status }).from(tasks).where(eq(tasks.id, id));
  if (row && row.status !== null) return id;
  await enqueue('task', [id]);
  await tell(db, { topic: 'work' });
  return id;
}

/** The answer to a task, as soon as there is one within so many seconds; else how far it is. */
export async function waitFor(id: string, waitS: number): Promise<Response> {
  const until = performance.now() + waitS * 1000;
  for (;;) {
    const told = nextOf(id, Math.min(LOOK_MS, Math.max(0, until - performance.now())));
    try {
      const state = await readTask(id);
      if (state === null) throw Refusal.at(404, '', 'There is no such task; ask for what you want anew.');
      if ('body' in state) return toResponse(state);
      if (performance.now() >= until) return Response.json({ task: id, ...state }, { status: 202 });
      await told.promise;
    } finally {
      told.end();
    }
  }
}

/** The answer to a task inside the server; a refusal is thrown. */
export async function askTask(kind: TaskKind, key: unknown, input: unknown): Promise<void> {
  const response = await waitFor(await beginTask(kind, key, input), MOST_WAIT_S);
  if (response.status === 202) throw Refusal.at(503, '', 'It is still being planned; ask again in a moment.');
  if (response.ok) return;
  const { problems } = (await response.json()) as { problems: Refusal['problems'] };
  throw new Refusal(response.status, problems);
}

async function readTask(id: string): Promise<Answer | { done: number; of: number } | null> {
  const db = database();
  const [row] = await db.select({ status: tasks.status, done: tasks.done, of: tasks.of }).from(tasks).where(eq(tasks.id, id));
  if (!row) return null;
  if (row.status === null) return { done: row.done, of: row.of };
  const [whole] = await db.select().from(tasks).where(eq(tasks.id, id));
  return whole ? { status: whole.status!, type: whole.type!, name: whole.name, body: whole.body! } : null;
}

function toResponse({ status, type, name, body }: Answer): Response {
  const headers = { 'content-type': type, ...(name === null ? {} : { 'content-disposition': `attachment; filename="${name}"` }) };
  return new Response(new Uint8Array(body), { status, headers });
}

/** Nobody waits for it any more: a worker that is at it is told, and leaves it. */
export async function cancelTask(id: string): Promise<void> {
  await database()
    .delete(tasks)
    .where(and(eq(tasks.id, id), isNull(tasks.status)));
  await tell(database(), { topic: 'task', id });
}

/** Forget what was answered or asked for longer ago than that. */
export async function forgetTasks(olderThanS: number): Promise<void> {
  const since = sql`now() - make_interval(secs => ${olderThanS})`;
  await database().delete(tasks).where(lt(tasks.at, since));
}

/** How long a request wants to wait for its answer, s. As RFC 7240 has it: Prefer: wait=N. */
export function toWait(request: Request): number {
  const asked = /\bwait=(\d{1,3})\b/.exec(request.headers.get('prefer') ?? '')?.[1];
  return asked === undefined ? WAIT_S : Math.min(MOST_WAIT_S, Number(asked));
}

function nextOf(id: string, mostMs: number): { promise: Promise<void>; end: () => void } {
  let end = () => {};
  const promise = new Promise<void>((resolve) => {
    const timer = setTimeout(resolve, mostMs);
    const stop = hear((heard) => {
      if (heard.topic === 'again' || (heard.topic === 'task' && heard.id === id)) resolve();
    });
    end = () => {
      clearTimeout(timer);
      stop();
      resolve();
    };
  });
  return { promise, end };
}
