import type { Loom } from '../../model';
import { toPost } from '../steps/listCardSteps';
import type { Step } from '../step';

/**
 * The lane that a step is in: what one person takes at a time (craft D1). An end, a run, or, where the work is of neither, the post that it
 * is done at: "end inj1", "run s-inj1", "post cut". null: no lane, as work that is to be undone.
 */
export function toLane({ operation, endId, segmentId }: Pick<Step, 'operation' | 'endId' | 'segmentId'>): string | null {
  if (endId !== null) return `end ${endId}`;
  if (segmentId !== null) return `run ${segmentId}`;
  const post = toPost(operation);
  return post === null ? null : `post ${post}`;
}

/** Every lane of a loom, in the order in which its work begins. */
export const listLanes = (steps: readonly Step[]): string[] => [
  ...new Set(steps.map(toLane).filter((lane): lane is string => lane !== null)),
];

/** Kind of a lane, and what it is about. */
export function readLane(lane: string): { kind: string; id: string } {
  const space = lane.indexOf(' ');
  return { kind: lane.slice(0, space), id: lane.slice(space + 1) };
}

/** What an end or a run is called; a post by its id, whose words are the pack's. */
export function toLaneName(lane: string, { ends, segments, nodes }: Pick<Loom, 'ends' | 'segments' | 'nodes'>): string {
  const { kind, id } = readLane(lane);
  if (kind === 'end') return ends[id]?.name ?? id;
  const run = kind === 'run' ? segments[id] : undefined;
  return run ? `${nodes[run.fromNodeId]!.name} to ${nodes[run.toNodeId]!.name}` : id;
}

/**
 * Lanes that get in the way of one another now (craft D1): what is left of one waits for what is left of the other and both are at an end
 * or on a run, as a leg that is covered while its end is made. By lane.
 */
export function listTouching(steps: readonly Step[], isDone: (stepId: string) => boolean): Map<string, Set<string>> {
  const lanes = new Map(steps.filter(({ id }) => !isDone(id)).map((step) => [step.id, toLane(step)]));
  const touching = new Map<string, Set<string>>();
  const isOfLoom = (lane: string | null | undefined): lane is string => typeof lane === 'string' && !lane.startsWith('post ');
  const add = (a: string, b: string) => touching.set(a, (touching.get(a) ?? new Set<string>()).add(b));
  for (const { id, needs } of steps) {
    const here = lanes.get(id);
    if (!isOfLoom(here)) continue;
    for (const { stepId } of needs) {
      const there = lanes.get(stepId);
      if (!isOfLoom(there) || there === here) continue;
      add(here, there);
      add(there, here);
    }
  }
  return touching;
}
