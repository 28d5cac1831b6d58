import { CATALOGUE, createLookup } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { setFirstStart, strikeDevice } from '../../edit';
import { fromPowerReadings, readCsv, toFileValuesCsv, toPowerCsv } from '../../exchange';
import { changeDocument, checkJob, toProblemLines, type Job } from '../../model';
import { plan } from '../../plan';
import { listPowerNeeds } from '../milestones';
import {
  createFirstPower,
  createStandInVehicle,
  isPowered,
  judgePower,
  listPowerProofs,
  POWER_PARTS,
  POWER_STEP,
  type FirstPower,
  type LoomSteps,
} from './index';

const job = createCleanSkerry();
const sheetOf = (one: Job): FirstPower => createFirstPower(one, plan(one, CATALOGUE), CATALOGUE)!;
const sheet = sheetOf(job);
const of = (part: string, from = sheet) => from.tests.filter((test) => test.part === part);
const wordsOf = (part: string, from = sheet) => of(part, from).map(({ words }) => words);

describe('what first power asks for beside what the wires say (craft E2)', () => {
  test('coding comes with the boxes in, what waits for a condition at the very end, each with its device', () => {
    expect(wordsOf('coding')).toEqual(['logger: channel list of this car loaded, clock set']);
    const { loomId, endId } = job.devices.logger!.at!;
    expect(of('coding')[0]!.endIds).toEqual([`${loomId}/${endId}`]);
    expect(of('later')).toMatchObject([
      { words: 'wheel speeds agree with each other and with the road', note: 'Under its condition alone: driven straight at 30 km/h.' },
    ]);
    const parts = [...new Set(sheet.tests.map(({ part }) => part))];
    expect(parts).toEqual(POWER_PARTS.filter((part) => parts.includes(part)));
    expect(parts.indexOf('coding')).toBeGreaterThan(parts.indexOf('boxes'));
    expect(parts.at(-1)).toBe('later');
  });

  test('a voltage for the controller’s file passes whatever it is, and goes into the list until work voids it', () => {
    const values = of('inputs').filter(({ unit }) => unit === 'V');
    expect(values.map(({ words }) => words)).toEqual(['pedal: released, first track', 'pedal: pressed to its stop, first track']);
    const [released] = values;
    for (const volts of [0.48, 4.9])
      expect(judgePower(sheet, new Map([[released!.id, volts]])).tests.find(({ test }) => test === released)!.verdict).toBe('passed');
    const { loomId, endId } = job.devices.pedal!.at!;
    const read = {
      ...{ loomId: '', stepId: POWER_STEP, itemId: 'inputs', kind: 'reading', words: '', author: 'Jun Okafor' },
      ...{ readId: released!.id, value: 0.4812, unit: 'V', instrument: 'laptop', happenedAt: '2026-11-30T09:00:00.000Z' },
    };
    const redo = { ...read, loomId, stepId: `seat-${endId}`, itemId: 'w', kind: 'tick', readId: null, value: null };
    const item = { id: 'w', words: '', wireIds: [], cavity: null } as unknown as LoomSteps['steps'][number]['items'][number];
    const steps = [{ id: redo.stepId, title: 'Seat', operation: 'seat' as const, endId, items: [item] }];
    const ends = new Map<string, readonly string[]>();
    const csv = (events: readonly object[]) =>
      toFileValuesCsv(sheet, listPowerProofs(sheet, [{ loomId, steps }], ends, events as Parameters<typeof listPowerProofs>[3]))
        .trim()
        .split(/\r?\n/);
    expect(csv([read])).toEqual([
      'what,V,instrument,by,at',
      expect.stringMatching(/^"pedal: released, first track",0.481,laptop,Jun Okafor,/),
      expect.stringMatching(/^"pedal: pressed to its stop, first track",,,,$/),
    ]);
    expect(csv([read, redo])[1]).toMatch(/,,,,$/);
  });

  test('all else read, nothing is next: what waits for a condition is said to be open, and only shipping waits for it', () => {
    const vehicle = createStandInVehicle(sheet, [], 1);
    const values = new Map(sheet.tests.flatMap((one) => (one.part === 'later' ? [] : [[one.id, vehicle.read(one)] as const])));
    const judged = judgePower(sheet, values);
    expect([judged.failed, judged.next]).toEqual([[], null]);
    expect(judged.later.map(({ test }) => test.part)).toEqual(['later']);
    // seen not to be so, it stops the sheet like any other
    expect(judgePower(sheet, new Map([...values, [of('later')[0]!.id, 0]])).failed).toHaveLength(1);
    const waits = (['start', 'move', 'inspect', 'ship'] as const).filter((id) =>
      listPowerNeeds({ id, wires: null }, sheet.tests, new Map()).has(of('later')[0]!.id),
    );
    expect(waits).toEqual(['ship']);
  });

  test('on a stand its feed, fuel, guards and other causes are looked at before the start, without power', () => {
    expect(of('stand')).toEqual([]);
    const stand = sheetOf(changeDocument(job, setFirstStart('stand').apply));
    expect(of('stand', stand)).toHaveLength(4);
    expect(wordsOf('stand', stand)[0]).toBe('the stand is fed through a fuse, never by the bare battery');
    expect([isPowered('stand'), isPowered('start')]).toEqual([false, true]);
    const parts = stand.tests.map(({ part }) => part);
    expect(parts.indexOf('stand')).toBeLessThan(parts.indexOf('start'));
    expect(stand.tests.length).toBe(sheet.tests.length + 4);
  });

  test('the file of the sheet has them, and reads back', () => {
    const lines = toPowerCsv(sheet).split(/\r?\n/);
    expect(lines.filter((line) => /^(coding|value|later) p\d,/.test(line))).toHaveLength(4);
    const table = readCsv('test,value\nvalue p2,0.48\ncoding p1,1\n');
    if (!table.ok) throw new Error('no table');
    const read = fromPowerReadings(sheet, table.value);
    expect(read.ok && read.value.map(({ test, value }) => [test, value])).toEqual([
      ['value p2', 0.48],
      ['coding p1', 1],
    ]);
  });
});

test('a device that is struck off leaves what is to be proved without one; a device that is not there is refused', () => {
  const struck = changeDocument(job, strikeDevice('logger', 'logger').apply);
  expect(struck.provings.p1).toMatchObject({ deviceId: null, what: 'channel list of this car loaded, clock set' });
  const wrong = { ...job, provings: { p1: { kind: 'coding', what: 'x', deviceId: 'gone', when: '' } } };
  const checked = checkJob(wrong, createLookup(CATALOGUE));
  expect(checked.ok ? [] : toProblemLines(checked.problems)).toEqual(['/provings/p1/deviceId: expected a device of this job, got "gone"']);
});
