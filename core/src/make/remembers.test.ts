import { CATALOGUE } from '../catalogue';
import { createSkerry } from '../demo';
import { moveBreakout } from '../edit';
import { editDocument, type Job, type Loom } from '../model';
import { createPlanner, plan, type LoomPlan } from '../plan';
import { runs } from '../testing/runs';
import { createRandom } from '../units';
import { createInspector, listFindings } from './createInspector';

const DAY = '2026-11-30';

/** One edit of a kind that something remembered hangs on. */
function editOnce(draft: Job, looms: readonly LoomPlan[], random: () => number): string {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const { loomId, tree } = pick(looms);
  const loom: Loom = draft.looms[loomId]!;
  const segment = pick(Object.values(loom.segments));
  const end = pick(Object.values(loom.ends));
  const node = pick(Object.values(loom.nodes));
  const circuit = pick(Object.values(loom.circuits));
  const handle = pick(tree.nodeIds);
  const edits: Record<string, () => unknown> = {
    length: () => (segment.lengthMm += 1 + Math.floor(random() * 60)),
    nudge: () => moveBreakout(loom, tree, handle, random() < 0.5 ? 1 : -1),
    nudgeFar: () => moveBreakout(loom, tree, handle, 25),
    fitted: () => (segment.fittedMm = segment.fittedMm === null ? segment.lengthMm + 3 : null),
    zone: () => (segment.zoneId = pick([...Object.keys(draft.zones), null])),
    ticks: () => (segment.ticks = pick([[], ['hot'], ['wet', 'moving']])),
    slide: () => (segment.slideOn = segment.slideOn === 'before-ends' ? 'after-ends' : 'before-ends'),
    covering: () => (segment.coveringPin = pick([null, { kind: 'braid', itemId: null, reason: 'to see' }])),
    name: () => (end.name = `${end.name.slice(0, 20)}x`),
    boot: () => (end.bootPin = end.bootPin ? null : { itemId: null, reason: 'to see' }),
    loop: () => (end.serviceLoopMm = pick([0, 15, 40])),
    hole: () => (node.holeMm = pick([null, 30, 60])),
    onward: () => (node.onwardSegmentId = pick([null, ...Object.keys(loom.segments)])),
    colour: () => (circuit.colour = { base: pick(['red', 'black', 'blue']), stripe: null, bands: [] }),
    size: () => (circuit.sizePin = pick([null, { size: '16', reason: 'to see' }])),
    number: () => (circuit.number = pick(Object.values(loom.circuits)).number),
    prefix: () => (loom.prefix = pick(['Q', 'R', 'S'])),
    dressing: () => (loom.dressing = pick([null, 'sleeves'])),
    clamped: () => (loom.clampedBy = pick([null, 'Tobin'])),
    reterminations: () => (end.reterminations = pick([null, 0, 3])),
    method: () => (segment.method = pick(['tape', 'estimate'])),
    status: () => (segment.status = pick(['guessed', 'roped'])),
  };
  const kind = pick(Object.keys(edits));
  edits[kind]!();
  return kind;
}

test.each(Array.from({ length: runs(1, 12) }, (_, at) => at + 1))(
  'a planner and an inspector that remember say the same as new ones, edit after edit (seed %s)',
  (seed) => {
    const random = createRandom(seed);
    const [planner, inspect] = [createPlanner(CATALOGUE), createInspector(CATALOGUE)];
    let job = createSkerry();
    let { looms } = planner(job);
    const kinds = new Set<string>();
    for (let round = 0; round < 20; round += 1) {
      job = editDocument(job, (draft) => void kinds.add(editOnce(draft, looms, random))).next;
      const known = planner(job);
      const anew = plan(job, CATALOGUE);
      expect({ seed, round, kinds: [...kinds], plan: JSON.stringify(known) === JSON.stringify(anew) }).toMatchObject({ plan: true });
      expect(inspect(job, known, DAY)).toEqual(listFindings(job, anew, CATALOGUE, DAY));
      looms = known.looms;
    }
    expect(kinds.size).toBeGreaterThan(6);
  },
);
