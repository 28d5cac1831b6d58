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
  return askWhole(path, body, options, readJson<T>);
}

/** Hand the server a file; JSON back. */
export async function requestStore<T>(path: string, file: Blob, by?: string): Promise<T> {
  const withinMs = DEAD_LINE_MS + file.size / SLOWEST_LINE;
  return ask(path, { method: 'POST', headers: toWho(by), body: file }, readJson<T>, withinMs);
}

/** Text that the server keeps gzipped; null where it has none. What the page asked for ahead is taken from there. */
export async function requestZipped(path: string, signal: AbortSignal): Promise<string | null> {
  return ask(path, { signal }, async ({ status, body }) =>
    status === 200 && body ? new Response(body.pipeThrough(new DecompressionStream('gzip'))).text() : null,
  );
}

/** A file that the server makes, with the name it gives it. */
export async function requestFile(path: string, options: Options = {}): Promise<{ blob: Blob; name: string }> {
  return askWhole(path, undefined, options, async (response) => {
    const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
    return { blob: await response.blob(), name };
  });
}

type Read<T> = (response: Response) => Promise<T>;

/** An answer that says that it has no body is null; one that is cut off, or no JSON, throws. */
const readJson = async <T>(response: Response): Promise<T> => (response.status === 204 ? null : await response.json()) as T;

async function askWhole<T>(path: string, body: unknown, options: Options, read: Read<T>): Promise<T> {
  const { onProgress, signal, method, by, withinMs } = options;
  const headers = { ...PREFER, ...toWho(by) };
  // a worker that is at it says how far it is; anything else is the answer
  const readOrWait = async (response: Response) =>
    response.status === 202
      ? { waiting: await readJson<Progress & { task: string }>(response) }
      : { waiting: null, answer: await read(response) };
  const init: RequestInit =
    body === undefined
      ? { method: method ?? 'GET', cache: 'no-store', headers, signal }
      : { method: method ?? 'POST', headers: { 'content-type': 'application/json', ...headers }, body: JSON.stringify(body), signal };
  let heard = await ask(path, init, readOrWait, withinMs);
  while (heard.waiting) {
    const { task, ...progress } = heard.waiting;
    onProgress?.(progress);
    try {
      heard = await ask(`/api/tasks/${task}`, { cache: 'no-store', headers: PREFER, signal }, readOrWait, withinMs);
    } catch (error) {
      if (signal?.aborted) void fetch(toUrl(`/api/tasks/${task}`), { method: 'DELETE', keepalive: true }).catch(() => {});
      throw error;
    }
  }
  return heard.answer;
}

/** What a server that does not answer says, and one whose answer is cut off on its way: what it did is not known. */
const noAnswer = () =>
  new RequestError(0, [{ path: '', message: 'The server does not answer. What you did is kept here and sent when it does.' }], {});

/** read: what is made of a good answer, within the same time. */
async function ask<T>(path: string, init: RequestInit, read: Read<T>, withinMs?: number): Promise<T> {
  const dead = new AbortController();
  init.signal?.addEventListener('abort', () => dead.abort(), { once: true });
  const timer = withinMs === undefined ? undefined : setTimeout(() => dead.abort(), withinMs);
  try {
    const response = await fetch(toUrl(path), timer === undefined ? init : { ...init, signal: dead.signal });
    if (response.ok) return await read(response);
    throw toRefusal(response.status, await response.json().catch(() => null));
  } catch (error) {
    throw error instanceof RequestError ? error : noAnswer();
  } finally {
    clearTimeout(timer);
  }
}

function toRefusal(status: number, answer: unknown): RequestError {
  const record = (typeof answer === 'object' && answer !== null ? answer : {}) as Record<string, unknown>;
  const problems = Array.isArray(record.problems)
    ? (record.problems as Problem[])
    : [{ path: '', message: `The server answered ${status}.` }];
  return new RequestError(status, problems, record);
}
