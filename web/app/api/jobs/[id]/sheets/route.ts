import { readWanted } from '../../../../../server/buildPacks';
import { toJobId } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';
import { answerByTask } from '../../../../../server/work/tasks';

/** The build pack: pages as SVG in JSON, with ?format=pdf one PDF, with ?format=dxf a DXF of all or of one ?sheet=. ?loom= ?paper= ?release= choose what, ?since= the pages that say something else than those of a revision, ?post= those of a post, ?address= where the codes on them lead. */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const query = new URL(request.url).searchParams;
    const { key, wanted } = await readWanted(toJobId(id), query);
    return answerByTask(request, toKind(query.get('format')), key, wanted);
  },
  { isCostly: true, query: ['address', 'format', 'loom', 'paper', 'post', 'release', 'sheet', 'since'] },
);

const toKind = (format: string | null) => (format === 'pdf' || format === 'dxf' ? format : 'pages');
