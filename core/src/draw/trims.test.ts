import { CATALOGUE } from '../catalogue';
import { createInlet, createSkerry } from '../demo';
import { createBuild, listFindings } from '../make';
import type { Job } from '../model';
import { plan } from '../plan';
import { createSheets, layoutStrip, SCREEN_DETAILS, toSvg } from './index';

function sheetsOf(job: Job, loomId: string) {
  const whole = plan(job, CATALOGUE);
  const loom = whole.looms.find((one) => one.loomId === loomId)!;
  return createSheets(
    {
      job,
      whole,
      plan: loom,
      build: createBuild(job, loom, CATALOGUE),
      findings: listFindings(job, whole, CATALOGUE, null),
      catalogue: CATALOGUE,
    },
    {
      paper: 'A4',
      job: job.name,
      loom: loomId,
      revision: 'draft',
      date: '2026-11-25',
    },
  );
}
const textOf = (job: Job, loomId: string, sheet: string) =>
  sheetsOf(job, loomId)
    .filter((page) => page.sheet === sheet)
    .map(toSvg)
    .join('\n');

test('there is no trim sheet before anything is fitted', () => expect(textOf(createInlet(), 'inlet', 'Trim')).toBe(''));

test('the trim sheet names each end, what comes off, what still waits and what is too short', () => {
  const job = createInlet();
  const fit = (id: string, byMm: number) => {
    const segment = job.looms.inlet!.segments[id]!;
    job.looms.inlet!.segments[id] = { ...segment, status: 'fitted', fittedMm: segment.lengthMm + byMm };
  };
  fit('t2', 0);
  fit('s-inj1', -6);
  fit('s-inj2', 120);
  const sheet = textOf(job, 'inlet', 'Trim');
  expect(sheet).toContain('injector 1');
  expect(sheet).toContain('N-203');
  expect(sheet).toContain('TOO SHORT: cut it again');
  expect(sheet).toContain('not final: throttle body');
});

test('the planner’s sheet of lengths names every term of a cut length', () => {
  const { addends, number } = plan(createInlet(), CATALOGUE).looms[0]!.wires[0]!;
  const sheet = textOf(createInlet(), 'inlet', 'What each length is made of').replaceAll('\n', ' ');
  expect(sheet).toContain(number);
  for (const { mm, words } of addends) expect(sheet).toContain(`${mm.toFixed(1)} ${words}`);
});

test('what holds a wire is said with it, once for all it holds', () => {
  expect(textOf(createInlet(), 'inlet', 'Loom')).toContain('HELD from cutting: N-222, N-223 (length to knock sensor only guessed).');
});

test('findings of the job as a whole print in the pack of every loom', () => {
  const job = createSkerry();
  job.anchors.battery = { ...job.anchors.battery!, state: 'open', nodes: [] };
  for (const loomId of ['engine', 'inlet']) expect(textOf(job, loomId, 'Loom')).toContain('battery is open');
});

const ROUTE = { row: 20, left: 0, top: 0, text: 14, sides: null, detail: SCREEN_DETAILS[0]! };

test('a loom that has a route and no wires yet is laid out with every end at its distance', () => {
  const job = createSkerry();
  job.looms.engine!.circuits = {};
  const loom = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
  const layout = layoutStrip(job.looms.engine!, loom, { ...ROUTE, scale: 1 });
  expect(layout.listTraces()).toEqual([]);
  expect(layout.runs.every(({ count }) => count === 0)).toBe(true);
  for (const { nodeId, x } of layout.ends) expect(x).toBeCloseTo(loom.tree.nodes[nodeId]!.distanceMm, 6);
});
