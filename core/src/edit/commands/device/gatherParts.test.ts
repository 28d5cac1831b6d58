import { CATALOGUE, createLookup } from '../../../catalogue';
import { createCleanSkerry } from '../../../demo';
import { checkJob, type InlinePart, type Job } from '../../../model';
import { plan } from '../../../plan';
import { createVehicle } from '../../../testing/createVehicle';
import { gatherParts, listScatteredParts } from './gatherParts';
import { toPinKey } from '../../../netlist';

const resistor = (endId: string, cavities: [string, string], rest: Partial<InlinePart> = {}): InlinePart => ({
  ...{ kind: 'resistor', ohms: 1000, watts: null, inside: false, reason: 'stands for what is gone' },
  at: { loomId: 'main', endId, cavities },
  ...rest,
});
const createScattered = (change: (job: Job) => void = () => undefined): Job =>
  createVehicle((job) => {
    job.parts = { a: resistor('lamp', ['1', '2']), b: resistor('pump', ['1', '2'], { kind: 'pull-up' }) };
    change(job);
  });
/** Nets that a part lies between. */
const netsOf = (job: Job, id: string) => {
  const { at } = job.parts[id]!;
  const { nets } = plan(job, CATALOGUE).power;
  return at.cavities.map(
    (cavity) =>
      nets.find(({ circuits }) =>
        circuits.some(({ loomId, circuitId }) =>
          job.looms[loomId]!.circuits[circuitId]!.terminations.some((one) => toPinKey({ loomId, ...one }) === toPinKey({ ...at, cavity })),
        ),
      )!.id,
  );
};

describe('gathering resistors on one pigtail', () => {
  test('each still lies between the same nets, the devices keep their wires, the leg is a guess', () => {
    const job = createScattered();
    const { next, endId, moved } = gatherParts(job, CATALOGUE, 'main')!;
    expect(moved).toEqual(['a', 'b']);
    for (const id of moved) {
      expect(next.parts[id]!.at.endId).toBe(endId);
      expect(netsOf(next, id)).toEqual(netsOf(job, id));
    }
    const loom = next.looms.main!;
    for (const one of ['lamp', 'pump'])
      expect(Object.values(loom.circuits).filter(({ terminations }) => terminations.some((at) => at.endId === one))).toHaveLength(2);
    expect(Object.values(loom.segments).at(-1)).toMatchObject({ fromNodeId: 'hub', lengthMm: 150, method: 'estimate', status: 'guessed' });
    expect(checkJob(next, createLookup(CATALOGUE)).ok).toBe(true);
    expect(plan(next, CATALOGUE).looms[0]!.wires.filter(({ heldBy }) => heldBy.length > 0).length).toBeGreaterThan(0);
    expect(listScatteredParts(next, 'main')).toEqual([]);
  });
  test('a wire that ended in nothing but its resistor moves with it', () => {
    const job = createScattered((one) => void (one.looms.main!.ends.lamp!.pins = {}));
    const { next, endId } = gatherParts(job, CATALOGUE, 'main')!;
    const { circuits } = next.looms.main!;
    expect(Object.values(circuits).some(({ terminations }) => terminations.some((at) => at.endId === 'lamp'))).toBe(false);
    expect(circuits.c3!.terminations.map((at) => at.endId)).toEqual(['box', endId]);
    expect(netsOf(next, 'a')).toEqual(netsOf(job, 'a'));
  });
  test('two that share a ground share its cavity', () => {
    const job = createScattered((one) => {
      one.parts.b = resistor('pump', ['1', '2']);
      one.looms.main!.circuits.c5!.terminations.push({ endId: 'pump', cavity: '2' });
      delete one.looms.main!.circuits.c6;
    });
    const { next } = gatherParts(job, CATALOGUE, 'main')!;
    expect(next.parts.a!.at.cavities[1]).toBe(next.parts.b!.at.cavities[1]);
    expect(checkJob(next, createLookup(CATALOGUE)).ok).toBe(true);
  });
  test.each([
    ['one place only', (job: Job): void => void (job.parts.b = resistor('lamp', ['1', '2']))],
    ['one inside its device', (job: Job): void => void (job.parts.b!.inside = true)],
    ['a bus terminator belongs at the end of its bus', (job: Job): void => void (job.parts.b!.kind = 'terminator')],
    ['a pin in no circuit', (job: Job): void => void (job.parts.b!.at.cavities = ['1', '9'])],
  ])('%s: nothing to gather', (_, change) => expect(gatherParts(createScattered(change), CATALOGUE, 'main')).toBeNull());
  test('more pins than any housing has is said, not squeezed in', () => {
    const job = createScattered();
    const small = { ...CATALOGUE, families: { 'tarn-2': CATALOGUE.families['tarn-2']! } };
    expect(gatherParts(job, small, 'main')).toBeNull();
  });
  test('the demo has none that lie about', () => {
    const job = createCleanSkerry();
    expect(Object.keys(job.looms).flatMap((loomId) => listScatteredParts(job, loomId))).toEqual([]);
  });
});
