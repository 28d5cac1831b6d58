import { toCutListCsv, toJobFile, toWireListCsv } from 'wattograph-core';
import { readLoom, readSource, toFileName } from '../../../../../server/packs';
import { Refusal } from '../../../../../server/refusal';
import { toJobId } from '../../../../../server/requests';
import { respond } from '../../../../../server/respond';
import { readShopOf } from '../../../../../server/shop';

/** The job as a file: ?what=job (JSON), wires or cuts (CSV). */
export const GET = respond<{ id: string }>(async (request, { id }) => {
  const query = new URL(request.url).searchParams;
  const what = query.get('what') ?? 'job';
  const source = await readSource(toJobId(id), query.get('release'));
  const { job, revision } = source;
  const send = (body: string, type: string, extension: string, part: string) =>
    new Response(body, {
      headers: {
        'content-type': `${type}; charset=utf-8`,
        'content-disposition': `attachment; filename="${toFileName(job.name, part, revision)}.${extension}"`,
      },
    });
  if (what === 'job')
    return send(`${JSON.stringify(toJobFile(job, (await readShopOf(job)).shop), null, 2)}\n`, 'application/json', 'json', '');
  const { plan, build } = await readLoom(source, query.get('loom'));
  if (what === 'wires') return send(toWireListCsv(job, plan), 'text/csv', 'csv', `${plan.loomId} wires`);
  if (what === 'cuts') return send(toCutListCsv(build), 'text/csv', 'csv', `${plan.loomId} cuts`);
  throw Refusal.at(400, 'what', `expected job, wires or cuts, got ${JSON.stringify(what)}`);
});
