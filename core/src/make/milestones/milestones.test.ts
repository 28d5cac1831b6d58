import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry, createFenRanger, createSkerry } from '../../demo';
import { MILESTONES, TIME_DEFAULTS, type Job } from '../../model';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { createRandom } from '../../units';
import { createBuild } from '../createBuild';
import { createItem, createStep } from '../createStep';
import { listCrimpSeries } from '../crimp';
import { CURE } from '../steps/listPotSteps';
import { listMinutes } from '../times';
import { createFirstPower } from '../firstPower';
import {
  countPowerLeft,
  isCheck,
  listChecked,
  listNeeds,
  listPowerNeeds,
  MILESTONE_STEP,
  readMilestone,
  type MilestoneLoom,
} from './index';

const { minutes: FIGURES, milestoneSystems, milestoneChecks } = TIME_DEFAULTS;
const STANDARD = { milestoneSystems, milestoneChecks };
const job = createCleanSkerry();
const whole = plan(job, CATALOGUE);
const { looms: planned } = whole;
const create = (from: Job, plans: typeof planned, isDone: MilestoneLoom['isDone'] = () => false) =>
  plans.map((loom): MilestoneLoom => {
    const { steps } = createBuild(from, loom, CATALOGUE);
    const crimps = listCrimpSeries(loom, steps, CATALOGUE.contacts);
    return { loomId: loom.loomId, name: loom.loomId, steps, minutes: listMinutes(steps, loom, FIGURES), crimps, isDone };
  });
const looms = create(job, planned);
const needs = listNeeds(job, CATALOGUE, STANDARD, planned);
const readings = needs.map((one) => readMilestone(one, looms));

/**
 * By the definition: a wire is needed where a device of these systems is joined to it, and on either side of it stands such a device or
 * something outside the job.
 */
function listNeeded(systems: readonly string[]): Set<string> {
  const deviceAt = new Map<string, Job['devices'][string]>(
    Object.values(job.devices).flatMap((one) => (one.at ? [[`${one.at.loomId}/${one.at.endId}`, one] as [string, typeof one]] : [])),
  );
  const mates = new Map<string, string>(
    Object.values(job.mates).flatMap(({ a, b }): [string, string][] => [
      [`${a.loomId}/${a.endId}`, `${b.loomId}/${b.endId}`],
      [`${b.loomId}/${b.endId}`, `${a.loomId}/${a.endId}`],
    ]),
  );
  const links = new Map<string, { to: string; wire: string }[]>();
  const join = (a: string, b: string, wire: string) => {
    links.set(a, [...(links.get(a) ?? []), { to: b, wire }]);
    links.set(b, [...(links.get(b) ?? []), { to: a, wire }]);
  };
  for (const { loomId, wires } of planned)
    for (const { id, from, to } of wires) {
      const [a, b] = [from, to].map((end) => {
        if (end.kind === 'splice') return `${loomId} splice ${end.spliceId}`;
        const isRing = job.looms[loomId]!.ends[end.endId]!.kind === 'ring';
        return `${loomId}/${end.endId} ${isRing ? '' : end.cavity}`;
      });
      join(a!, b!, `${loomId}/${id}`);
    }
  for (const place of [...links.keys()]) {
    const [end, cavity] = place.split(' ');
    const other = mates.get(end!);
    if (other !== undefined && links.has(`${other} ${cavity}`) && end! < other) join(place, `${other} ${cavity}`, '');
  }
  const isOf = (place: string) => {
    const device = deviceAt.get(place.split(' ')[0]!);
    return device !== undefined && systems.includes(device.system) && device.decision !== 'remove' && device.decision !== 'later';
  };
  const isTerminal = (place: string) => {
    const end = place.split(' ')[0]!;
    return isOf(place) || (end.includes('/') && !deviceAt.has(end) && !mates.has(end));
  };
  const reach = (start: string, without: string) => {
    const seen = new Set([start]);
    for (const one of seen) for (const { to, wire } of links.get(one) ?? []) if (wire === '' || wire !== without) seen.add(to);
    return [...seen];
  };
  const needed = new Set<string>();
  for (const [place, here] of links)
    for (const { to, wire } of here) {
      if (wire === '' || needed.has(wire)) continue;
      const [one, other] = [reach(place, wire), reach(to, wire)];
      if ([...one, ...other].some(isOf) && one.some(isTerminal) && other.some(isTerminal)) needed.add(wire);
    }
  return needed;
}

