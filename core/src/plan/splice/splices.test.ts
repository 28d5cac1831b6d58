import { createDemoStart, CATALOGUE, LARKHOLLOW, LARKHOLLOW_PLAIN } from '../../catalogue';
import { createRandom } from '../../units/createRandom';
import { createJob, createLoom, createNode, createEnd, createSegment, type Job } from '../../model';
import { listFindings } from '../../make';
import { createBench, join } from '../../testing/createBench';
import { runs } from '../../testing/runs';
import { findStandard, measureHalfBarrel, plan } from '..';

const only = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const BUTT = CATALOGUE.barrels.filter(({ kind }) => kind === 'butt');

/** A trunk with forks, each with legs of tails; every leg's end is on one shared supply and some on a shared ground. share: of the usual lengths. */
function createBush(seed: number, share = 1): Job {
  const random = createRandom(seed);
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
  const job = createJob(`bush ${seed}`, '', 'larkhollow', createDemoStart());
  const loom = createLoom('bush', 'B');
  loom.ends.A = createEnd('datum', 'anchor', 'hollin-13', { key: 'A' });
  const supply = ['A-1'];
  const ground = ['A-2'];
  let near = 'datum';
  for (let fork = 1; fork <= whole(2, 4); fork += 1) {
    loom.nodes[`f${fork}`] = createNode('breakout', `fork ${fork}`);
    loom.segments[`t${fork}`] = createSegment(near, `f${fork}`, share * whole(300, 900));
    near = `f${fork}`;
    for (let leg = 1; leg <= whole(1, 7); leg += 1) {
      const id = `e${fork}${leg}`;
      loom.nodes[id] = createNode('end', id);
      loom.segments[`s-${id}`] = createSegment(near, id, share * whole(200, 700));
      loom.ends[id] = createEnd(id, id, null);
      supply.push(`${id}-1`);
      if (random() < 0.5) ground.push(`${id}-2`);
    }
  }
  loom.circuits = {
    c1: join('1', supply.join(' '), { kind: 'supply' }),
    ...(ground.length > 1 ? { c2: join('2', ground.join(' ')) } : {}),
  };
  job.looms = { bush: loom };
  return job;
}

describe('on sixty random bushes', () => {
  const planned = Array.from({ length: 60 }, (_, seed) => {
    const job = createBush(seed + 1);
    return { job, plan: only(job) };
  });
  test('the sides of every splice are where its wires arrive from, found again by walking each wire', () => {
    let looked = 0;
    for (const { plan: loom } of planned)
      for (const { spliceId, sides } of loom.barrels) {
        const { segmentId, offsetMm } = loom.splices.find(({ id }) => id === spliceId)!.place;
        for (const [side, ids] of Object.entries(sides))
          for (const id of ids) {
            const wire = loom.wires.find((one) => one.id === id)!;
            // just beside the splice, on the side it is said to come from, the wire is there
            const beside = offsetMm + (side === 'near' ? -0.5 : 0.5);
            const isThere = wire.pieces.some((one) => one.segmentId === segmentId && one.fromMm < beside && beside < one.toMm);
            expect([spliceId, id, side, isThere]).toEqual([spliceId, id, side, true]);
            looked += 1;
          }
      }
    expect(looked).toBeGreaterThan(300);
  });
  test('no side has more than five wires, and a butt barrel is chosen by its fuller side', () => {
    for (const { plan: loom } of planned)
      for (const { sides, areaMm2, barrelId } of loom.barrels) {
        expect(Math.max(sides.near.length, sides.far.length)).toBeLessThanOrEqual(LARKHOLLOW.spliceMostWires);
        const area = (ids: string[]) => ids.reduce((sum, id) => sum + loom.wires.find((one) => one.id === id)!.conductor.areaMm2, 0);
        expect(areaMm2).toBeCloseTo(Math.max(area(sides.near), area(sides.far)), 9);
        const fits = BUTT.find((one) => areaMm2 >= one.minAreaMm2 && areaMm2 <= one.maxAreaMm2);
        expect(barrelId).toBe(fits?.id ?? null);
      }
  });
  test('of two splices at one junction the link does not double back, and all keep their distances from end to end', () => {
    let chains = 0;
    for (const { job, plan: loom } of planned) {
      const standard = findStandard(job, CATALOGUE);
      const half = (circuitId: string) => measureHalfBarrel(CATALOGUE, standard, job.looms.bush!.circuits[circuitId]!);
      for (const splice of loom.splices) {
        const others = loom.splices.filter((one) => one !== splice && one.place.segmentId === splice.place.segmentId);
        if (splice.clear)
          for (const other of others)
            if (other.clear)
              expect(
                Math.abs(other.place.offsetMm - splice.place.offsetMm) - half(other.circuitId) - half(splice.circuitId),
              ).toBeGreaterThanOrEqual(standard.spliceApartMm - 1e-9);
        // the second of a junction takes up the first: seen from the junction towards the source it lies further on
        const first = loom.splices.find(({ id }) => `${id}.2` === splice.id);
        if (!first || !splice.clear || !first.clear) continue;
        chains += 1;
        const link = loom.wires.find(
          ({ from, to }) =>
            [from, to].some((end) => end.kind === 'splice' && end.spliceId === first.id) &&
            [from, to].some((end) => end.kind === 'splice' && end.spliceId === splice.id),
        )!;
        const linkMm = link.pieces.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0);
        const inOneRun = first.place.segmentId === splice.place.segmentId;
        // the source is at the datum: what lies nearer to it has the smaller distance
        expect(splice.distanceMm).toBeLessThan(first.distanceMm);
        if (inOneRun) expect(linkMm).toBeCloseTo(first.distanceMm - splice.distanceMm, 9);
      }
    }
    expect(chains).toBeGreaterThan(5);
  });
});

