import { CATALOGUE } from '../catalogue';
import { checkPlan } from '../check';
import { createRandomJob } from '../demo/createRandomJob';
import { createSheets } from '../draw';
import { applyEdit, type Job, type Loom } from '../model';
import { plan, planClips } from '../plan';
import { createBench } from '../testing/createBench';
import { playShop } from '../testing/playShop';
import { runs } from '../testing/runs';
import { createRandom } from '../units';
import { createBuild, type Step } from './index';

const make = (job: Job) => {
  const planned = plan(job, CATALOGUE).looms[0]!;
  return { planned, steps: createBuild(job, planned, CATALOGUE).steps };
};
const place = (steps: readonly Step[], id: string) => steps.findIndex((step) => step.id === id);
const rise = (steps: readonly Step[], ids: readonly string[]) => {
  const order = ids.map((id) => place(steps, id));
  expect(order).not.toContain(-1);
  expect(order).toEqual([...order].sort((a, b) => a - b));
};
const withHole = (change: (loom: Loom) => void = () => undefined) =>
  createBench((loom) => {
    loom.nodes.b1 = { ...loom.nodes.b1!, holeMm: 60 };
    loom.clampedBy = null;
    change(loom);
  });

describe('a loom that passes its hole as it is', () => {
  const { planned, steps } = make(withHole());
  test('is proved, signed and led through, end by end in its order', () => {
    rise(steps, ['seat.L', 'test', 'sign', 'route']);
    const order = planned.feeds[0]!.pieces.map(({ id }) => `b1 ${id}`);
    expect(steps[place(steps, 'route')]!.items.map(({ id }) => id)).toEqual([...order, 'lies']);
  });
  test('one without a hole has no such step', () => {
    expect(make(createBench()).steps.map(({ id }) => id)).not.toContain('route');
  });
});

describe('an end that is pinned in the vehicle (craft I2)', () => {
  const { steps } = make(
    withHole((loom) => {
      loom.ends.L = { ...loom.ends.L!, familyId: 'pellow-3', key: null, pinAt: 'vehicle' };
    }),
  );
  test('is crimped, bunched and rung on the bench; seated behind the hole, rung once more, then all is signed', () => {
    rise(steps, ['crimp.L', 'bunch.L', 'route', 'seat.L', 'test.L', 'sign']);
    rise(steps, ['test', 'route']);
    expect(place(steps, 'seat.R')).toBeLessThan(place(steps, 'test'));
  });
  test('its second test reads the pairs of that end alone', () => {
    const reads = (id: string) => steps[place(steps, id)]!.items[0]!.reads.map((one) => one.id);
    expect(reads('test.L').length).toBeGreaterThan(0);
    expect(reads('test.L')).toEqual(reads('test').filter((id) => id.split(' ')[0] === 'L' || id.split(' ')[2] === 'L'));
  });
  test('pull-to-seat: nothing of it is threaded or crimped before', () => {
    const pulled = make(
      withHole((loom) => {
        loom.ends.L = { ...loom.ends.L!, familyId: 'tarn-3', key: null, pinAt: 'vehicle' };
      }),
    ).steps;
    const family = CATALOGUE.families['tarn-3']!;
    expect(family.seating).toBe('pull-to-seat');
    rise(pulled, ['bunch.L', 'route', 'thread.L', 'crimp.L', 'seat.L', 'test.L']);
  });
});

test('an anchor that has to pass is filled first as ever, loses its housing after the test and gets it back behind the hole', () => {
  const { steps } = make(
    withHole((loom) => {
      loom.ends.A = { ...loom.ends.A!, pinAt: 'vehicle' };
      loom.nodes.b1 = { ...loom.nodes.b1!, feed: 'inward' };
    }),
  );
  rise(steps, ['seat.A', 'lay', 'test', 'depin.A', 'route', 'repin.A', 'test.A', 'sign']);
});

test('RO1 names what is left over, and its fix leaves nothing over and an order that can be built', () => {
  for (let seed = 1; seed <= runs(25, 400); seed += 1) {
    const random = createRandom(seed * 13 + 5);
    let job = createRandomJob(seed, 18);
    const loom = job.looms.random!;
    loom.clampedBy = random() < 0.5 ? 'Jun Okafor' : null;
    for (const node of Object.values(loom.nodes))
      if (node.kind === 'breakout' && random() < 0.4) node.holeMm = 20 + Math.round(random() * 30);
    for (const end of Object.values(loom.ends)) if (random() < 0.15) end.pinAt = 'vehicle';
    for (let again = 0; again < 4; again += 1) {
      const fixes = checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).flatMap((one) =>
        one.code === 'RO1' && one.fix ? [one.fix] : [],
      );
      if (fixes.length === 0) break;
      for (const { patch } of fixes) {
        const applied = applyEdit(job, patch);
        if (!applied.ok) throw new Error(JSON.stringify(applied.problems));
        job = applied.value;
      }
    }
    const { planned, steps } = make(job);
    expect(steps.length).toBeGreaterThan(0);
    const tight = planned.feeds.filter(({ wholeMm, boreMm, leaveMm }) => wholeMm > boreMm - leaveMm);
    for (const { offIds } of planned.feeds.filter((feed) => !tight.includes(feed))) expect(offIds).toEqual([]);
    if (tight.length === 0) expect(playShop(job, planned, CATALOGUE, steps)).toEqual([]);
  }
});

