import type { Catalogue } from '../../catalogue';
import type { Job } from '../../model';
import type { JobPlan } from '../../plan';
import { listAbsent } from './listAbsent';
import { listBusTests } from './listBusTests';
import { listBareTests, listBoxTests, listCrankTests, listFeedTests } from './listCurrentTests';
import { listActuatorTests, listInputTests, listLampTests, listStartTests } from './listLookTests';
import { listStandingStates, listVoltTests } from './listVoltTests';
import { listProvingTests, listStandTests } from './listProvingTests';
import { createPowerContext } from './powerContext';
import { POWER_PARTS, type FirstPower } from './types';

/**
 * What is read when a vehicle gets power for the first time, in its order (craft E2): no power, grounds, buses, every cavity that goes to a dear box
 * in every state of the switches with all boxes out, then with the modules in, boxes, feeds one by one, coding, lamps, inputs, actuators, cranking,
 * start, and what waits for a condition.
 * null: no battery is in the job, so nothing is fed by it.
 */
export function createFirstPower(job: Job, planned: JobPlan, catalogue: Catalogue): FirstPower | null {
  if (!planned.power.sourceA) return null;
  const context = createPowerContext(job, planned, catalogue);
  const modules = new Set(context.boxes.flatMap(({ id, kind }) => (kind === 'module' ? [id] : [])));
  const all = new Set(context.boxes.map(({ id }) => id));
  const rest = new Set([...all].filter((id) => !modules.has(id)));
  const bareStates = listStandingStates(context, 'unplugged', () => true);
  const unplugged = listVoltTests(context, 'unplugged', bareStates, all);
  // without a module the controllers' cavities are read once
  const moduleStates = modules.size > 0 ? listStandingStates(context, 'modules', (id) => !modules.has(id)) : [];
  const withModules = listVoltTests(context, 'modules', moduleStates, rest);
  const [boxes, feeds, crank] = [listBoxTests(context), listFeedTests(context), listCrankTests(context)];
  const tests = [
    ...[listBareTests(context), listBusTests(context), unplugged.tests, withModules.tests, boxes.tests, feeds.tests],
    ...[
      listLampTests(context),
      listInputTests(context),
      listActuatorTests(context),
      crank,
      listStandTests(context),
      listStartTests(context),
    ],
    listProvingTests(context),
  ].flat();
  const used = new Set(tests.flatMap(({ stateId }) => stateId ?? []));
  return {
    states: [...bareStates, ...moduleStates].map(({ state }) => state).filter(({ id }) => used.has(id)),
    tests: POWER_PARTS.flatMap((part) => tests.filter((test) => test.part === part)),
    elements: [...context.elements.values()],
    restApartK: context.standard.restApartK,
    limitA: { ...boxes.limitA, ...feeds.limitA },
    absent: listAbsent(job),
    untold: unplugged.untold + withModules.untold,
    devices: Object.fromEntries(Object.entries(job.devices).flatMap(([id, { name, at }]) => (at ? [[id, name]] : []))),
  };
}
