import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import type { Job } from '../../model';
import { createPlanner } from '../../plan';
import { checkPlan } from '../checkPlan';

const planner = createPlanner(CATALOGUE);
const find = (job: Job) =>
  checkPlan(job, planner(job), CATALOGUE, null).flatMap(({ code, sentence, measured }) => (code === 'MT4' ? [{ sentence, measured }] : []));

/** The clean demo with both halves of its firewall plug parted: which half takes pins? */
function createSkerry(pins: 'chassis' | 'engine' | 'neither'): Job {
  const job = createCleanSkerry();
  const { a, b } = job.mates.firewall!;
  const family = CATALOGUE.families[job.looms[a.loomId]!.ends[a.endId]!.familyId!]!;
  const gender = (loomId: 'chassis' | 'engine') => (pins === 'neither' ? null : loomId === pins ? 'pins' : 'sockets');
  job.families['fw-chassis'] = { ...family, gender: gender('chassis'), mateId: 'fw-engine' };
  job.families['fw-engine'] = { ...family, gender: gender('engine'), mateId: 'fw-chassis' };
  job.looms[a.loomId]!.ends[a.endId]!.familyId = 'fw-chassis';
  job.looms[b.loomId]!.ends[b.endId]!.familyId = 'fw-engine';
  return job;
}

describe('MT4: the half that stays live carries sockets', () => {
  test('pins on the chassis half, which the battery and the modules feed, are told of with each live cavity', () => {
    const [finding, ...more] = find(createSkerry('chassis'));
    expect(more).toEqual([]);
    expect(finding!.sentence).toMatch(
      /^firewall F1 \(chassis\) stays live in cavit(y|ies) [\w, ]+ once .* \(engine\) is off, and has pins: give it the half with sockets\.$/i,
    );
    // by hand: supplies through the firewall whose source stands on the chassis side
    const job = createSkerry('chassis');
    const { chassis } = job.looms;
    const through = Object.entries(chassis!.circuits).flatMap(([circuitId, { terminations }]) =>
      terminations.flatMap(({ endId, cavity }) => (endId === 'F1' ? [{ circuitId, cavity }] : [])),
    );
    const nets = planner(job).power.nets.filter(({ kind, root }) => kind === 'supply' && root?.loomId === 'chassis');
    const expected = through.filter(({ circuitId }) =>
      nets.some(({ circuits }) => circuits.some((one) => one.loomId === 'chassis' && one.circuitId === circuitId)),
    );
    expect(expected.length).toBeGreaterThan(0);
    expect(finding!.measured).toBe(expected.length);
  });
  test('pins on the engine half are dead once it is pulled', () => expect(find(createSkerry('engine'))).toEqual([]));
  test('a record for both halves says nothing of pins', () => expect(find(createSkerry('neither'))).toEqual([]));
  test('a circuit that another plug brings round stays live on either side', () => {
    const job = createSkerry('engine');
    const live = find(createSkerry('chassis'))[0]!.sentence;
    const cavity = /cavit(?:y|ies) (\w+)/.exec(live)![1]!;
    const { a, b } = job.mates.firewall!;
    // a second pair of plugs with the same circuit in both looms
    for (const side of [a, b]) {
      const loom = job.looms[side.loomId]!;
      loom.ends.round = structuredClone(loom.ends[side.endId]!);
      Object.values(loom.circuits)
        .find(({ terminations }) => terminations.some((one) => one.endId === side.endId && one.cavity === cavity))!
        .terminations.push({ endId: 'round', cavity });
    }
    job.mates.round = { a: { ...a, endId: 'round' }, b: { ...b, endId: 'round' } };
    expect(find(job).map(({ measured }) => measured)).toEqual([1, 1]);
  });
});