describe('in the vehicle', () => {
  const { steps, planned } = make(withHole());
  const clip = steps[place(steps, 'clip')]!;
  test('the loom is clipped last, run by run where the sheet says, and tried for its sag', () => {
    rise(steps, ['sign', 'route', 'clip']);
    expect(clip.items.at(-1)!.words).toContain('13 mm');
    const held = planClips(withHole(), planned, CATALOGUE).filter(({ atMm }) => atMm.length > 0);
    expect(held.length).toBeGreaterThan(0);
    expect(clip.items.slice(0, -1).map(({ id }) => id)).toEqual(held.map(({ segmentId }) => segmentId));
    expect(clip.items[0]!.words).toMatch(/: \d+ × .+ at \d+/);
  });
  test('a shop without clips has no such step', () => {
    const bare = { ...CATALOGUE, clips: [] };
    const job = withHole();
    expect(createBuild(job, plan(job, bare).looms[0]!, bare).steps.map(({ id }) => id)).not.toContain('clip');
  });
});

test('a wire with a loop of its own is longer by it, alone, and its crimp says so', () => {
  const looped = make(
    withHole((loom) => {
      loom.ends.L = { ...loom.ends.L!, wireLoops: { '1': 60 } };
    }),
  );
  const plain = make(withHole());
  const grown = looped.planned.wires.flatMap(({ id, lengthMm }, at) => {
    const more = lengthMm - plain.planned.wires[at]!.lengthMm;
    return Math.abs(more) > 1e-9 ? [[id, Math.round(more)]] : [];
  });
  const [own] = looped.planned.terminations.find(({ endId, cavity }) => endId === 'L' && cavity === '1')!.wireIds;
  expect(grown).toEqual([[own, 60]]);
  const words = looped.steps[place(looped.steps, 'crimp.L')]!.items.map((item) => item.words.includes('60 mm of slack of its own'));
  expect(words.filter(Boolean)).toHaveLength(1);
});

describe('a hole that is still to be made', () => {
  const drilled = (drill: Loom['nodes'][string]['drill']) => withHole((loom) => void (loom.nodes.b1 = { ...loom.nodes.b1!, drill }));
  const ro3 = (job: Job) =>
    checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).flatMap(({ code, grade, measured, limit }) =>
      code === 'RO3' ? [[grade, measured, limit]] : [],
    );
  test('is made before anything is led through it', () => {
    const { items } = make(drilled({ roomMm: 400, behindMm: 60 })).steps.find(({ id }) => id === 'route')!;
    expect([items[0]!.id, items[0]!.words]).toEqual([
      'b1 drill',
      expect.stringMatching(/ is to be made: look at both sides, pilot 3 mm, light through, saw \d+ mm/),
    ]);
    expect(
      make(drilled(null))
        .steps.find(({ id }) => id === 'route')!
        .items.map(({ id }) => id),
    ).not.toContain('b1 drill');
  });
  test.each([
    ['there', null, []],
    ['to be made, with room', { roomMm: 240, behindMm: 25 }, []],
    ['too little in front', { roomMm: 239, behindMm: 60 }, [['check', 239, 240]]],
    ['too little behind', { roomMm: 400, behindMm: 24 }, [['check', 24, 25]]],
    ['nobody measured', { roomMm: null, behindMm: null }, [['note', null, null]]],
  ])('%s', (_, drill, told) => expect(ro3(drilled(drill))).toEqual(told));
  test('its card says what drill and saw ask for and what there is', () => {
    const job = drilled({ roomMm: 300, behindMm: null });
    const whole = plan(job, CATALOGUE);
    const [loom] = whole.looms;
    const pages = createSheets(
      { job, whole, plan: loom!, build: createBuild(job, loom!, CATALOGUE), findings: [], catalogue: CATALOGUE },
      { paper: 'A4', job: 'bench', loom: 'bench', revision: 'draft', date: '2026-11-29' },
    );
    const words = pages
      .filter(({ sheet }) => sheet === 'Through holes')
      .flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])))
      .join(' ');
    expect(words).toContain('240 mm, there: 300 mm');
    expect(words).toContain('25 mm, there: not measured');
  });
});
