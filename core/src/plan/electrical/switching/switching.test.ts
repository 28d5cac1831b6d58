import { CATALOGUE, createLookup } from '../../../catalogue';
import { createCleanSkerry } from '../../../demo';
import { setEnabledBy, setIsolator, setLinkStates, setPosition, strikeDevice } from '../../../edit';
import { listFindings } from '../../../make';
import { checkJob, type Job } from '../../../model';
import { createVehicle } from '../../../testing/createVehicle';
import { plan } from '../../plan';
import { findStandard } from '../../findStandard';
import { listLive, listStandingModes, measureBatteryHours, type PowerPlan } from '../index';

const skerry = createCleanSkerry();
const change = (job: Job, ...commands: { apply: (draft: Job) => void }[]) => {
  const draft = structuredClone(job);
  for (const { apply } of commands) apply(draft);
  const checked = checkJob(draft, createLookup(CATALOGUE));
  expect(checked.ok ? [] : checked.problems).toEqual([]);
  return draft;
};
const known = new WeakMap<Job, PowerPlan>();
/** of a job that is not changed any more */
const powerOf = (job: Job) => {
  const power = known.get(job) ?? plan(job, CATALOGUE).power;
  known.set(job, power);
  return power;
};
const at = (job: Job, modeId: string) => powerOf(job).modeIds.indexOf(modeId);
const live = (job: Job, modeId: string) => listLive(job, { power: powerOf(job) }, at(job, modeId));
const codes = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).map(({ code }) => code);
const kill = { deviceId: 'kill', linkId: 'main', name: 'kill switch main pole' };
/** a switch between main fuse and fuse box of the small vehicle */
const switched = (rest: (job: Job) => void = () => undefined) =>
  createVehicle((job) => {
    job.deviceTemplates.toggle = {
      ...structuredClone(CATALOGUE.devices['main-fuse']!),
      name: 'toggle',
      links: {
        main: {
          ...CATALOGUE.devices['main-fuse']!.links.main!,
          ...{ name: 'toggle', kind: 'switch' },
        },
      },
    };
    job.devices.main!.templateId = 'toggle';
    rest(job);
  });

describe('what is live follows from how switches stand', () => {
  test('with the isolator open only what hangs before it is live, and the battery gives nothing', () => {
    const power = powerOf(skerry);
    const mode = at(skerry, 'isolated');
    expect(power.states[mode]).toMatchObject({ isIsolated: true, unsaid: [] });
    const lines = live(skerry, 'isolated');
    expect(lines.map(({ name, fuse }) => [name, fuse?.name ?? null])).toEqual([
      ['battery to main fuse', null],
      ['main fuse to kill switch', 'main fuse'],
    ]);
    expect(power.sourceA!.on[mode]).toBe(0);
    expect(power.sourceA!.on[at(skerry, 'night')]).toBeGreaterThan(50);
  });
  test('a rail of a box is live while its box is fed', () => {
    const rails = (modeId: string) =>
      live(skerry, modeId).filter(({ via }) => via.includes('controller plug B') || via.includes('Orrery E4'));
    expect(rails('key-on').length).toBeGreaterThan(1);
    expect(rails('key-off')).toEqual([]);
  });
  test('what is said acts: opened in one mode, the load draws nothing there, and the same elsewhere', () => {
    const before = powerOf(skerry);
    const pump = before.loads.find(({ name }) => name === 'fuel pump 12 V supply')!;
    const link = before.protections.find(({ id }) => id === pump.linkIds.at(-1))!;
    const job = change(skerry, setLinkStates([link], ['night'], 'open'));
    const after = powerOf(job);
    const found = after.loads.find(({ id }) => id === pump.id)!;
    for (const [mode, id] of after.modeIds.entries()) {
      expect(found.onA[mode]).toBe(id === 'night' ? 0 : pump.onA[mode]);
      expect(before.sourceA!.on[mode]! - after.sourceA!.on[mode]!).toBeCloseTo(id === 'night' ? pump.currentA : 0, 9);
    }
  });
  test('held: live while it is, so it draws; not said: counted as closed and said so', () => {
    const held = change(switched(), setLinkStates([{ deviceId: 'main', linkId: 'main', name: 'toggle' }], ['idle'], 'momentary'));
    const stateIn = (job: Job, modeId: string) => live(job, modeId).find(({ name }) => name === 'lamp feed')?.state;
    expect([stateIn(held, 'idle'), stateIn(held, 'night')]).toEqual(['momentary', 'unsaid']);
    const power = powerOf(held);
    for (const mode of [at(held, 'idle'), at(held, 'night')]) expect(power.sourceA!.on[mode]).toBeCloseTo(7.8, 9);
    expect(codes(held)).toContain('PO23');
    const said = change(held, setLinkStates([{ deviceId: 'main', linkId: 'main', name: 'toggle' }], Object.keys(held.modes), 'closed'));
    expect(codes(said)).not.toContain('PO23');
    // and nobody says again
    const unsaid = change(said, setLinkStates([{ deviceId: 'main', linkId: 'main', name: 'toggle' }], Object.keys(held.modes), null));
    expect(unsaid.devices.main!.states).toEqual({});
    expect(codes(unsaid)).toContain('PO23');
  });
  test('a switch of several throws is closed in the positions that its contact names', () => {
    const job = switched((one) => {
      one.deviceTemplates.toggle!.links.main!.closedIn = ['on', 'start'];
    });
    const turned = change(
      job,
      setPosition('main', 'toggle', 'idle', 'on'),
      setPosition('main', 'toggle', 'crank', 'start'),
      setPosition('main', 'toggle', 'key-off', 'off'),
    );
    const isLive = (modeId: string) => live(turned, modeId).find(({ name }) => name === 'lamp feed')?.state ?? 'dead';
    expect(['idle', 'crank', 'key-off', 'night'].map(isLive)).toEqual(['live', 'live', 'dead', 'unsaid']);
    expect(change(turned, setPosition('main', 'toggle', 'idle', null)).devices.main!.positions).not.toHaveProperty('idle');
  });
  test('a relay gives nothing while its coil has no feed, and a link that waits for another none while that gives none', () => {
    const power = powerOf(skerry);
    const [first, second] = power.protections.filter(({ kind, loadIds }) => kind === 'channel' && loadIds.length > 0);
    const waiting = change(skerry, setEnabledBy(second!, first!), setLinkStates([first!], ['night'], 'open'));
    const viaOf = (job: Job, modeId: string) => powerOf(job).states[at(job, modeId)]!.live.flatMap(({ via }) => via);
    expect(viaOf(waiting, 'night')).not.toContain(second!.id);
    expect(viaOf(waiting, 'wet')).toContain(second!.id);
    expect(viaOf(change(waiting, setEnabledBy(second!, null)), 'night')).toContain(second!.id);
    // what it waits for is struck off: it works by itself again
    const struck = change(waiting, strikeDevice(first!.deviceId, 'module'));
    expect(Object.values(struck.devices).every(({ enabledBy }) => Object.keys(enabledBy).length === 0)).toBe(true);
  });
});

