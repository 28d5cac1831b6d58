import type { Capability, Job } from '../../model';
import type { PlannedNet } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, WiringContext, WiringRule } from '../types';
import { type NetPin, listNetPins, toPinWords, toTakeOut } from '../../netlist';

type NetRule = (job: Job, net: PlannedNet, pins: readonly NetPin[], context: WiringContext) => Finding[];

const placeOf = (pin: NetPin): FindingPlace[] => [
  { kind: 'end', id: pin.endId },
  { kind: 'circuit', id: pin.circuitId },
];
/** Where a finding may stand at each pin of a circuit. */
const placeOfPin = (pin: NetPin): FindingPlace[] => [...placeOf(pin), { kind: 'item', id: pin.cavity }];
const SUPPLIES = ['supply', 'sensor-supply'];

/** CI3, stop: a pin wants another voltage than its net has. The fix takes it off that net. */
const checkVolts: NetRule = (job, net, pins) =>
  pins.flatMap((pin) => {
    const wanted = pin.need?.volts ?? null;
    if (wanted === null || net.volts === null || !SUPPLIES.includes(pin.need!.kind) || Math.abs(wanted - net.volts) <= 1) return [];
    return [
      createFinding(
        pin,
        'CI3',
        placeOfPin(pin),
        `${toPinWords(job, pin)} wants ${wanted} V for its ${pin.need!.function}; ${job.looms[pin.loomId]!.circuits[pin.circuitId]!.name} has ${net.volts} V.`,
        { measured: net.volts, limit: wanted, fix: { label: `Take it off the ${net.volts} V`, patch: toTakeOut(pin) } },
      ),
    ];
  });

/** CI4, stop: two fuses, channels, rails or batteries feed one net. The fix takes the last one off. */
const checkFeeds: NetRule = (job, net, pins) => {
  if (net.feeds.length < 2) return [];
  const feeds = net.feeds.flatMap((feed) =>
    pins.filter((pin) => pin.loomId === feed.loomId && pin.endId === feed.endId && pin.cavity === feed.cavity),
  );
  const last = feeds.at(-1);
  if (feeds.length < 2 || !last) return [];
  return [
    createFinding(
      last,
      'CI4',
      placeOf(last),
      `${job.looms[last.loomId]!.circuits[last.circuitId]!.name} is fed twice: by ${feeds.map((pin) => toPinWords(job, pin)).join(' and ')}.`,
      { measured: feeds.length, limit: 1, fix: { label: `Take ${toPinWords(job, last)} off`, patch: toTakeOut(last) } },
    ),
  ];
};

const isPowerGround = ({ need, offer }: NetPin) =>
  need?.kind === 'power-ground' ||
  offer?.can.some((one) => one === 'chassis' || one === 'ground' || one === 'battery-negative' || one === 'engine-block') === true;

/** CI5, stop: sensor ground and power ground are joined. The fix takes the power ground's pins off. */
const checkGrounds: NetRule = (job, _net, pins) => {
  const sensor = pins.find(({ need, offer }) => need?.kind === 'sensor-ground' || offer?.can.includes('sensor-ground'));
  const power = pins.filter(isPowerGround);
  const first = power[0];
  if (!sensor || !first) return [];
  return [
    createFinding(
      first,
      'CI5',
      placeOf(first),
      `${toPinWords(job, sensor)} is a sensor ground and is joined to the power ground at ${power.map((pin) => toPinWords(job, pin)).join(', ')}.`,
      { fix: power.length === 1 ? { label: `Take ${toPinWords(job, first)} off the sensor ground`, patch: toTakeOut(first) } : null },
    ),
  ];
};

const WANTED: Record<string, readonly Capability[]> = {
  signal: ['analogue', 'digital', 'frequency', 'temperature'],
  output: ['low-side', 'half-bridge', 'ignition'],
  data: ['can'],
};

