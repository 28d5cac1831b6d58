import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { countWantedSpares, listBreakCurrents } from '../../edit';
import { countZoneUses, measureLeastPitch, toNextNumber, type Job } from '../../model';
import { plan } from '../../plan';
import { checkPlan, listBoxUse, listNetsAt, measurePartHeat } from '../index';

const job = createSkerry();
const planned = plan(job, CATALOGUE);

test('what a box has to give and what is used of it: the rail that CI8 tells of carries what is said there', () => {
  const boxes = listBoxUse(job, planned.power);
  expect(boxes.map(({ pins }) => pins)).toEqual([...boxes.map(({ pins }) => pins)].sort((a, b) => b - a));
  for (const { pins, used } of boxes) expect(used).toBeLessThanOrEqual(pins);
  const told = checkPlan(job, planned, CATALOGUE, null).find(({ code }) => code === 'CI8')!;
  const loads = boxes.flatMap(({ rails }) => rails.map(({ usedA }) => usedA));
  expect(loads.some((usedA) => Math.abs(usedA - told.measured!) < 1e-9)).toBe(true);
  const grounds = boxes.flatMap((box) => box.grounds);
  expect(grounds.length).toBeGreaterThan(0);
  for (const { groups, devices } of grounds) expect([new Set(groups).size, new Set(devices).size]).toEqual([groups.length, devices.length]);
});

describe('what a resistor gives off', () => {
  const netAt = listNetsAt(job, planned.power);
  const find = (kind: 'supply' | 'power-ground', loomId = 'chassis') =>
    Object.entries(job.looms[loomId]!.ends).flatMap(([endId]) =>
      Object.values(job.looms[loomId]!.circuits).flatMap((one) =>
        one.kind === kind ? one.terminations.filter((place) => place.endId === endId).map(({ cavity }) => ({ endId, cavity })) : [],
      ),
    );
  const supply = find('supply').find(({ endId, cavity }) => netAt.get(`chassis/${endId}/${cavity}`)?.volts === 12)!;
  const part = (endId: string, cavities: [string, string], ohms: number | null) =>
    ({ kind: 'resistor', ohms, watts: 1, at: { loomId: 'chassis', endId, cavities }, inside: false, reason: 'x' }) as Job['parts'][string];
  test('none between two legs of one net, V² / R between two', () => {
    const same = measurePartHeat(job, netAt, part(supply.endId, [supply.cavity, supply.cavity], 100))!;
    expect(same.watts).toBe(0);
    const ground = find('power-ground').find(({ endId }) =>
      find('supply').some((one) => one.endId === endId && netAt.get(`chassis/${endId}/${one.cavity}`)?.volts === 12),
    )!;
    const fed = find('supply').find(
      ({ endId, cavity }) => endId === ground.endId && netAt.get(`chassis/${endId}/${cavity}`)?.volts === 12,
    )!;
    const heat = measurePartHeat(job, netAt, part(ground.endId, [fed.cavity, ground.cavity], 100))!;
    expect(heat.volts).toEqual([job.source.volts, 0]);
    expect(heat.watts).toBeCloseTo(job.source.volts ** 2 / 100, 9);
  });
  test('nothing is said where its value or a net is not known', () => {
    expect(measurePartHeat(job, netAt, part(supply.endId, [supply.cavity, 'ZZ'], 100))).toBeNull();
    expect(measurePartHeat(job, netAt, part(supply.endId, [supply.cavity, supply.cavity], null))).toBeNull();
  });
});

test('small sums that stations show', () => {
  expect([toNextNumber({ circuits: {} }), toNextNumber(job.looms.inlet!)]).toEqual(['101', '229']);
  const inHot = Object.values(job.looms)
    .flatMap(({ segments }) => Object.values(segments))
    .filter(({ zoneId }) => zoneId === 'hot').length;
  expect(countZoneUses(job, 'hot')).toBe(inHot + Object.values(job.devices).filter(({ zoneId }) => zoneId === 'hot').length);
  expect(
    measureLeastPitch([
      { xMm: 0, yMm: 0 },
      { xMm: 3, yMm: 4 },
      { xMm: 9, yMm: 4 },
    ]),
  ).toBe(5);
  expect(measureLeastPitch([{ xMm: 0, yMm: 0 }])).toBe(Infinity);
  expect([3, 10, 11, 66].map((ways) => countWantedSpares(ways, { spareShare: 0.1 }))).toEqual([1, 1, 2, 7]);
  const currents = listBreakCurrents(job, planned.looms, 'firewall');
  const chassis = planned.looms.find(({ loomId }) => loomId === 'chassis')!;
  const [cavity, currentA] = Object.entries(currents).find(([, value]) => value > 1)!;
  const here = chassis.wires.flatMap(({ from, to }, at) =>
    [from, to].some((one) => one.kind === 'cavity' && one.endId === 'F1' && one.cavity === cavity)
      ? [chassis.currents[at]!.designA ?? 0]
      : [],
  );
  expect(currentA).toBe(Math.max(...here));
});
