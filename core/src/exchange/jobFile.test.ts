import { createDemoShop, createLookup } from '../catalogue';
import { createFenRanger, createInlet, createSkerry } from '../demo';
import { createRandomJob } from '../demo/createRandomJob';
import { createRandomVehicle } from '../demo/createRandomVehicle';
import { listFindings } from '../make';
import { checkJob, checkShop, type ConnectorFamily, type Contact, type Job, type Shop } from '../model';
import { plan } from '../plan';
import { fromJobFile, toJobFile } from './index';

/** The demo shop with two hundred more housings and contacts that no job uses. */
const shop: Shop = (() => {
  const made = createDemoShop();
  const family: ConnectorFamily = { ...made.families['tarn-3']!, cavitySize: 'spare', otherSizes: {} };
  const contact: Contact = { ...made.contacts[0]!, cavitySize: 'spare' };
  for (let at = 0; at < 200; at += 1) {
    made.families[`spare-${at}`] = { ...family, name: `Spare ${at}` };
    made.contacts.push({ ...contact, id: `spare-${at}` });
  }
  return made;
})();

const JOBS: [string, Job][] = [
  ['inlet', createInlet()],
  ['Skerry', createSkerry()],
  ['Fen Ranger', createFenRanger()],
  ...[3, 4, 5, 6].map((seed): [string, Job] => [`random job ${seed}`, createRandomJob(seed, 40)]),
  ...[7, 8].map((seed): [string, Job] => [`random vehicle ${seed}`, createRandomVehicle(seed, 120)]),
];

test.each(JOBS)('%s carries what it is planned with and no more: it plans and is judged the same by that alone', (_, job) => {
  const file = fromJobFile(JSON.parse(JSON.stringify(toJobFile(job, shop))));
  const carried = checkShop(file.shop);
  if (!carried.ok) throw new Error(JSON.stringify(carried.problems));
  expect(checkJob(file.document, createLookup(carried.value))).toMatchObject({ ok: true });
  expect(file.document).toEqual(JSON.parse(JSON.stringify(job)));
  const [at, home] = [plan(job, carried.value), plan(job, shop)];
  expect(JSON.stringify(at)).toBe(JSON.stringify(home));
  const words = (planned: typeof at, from: Shop) =>
    listFindings(job, planned, from, '2026-11-26').map(({ code, sentence }) => (code === 'EN6' ? code : `${code} ${sentence}`));
  expect(words(at, carried.value)).toEqual(words(home, shop));
  expect(Object.keys(carried.value.families).filter((id) => id.startsWith('spare'))).toEqual([]);
  expect(carried.value.contacts.filter(({ id }) => id.startsWith('spare'))).toEqual([]);
});

test('the half that a housing goes into comes with it', () => {
  const { shop: carried } = fromJobFile(toJobFile(createSkerry(), shop));
  expect(Object.keys((carried as Shop).families)).toEqual(expect.arrayContaining(['hollin-10m', 'hollin-10p']));
});

test.each([[null], [[]], ['x'], [7], [{ format: 'wattograph-job' }]])('a file that carries nothing is its document: %j', (value) =>
  expect(fromJobFile(value)).toEqual({ document: value, shop: null }),
);
