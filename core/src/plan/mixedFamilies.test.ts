import fc from 'fast-check';
import { CATALOGUE, createLookup, findFamily, type Catalogue } from '../catalogue';
import { listFindings } from '../make';
import { createRandom } from '../units/createRandom';
import { createRandomJob } from '../demo/createRandomJob';
import { changeDocument, checkJob, findCavitySize, isMate, listCavities, type ConnectorFamily, type Job } from '../model';
import { runs } from '../testing/runs';
import { plan } from './index';

const SIZES = ['22', '16', '16s', '150', '10q', '28q'];
const LETTERS = 'ABCDEFGHJKLMNPRSTUVWXYZ'.split('');

/** A random job whose housings are lettered, of up to three cavity sizes and of one gender: each end has a family of its own. */
function createMixed(seed: number): Job {
  const random = createRandom(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const job = createRandomJob(seed, 14);
  return changeDocument(job, (draft) => {
    const loom = draft.looms.random!;
    const renamed = new Map<string, string>();
    for (const [endId, end] of Object.entries(loom.ends)) {
      const like = CATALOGUE.families[end.familyId!]!;
      const ways = listCavities(like).length;
      if (ways > LETTERS.length) continue;
      const cavityNames = LETTERS.slice(0, ways);
      listCavities(like).forEach((cavity, index) => renamed.set(`${endId}/${cavity}`, cavityNames[index]!));
      const sizes = [pick(SIZES), pick(SIZES), pick(SIZES)];
      draft.families[`own-${endId}`] = {
        ...like,
        name: `mixed ${endId}`,
        cavityNames,
        cavitySize: sizes[0]!,
        otherSizes: Object.fromEntries(cavityNames.filter(() => random() < 0.5).map((cavity) => [cavity, pick(sizes)])),
        gender: pick(['pins', 'sockets', null]),
      };
      end.familyId = `own-${endId}`;
    }
    for (const circuit of Object.values(loom.circuits))
      for (const one of circuit.terminations) one.cavity = renamed.get(`${one.endId}/${one.cavity}`) ?? one.cavity;
  });
}

test('each cavity gets contact, seal and plug of its own size and gender, and its wire is one that they take (many seeds)', () => {
  let mixed = 0;
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      const job = createMixed(seed);
      expect(checkJob(job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
      const { looms } = plan(job, CATALOGUE);
      const { terminations, plugs, wires } = looms[0]!;
      const familyAt = (endId: string) => findFamily(job, CATALOGUE, job.looms.random!.ends[endId]!.familyId)!;
      for (const { endId, cavity, contactId, wireIds, sealId, sealName, problem } of terminations) {
        if (contactId === null) continue;
        const family = familyAt(endId);
        const size = findCavitySize(family, cavity);
        mixed += Number(size !== family.cavitySize);
        const contact = CATALOGUE.contacts.find(({ id }) => id === contactId)!;
        expect(contact.cavitySize).toBe(size);
        if (family.gender !== null && contact.gender !== null) expect(`${contact.gender}s`).toBe(family.gender);
        const area = wireIds.reduce((sum, id) => sum + wires.find((wire) => wire.id === id)!.conductor.areaMm2, 0);
        expect(area).toBeGreaterThanOrEqual(contact.minAreaMm2 - 1e-9);
        expect(area).toBeLessThanOrEqual(contact.maxAreaMm2 + 1e-9);
        if (family.sealed && problem === null)
          expect(
            sealName === 'grommet' ? size in CATALOGUE.grommets : CATALOGUE.seals.find(({ id }) => id === sealId)!.cavitySize === size,
          ).toBe(true);
      }
      for (const { endId, cavity, plugId } of plugs) expect(CATALOGUE.plugs[findCavitySize(familyAt(endId), cavity)]!.id).toBe(plugId);
    }),
    { numRuns: runs(30, 300), seed: 26 },
  );
  expect(mixed).toBeGreaterThan(100);
});

test('a plan asks the whole catalogue once, not once a cavity: twenty thousand contacts of other sizes are never looked at', () => {
  let reads = 0;
  const others = Array.from({ length: 500 }, (_, index) => {
    const contact = { ...CATALOGUE.contacts[0]!, id: `other-${index}` };
    Object.defineProperty(contact, 'cavitySize', {
      get: () => {
        reads += 1;
        return 'other';
      },
    });
    return contact;
  });
  const shop: Catalogue = { ...CATALOGUE, contacts: [...others, ...CATALOGUE.contacts] };
  const job = createRandomJob(7, 60);
  listFindings(job, plan(job, shop), shop, null);
  expect(reads).toBeLessThanOrEqual(others.length);
});

describe('mates', () => {
  const half = (gender: ConnectorFamily['gender'], mateId: string | null): ConnectorFamily => ({
    ...CATALOGUE.families['hollin-6']!,
    gender,
    mateId,
  });
  test.each<[string, ConnectorFamily, string, ConnectorFamily, boolean]>([
    ['one', half(null, null), 'one', half(null, null), true],
    ['one', half(null, null), 'other', half(null, null), false],
    ['plug', half('sockets', 'fixed'), 'fixed', half('pins', 'plug'), true],
    ['plug', half('sockets', 'fixed'), 'fixed', half('pins', null), true],
    ['plug', half('sockets', 'fixed'), 'fixed', half('sockets', 'plug'), false],
    ['plug', half('sockets', 'fixed'), 'plug', half('sockets', 'fixed'), false],
    ['plug', half('sockets', 'fixed'), 'third', half('pins', null), false],
  ])('%s and %s', (idA, a, idB, b, fits) => {
    expect(isMate(idA, a, idB, b)).toBe(fits);
    expect(isMate(idB, b, idA, a)).toBe(fits);
  });
});