describe('what a milestone asks for (craft E3)', () => {
  test('the wires between devices of its systems are those that the definition names, whatever systems a shop says', () => {
    const all = [...new Set(Object.values(job.devices).map(({ system }) => system))];
    for (let seed = 0; seed < runs(4, 60); seed += 1) {
      const random = createRandom(seed);
      const start = all.filter(() => random() < 0.35);
      const [first] = listNeeds(job, CATALOGUE, { ...STANDARD, milestoneSystems: { start, move: [], inspect: [] } }, planned);
      expect([...first!.wires!].sort()).toEqual([...listNeeded(start)].sort());
    }
  });

  test('each asks for all that the one before it asks for; to go out everything is done', () => {
    expect(needs.map(({ id }) => id)).toEqual([...MILESTONES]);
    const counts = needs.map(({ wires }) => wires?.length ?? null);
    expect(counts.at(-1)).toBeNull();
    for (let at = 1; at < 3; at += 1) {
      expect(needs[at]!.wires).toEqual(expect.arrayContaining(needs[at - 1]!.wires!));
      expect(counts[at]!).toBeGreaterThan(counts[at - 1]!);
    }
    for (let at = 1; at < 4; at += 1) {
      expect(needs[at]!.checks).toEqual(expect.arrayContaining(needs[at - 1]!.checks));
      expect(readings[at]!.workMin).toBeGreaterThan(readings[at - 1]!.workMin);
      expect(readings[at]!.shortestMin).toBeGreaterThanOrEqual(readings[at - 1]!.shortestMin);
    }
    // the rain light is nothing that an engine waits for
    const [light] = Object.values(job.devices).filter(({ name }) => name === 'rain light');
    const circuits = Object.entries(job.looms[light!.at!.loomId]!.circuits).filter(([, { terminations }]) =>
      terminations.some(({ endId }) => endId === light!.at!.endId),
    );
    expect(circuits.length).toBeGreaterThan(0);
    const lone = planned
      .find(({ loomId }) => loomId === light!.at!.loomId)!
      .wires.filter(({ from, to }) => [from, to].some((end) => end.kind === 'cavity' && end.endId === light!.at!.endId));
    for (const { id } of lone) {
      expect(needs[0]!.wires).not.toContain(`${light!.at!.loomId}/${id}`);
      expect(needs[2]!.wires).toContain(`${light!.at!.loomId}/${id}`);
    }
  });

  test('what is to be wired and is on no loom is named; what is kept as it is, is not', () => {
    const bare = createCleanSkerry();
    bare.devices[Object.keys(bare.devices).find((id) => bare.devices[id]!.name === 'fuel pump')!]!.at = null;
    expect(listNeeds(bare, CATALOGUE, STANDARD, planned).map(({ unplaced }) => unplaced)).toEqual(Array(4).fill(['fuel pump']));
    const ranger = createFenRanger();
    const kept = Object.values(ranger.devices).filter(({ at, decision }) => at === null && decision === 'keep');
    expect(kept.length).toBeGreaterThan(2);
    const named = listNeeds(ranger, CATALOGUE, STANDARD, plan(ranger, CATALOGUE).looms).flatMap(({ unplaced }) => unplaced);
    for (const { name } of kept) expect(named).not.toContain(name);
  });
});

