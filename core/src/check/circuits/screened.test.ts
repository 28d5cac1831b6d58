import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { listFindings } from '../../make';
import { applyEdit, type Job } from '../../model';
import { plan } from '../../plan';

const find = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'CI18');
/** Circuits of the demo that lie in a screened cable, taken out of it. */
const bare = (twist: boolean): Job => {
  const job = createCleanSkerry();
  for (const circuit of Object.values(job.looms.inlet!.circuits)) {
    if (circuit.cable) circuit.cable = null;
    if (!twist) circuit.twist = null;
  }
  return job;
};

describe('CI18: what a pin wants around its wire', () => {
  test('the clean demo lays its knock pair in a screened cable', () => {
    const cabled = Object.values(createCleanSkerry().looms.inlet!.circuits).filter(({ cable }) => cable);
    expect(cabled.map(({ name }) => name).join()).toContain('knock');
    expect(find(createCleanSkerry())).toEqual([]);
  });
  test('a twisted pair is no screen: a stop, once for the pair', () => {
    const found = find(bare(true));
    expect(found).toHaveLength(1);
    expect(found[0]!.grade).toBe('stop');
    expect(found[0]!.sentence).toMatch(/knock.* wants a screened cable; in .* it lies on plain wire\.$/);
  });
  test.each([true, false])('the fix lays both in one screened cable of their own insulation and size; twisted before: %s', (twist) => {
    const job = bare(twist);
    const screened = find(job).filter(({ sentence }) => sentence.includes('screened cable'));
    const mended = applyEdit(job, screened[0]!.fix!.patch);
    if (!mended.ok) throw new Error('refused');
    expect(find(mended.value).filter(({ sentence }) => sentence.includes('screened cable'))).toEqual([]);
    const cabled = Object.values(mended.value.looms.inlet!.circuits).filter(({ cable }) => cable);
    expect(cabled).toHaveLength(2);
    const item = CATALOGUE.cables.find(({ id }) => id === cabled[0]!.cable!.itemId)!;
    expect(item.screened).toBe(true);
    expect(new Set(cabled.map(({ wireTable }) => wireTable))).toEqual(new Set([item.table]));
  });
});
