import { toJobFile } from 'wattograph-core';
import { readSource, readWanted, toFileName } from '../../../../../server/buildPacks';
import { Refusal } from '../../../../../server/refusal';
import { toJobId } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';
import { readShopOf } from '../../../../../server/shop';
import { answerByTask } from '../../../../../server/work/tasks';

const LISTS = ['wires', 'cuts', 'parts', 'labels', 'lists', 'build'];

/** The job as a file: ?what=job (JSON); of a loom wires, cuts, parts or labels (CSV), lists (all of them, XLSX), build (JSON). */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const jobId = toJobId(id);
    const query = new URL(request.url).searchParams;
    const what = query.get('what') ?? 'job';
    if (LISTS.includes(what)) {
      const { key, wanted } = await readWanted(jobId, query);
      return answerByTask(request, 'list', key, wanted);
    }
    if (what !== 'job') throw Refusal.at(400, 'what', `expected job, ${LISTS.join(', ')}, got ${JSON.stringify(what)}`);
    const { job, revision } = await readSource(jobId, query.get('release') || null);
    return new Response(`${JSON.stringify(toJobFile(job, (await readShopOf(job)).shop), null, 2)}\n`, {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="${toFileName(job.name, '', revision)}.json"`,
      },
    });
  },
  { isCostly: true, query: ['what', 'loom', 'paper', 'release'] },
);
