import type { Problem } from 'wattograph-core';
import { toUrl } from './base';

/** What the server said no to, or that it did not answer (status 0). */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    readonly body: Record<string, unknown>,
  ) {
    super(problems.map(({ path, message }) => (path ? `${path}: ${message}` : message)).join('\n'));
  }

  /** Is it worth trying again as it is? */
  get isPassing(): boolean {
    // 401: whoever made it is not signed in here; it is kept until they are
    return (
      this.status === 0 || this.status === 401 || this.status === 408 || this.status === 425 || this.status === 429 || this.status >= 500
    );
  }
}

/** How far a worker is with what was asked for. */
export interface Progress {
  done: number;
  of: number;
}

interface Options {
  onProgress?: (progress: Progress) => void;
  method?: 'POST' | 'DELETE';
  /** id of who did it, where somebody else may be signed in here by now */
  by?: string;
  /** gives up, and takes back what a worker has not begun or not ended */
  signal?: AbortSignal;
  /** no answer for so long counts as none; for what is sent again with the same id, and counts once */
  withinMs?: number;
}

const toWho = (by: string | undefined): Record<string, string> => (by ? { 'x-person': by } : {});

/** How long a device waits on a line that has gone dead without saying so: far longer than any answer takes, far shorter than a browser waits. */
export const DEAD_LINE_MS = 15_000;
/** the slowest line that a photo still gets through on, bytes in a millisecond */
const SLOWEST_LINE = 8;

/** How long an answer is waited for before the server says how far it is. */
const PREFER = { prefer: 'wait=1' };

/** Ask the server; JSON both ways. What a worker is at is waited for. Throws RequestError with the problems it named. */
export async function request<T>(path: string, body?: unknown, options: Options = {}): Promise<T> {
  return (await (await askWhole(path, body, options)).json().catch(() => null)) as T;
}

/** Hand the server a file; JSON back. */
export async function requestStore<T>(path: string, file: Blob, by?: string): Promise<T> {
  const withinMs = DEAD_LINE_MS + file.size / SLOWEST_LINE;
  return (await (await ask(path, { method: 'POST', headers: toWho(by), body: file }, withinMs)).json().catch(() => null)) as T;
}

/** Text that the server keeps gzipped; null where it has none. What the page asked for ahead is taken from there. */
export async function requestZipped(path: string, signal: AbortSignal): Promise<string | null> {
  const { status, body } = await ask(path, { signal });
  return status === 200 && body ? new Response(body.pipeThrough(new DecompressionStream('gzip'))).text() : null;
}

/** A file that the server makes, with the name it gives it. */
export async function requestFile(path: string, options: Options = {}): Promise<{ blob: Blob; name: string }> {
  const response = await askWhole(path, undefined, options);
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
  return { blob: await response.blob(), name };
}

async function askWhole(path: string, body: unknown, { onProgress, signal, method, by, withinMs }: Options): Promise<Response> {
  const headers = { ...PREFER, ...toWho(by) };
  let response = await ask(
    path,
    body === undefined
      ? { method: method ?? 'GET', cache: 'no-store', headers, signal }
      : { method: method ?? 'POST', headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body), signal },
    withinMs,
  );
  while (response.status === 202) {
    const { task, ...progress } = (await response.json()) as Progress & { task: string };
    onProgress?.(progress);
    try {
      response = await ask(`/api/tasks/${task}`, { cache: 'no-store', headers: PREFER, signal }, withinMs);
    } catch (error) {
      if (signal?.aborted) void fetch(toUrl(`/api/tasks/${task}`), { method: 'DELETE', keepalive: true }).catch(() => {});
      throw error;
    }
  }
  return response;
}

async function ask(path: string, init: RequestInit, withinMs?: number): Promise<Response> {
  const dead = new AbortController();
  init.signal?.addEventListener('abort', () => dead.abort(), { once: true });
  const timer = withinMs === undefined ? undefined : setTimeout(() => dead.abort(), withinMs);
  let response: Response;
  try {
    response = await fetch(toUrl(path), timer === undefined ? init : { ...init, signal: dead.signal });
  } catch {
    throw new RequestError(0, [{ path: '', message: 'The server does not answer. What you did is kept here and sent when it does.' }], {});
  } finally {
    clearTimeout(timer);
  }
  if (response.ok) return response;
  const answer: unknown = await response.json().catch(() => null);
  const record = (typeof answer === 'object' && answer !== null ? answer : {}) as Record<string, unknown>;
  const problems = Array.isArray(record.problems)
    ? (record.problems as Problem[])
    : [{ path: '', message: `The server answered ${response.status}.` }];
  throw new RequestError(response.status, problems, record);
}
