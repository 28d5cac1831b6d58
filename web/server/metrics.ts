import { sql } from 'drizzle-orm';
import type { Gauge, Histogram, Registry } from 'prom-client';
import { database, findPool } from './database';

interface Metrics {
  registry: Registry;
  requests: Histogram;
  queued: Gauge;
}

const BUCKETS_S = [0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10, 30];
const holder = globalThis as typeof globalThis & { wattographMetrics?: Promise<Metrics>; wattographStreams?: Set<unknown> };

/** The token that whoever reads the figures shows; null: nobody reads them, and none are kept. */
export const readMetricsToken = (): string | null => process.env.WATTOGRAPH_METRICS_TOKEN || null;

/** Figures of this process. The library is loaded where somebody reads them. */
const findMetrics = (): Promise<Metrics> => (holder.wattographMetrics ??= create());

async function create(): Promise<Metrics> {
  const { collectDefaultMetrics, Gauge, Histogram, Registry } = await import('prom-client');
  const registry = new Registry();
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  new Gauge({
    ...{ name: 'wattograph_database_connections', help: 'connections to the database, by what they do', labelNames: ['state'], registers },
    collect() {
      const { totalCount, idleCount, waitingCount } = findPool();
      this.set({ state: 'busy' }, totalCount - idleCount);
      this.set({ state: 'idle' }, idleCount);
      this.set({ state: 'waited for' }, waitingCount);
    },
  });
  new Gauge({
    ...{ name: 'wattograph_streams', help: 'open streams of news', registers },
    collect() {
      this.set(holder.wattographStreams?.size ?? 0);
    },
  });
  return {
    registry,
    requests: new Histogram({
      ...{ name: 'wattograph_request_seconds', help: 'requests, s', labelNames: ['route', 'method', 'status'], registers },
      buckets: BUCKETS_S,
    }),
    queued: new Gauge({
      name: 'wattograph_queued',
      help: 'work that workers have not done yet',
      labelNames: ['queue', 'state'],
      registers,
    }),
  };
}

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/gi;

/** The route of an address: ids and numbers in it say nothing about it. */
export const toRoute = (path: string): string => path.replace(UUID, '[id]').replace(/\/\d+(?=\/|$)/g, '/[n]');

/** Keep how long a request took, where somebody reads it. A path that is no route must not make a line of its own. */
export function measureRequest(path: string, method: string, status: number, seconds: number): void {
  if (readMetricsToken() === null) return;
  const labels = { route: status === 404 ? 'none' : toRoute(path), method, status: String(status) };
  void findMetrics().then(({ requests }) => requests.observe(labels, seconds));
}

/** The figures as Prometheus reads them (text format 0.0.4). */
export async function writeMetrics(): Promise<{ text: string; type: string }> {
  const { registry, queued } = await findMetrics();
  const { rows } = await database().execute<{ name: string; state: string; count: number }>(
    sql`select name, state::text, count(*)::int as count from pgboss.job where state in ('created', 'retry', 'active', 'failed') group by 1, 2`,
  );
  queued.reset();
  for (const { name, state, count } of rows) queued.set({ queue: name, state }, count);
  return { text: await registry.metrics(), type: registry.contentType };
}