test('on random bushes every distance of a splice is kept, or BU1 names it', () => {
  let short = 0;
  for (let seed = 1; seed <= runs(40, 500); seed += 1) {
    // every other has no room for its splices
    const job = createBush(1000 + seed, seed % 2 === 0 ? 1 : 0.2);
    const whole = plan(job, CATALOGUE);
    const { splices, tree } = whole.looms[0]!;
    const standard = findStandard(job, CATALOGUE);
    const told = new Set(
      listFindings(job, whole, CATALOGUE, null).flatMap(({ code, places }) => (code === 'BU1' ? places.map(({ id }) => id) : [])),
    );
    for (const { id, place, circuitId } of splices) {
      const half = (of: string) => measureHalfBarrel(CATALOGUE, standard, job.looms.bush!.circuits[of]!);
      const { nearNodeId, farNodeId, lengthMm } = tree.segments[place.segmentId]!;
      const keep = (nodeId: string) => (job.looms.bush!.nodes[nodeId]!.kind === 'breakout' ? 40 : 75);
      const nearRoom = place.offsetMm - half(circuitId) - keep(nearNodeId);
      const farRoom = lengthMm - place.offsetMm - half(circuitId) - keep(farNodeId);
      const crowding = splices.filter(
        (other) =>
          other.id !== id &&
          other.place.segmentId === place.segmentId &&
          Math.abs(other.place.offsetMm - place.offsetMm) - half(circuitId) - half(other.circuitId) < 40 - 1e-9,
      );
      if (Math.min(nearRoom, farRoom) < -1e-9) expect([seed, id, told.has(id)]).toEqual([seed, id, true]);
      // of two that lie too close, the one that was placed last is told
      for (const other of crowding) expect([seed, id, other.id, told.has(id) || told.has(other.id)]).toEqual([seed, id, other.id, true]);
      short += Number(told.has(id));
    }
  }
  expect(short).toBeGreaterThan(0);
});

test('pins of one housing that are joined arrive all on one side: four and the source, not five', () => {
  const job = createBench((loom) => {
    loom.circuits = { c1: join('1', 'A-1 A-2 A-3 A-4 A-5 A-6') };
  });
  for (const { sides } of only(job).barrels) expect(sides.near.length + sides.far.length).toBeLessThanOrEqual(6);
  expect(only(job).barrels.every(({ sides }) => Math.max(sides.near.length, sides.far.length) <= 5)).toBe(true);
  expect(only(job).barrels).toHaveLength(2);
});

test('a shop that crimps parallel barrels takes one for all wires of the joint', () => {
  const job = createBench();
  const butt = only(job).barrels[0]!;
  const parallel = only({ ...job, standardId: 'plain' }).barrels[0]!;
  // three AWG 22: two on the fuller side, or all three
  expect(butt).toMatchObject({ barrelId: 'barrel-1', areaMm2: expect.closeTo(0.76, 9) });
  expect(parallel).toMatchObject({ barrelId: 'parallel-1', areaMm2: expect.closeTo(1.14, 9) });
  expect(LARKHOLLOW_PLAIN.barrelKind).toBe('parallel');
});
