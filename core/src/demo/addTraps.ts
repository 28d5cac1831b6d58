import type { Job } from '../model';

/** What goes wrong in every shop, put into the clean Skerry so that its findings show it. Changes the job given. */
export function addTraps(job: Job): Job {
  const { inlet, engine, chassis } = job.looms as Record<'inlet' | 'engine' | 'chassis', Job['looms'][string]>;
  // a sensor without its ground
  const ground = inlet.circuits.c216!;
  ground.terminations = ground.terminations.filter(({ endId }) => endId !== 'chg');
  // two identical plugs 180 mm apart
  inlet.ends.chg!.key = inlet.ends.map!.key;
  // a length that is only guessed
  inlet.segments['s-knk'] = { ...inlet.segments['s-knk']!, method: 'estimate', status: 'guessed' };
  // a splice where the old loom had it: on a breakout
  inlet.splicePins['c215@bk2'] = { segmentId: 't3', offsetMm: 187, reason: 'kept where the old loom had it' };
  // a sleeve that is planned after its end is closed
  inlet.segments['s-inj5']!.slideOn = 'after-ends';
  // a second reading that does not agree
  engine.segments['r-water-outlet'] = { ...engine.segments['r-water-outlet']!, secondLengthMm: 138 };
  // a fan of 14 A behind a plug that is good for 13
  chassis.ends['m-radiator-fan'] = { ...chassis.ends['m-radiator-fan']!, familyId: 'pellow-2', key: 'A' };
  job.devices.fan!.reason = 'plug kept from the old fan';
  // a main fuse raised without a look at its cable
  job.devices.fuse!.ratings = { main: { ratingA: 150, reason: 'the one that was in the drawer' } };
  chassis.circuits.c103!.sizePin = { size: '10', reason: 'what the old car had' };
  // a 5 V rail near its limit: the four damper pots are of the old, thirsty kind
  for (const corner of ['front-left', 'front-right', 'rear-left', 'rear-right']) {
    const pin = chassis.ends[`m-damper-${corner}`]!.pins['1']!;
    chassis.ends[`m-damper-${corner}`]!.pins['1'] = { ...pin, currentA: 0.02 };
  }
  return job;
}
