import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo/createSkerry';
import { toColourWords } from '../../model';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import { createRingOut } from './createRingOut';
import { listEqualLeads } from './listEqualLeads';
import { toProbeKey } from './types';

const job = createCleanSkerry();
const looms = plan(job, CATALOGUE).looms.map((loom) => ({
  loom,
  ringOut: createRingOut(job, CATALOGUE, loom, createBuild(job, loom, CATALOGUE).continuity),
}));
const groups = looms.flatMap(({ loom, ringOut }) =>
  ringOut.ends.flatMap(({ id }) => listEqualLeads(ringOut, loom.wires, id).map((group) => ({ loom, ringOut, group }))),
);

test('the demo has leads that look alike, on each of which a meter decides', () => {
  expect(groups.length).toBeGreaterThan(0);
});

test('leads of a group look alike, end there, and each is told by a pin that none of the others leads to', () => {
  for (const { loom, ringOut, group } of groups) {
    const wires = group.leads.map(({ wireId }) => loom.wires.find(({ id }) => id === wireId)!);
    expect(new Set(wires.map(({ colour, conductor }) => `${toColourWords(colour)} ${conductor.size}`)).size).toBe(1);
    const netAt = (key: string) => ringOut.nets.find(({ probes }) => probes.some((probe) => toProbeKey(probe) === key))!;
    const nets = group.leads.map(({ far, cavity }) => {
      const net = netAt(toProbeKey(far));
      expect(net.id).toBe(netAt(`${group.endId} ${cavity}`).id);
      return net.id;
    });
    expect(new Set(nets).size).toBe(group.leads.length);
    expect(group.leads.map(({ far }) => far.endId)).not.toContain(group.endId);
  }
});

test('leads to the same pins are not told apart, and are not asked for', () => {
  for (const { loom, ringOut, group } of groups)
    for (const number of group.same) {
      const wire = loom.wires.find((one) => one.number === number)!;
      const net = ringOut.nets.find(({ wireIds }) => wireIds.includes(wire.id))!;
      expect(group.leads.some(({ wireId }) => net.wireIds.includes(wireId)) || net.probes.length === 1).toBe(true);
    }
});

test('an end whose wires all look different asks for nothing', () => {
  const { loom, ringOut } = looms.find(({ loom: one }) => one.loomId === 'inlet')!;
  const coloursOf = (endId: string) =>
    loom.wires
      .filter(({ from, to }) => [from, to].some((end) => end.kind === 'cavity' && end.endId === endId))
      .map(({ colour, conductor }) => `${toColourWords(colour)} ${conductor.size}`);
  const plain = ringOut.ends.find(({ id }) => new Set(coloursOf(id)).size === coloursOf(id).length && coloursOf(id).length > 1)!;
  expect(listEqualLeads(ringOut, loom.wires, plain.id)).toEqual([]);
});
