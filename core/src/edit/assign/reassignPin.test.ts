import { CATALOGUE, createLookup } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { checkJob, type Job } from '../../model';
import { findStandard } from '../../plan';
import { assignPins } from './assignPins';
import { reassignPin, listAblePlaces } from './reassignPin';
import { type PinPlace, createNetMap, toPinKey } from '../../netlist';

/** The demo with the rear brake pressure left out: the controller has a pin to spare for a signal. */
const job: Job = structuredClone(createCleanSkerry());
for (const [id, { terminations }] of Object.entries(job.looms.chassis!.circuits))
  if (terminations.length === 2 && terminations.some(({ endId }) => endId === 'm-brake-pressure-rear'))
    delete job.looms.chassis!.circuits[id];
for (const need of Object.values(job.looms.chassis!.ends['m-brake-pressure-rear']!.pins)) need.required = false;
const standard = findStandard(job, CATALOGUE);
const pinOf = (name: string, wanted: string, from: Job = job): PinPlace => {
  for (const [loomId, { ends }] of Object.entries(from.looms))
    for (const [endId, end] of Object.entries(ends))
      for (const [cavity, need] of Object.entries(end.pins))
        if (end.name === name && need.function === wanted) return { loomId, endId, cavity };
  throw new Error(`no ${name} ${wanted}`);
};
const hostsOf = (from: Job, pin: PinPlace) =>
  createNetMap(from)
    .netOf.get(toPinKey(pin))!
    .pins.filter(({ offer }) => offer !== null)
    .map(toPinKey);
/** Every other pin of the job with the boxes that serve it. */
const served = (from: Job, but: readonly string[]) => {
  const { netOf } = createNetMap(from);
  return Object.entries(from.looms).flatMap(([loomId, { ends }]) =>
    Object.entries(ends).flatMap(([endId, { pins }]) =>
      Object.keys(pins).flatMap((cavity) => {
        const key = toPinKey({ loomId, endId, cavity });
        const hosts =
          netOf
            .get(key)
            ?.pins.filter(({ offer }) => offer)
            .map(toPinKey) ?? [];
        return but.some((one) => hosts.includes(one)) ? [] : [`${key}: ${hosts.sort().join()}`];
      }),
    ),
  );
};

describe('giving a pin to a box by hand', () => {
  test('a signal moves to the pin that is chosen; everything else stays; the assignment keeps it then', () => {
    const pin = pinOf('steering angle', 'signal');
    const [before] = hostsOf(job, pin);
    const able = listAblePlaces(job, standard, pin)!;
    expect(able.along).toBe(0);
    // of the pins that can, the one it has now is not offered
    expect(able.places.some(({ pins }) => toPinKey(pins[0]!) === before)).toBe(false);
    const [other] = able.places;
    if (!other) throw new Error('expected a free pin');
    const given = reassignPin(job, CATALOGUE, standard, pin, other.pins[0]!);
    if (!('next' in given)) throw new Error(given.wouldTake);
    expect(hostsOf(given.next, pin)).toEqual([toPinKey(other.pins[0]!)]);
    expect(checkJob(given.next, createLookup(CATALOGUE)).ok).toBe(true);
    const moved = [before!, toPinKey(other.pins[0]!)];
    expect(served(given.next, moved)).toEqual(served(job, moved));
    const again = assignPins(given.next, CATALOGUE, standard);
    expect(again.assigned).toEqual([]);
    expect(hostsOf(again.next, pin)).toEqual(hostsOf(given.next, pin));
  });
  test('a ground that many share moves with all of them, through the plugs', () => {
    const pin = pinOf('charge temperature', 'sensor ground');
    const able = listAblePlaces(job, standard, pin)!;
    expect(able.along).toBeGreaterThan(10);
    const [other] = able.places;
    if (!other) throw new Error('expected a free ground');
    const given = reassignPin(job, CATALOGUE, standard, pin, other.pins[0]!);
    if (!('next' in given)) throw new Error(given.wouldTake);
    expect(hostsOf(given.next, pin)).toEqual([toPinKey(other.pins[0]!)]);
    expect(hostsOf(given.next, pinOf('steering angle', 'sensor ground'))).toEqual(hostsOf(given.next, pin));
  });
  test('an open pin is led like any other, and a pair takes both', () => {
    const bare = structuredClone(job);
    const { circuits } = bare.looms.chassis!;
    for (const [id, { terminations }] of Object.entries(circuits))
      if (terminations.some(({ endId }) => endId === 'm-steering-angle')) {
        if (terminations.length === 2) delete circuits[id];
        else circuits[id]!.terminations = terminations.filter(({ endId }) => endId !== 'm-steering-angle');
      }
    const pin = pinOf('steering angle', 'signal', bare);
    const [best] = listAblePlaces(bare, standard, pin)!.places;
    const given = reassignPin(bare, CATALOGUE, standard, pin, best!.pins[0]!);
    if (!('next' in given)) throw new Error(given.wouldTake);
    expect(hostsOf(given.next, pin)).toEqual([toPinKey(best!.pins[0]!)]);
    const crank = listAblePlaces(job, standard, pinOf('crank sensor', 'crank +'))!;
    for (const { pins } of crank.places) expect(pins).toHaveLength(2);
  });
  test('a pin that cannot, or is taken, is refused and changes nothing', () => {
    const pin = pinOf('steering angle', 'signal');
    const taken = createNetMap(job)
      .netOf.get(toPinKey(pinOf('brake pressure front', 'signal')))!
      .pins.find(({ offer }) => offer)!;
    for (const place of [taken, { loomId: 'chassis', endId: 'm-battery-positive', cavity: '1' }]) {
      const given = reassignPin(job, CATALOGUE, standard, pin, place);
      expect('next' in given).toBe(false);
      expect(given).toMatchObject({ wouldTake: 'a free pin that can do it: this one cannot, or is taken' });
    }
  });
  test('what asks for no box has none to be given to', () => {
    expect(listAblePlaces(job, standard, pinOf('main fuse', 'battery side'))).toBeNull();
  });
});
