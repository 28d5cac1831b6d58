import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { plan } from '../../plan';
import { createBench } from '../../testing/createBench';
import { drawStrip } from '../drawStrip';
import { layoutStrip } from './layoutStrip';
import { listFolded } from './listFolded';

const job = createCleanSkerry();
const chassis = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
const bench = plan(createBench(), CATALOGUE).looms[0]!;

test('many wires fold every branch but the trunk; few fold none; what the reader chose goes before', () => {
  expect(listFolded(bench)).toEqual(new Set());
  const folded = listFolded(chassis);
  const branches = Object.values(chassis.tree.nodes)
    .filter(({ parentSegmentId }) => parentSegmentId !== null)
    .flatMap(({ childSegmentIds }) => childSegmentIds.slice(1));
  expect(folded).toEqual(new Set(branches));
  const [first] = branches;
  expect(listFolded(chassis, { [first!]: false }).has(first!)).toBe(false);
});
test('on paper a folded branch is one line with its count, and the strip stays on the sheet', () => {
  const drawing = drawStrip(job.looms.chassis!, chassis, 180);
  const { folds } = layoutStrip(job.looms.chassis!, chassis, {
    scale: 0.05,
    pitch: 0.7,
    row: 5,
    left: 9,
    top: 9,
    folded: listFolded(chassis),
  });
  const counts = folds.filter((one) => one.folded).map(({ count }) => String(count));
  expect(counts.length).toBeGreaterThan(10);
  const words = drawing.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  for (const count of counts) expect(words).toContain(count);
  expect(drawing.heightMm).toBeLessThan(240);
});
