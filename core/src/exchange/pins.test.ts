import { CATALOGUE } from '../catalogue';
import { createCleanSkerry, createInlet } from '../demo';
import type { Job } from '../model';
import { plan } from '../plan';
import { readCsv } from './readCsv';
import { toPinsCsv } from './toPinsCsv';

type Row = Record<string, string>;
const list = (job: Job): Row[] => {
  const table = readCsv(toPinsCsv(job, plan(job, CATALOGUE).power));
  if (!table.ok) throw new Error(JSON.stringify(table.problems));
  const { columns, rows } = table.value;
  return rows.map(({ cells }) => Object.fromEntries(columns.map((column, index) => [column, cells[index]!])));
};
const rows = list(createCleanSkerry());

test('every pin that gives something stands in it, the spare ones with nothing on them', () => {
  const { looms } = createCleanSkerry();
  const offered = Object.values(looms).flatMap(({ ends }) =>
    Object.values(ends).flatMap(({ name, offers }) => Object.keys(offers).map((cavity) => `${name} ${cavity}`)),
  );
  expect(new Set(rows.map(({ plug, pin }) => `${plug} ${pin}`))).toEqual(new Set(offered));
  const spare = rows.filter(({ circuit }) => circuit === '');
  expect(spare.length).toBeGreaterThan(5);
  for (const row of spare) expect([row.device, row['device pin'], row.function]).toEqual(['', '', '']);
});

test('a signal that comes through two plugs is listed with the device at its far end', () => {
  const far = rows.filter(({ device, function: words }) => device === 'manifold pressure' && words === 'signal');
  expect(far).toHaveLength(1);
  expect(far[0]).toMatchObject({ plug: expect.stringMatching(/^controller plug/) as string, 'device pin': '3' });
  expect(far[0]!.can).toMatch(/analogue/);
});

test('a rail that several devices share has a row for each, with what each draws', () => {
  const rail = rows.filter(({ plug, pin, function: words }) => plug === 'controller plug B' && pin === '9' && words === '5 V supply');
  expect(rail.length).toBeGreaterThan(5);
  expect(new Set(rail.map(({ circuit }) => circuit)).size).toBe(1);
  for (const row of rail) expect(Number(row['current A'])).toBeGreaterThan(0);
});

test('a pin with a circuit that reaches no device says the circuit, and invents no device', () => {
  const job = createCleanSkerry();
  const [endId, end] = Object.entries(job.looms.chassis!.ends).find(([, { name }]) => name === 'brake light')!;
  end.pins = {};
  const circuits = Object.values(job.looms.chassis!.circuits).filter(({ terminations }) => terminations.some((one) => one.endId === endId));
  const fed = list(job).filter(({ circuit, device }) => device === '' && circuits.some(({ name }) => name === circuit));
  expect(fed.length).toBeGreaterThan(0);
});

test('a job without boxes gives the heads alone', () => {
  const job = createInlet();
  for (const end of Object.values(job.looms.inlet!.ends)) end.offers = {};
  expect(toPinsCsv(job, plan(job, CATALOGUE).power).trim().split(/\r?\n/)).toHaveLength(1);
});
