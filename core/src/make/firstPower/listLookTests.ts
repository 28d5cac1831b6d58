import { findDeviceTemplate } from '../../catalogue';
import type { DeviceHazard, PinNeed } from '../../model';
import { compareIds } from '../../units';
import { createPowerTest, isDriven, type PowerContext } from './powerContext';
import type { PowerTest } from './types';

interface Placed {
  id: string;
  name: string;
  end: string;
  needs: PinNeed[];
  /** by its template; null: it says none; unsaid: it has none that could */
  hazard: DeviceHazard | 'unsaid' | null;
}

/** Every device on a loom with what its pins need. */
const listPlaced = ({ job, catalogue, wired }: PowerContext): Placed[] =>
  Object.keys(job.devices)
    .sort(compareIds)
    .flatMap((id): Placed[] => {
      const { at, name, decision, templateId } = job.devices[id]!;
      if (!at || decision === 'remove' || !wired.has(`${at.loomId}/${at.endId}`)) return [];
      const { pins } = job.looms[at.loomId]!.ends[at.endId]!;
      const template = findDeviceTemplate(job, catalogue, templateId);
      const hazard = template ? template.hazard : 'unsaid';
      return [{ id, name, end: `${at.loomId}/${at.endId}`, needs: Object.values(pins), hazard }];
    });

/** Lamps light when they are given power, and go out again. */
export const listLampTests = (context: PowerContext): PowerTest[] =>
  listPlaced(context)
    .filter(({ needs }) => needs.some(({ load }) => load === 'lamp'))
    .map(({ id, name, end }) =>
      createPowerTest({
        id: `lamp ${id}`,
        part: 'lamps',
        words: `${name} lights when it is given power, and goes out when it is taken`,
        unit: 'look',
        expected: 1,
        least: 1,
        wakes: [id],
        endIds: [end],
      }),
    );

/** The reading that temperatures at rest are compared with. */
export const AMBIENT_TEST = 'inputs ambient';

/** What every sensor says at rest (craft E2): temperatures agree with each other and the air, all else as its kind does. */
export function listInputTests(context: PowerContext): PowerTest[] {
  const placed = listPlaced(context).filter(({ id, needs }) => context.boxOf(id) === null && needs.some(({ kind }) => kind === 'signal'));
  const isWarm = ({ needs }: Placed) => needs.some(({ wants }) => wants === 'temperature');
  const warm = placed.filter(isWarm);
  const ambient = createPowerTest({ id: AMBIENT_TEST, part: 'inputs', words: 'the air beside the vehicle, by a thermometer', unit: '°C' });
  return [
    ...(warm.length > 0 ? [ambient] : []),
    ...warm.map(({ id, name, end }) =>
      createPowerTest({ id: `inputs ${id}`, part: 'inputs', words: `${name}, at rest and cold`, unit: '°C', endIds: [end] }),
    ),
    ...placed
      .filter((one) => !isWarm(one))
      .map(({ id, name, end, needs }) =>
        createPowerTest({
          id: `inputs ${id}`,
          part: 'inputs',
          words: `${name}: ${toRestWords(needs)}`,
          unit: 'look',
          expected: 1,
          least: 1,
          endIds: [end],
        }),
      ),
  ];
}

function toRestWords(needs: readonly PinNeed[]): string {
  const signals = needs.filter(({ kind }) => kind === 'signal');
  const wants = new Set(signals.map((need) => need.wants));
  if (wants.has('analogue') && signals.length > 1) return 'end to end; all its tracks agree';
  if (wants.has('analogue')) return 'at zero, or at what the air has; moves with what it measures';
  if (wants.has('frequency') || wants.has('coil-pair')) return 'counts when it is turned by hand or by a drill';
  if (wants.has('knock-pair')) return 'answers a tap beside it';
  return 'changes as it is worked by hand, and back';
}

/** One actuator at a time, by the shortest pulse, with what may hurt (craft E2). */
export const listActuatorTests = (context: PowerContext): PowerTest[] =>
  listPlaced(context)
    .filter(
      ({ id, needs }) =>
        context.boxOf(id) === null &&
        (needs.some(({ load }) => load === 'motor' || load === 'ignition' || load === 'starter' || load === 'heater') ||
          isDriven(context, id)),
    )
    .map((one) =>
      createPowerTest({
        id: `actuators ${one.id}`,
        part: 'actuators',
        words: `${one.name}: the shortest pulse; seen, heard or felt, it alone`,
        hazard: toHazard(one),
        unit: 'look',
        expected: 1,
        least: 1,
        wakes: [one.id],
        endIds: [one.end],
      }),
    );

const HAZARD_LINES: Readonly<Record<DeviceHazard | 'unsaid', string>> = {
  'injects-fuel': 'Fuel pressure off, or its cylinder floods; no spark near.',
  'moves-fuel': 'Without fuel no longer than a second; with fuel, look for leaks, extinguisher at hand.',
  blades: 'Guard on, hands and sleeves away.',
  pressure: 'What it holds may be under pressure: let it off first.',
  unsaid: 'What it does is not known: fuel and pressure off, guards on, nothing near that it may move, heat or set light to.',
};

/** By what its loads are, then by what its template says. */
function toHazard({ needs, hazard }: Placed): string {
  if (needs.some(({ load }) => load === 'starter')) return 'Gearbox in neutral, fuel and spark off, nobody near belt and wheels.';
  if (needs.some(({ wants }) => wants === 'half-bridge')) return 'Fingers and tools out of the throttle.';
  // injectors share their drop budget with coils, not their hazard
  if (needs.some(({ wants }) => wants === 'ignition')) return 'High voltage and spark: no fuel vapour, hands off plug and coil.';
  if (hazard !== null) return HAZARD_LINES[hazard];
  if (needs.some(({ load }) => load === 'ignition'))
    return 'It sparks or injects: fuel pressure off, no fuel vapour, hands off plug and coil.';
  if (needs.some(({ load }) => load === 'heater')) return 'It gets hot: nothing that burns against it.';
  return 'Keep clear of what it moves, and of what it may let out.';
}

/** What stands at the end: the first start, and that the isolator ends it. */
export const listStartTests = ({ job, planned }: PowerContext): PowerTest[] => {
  if (!planned.power.modeIds.some((id) => job.modes[id]!.engine === 'running')) return [];
  const look = (id: string, words: string, hazard: string) =>
    createPowerTest({ id: `start ${id}`, part: 'start', words, hazard, unit: 'look', expected: 1, least: 1 });
  return [
    look(
      'engine',
      'the engine starts and idles',
      'Extinguisher in hand, fuel lines looked over, exhaust led outside, one person at the isolator.',
    ),
    ...(job.source.isolator ? [look('isolator', 'the isolator stops the engine', 'One person at the isolator, one beside the car.')] : []),
  ];
};