describe('what is left until then', () => {
  test('open wires, steps, parts, what is held, and the shortest time for the first start', () => {
    const trapped = createSkerry();
    const plans = plan(trapped, CATALOGUE).looms;
    const [start] = listNeeds(trapped, CATALOGUE, STANDARD, plans);
    const reading = readMilestone(start!, create(trapped, plans));
    expect(reading.openWires.map(({ loomId }) => loomId)).toEqual(['chassis', 'engine', 'inlet']);
    expect(reading.openWires.reduce((sum, { wireIds }) => sum + wireIds.length, 0)).toBe(start!.wires!.length);
    expect(reading.held.some((words) => words.includes('length to knock sensor only guessed'))).toBe(true);
    expect(reading.parts.map(({ words }) => words)).toEqual(reading.work.flatMap(({ step }) => [...new Set(step.parts)]));
    expect(reading.parts.length).toBeGreaterThan(20);
    expect(reading.work.filter(({ step }) => step.operation === 'test').map(({ loomId }) => loomId)).toEqual([
      'chassis',
      'engine',
      'inlet',
    ]);
  });

  test('to go out, all that is not ticked is left, and its minutes are those of all items', () => {
    const all = looms.reduce((sum, { minutes }) => sum + [...minutes.values()].reduce((part, one) => part + one, 0), 0);
    expect(readings[3]!.workMin).toBeCloseTo(all, 6);
    expect(readings[3]!.work).toHaveLength(looms.reduce((sum, { steps }) => sum + steps.length, 0));
    expect(
      readMilestone(
        needs[3]!,
        create(job, planned, () => true),
      ),
    ).toEqual({
      ...{ work: [], openWires: [], parts: [], held: [], firstOffs: 0, workMin: 0, shortestMin: 0, cureMin: 0 },
    });
  });

  test('nothing asks for a step whose needs it leaves out, and ticks only ever shorten what is left', () => {
    readings.forEach((reading, at) => {
      const needed = needs[at]!.wires && new Set(needs[at]!.wires);
      for (const { loomId, step } of reading.work) {
        if (step.operation === 'test') continue;
        const asked = new Set(reading.work.filter((one) => one.loomId === loomId).map((one) => one.step.id));
        const others = step.needs.filter(({ stepId }) => !asked.has(stepId)).map(({ stepId }) => stepId);
        // of a step that is not waited for nothing is about a wire that is
        const items = looms
          .find((loom) => loom.loomId === loomId)!
          .steps.filter(({ id }) => others.includes(id))
          .flatMap((one) => one.items);
        expect(items.filter(({ wireIds }) => wireIds.length === 0 || wireIds.some((id) => needed?.has(`${loomId}/${id}`) ?? true))).toEqual(
          [],
        );
      }
    });
    for (let seed = 0; seed < runs(5, 40); seed += 1) {
      const random = createRandom(seed);
      const done = new Set(
        looms.flatMap(({ loomId, steps }) =>
          steps.flatMap((step) => step.items.flatMap((item) => (random() < 0.5 ? [`${loomId} ${step.id} ${item.id}`] : []))),
        ),
      );
      const half = looms.map((loom) => ({
        ...loom,
        isDone: (stepId: string, itemId: string) => done.has(`${loom.loomId} ${stepId} ${itemId}`),
      }));
      needs.forEach((one, at) => {
        const left = readMilestone(one, half);
        expect(left.workMin).toBeLessThan(readings[at]!.workMin);
        expect(left.shortestMin).toBeLessThanOrEqual(readings[at]!.shortestMin);
      });
    }
  });

  test('each kind of crimp that is left wants a first-off, in whatever looms it is made; once its last is made it wants none', () => {
    const [start] = needs;
    const kinds = new Set(looms.flatMap(({ crimps }) => crimps.map(({ id }) => id)));
    expect(readings.at(-1)!.firstOffs).toBe(kinds.size);
    expect(looms.reduce((sum, { crimps }) => sum + crimps.length, 0)).toBeGreaterThan(kinds.size);
    expect([readings[0]!.firstOffs > 0, readings[0]!.firstOffs <= kinds.size]).toEqual([true, true]);
    const [kind] = looms[0]!.crimps;
    const isMade = (stepId: string, itemId: string) => kind!.places.some((one) => one.stepId === stepId && one.itemId === itemId);
    const one = { ...looms[0]!, crimps: [kind!] };
    expect([readMilestone({ wires: null }, [one]), readMilestone({ wires: null }, [{ ...one, isDone: isMade }])]).toMatchObject([
      { firstOffs: 1 },
      { firstOffs: 0 },
    ]);
    expect(readMilestone(start!, [{ ...one, crimps: [] }]).firstOffs).toBe(0);
  });

  test('what is gone from a loom comes out of it before its first start, and is taken time for', () => {
    const undo = createStep('undo', 'undo', '', { items: [createItem('old', '', [], null, [])] });
    const loom = { ...looms[0]!, steps: [undo, ...looms[0]!.steps], minutes: new Map([...looms[0]!.minutes, ['undo old', 2]]) };
    const [before, without] = [readMilestone(needs[0]!, [loom]), readMilestone(needs[0]!, [looms[0]!])];
    expect(before.work.map(({ step }) => step.id)).toEqual(['undo', ...without.work.map(({ step }) => step.id)]);
    expect(before.workMin - without.workMin).toBeCloseTo(2, 6);
  });

  test('the shortest time goes along the longest chain, cures with it; two branches go on beside one another', () => {
    const item = (id: string) => ({ ...createItem(id, '', [], null, []), wireIds: ['w'] });
    const need = (stepId: string) => ({ stepId, because: '' });
    const cure = { ...createItem('hard', '', [], null, [{ what: CURE, value: 2 }]), wireIds: ['w'] };
    const steps = [
      createStep('cut', 'cut', '', { items: [item('a')] }),
      createStep('crimp.a', 'crimp', '', { items: [item('a')], needs: [need('cut')] }),
      createStep('crimp.b', 'crimp', '', { items: [item('b')], needs: [need('cut')] }),
      createStep('wait', 'wait', '', { items: [cure], needs: [need('crimp.a')] }),
      createStep('seat', 'seat', '', { items: [item('a')], needs: [need('wait'), need('crimp.b')] }),
    ];
    const minutes = new Map([
      ...[
        ['cut a', 10],
        ['crimp.a a', 20],
        ['crimp.b b', 45],
        ['wait hard', 0],
        ['seat a', 5],
      ].map(([key, value]) => [key, value] as [string, number]),
    ]);
    const read = (isDone: MilestoneLoom['isDone']) =>
      readMilestone({ wires: ['l/w'] }, [{ loomId: 'l', name: 'l', steps, minutes, crimps: [], isDone }]);
    expect(read(() => false)).toMatchObject({ workMin: 80, shortestMin: 10 + 20 + 120 + 5, cureMin: 120 });
    expect(read((id) => id === 'wait')).toMatchObject({ workMin: 80, shortestMin: 10 + 45 + 5, cureMin: 0 });
  });
});

