import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry, createSkerry } from '../../demo';
import type { Job } from '../../model';
import { findStandard } from '../../plan';
import { assignPins } from './assignPins';
import { joinGroups } from './joinGroups';

const standard = findStandard(createCleanSkerry(), CATALOGUE);
/** The demo whose charge pressure lost its ground: the planted trap. */
const trap = (change: (job: Job) => void = () => undefined): Job => {
  const job = structuredClone(createSkerry());
  change(job);
  return job;
};
const chargePin = (job: Job) => job.looms.inlet!.ends.chg!.pins;
const circuitsAt = (job: Job, endId: string, cavity: string) =>
  Object.values(job.looms.inlet!.circuits).filter(({ terminations }) =>
    terminations.some((one) => one.endId === endId && one.cavity === cavity),
  );

describe('open pins of a group that is served already', () => {
  test('a sensor ground joins the ground of its noise group in its own loom, and says why', () => {
    const { next, joined } = joinGroups(trap(), standard);
    expect(joined).toEqual([
      {
        need: 'charge pressure sensor ground',
        place: expect.stringMatching(/^circuit \d+ \(.*ground.*\)$/),
        because: expect.stringContaining('the rest, is served in this loom already'),
      },
    ]);
    const [circuit] = circuitsAt(next, 'chg', '2');
    expect(circuit!.kind).toBe('sensor-ground');
    expect(circuit!.terminations.length).toBeGreaterThan(2);
  });
  test('the assignment does so by itself, takes no pin of the box for it, and leads no wire', () => {
    const job = trap();
    const { next, assigned, breaks, conflicts } = assignPins(job, CATALOGUE, standard);
    expect(assigned.map(({ need }) => need)).toEqual(['charge pressure sensor ground']);
    expect(breaks).toEqual([]);
    expect(conflicts).toEqual([]);
    expect(Object.keys(next.looms.engine!.circuits)).toEqual(Object.keys(job.looms.engine!.circuits));
    expect(assignPins(next, CATALOGUE, standard).assigned).toEqual([]);
  });
  test('one of another noise group does not: it gets a ground of its own', () => {
    const job = trap((one) => void (chargePin(one)['2']!.noise = 'charge'));
    expect(joinGroups(job, standard).joined).toEqual([]);
    expect(assignPins(job, CATALOGUE, standard).assigned[0]!.place).toMatch(/^controller plug/);
  });
  test('a second track of a device does not join the net of its first', () => {
    const job = trap((one) => {
      const { pins } = one.looms.inlet!.ends.chg!;
      pins['9'] = { ...pins['1']! };
    });
    expect(joinGroups(job, standard).joined.map(({ need }) => need)).toEqual(['charge pressure sensor ground']);
  });
  test('a rail that has no room left takes no more', () => {
    const bare = (currentA: number) =>
      trap((one) => {
        for (const { terminations } of circuitsAt(one, 'chg', '1'))
          terminations.splice(
            terminations.findIndex(({ endId }) => endId === 'chg'),
            1,
          );
        chargePin(one)['1']!.currentA = currentA;
      });
    // rail A gives 250 mA, of which the shop takes 200
    expect(joinGroups(bare(0.09), standard).joined.map(({ need }) => need)).not.toContain('charge pressure 5 V supply');
    const light = trap((one) => {
      for (const { terminations } of circuitsAt(one, 'chg', '1'))
        terminations.splice(
          terminations.findIndex(({ endId }) => endId === 'chg'),
          1,
        );
      chargePin(one)['1']!.currentA = 0.001;
      for (const end of Object.values(one.looms.chassis!.ends))
        for (const need of Object.values(end.pins)) if (need.kind === 'sensor-supply') need.currentA = 0.001;
    });
    expect(joinGroups(light, standard).joined.map(({ need }) => need)).toContain('charge pressure 5 V supply');
  });
  test('what goes or is not decided stays open, and a clean job is left as it is', () => {
    const job = trap((one) => {
      const device = Object.values(one.devices).find(({ at }) => at?.loomId === 'inlet' && at.endId === 'chg')!;
      device.decision = 'remove';
    });
    expect(joinGroups(job, standard).joined).toEqual([]);
    const clean = createCleanSkerry();
    expect(joinGroups(clean, standard).next).toBe(clean);
  });
});
