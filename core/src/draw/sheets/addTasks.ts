import { HAZARD_CAUTIONS, toPlaceWords } from '../../make';
import { listTaskPlaces, TASK_BEFORE_WORDS, type Task, type TaskKind } from '../../model';
import { compareIds } from '../../units';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const HEADS = { fabricate: 'To be made', visit: 'Visits', yes: 'Asked of the customer' } satisfies Record<TaskKind, string>;
const TASKS: Column[] = [
  { title: '', share: 0.4 },
  { title: 'what', share: 5, face: 'narrow-bold', isBig: true },
  { title: 'where', share: 3 },
  { title: 'for', share: 2.6 },
  { title: 'before', share: 1.6 },
  { title: 'who', share: 1.8 },
  { title: 'by', share: 2.1, face: 'mono' },
  { title: 'min', share: 0.8, align: 'end', face: 'mono' },
];

/** What has to be made or agreed before the work on this loom goes on (craft D7, I7), by the day it is needed. */
export function addTasks({ job, loom, plan, flow }: SheetContext): void {
  const here = Object.keys(job.tasks)
    .sort(compareIds)
    .map((id) => ({ id, task: job.tasks[id]!, places: listTaskPlaces(job.tasks[id]!, plan.loomId) }))
    .filter(({ places }) => places.length > 0)
    .sort((a, b) => compareIds(a.task.due ?? '9', b.task.due ?? '9'));
  if (here.length === 0) return;
  flow.sheet(
    'Made and agreed',
    'vehicle',
    'Battery negative off before anything is made on the car. What is made here is in its place before the work that it names; local codes and who is qualified come first.',
  );
  for (const [kind, head] of Object.entries(HEADS)) {
    const rows = here.filter(({ task }) => task.kind === kind);
    if (rows.length === 0) continue;
    flow.heading(head, 30, {
      id: `step task.${rows[0]!.id}`,
      here: drawSchematic(
        plan.tree,
        toHere(
          rows.flatMap(({ places }) => places),
          loom,
        ),
        SMALL_SCHEMATIC,
      ),
    });
    flow.table(
      TASKS,
      rows.map(({ task, places }): Cell[] => [
        { tick: true },
        task.what,
        task.where || '–',
        places.map((place) => toPlaceWords(loom, place)).join(', '),
        TASK_BEFORE_WORDS[task.before],
        task.owner || 'nobody yet',
        task.due ?? 'no day',
        String(task.minutes),
      ]),
    );
    for (const caution of listCautions(rows.map(({ task }) => task))) flow.paragraph(caution, 'narrow-bold');
  }
}

const listCautions = (tasks: readonly Task[]) => [...new Set(tasks.flatMap(({ hazards }) => hazards))].map((one) => HAZARD_CAUTIONS[one]);

/** Places as the schematic lights them; a task for all of a loom lights nothing. */
const toHere = (places: ReturnType<typeof listTaskPlaces>, { ends }: SheetContext['loom']) => ({
  nodeIds: places.flatMap(({ kind, id }) => (kind === 'end' && ends[id] ? [ends[id].nodeId] : [])),
  segmentIds: places.flatMap(({ kind, id }) => (kind === 'segment' ? [id] : [])),
});
