import { createHash, timingSafeEqual } from 'node:crypto';
import { readMetricsToken, writeMetrics } from '../../../server/metrics';
import { Refusal } from '../../../server/refusal';
import { openHandler } from '../../../server/routeHandler';

export const dynamic = 'force-dynamic';

const hash = (text: string) => createHash('sha256').update(text).digest();

/** Figures for who looks after the machine, with the token that the start was given; without one there are none. */
export const GET = openHandler(async (request) => {
  const token = readMetricsToken();
  if (token === null) throw Refusal.at(404, '', 'No figures are kept: start with WATTOGRAPH_METRICS_TOKEN.');
  const shown = /^Bearer (.+)$/.exec(request.headers.get('authorization') ?? '')?.[1] ?? '';
  if (!timingSafeEqual(hash(shown), hash(token))) throw Refusal.at(401, '', 'expected Authorization: Bearer with the token of the start');
  const { text, type } = await writeMetrics();
  return new Response(text, { headers: { 'content-type': type } });
});
