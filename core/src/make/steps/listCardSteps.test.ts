import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo/createSkerry';
import { createSheets } from '../../draw';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import { listCardSteps } from './listCardSteps';

const job = createSkerry();
// twisted in layers, and with holes, breakouts and ends that something goes over
job.looms.engine!.bundling = 'concentric';
const whole = plan(job, CATALOGUE);
const META = { paper: 'A4', job: 'job', loom: 'loom', revision: '1', date: '2026-11-28' } as const;

test('every card of a pack opens work of its own end, reel or post; only what has no work opens none', () => {
  for (const planned of whole.looms) {
    const build = createBuild(job, planned, CATALOGUE);
    const pages = createSheets({ job, whole, plan: planned, build, findings: [], catalogue: CATALOGUE }, META);
    const cards = new Set(pages.flatMap(({ codes }) => codes!.map(({ card }) => card)));
    if (planned.loomId === 'engine')
      expect([...cards].map((card) => card.split(' ')[0]!)).toEqual(
        expect.arrayContaining(['fork', 'dress', 'step', 'end', 'cut', 'test']),
      );
    const isHeld = (id: string) => build.cuts.some((cut) => cut.id === id && cut.wires.length === 0);
    for (const card of cards) {
      const steps = listCardSteps(build.steps, card);
      const [kind, id] = [card.slice(0, card.indexOf(' ')), card.slice(card.indexOf(' ') + 1)];
      if (kind === 'end') for (const step of steps) expect([card, step.endId]).toEqual([card, id]);
      const hasWork = planned.terminations.some(({ endId }) => endId === id);
      const isOf = kind === 'cut' ? !isHeld(id) : kind === 'end' ? hasWork : ['test', 'fork', 'dress', 'late', 'step'].includes(kind!);
      if (isOf) expect([card, steps.length > 0]).toEqual([card, true]);
      if (kind === 'dress' || kind === 'late') for (const step of steps) expect([card, step.endId]).toEqual([card, id]);
      if (kind === 'fork') expect([card, steps.every((step) => step.id.endsWith(id!))]).toEqual([card, true]);
      if (card === 'post crimp') expect(steps.every(({ operation }) => operation !== 'cut')).toBe(true);
    }
  }
});

test('a card of another loom or another time opens nothing', () => {
  const { steps } = createBuild(job, whole.looms[0]!, CATALOGUE);
  for (const card of ['', 'end', 'end nowhere', 'cut no-reel', 'post toString', 'post kitchen', 'kettle on', '__proto__ x'])
    expect(listCardSteps(steps, card)).toEqual([]);
});

test('the ring-out card of an end opens its own test, where it has none that of the loom', () => {
  const { steps } = createBuild(job, whole.looms[0]!, CATALOGUE);
  const opened = listCardSteps(steps, 'test no-such-end');
  expect(opened.length).toBeGreaterThan(0);
  expect(opened.every(({ operation }) => operation === 'test' || operation === 'sign')).toBe(true);
});
