import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { listCavities } from '../../model';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import { listEndCheck } from './listEndCheck';

const job = createSkerry();
const { looms } = plan(job, CATALOGUE);
const FAMILIES = { ...CATALOGUE.families, ...job.families };
const seats = looms.flatMap((loom) =>
  createBuild(job, loom, CATALOGUE)
    .steps.filter(({ operation }) => operation === 'seat')
    .map((step) => ({ loom, step, ends: job.looms[loom.loomId]!.ends })),
);
const named = (lines: readonly string[], head: string) =>
  lines.flatMap((line) => (line.startsWith(`${head}: `) ? line.slice(head.length + 2, -1).split(', ') : []));

test('of every housing of the demo each cavity is full, plugged or open, as it was planned', () => {
  expect(seats.length).toBeGreaterThan(50);
  for (const { loom, step, ends } of seats) {
    const { familyId } = ends[step.endId!]!;
    const lines = listEndCheck(step, loom, { ends }, FAMILIES);
    const full = loom.terminations.filter(({ endId }) => endId === step.endId).map(({ cavity }) => cavity);
    const plugged = named(lines, 'Empty, to be plugged');
    const open = named(lines, 'Empty and open');
    expect([...full, ...plugged, ...open].sort()).toEqual([...listCavities(FAMILIES[familyId!]!)].sort());
    expect(plugged.sort()).toEqual(loom.plugs.flatMap(({ endId, cavity }) => (endId === step.endId ? [cavity] : [])).sort());
    expect(lines.includes('No cavity is empty.')).toBe(plugged.length + open.length === 0);
  }
});

test('nothing is asked where nothing is seated, or nobody knows the housing', () => {
  const { loom, step, ends } = seats[0]!;
  expect(listEndCheck({ ...step, operation: 'crimp' }, loom, { ends }, FAMILIES)).toEqual([]);
  expect(listEndCheck(step, loom, { ends }, {})).toEqual([]);
});
