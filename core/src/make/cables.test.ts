import { CATALOGUE, createLookup } from '../catalogue';
import { checkJob, createCircuit, type Job } from '../model';
import { createBench } from '../testing/createBench';
import { plan } from '../plan';
import { listCuts } from './listCuts';
import { listParts } from './listParts';
import { listSteps } from './listSteps';

/** The bench loom with two of its circuits, or more, in one cable. */
const createCabled = (itemId: string, ids: readonly string[] = ['c1', 'c2']): Job => {
  const job = structuredClone(createBench());
  for (const id of ids) job.looms.bench!.circuits[id]!.cable = { groupId: 'crank', itemId };
  return job;
};
const loomOf = (job: Job) => plan(job, CATALOGUE).looms[0]!;

describe('cables', () => {
  test.each(CATALOGUE.cables.map((one) => [one.name, one] as const))(
    '%s: thicker and heavier than its cores',
    (_, { conductors, odMm, massGPerM, table, size, screened }) => {
      const core = CATALOGUE.wires[table]!.find((one) => one.size === size)!;
      expect(odMm).toBeGreaterThan(core.odMm * Math.min(conductors, 2));
      expect(massGPerM).toBeGreaterThan(conductors * core.massGPerM);
      // AWG 24 inside a screened cable only
      if (size === '24') expect(screened).toBe(true);
    },
  );
  test('give their wires the size, and lie in the bundle as one round of their own diameter', () => {
    const item = CATALOGUE.cables.find(({ id }) => id === 'etfe-2x24s')!;
    const loom = loomOf(createCabled(item.id));
    for (const wire of loom.wires.filter(({ cable }) => cable)) {
      expect(wire).toMatchObject({ ruledBy: 'cable', conductor: { size: '24' }, cable: { groupId: 'crank', name: item.name } });
      expect(wire.because).toBe('conductor of cable crank');
    }
    const both = loom.bundles.flatMap(({ sections }) => sections).filter(({ elements }) => elements.some((ids) => ids.length === 2));
    expect(both.length).toBeGreaterThan(0);
    for (const { elements, circles } of both) {
      const at = elements.findIndex((ids) => ids.length === 2);
      if (circles[at]) expect(2 * circles[at].r).toBeCloseTo(item.odMm, 9);
    }
  });
  test('weigh what the cable weighs, once', () => {
    const item = CATALOGUE.cables.find(({ id }) => id === 'etfe-2x24s')!;
    const wires = loomOf(createCabled(item.id)).wires.filter(({ cable }) => cable);
    const mass = wires.reduce((sum, { conductor }) => sum + conductor.massGPerM, 0);
    expect(mass).toBeCloseTo(item.massGPerM, 9);
  });
  test('are cut in one piece, as long as the longest in them, bought as cable, and not twisted again', () => {
    const job = createCabled('etfe-2x24s');
    for (const id of ['c1', 'c2']) job.looms.bench!.circuits[id]!.twist = { groupId: 'pair', pitchMm: 25 };
    const loom = loomOf(job);
    const wires = loom.wires.filter(({ cable }) => cable);
    const cut = listCuts(loom).find(({ cableId }) => cableId !== null)!;
    expect(cut.reel).toBe('cable crank, 2 × AWG 24, screened');
    expect(cut.wires.length + cut.held.length).toBe(wires.length);
    expect(cut.finalMm).toBe(cut.held.length ? 0 : Math.max(...wires.map(({ cutMm }) => cutMm)));
    const line = listParts(job, loom, CATALOGUE).find(({ id }) => id === 'etfe-2x24s')!;
    expect(line).toMatchObject({
      name: 'cable, 2 × AWG 24, screened',
      pieces: 1,
      lengthMm: Math.max(...wires.map(({ roughMm }) => roughMm)),
    });
    const steps = listSteps(job, loom, CATALOGUE);
    expect(steps.some(({ id }) => id === 'twist.pair')).toBe(false);
    expect(steps.find(({ id }) => id === `cut.${cut.id}`)!.items[0]!.words).toContain('the cable in one piece');
  });
  test.each([
    [
      'a cable nobody sells',
      (job: Job): void => {
        job.looms.bench!.circuits.c1!.cable = { groupId: 'crank', itemId: 'rope' };
      },
      'expected one of',
    ],
    [
      'two kinds in one cable',
      (job: Job): void => {
        job.looms.bench!.circuits.c2!.cable = { groupId: 'crank', itemId: 'etfe-3x24s' };
      },
      'expected "etfe-2x24s" as in the rest of cable "crank"',
    ],
  ] as const)('%s is refused with its place', (_, spoil, words) => {
    const job = createCabled('etfe-2x24s');
    spoil(job);
    const checked = checkJob(job, createLookup(CATALOGUE));
    if (checked.ok) throw new Error('expected a problem');
    expect(checked.problems[0]!.path).toMatch(/^\/looms\/bench\/circuits\/c[12]\/cable\/itemId$/);
    expect(checked.problems[0]!.message).toContain(words);
  });
  test('a circuit by itself is in none', () => expect(createCircuit('1', 'one', [], { wireTable: 'etfe' }).cable).toBeNull());
});