/** CI6, stop: the pin of the box cannot do what the device there needs, not so fast, or not so much. The fix frees the pin. */
const checkCapability: NetRule = (job, _net, pins) => {
  const host = pins.find(({ offer, need }) => offer !== null && need === null);
  if (!host) return [];
  return pins.flatMap((pin): Finding[] => {
    const { need } = pin;
    if (!need || !(need.kind in WANTED)) return [];
    const wanted = need.wants === null ? WANTED[need.kind]! : [need.wants];
    const offer = host.offer!;
    const why = !offer.can.some((one) => wanted.includes(one))
      ? `needs ${wanted.join(' or ')}; ${toPinWords(job, host)} is ${offer.can.join(', ')}`
      : need.pwmHz !== null && (offer.pwmHz ?? 0) < need.pwmHz
        ? `is switched at ${need.pwmHz} Hz; ${toPinWords(job, host)} ${offer.pwmHz ? `does ${offer.pwmHz} Hz` : 'only turns on and off'}`
        : need.currentA !== null && offer.limitA !== null && need.currentA > offer.limitA
          ? `draws ${need.currentA} A; ${toPinWords(job, host)} is good for ${offer.limitA} A`
          : null;
    if (why === null) return [];
    return [
      createFinding(pin, 'CI6', placeOfPin(pin), `${toPinWords(job, pin)} (${need.function}) ${why}.`, {
        measured: need.currentA,
        limit: offer.limitA,
        fix: { label: `Free ${toPinWords(job, host)}; assigning finds another`, patch: toTakeOut(host) },
      }),
    ];
  });
};

/** CI9, check: sensor grounds of different noise groups share a wire. */
const checkNoise: NetRule = (job, _net, pins) => {
  const grounds = pins.filter(({ need }) => need?.kind === 'sensor-ground');
  const groups = [...new Set(grounds.map(({ need }) => need!.noise ?? 'the rest'))];
  const odd = grounds.find(({ need }) => (need!.noise ?? 'the rest') !== (grounds[0]!.need!.noise ?? 'the rest'));
  if (!odd) return [];
  return [
    createFinding(
      odd,
      'CI9',
      placeOf(odd),
      `${job.looms[odd.loomId]!.circuits[odd.circuitId]!.name} is shared by sensor grounds of ${groups.join(' and ')}: ${toPinWords(job, odd)} should have its own.`,
      {
        measured: groups.length,
        limit: 1,
        fix: { label: `Take ${toPinWords(job, odd)} off; assigning gives it its own`, patch: toTakeOut(odd) },
      },
    ),
  ];
};

/** CI15, stop: a supply that nothing feeds, or a ground that leads nowhere. */
const checkUnfed: NetRule = (job, net, pins) => {
  const isGround = net.kind === 'power-ground' || net.kind === 'sensor-ground';
  const isDead = isGround ? net.root === null : net.root === null || (net.volts === null && SUPPLIES.includes(net.kind));
  if (!isDead) return [];
  return pins
    .filter(({ need }) => need !== null && (isGround ? need.kind === net.kind : SUPPLIES.includes(need.kind)))
    .slice(0, 1)
    .map((pin) =>
      createFinding(
        pin,
        'CI15',
        placeOf(pin),
        isGround
          ? `${toPinWords(job, pin)} has a ${pin.need!.function} wire that leads to no ground point.`
          : `${toPinWords(job, pin)} has a ${pin.need!.function} wire that nothing feeds.`,
      ),
    );
};

const NET_RULES: readonly NetRule[] = [checkVolts, checkFeeds, checkGrounds, checkCapability, checkNoise, checkUnfed];

/** Rules about what copper joins, through all looms. Nothing is said before the job has a box that could feed or take anything. */
export const checkNets: WiringRule = (context) => {
  const { job, plan } = context;
  if (!Object.values(job.looms).some(({ ends }) => Object.values(ends).some(({ offers }) => Object.keys(offers).length > 0))) return [];
  return plan.power.nets.flatMap((net) => {
    const pins = listNetPins(job, net);
    return NET_RULES.flatMap((rule) => rule(job, net, pins, context));
  });
};
