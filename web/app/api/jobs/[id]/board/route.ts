import { readWantedBoard } from '../../../../../server/boards';
import { toJobId } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';
import { answerByTask } from '../../../../../server/work/tasks';

/** A loom on its board: ?what=pages (PDF, ?pages=7-8 some of them), plank (PDF: its trunk as one line with stations) or whole (?format=pdf, svg, dxf, csv of the pegs, json); ?loom= which; ?address= where the codes of its ends lead. */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const { key, wanted } = await readWantedBoard(toJobId(id), new URL(request.url).searchParams);
    return answerByTask(request, 'board', key, wanted);
  },
  { isCostly: true, query: ['what', 'format', 'loom', 'pages', 'address'] },
);
