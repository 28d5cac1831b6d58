/** Work that a request hands to a worker. */
export type TaskKind = 'release' | 'freeze' | 'pages' | 'board' | 'pdf' | 'dxf' | 'list' | 'shopPreview' | 'bringUp' | 'import';

/** What a task is given beside its input. */
export interface TaskContext {
  /** Say how far it is; throws where nobody waits for it any more. */
  report(done: number, of: number): Promise<void>;
}

/** What a worker gives back, as the request will answer it. */
export interface Answer {
  status: number;
  type: string;
  /** name of a file to save it as; null: it is shown */
  name: string | null;
  body: Buffer;
}

/** A task that was taken back by who asked for it. */
export class Cancelled extends Error {}

export const toJsonAnswer = (value: unknown, status = 200): Answer => ({
  status,
  type: 'application/json',
  name: null,
  body: Buffer.from(JSON.stringify(value)),
});
