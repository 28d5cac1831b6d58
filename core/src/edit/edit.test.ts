import { CATALOGUE, createLookup } from '../catalogue';
import { checkJob, type Job, type Loom } from '../model';
import { createTree, findStandard, type Tree } from '../plan';
import { createBench } from '../testing/createBench';
import { addEnd, joinSegments, moveBreakout, removeEnd, splitSegment } from './index';

/** Change the bench loom and hold it to the gate. */
function edit(change: (loom: Loom, tree: Tree, job: Job) => void, start = createBench()): { loom: Loom; job: Job; tree: Tree } {
  const job = structuredClone(start);
  const loom = job.looms.bench!;
  change(loom, createTree(loom, findStandard(job, CATALOGUE)), job);
  expect(checkJob(job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
  return { loom, job, tree: createTree(loom, findStandard(job, CATALOGUE)) };
}

describe('splitSegment', () => {
  test('keeps every distance from the datum', () => {
    let made = { nodeId: '', segmentId: '' };
    const { tree, loom } = edit((before, beforeTree) => {
      made = splitSegment(before, beforeTree, { segmentId: 's3', offsetMm: 80 }, { kind: 'breakout', name: 'new' });
    });
    expect(tree.nodes[made.nodeId]!.distanceMm).toBe(380);
    expect(tree.nodes.n2!.distanceMm).toBe(500);
    expect(loom.segments[made.segmentId]).toMatchObject({ lengthMm: 120, status: 'roped' });
    expect(loom.nodes[made.nodeId]!.onwardSegmentId).toBe(made.segmentId);
  });
  test('a run entered from its far side is split at the same place', () => {
    const turned = createBench((loom) => {
      loom.segments.s3 = { ...loom.segments.s3!, fromNodeId: 'n2', toNodeId: 'b1' };
    });
    const { tree } = edit((loom, beforeTree) => {
      splitSegment(loom, beforeTree, { segmentId: 's3', offsetMm: 80 }, { kind: 'pass', name: 'hole', holeMm: 22 });
    }, turned);
    expect(tree.nodes.n2!.distanceMm).toBe(500);
    expect(
      Object.values(tree.nodes)
        .map(({ distanceMm }) => distanceMm)
        .sort((a, b) => a - b),
    ).toEqual([0, 300, 380, 400, 500]);
  });
  test('splices beyond the cut keep their distance', () => {
    const pinned = createBench((loom) => {
      loom.splicePins['c3@b1'] = { segmentId: 's1', offsetMm: 240, reason: 'x' };
    });
    const { loom } = edit((before, tree) => {
      splitSegment(before, tree, { segmentId: 's1', offsetMm: 100 }, { kind: 'breakout', name: 'new' });
    }, pinned);
    expect(loom.splicePins['c3@b1']).toMatchObject({ offsetMm: 140 });
    expect(loom.splicePins['c3@b1']!.segmentId).not.toBe('s1');
  });
  test.each([0, 200, -3, NaN])('refuses a place at %p of 200', (offset) => {
    expect(() =>
      edit((loom, tree) => {
        splitSegment(loom, tree, { segmentId: 's3', offsetMm: offset }, { kind: 'breakout', name: 'x' });
      }),
    ).toThrow(`expected a place between 0 and 200 mm of this run, got ${offset}`);
  });
});

describe('joinSegments', () => {
  test('is the inverse of a split', () => {
    let nodeId = '';
    const split = edit((loom, tree) => {
      ({ nodeId } = splitSegment(loom, tree, { segmentId: 's3', offsetMm: 80 }, { kind: 'breakout', name: 'new' }));
    });
    const { loom, tree } = edit((before, beforeTree) => joinSegments(before, beforeTree, nodeId), split.job);
    expect(loom.segments.s3!.lengthMm).toBe(200);
    expect(Object.keys(loom.segments)).toHaveLength(3);
    expect(tree.nodes.n2!.distanceMm).toBe(500);
  });
  test('refuses where branches still leave', () => {
    expect(() => edit((loom, tree) => joinSegments(loom, tree, 'b1'))).toThrow(
      'fork: expected one run in and one out, got 2 out: take its branches off first',
    );
  });
});

describe('moveBreakout', () => {
  test('what lies beyond on the trunk stays where it is; branches keep their lengths', () => {
    const { tree } = edit((loom, before) => {
      expect(moveBreakout(loom, before, 'b1', 40)).toBe(40);
    });
    expect([tree.nodes.b1!.distanceMm, tree.nodes.n2!.distanceMm, tree.nodes.n1!.distanceMm]).toEqual([340, 500, 440]);
  });
  test.each([
    [1000, 195],
    [-1000, -295],
    [0.2, 0],
  ])('by %p is held to %p', (by, moved) => {
    edit((loom, tree) => {
      expect(moveBreakout(loom, tree, 'b1', by)).toBe(moved);
    });
  });
  test('the datum does not move', () => {
    edit((loom, tree) => {
      expect(moveBreakout(loom, tree, 'datum', 50)).toBe(0);
    });
  });
});

describe('ends', () => {
  test('a new end on a leg is valid and empty', () => {
    const { loom } = edit((before) => {
      addEnd(before, { nodeId: 'b1', legMm: 70 }, 'lamp', 'pellow-2');
    });
    expect(Object.values(loom.ends).map(({ name }) => name)).toContain('lamp');
  });
  test('the datum takes one end', () => {
    expect(() =>
      edit((loom) => {
        addEnd(loom, { nodeId: 'datum', legMm: null }, 'second', 'pellow-2');
      }),
    ).toThrow('expected a free place at datum, got anchor there');
  });
  test('an end goes with its leg and its pins', () => {
    const { loom } = edit((_, tree, job) => removeEnd(job, 'bench', tree, 'L'));
    expect(loom.ends.L).toBeUndefined();
    expect(loom.segments.s2).toBeUndefined();
    expect(loom.circuits.c1!.terminations).toEqual([{ endId: 'A', cavity: '1' }]);
  });
});
