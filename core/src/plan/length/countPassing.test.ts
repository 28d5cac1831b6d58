import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { createPlanner } from '../plan';
import { countPassing } from './countPassing';

const planner = createPlanner(CATALOGUE);

test('what passes an anchor is what is held from cutting while it is open', () => {
  const job = createSkerry();
  const nodes = ['chassis', 'engine'].flatMap((loomId) => Object.keys(job.looms[loomId]!.nodes).map((nodeId) => ({ loomId, nodeId })));
  for (const at of nodes.filter((_, index) => index % 7 === 0)) {
    const anchor = { name: 'rack', by: 'Jun Okafor', place: '', state: 'open' as const, nodes: [at, { loomId: 'gone', nodeId: 'gone' }] };
    const open = { ...job, anchors: { only: anchor } };
    const { looms } = planner(open);
    const held = looms.flatMap(({ wires }) => wires).filter(({ heldBy }) => heldBy.some(({ kind }) => kind === 'anchor'));
    expect([at.nodeId, countPassing(open, looms, anchor)]).toEqual([at.nodeId, held.length]);
  }
});

test('at no place nothing passes', () => {
  const job = createSkerry();
  expect(countPassing(job, planner(job).looms, { nodes: [] })).toBe(0);
});