describe('findings of the isolator', () => {
  test('ignition that stays live stops the release; the isolator that is struck off isolates nothing', () => {
    expect(codes(skerry).filter((code) => code.startsWith('PO2'))).toEqual([]);
    const bridged = change(skerry, setLinkStates([kill], ['isolated'], 'closed'), setIsolator(kill));
    // closed, it is no mode of an open isolator
    expect(powerOf(bridged).states.some(({ isIsolated }) => isIsolated)).toBe(false);
    // a by-pass round its main pole, inside the switch
    const byPassed = change(skerry, {
      apply: (draft) => {
        const template = structuredClone(CATALOGUE.devices.kill!);
        template.links['by-pass'] = { ...template.links.main!, name: 'by-pass' };
        draft.deviceTemplates['own-kill'] = template;
        draft.devices.kill!.templateId = 'own-kill';
      },
    });
    const byPass = { deviceId: 'kill', linkId: 'by-pass', name: 'by-pass' };
    const channels = powerOf(byPassed).protections.filter(({ kind }) => kind === 'channel');
    const modeIds = Object.keys(byPassed.modes);
    const closed = change(byPassed, setLinkStates([byPass], modeIds, 'closed'));
    // the module's feed is live round the isolator behind the main fuse: more than the engine runs on
    expect(codes(closed).filter((code) => code.startsWith('PO2'))).toEqual(['PO22']);
    expect(live(closed, 'isolated').filter(({ isByPassed }) => isByPassed).length).toBeGreaterThan(0);
    expect(codes(change(closed, setLinkStates(channels, ['isolated'], 'closed'))).filter((code) => code.startsWith('PO2'))).toEqual([
      'PO21',
      'PO22',
    ]);
    expect(codes(change(closed, setLinkStates([byPass], modeIds, 'open'))).filter((code) => code.startsWith('PO2'))).toEqual([]);
    expect(change(skerry, strikeDevice('kill', 'kill switch')).source.isolator).toBeNull();
  });
});

describe('how long a battery lasts', () => {
  test.each([
    ['24 mA dark, 16 Ah', 16, 0.024, 13.9 * 24],
    ['display mode 11 A, 16 Ah', 16, 11, 44 / 60],
  ])('%s', (_, capacityAh, currentA, hours) => {
    const measured = measureBatteryHours(capacityAh, 0.5, currentA);
    expect(Math.abs(measured / hours - 1)).toBeLessThan(0.01);
  });
  test('modes with the engine off only, at what is drawn in them; nothing is told where nobody said what it holds', () => {
    const standard = findStandard(skerry, CATALOGUE);
    const standing = listStandingModes(skerry, { power: powerOf(skerry) }, standard);
    expect(standing.map(({ mode }) => powerOf(skerry).modeIds[mode])).toEqual(['display', 'isolated', 'key-off', 'key-on']);
    const display = standing[0]!;
    expect(display.hours).toBeCloseTo((0.5 * 16) / display.meanA, 9);
    expect(standing[1]).toMatchObject({ meanA: 0, hours: null, isAtMost: false });
    const unsaid = change(skerry, { apply: (draft) => void (draft.source.capacityAh = null) });
    expect(listStandingModes(unsaid, { power: powerOf(unsaid) }, standard).every(({ hours }) => hours === null)).toBe(true);
  });
});