test('a check is done by its words, whatever the revision; taken back it is open', () => {
  const deed = (kind: string, words: string, author: string) => ({
    stepId: MILESTONE_STEP,
    itemId: words,
    kind,
    author,
    happenedAt: '2026-11-29',
  });
  const done = listChecked([
    deed('tick', 'exhaust on', 'Jun'),
    deed('tick', 'oil in', 'Jun'),
    deed('untick', 'oil in', 'Imke'),
    { ...deed('tick', 'coolant in', 'Jun'), stepId: 'seat.a' },
  ]);
  expect([...done].map(([words, { author }]) => [words, author])).toEqual([['exhaust on', 'Jun']]);
  expect([isCheck(milestoneChecks, milestoneChecks.move[0]!), isCheck(milestoneChecks, 'seats in')]).toEqual([true, false]);
});

test('readings of first power that a milestone waits for: all before a box goes in, then those at its own devices; the start is for the next one', () => {
  const { tests } = createFirstPower(job, whole, CATALOGUE)!;
  const wireEnds = new Map(
    planned.flatMap(({ loomId, wires }) =>
      wires.map(({ id, from, to }): [string, string[]] => [
        `${loomId}/${id}`,
        [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : [])),
      ]),
    ),
  );
  const asked = needs.map((one) => listPowerNeeds(one, tests, wireEnds));
  const partOf = (at: number, part: string) => tests.filter((test) => test.part === part && asked[at]!.has(test.id)).map(({ id }) => id);
  for (const part of ['bare', 'grounds', 'buses', 'unplugged', 'modules'])
    for (const at of [0, 1, 2, 3]) expect(partOf(at, part)).toEqual(tests.filter((test) => test.part === part).map(({ id }) => id));
  // the engine starts without its rear lights; nothing passes inspection without them
  const lamps = tests.filter(({ part }) => part === 'lamps').length;
  expect(lamps).toBeGreaterThan(0);
  expect([partOf(0, 'lamps').length, partOf(2, 'lamps').length]).toEqual([0, lamps]);
  expect(partOf(0, 'actuators').join(' ')).toMatch(/inj/);
  expect([partOf(0, 'start'), partOf(1, 'start').length]).toEqual([[], tests.filter(({ part }) => part === 'start').length]);
  // each asks for what the one before does, and all work for all
  for (const at of [1, 2, 3]) for (const id of asked[at - 1]!) expect(asked[at]!.has(id)).toBe(true);
  expect(asked[3]!.size).toBe(tests.length);
  // counted by what they came to, those apart that the milestone does not ask for
  const verdicts = ['passed', 'failed', 'unread'] as const;
  const judged = tests.map((test, at) => ({ test, verdict: verdicts[at % 3]! }));
  needs.forEach((one, at) => {
    const mine = judged.filter(({ test }) => asked[at]!.has(test.id)).map(({ verdict }) => verdict);
    const count = (wanted: string) => mine.filter((verdict) => verdict === wanted).length;
    expect(countPowerLeft(one, judged, wireEnds)).toEqual({ of: mine.length, left: count('unread'), failed: count('failed') });
  });
});
