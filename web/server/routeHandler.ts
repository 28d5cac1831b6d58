import { randomUUID } from 'node:crypto';
import type { Problem } from 'wattograph-core';
import { expectOwn, expectRight } from './accounts/actor';
import type { Person, Right } from './accounts/rights';
import { barData, DATA_HEADERS } from './guard';
import { expectKept } from './jobs/bin';
import { spend, toAddress } from './limits';
import { log } from './log';
import { measureRequest } from './metrics';
import { Refusal } from './refusal';

const MOST_BYTES = 8 * 1024 * 1024;

type Handler<P> = (request: Request, parameters: P, person: Person) => Promise<Response>;
/** what the log says of a request beside itself */
interface Told {
  person?: string;
  job?: string;
}
type Route<P> = (request: Request, context: { params: Promise<P> }) => Promise<Response>;

/**
 * A route for who may do that: the one place where rights are asked for. A parameter `id` is that of a job.
 * @param query names that its address may have: any other one is a slip, and what it asks for would not be what was meant
 * @param isCostly a worker has to plan for it
 * @param ofBin also of a job that was deleted: to bring it back, or to take what a device did before it knew
 */
export function routeHandler<P>(
  right: Right,
  handler: Handler<P>,
  { ofBin = right === 'report', isCostly = false, query = [] as readonly string[] } = {},
): Route<P> {
  return handle(async (request, parameters: P, told) => {
    const person = await expectRight(request.headers, right).catch(async (error: unknown) => {
      await spend('address', toAddress(request.headers));
      throw error;
    });
    await spend('person', person.id);
    if (isCostly) await spend('costly', person.id);
    told.person = person.name;
    expectQuery(request, query);
    // a route without parameters has none
    const id = (parameters as { id?: string } | undefined)?.id;
    if (id !== undefined) {
      told.job = id;
      expectOwn(person, id);
      if (!ofBin) await expectKept(id);
    }
    return handler(request, parameters, person);
  });
}

function expectQuery(request: Request, names: readonly string[]): void {
  const { searchParams } = new URL(request.url);
  for (const name of searchParams.keys()) {
    const words = names.length === 0 ? 'none' : names.join(', ');
    if (!names.includes(name)) throw Refusal.at(400, name.slice(0, 80), `expected ${words} in the address, got another name`);
    if (searchParams.getAll(name).length > 1) throw Refusal.at(400, name, 'expected it once, got it again');
  }
}

/** A route for everybody, as the way in is. */
export const openHandler = <P>(handler: (request: Request, parameters: P) => Promise<Response>): Route<P> =>
  handle(async (request, parameters: P) => {
    await spend('address', toAddress(request.headers));
    return handler(request, parameters);
  });

/** Log a request, turn refusals into their status and problems, and anything else into a 500 that gives nothing away. */
function handle<P>(handler: (request: Request, parameters: P, told: Told) => Promise<Response>): Route<P> {
  return async (request, { params }) => {
    const started = performance.now();
    const id = randomUUID();
    const told: Told = {};
    let response: Response;
    let isLetIn = true;
    try {
      const barred = barData(request);
      isLetIn = barred === null;
      response = barred ?? (await handler(request, await params, told));
    } catch (error) {
      response = toErrorResponse(error);
      if (error instanceof Refusal && error.more.retryAfterS !== undefined)
        response.headers.set('retry-after', String(error.more.retryAfterS));
    }
    response.headers.set('x-request-id', id);
    for (const [name, value] of Object.entries(DATA_HEADERS)) response.headers.set(name, value);
    // what is said of a job or a shop is for who asked, now
    if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
    const ms = performance.now() - started;
    const { pathname } = new URL(request.url);
    // what was not let in may have any address, and must not make a line of its own for each
    measureRequest(isLetIn ? pathname : '/api', request.method, response.status, ms / 1000);
    log.info(
      {
        id,
        ...told,
        method: request.method,
        path: pathname,
        status: response.status,
        ms: Math.round(ms),
      },
      'request',
    );
    return response;
  };
}

/** codes of PostgreSQL: values that it cannot hold (class 22) */
const UNSTORABLE = /^22\w{3}$/;
/** no connection, being shut down or started, too many clients, out of memory or disk, a wait that took too long, a deadlock, read only */
const GONE = /^(ECONN\w+|EPIPE|ETIMEDOUT|ENOTFOUND|EAI_AGAIN|57P0\d|57014|08\w{3}|53\w{3}|55P03|40\w{3}|25006|58\w{3}|XX00[012])$/;

function toErrorResponse(error: unknown): Response {
  const { status, ...body } = toErrorAnswer(error);
  return Response.json(body, { status });
}

/** What lies under all that was wrapped round it: a library says what it was asked, which may be a secret, before it says why it failed. */
function findCause(error: unknown): unknown {
  let cause = error;
  for (let depth = 0; depth < 8 && cause instanceof Error && cause.cause instanceof Error; depth += 1) cause = cause.cause;
  return cause;
}

/** What a failure is answered with: a refusal as it stands, 503 where the database is away, else a 500 that gives nothing away. */
export function toErrorAnswer(error: unknown): { status: number; problems: Problem[] } & Record<string, unknown> {
  if (error instanceof Refusal) return { ...error.more, status: error.status, problems: error.problems };
  const cause = findCause(error);
  const code = typeof cause === 'object' && cause !== null && 'code' in cause ? String(cause.code) : '';
  const isGone = GONE.test(code) || (cause instanceof Error && /terminated|timeout exceeded|connection error/i.test(cause.message));
  if (UNSTORABLE.test(code)) {
    log.warn({ error: cause instanceof Error ? cause.message : String(cause), code }, 'refused by the database');
    return {
      status: 400,
      problems: [{ path: '', message: 'expected values that a database keeps, got one that it does not: nothing was stored' }],
    };
  }
  log.error(
    { error: cause instanceof Error ? cause.message : String(cause), code },
    isGone ? 'database not reachable' : 'unexpected error',
  );
  return isGone
    ? { status: 503, problems: [{ path: '', message: 'The database does not answer. Nothing was stored; try again.' }] }
    : { status: 500, problems: [{ path: '', message: 'Something went wrong here; nothing was stored.' }] };
}

/** The body as it came, refused past a size while it is still coming in. */
export async function readBytes(request: Request, mostBytes: number): Promise<Buffer> {
  const refuse = () => Refusal.at(413, '', `expected at most ${mostBytes / 1024 / 1024} MB, got more: nothing was stored`);
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw refuse();
  const reader = request.body?.getReader();
  if (!reader) return Buffer.alloc(0);
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > mostBytes) {
      await reader.cancel();
      throw refuse();
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks);
}

/** The body as text, of at most 8 MB. */
export async function readText(request: Request): Promise<string> {
  const bytes = await readBytes(request, MOST_BYTES);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw Refusal.at(400, '', 'expected UTF-8 text, got other bytes');
  }
}

/** The body as JSON; a broken one is refused with the line and column where it breaks. */
export async function readJson(request: Request): Promise<unknown> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\s*(;|$)/i.test(type))
    throw Refusal.at(415, '', `expected application/json, got ${JSON.stringify(type.slice(0, 60))}`);
  const { fromJsonText } = await import('wattograph-core');
  const parsed = fromJsonText(await readText(request));
  if (!parsed.ok) throw new Refusal(400, parsed.problems);
  return parsed.value;
}
