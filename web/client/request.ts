import type { Problem } from 'wattograph-core';

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
    return this.status === 0 || this.status === 503;
  }
}

/** Ask the server; JSON both ways. Throws RequestError with the problems it named. */
export async function request<T>(path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(
      path,
      body === undefined
        ? { cache: 'no-store' }
        : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
    );
  } catch {
    throw new RequestError(0, [{ path: '', message: 'The server does not answer. What you did is kept here and sent when it does.' }], {});
  }
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  const record = (typeof answer === 'object' && answer !== null ? answer : {}) as Record<string, unknown>;
  const problems = Array.isArray(record.problems)
    ? (record.problems as Problem[])
    : [{ path: '', message: `The server answered ${response.status}.` }];
  throw new RequestError(response.status, problems, record);
}
