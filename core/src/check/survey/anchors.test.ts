import { CATALOGUE } from '../../catalogue';
import { listFindings } from '../../make';
import type { Job } from '../../model';
import { plan } from '../../plan';
import { createBench } from '../../testing/createBench';

const findings = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null);

test('SC7: nothing is cut before the anchors are fixed; one that is not part of the job does not count', () => {
  const job = createBench();
  job.anchors = {
    a: { name: 'battery', place: '', nodes: [], state: 'open', by: '' },
    b: { name: 'main plug', place: 'left', nodes: [], state: 'fixed', by: 'x' },
    c: { name: 'power box', place: '', nodes: [], state: 'not-here', by: 'x' },
  };
  expect(findings(job)).toEqual([
    expect.objectContaining({ code: 'SC7', grade: 'stop', sentence: 'Nothing is cut before the anchors are fixed: battery is open.' }),
  ]);
});
test('SC7: an open anchor that has a place holds what passes it; one whose place is gone holds all, as one that never had any', () => {
  const job = createBench();
  const nodes = [{ loomId: 'bench', nodeId: 'n1' }];
  job.anchors = { a: { name: 'battery', place: '', nodes, state: 'open', by: '' } };
  expect(findings(job)).toEqual([
    expect.objectContaining({
      ...{ code: 'SC7', grade: 'stop', loomId: 'bench', measured: 2 },
      sentence: 'The place of the battery is open: 2 wires of bench are held from cutting. The other 3 do not pass it.',
    }),
  ]);
  job.anchors.a!.nodes = [{ loomId: 'bench', nodeId: 'gone' }];
  expect(findings(job).map(({ loomId, sentence }) => [loomId, sentence])).toEqual([
    ['', 'Nothing is cut before the anchors are fixed: battery is open.'],
  ]);
});
