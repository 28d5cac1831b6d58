import fc from 'fast-check';
import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { editDocument, type Job } from '../model';
import { createPlanner } from '../plan';
import { STEP, takeStep } from '../testing/takeStep';
import { carryOver, createBuild, listDifferences, UNDO_STEP, type FloorTick, type RevisionWork, type Step, type StepItem } from './index';
import { runs } from '../testing/runs';

const planner = createPlanner(CATALOGUE);
const planInlet = (job: Job) => planner(job).looms.find(({ loomId }) => loomId === 'inlet')!;
const toSteps = (job: Job): Step[] => createBuild(job, planInlet(job), CATALOGUE).steps;
const tick = (step: Step, item: StepItem, kind: FloorTick['kind'] = 'tick'): FloorTick => ({ stepId: step.id, itemId: item.id, kind });
const tickAll = (steps: readonly Step[]): FloorTick[] =>
  steps.flatMap((step) => step.items.filter(({ heldBecause }) => heldBecause === null).map((item) => tick(step, item)));
const edit = (job: Job, change: (loom: Job['looms'][string]) => void): Job => editDocument(job, (draft) => change(draft.looms.inlet!)).next;
/** Revision 1 with these ticks, and revision 2 untouched. */
const release = (first: readonly Step[], ticks: readonly FloorTick[], second: readonly Step[]) =>
  carryOver([
    { number: 1, steps: first, ticks },
    { number: 2, steps: second, ticks: [] },
  ]);
const at = ({ stepId, itemId }: { stepId: string; itemId: string }) => `${stepId}/${itemId}`;

const job = createInlet();
const steps = toSteps(job);
const plan = planInlet(job);
/** the leg to the first injector */
const leg = plan.tree.nodes[job.looms.inlet!.ends.inj1!.nodeId]!.parentSegmentId!;
const fit = (byMm: number) =>
  edit(job, (loom) => {
    loom.segments[leg]!.fittedMm = plan.tree.segments[leg]!.lengthMm + byMm;
  });

describe('work survives a revision (craft G9)', () => {
  it('counts on whole where nothing changed', () => {
    const ticks = tickAll(steps);
    const { carried, reopened, undo } = release(steps, ticks, toSteps(job));
    expect(carried.map(at)).toEqual(ticks.map(at));
    expect(carried.every(({ revision }) => revision === 1)).toBe(true);
    expect([reopened, undo]).toEqual([[], []]);
  });

  it('60 steps done, one leg fitted 6 mm longer: only the pieces on that leg are open again', () => {
    const ticks = tickAll(steps.slice(0, 60));
    const { carried, reopened, undo } = release(steps, ticks, toSteps(fit(6)));
    const onLeg = new Set(plan.wires.filter(({ pieces }) => pieces.some(({ segmentId }) => segmentId === leg)).map(({ id }) => id));
    const numbers = plan.wires.filter(({ id }) => onLeg.has(id)).map(({ number }) => number);
    const farNode = plan.tree.segments[leg]!.farNodeId;
    expect(onLeg.size).toBeGreaterThan(0);
    expect(reopened.length).toBeGreaterThan(0);
    for (const one of reopened) {
      const step = steps.find(({ id }) => id === one.stepId)!;
      const item = step.items.find(({ id }) => id === one.itemId)!;
      // trimming is one item for all wires: it names those on the leg
      if (item.id === 'trimmed')
        expect(one.differences.every((words) => numbers.some((number) => words.startsWith(`${number} `)))).toBe(true);
      else expect(step.segmentId === leg || item.id === farNode || item.wireIds.some((id) => onLeg.has(id))).toBe(true);
    }
    expect(undo).toEqual([]);
    expect(carried.length + reopened.length).toBe(ticks.length);
  });

  it('says what differs, in mm', () => {
    const done = steps.filter(({ segmentId, operation }) => segmentId === leg && operation === 'slide');
    expect(done).toHaveLength(1);
    const { reopened } = release(steps, tickAll(done), toSteps(fit(13)));
    const cutMm = plan.coverings.find(({ segmentId }) => segmentId === leg)!.cutMm;
    expect(reopened).toHaveLength(1);
    const [was, is] = /^sleeve (\d+) → (\d+) mm$/.exec(reopened[0]!.differences.join())!.slice(1).map(Number);
    expect(was).toBe(cutMm);
    expect(is).toBeGreaterThanOrEqual(cutMm + 13);
  });

  it('asks for a crimp again whose wire has to be made anew, and not where the rough piece still reaches', () => {
    const crimps = steps.filter(({ operation, endId }) => operation === 'crimp' && endId === 'inj1');
    const ticks = tickAll([...steps.filter(({ operation }) => operation === 'cut'), ...crimps]);
    const isCrimp = ({ stepId }: { stepId: string }) => stepId === 'crimp.inj1';
    const near = release(steps, ticks, toSteps(fit(2)));
    expect(near.carried.filter(isCrimp)).toHaveLength(crimps[0]!.items.length);
    const serving = near.reopened.filter(({ stepId }) => stepId.startsWith('cut.'));
    expect(serving.length).toBeGreaterThan(0);
    for (const { serves } of serving) expect(serves).toMatch(/^the piece in hand is \d+ mm long and will do for \d+ mm$/);
    const far = release(steps, ticks, toSteps(fit(400)));
    expect(far.carried.filter(isCrimp)).toHaveLength(0);
    expect(far.reopened.every(({ serves }) => serves === null)).toBe(true);
    // once it is trimmed to its length even a little is too much
    const trimmed = release(steps, [...ticks, { stepId: 'fit', itemId: 'trimmed', kind: 'tick' }], toSteps(fit(2)));
    expect(trimmed.carried.filter(isCrimp)).toHaveLength(0);
    for (const { differences } of far.reopened.filter(isCrimp))
      expect(differences.join()).toMatch(/^made anew: .* is \d+ mm long and has to be \d+ mm/);
  });

  it('a circuit that is gone asks for its wire to be taken out, as one, the last thing first', () => {
    const circuitId = plan.wires.find(({ to, from }) => to.kind === 'cavity' && from.kind === 'cavity')!.circuitId;
    const gone = edit(job, (loom) => {
      delete loom.circuits[circuitId];
    });
    const ticks = tickAll(steps);
    const { undo, carried } = release(steps, ticks, toSteps(gone));
    const { number, id } = plan.wires.find((wire) => wire.circuitId === circuitId)!;
    const mine = undo.find(({ title }) => title === `Remove ${number}`)!;
    expect(mine.done.at(-1)).toContain('Cut and mark');
    expect(mine.done[0]).toContain('Seat');
    const left = new Set(carried.map(at));
    expect(steps.flatMap((step) => step.items.filter((item) => item.wireIds.join() === id && left.has(at(tick(step, item)))))).toEqual([]);
    // what was undone is asked for no more, and comes back as work to do where the circuit comes back
    const undone = { number: 2, steps: toSteps(gone), ticks: [{ stepId: UNDO_STEP, itemId: mine.id, kind: 'tick' as const }] };
    const third = (second: RevisionWork, now: Job) =>
      carryOver([{ number: 1, steps, ticks }, second, { number: 3, steps: toSteps(now), ticks: [] }]);
    expect(third(undone, gone).undo.map(({ title }) => title)).not.toContain(mine.title);
    const seat = steps.find(({ operation, items }) => operation === 'seat' && items.some(({ wireIds }) => wireIds.includes(id)))!;
    const isSeat = (one: { stepId: string; itemId: string }) =>
      one.stepId === seat.id && one.itemId === seat.items.find(({ wireIds }) => wireIds.includes(id))!.id;
    expect(third(undone, job).carried.some(isSeat)).toBe(false);
    // nobody took it out: it counts when it comes back
    expect(third({ ...undone, ticks: [] }, job).carried.some(isSeat)).toBe(true);
  });

  it('what was ticked off again does not count, and a test passed before a change is asked for again', () => {
    const ticks = [...tickAll(steps), tick(steps[0]!, steps[0]!.items[0]!, 'untick')];
    const same = release(steps, ticks, steps);
    expect(same.carried.map(at)).not.toContain(at(tick(steps[0]!, steps[0]!.items[0]!)));
    const { reopened } = release(steps, tickAll(steps), toSteps(fit(6)));
    expect(reopened.filter(({ stepId }) => stepId === 'test' || stepId === 'sign').map(({ differences }) => differences)).toEqual([
      ['the loom has changed since'],
      ['the loom has changed since'],
    ]);
  });

  it('nothing comes of nothing', () => {
    expect(carryOver([])).toEqual({ carried: [], reopened: [], undo: [] });
    expect(carryOver([{ number: 1, steps, ticks: tickAll(steps) }])).toEqual({ carried: [], reopened: [], undo: [] });
  });

  it('pairs of revisions: carried just where the work is the same, differences named, none lost', () => {
    const words = (item: StepItem) => JSON.stringify(item.asks);
    const keyOf = (step: Step, item: StepItem) =>
      step.operation === 'cut' && item.id !== 'cable' ? `cut ${item.id}` : `${step.id} ${item.id}`;
    const toIndex = (list: readonly Step[]) =>
      new Map(list.flatMap((step) => step.items.map((item) => [keyOf(step, item), { step, item }] as const)));
    let seen = { carried: 0, reopened: 0, undo: 0 };
    fc.assert(
      fc.property(fc.array(STEP, { minLength: 1, maxLength: 3 }), fc.nat(1000), (edits, share) => {
        const next = edits.reduce(takeStep, job);
        if (!next.looms.inlet) return;
        const second = toSteps(next);
        const ticks = tickAll(steps).filter((_, place) => (place * 7919) % 1000 < share);
        const { carried, reopened, undo } = release(steps, ticks, second);
        const [before, now] = [toIndex(steps), toIndex(second)];
        const wasAt = new Map([...before].map(([key, { step, item }]) => [at(tick(step, item)), key]));
        const done = new Set(ticks.map((one) => wasAt.get(at(one))!));
        const nameOf = new Map([...now].map(([key, { step, item }]) => [at(tick(step, item)), key]));
        const counted = new Set(carried.map((one) => nameOf.get(at(one))!));
        const open = new Map(reopened.map((one) => [nameOf.get(at(one))!, one.differences]));
        for (const key of done) {
          const is = now.get(key);
          if (!is) {
            expect([counted.has(key), open.has(key)]).toEqual([false, false]);
            continue;
          }
          const isSame = words(before.get(key)!.item) === words(is.item);
          const isAnew = open.get(key)?.some((one) => one.startsWith('made anew')) ?? false;
          expect(counted.has(key)).toBe(isSame && !isAnew);
          expect(open.has(key)).toBe(!isSame || isAnew);
          if (open.has(key)) expect(open.get(key)!.every((one) => one.length > 3)).toBe(true);
        }
        for (const key of [...counted, ...open.keys()]) expect(done.has(key)).toBe(true);
        // what is gone is to be undone, but for what leaves nothing behind
        const gone = [...done].filter((key) => !now.has(key) && !/^(mark|fit|test|sign)/.test(key));
        expect(undo.flatMap((one) => one.done).length).toBeGreaterThanOrEqual(gone.length);
        seen = { carried: seen.carried + carried.length, reopened: seen.reopened + reopened.length, undo: seen.undo + undo.length };
      }),
      { numRuns: runs(25, 200), seed: 9 },
    );
    expect(Math.min(seen.carried, seen.reopened, seen.undo)).toBeGreaterThan(15);
  });
});

test('differences: changed, new and gone, words and lengths', () => {
  expect(
    listDifferences(
      [
        { what: 'sleeve', value: 238 },
        { what: 'seal', value: 'S 1' },
        { what: 'contact', value: 'A' },
        { what: 'pull', value: '' },
      ],
      [
        { what: 'sleeve', value: 251 },
        { what: 'contact', value: 'B' },
        { what: 'pull', value: '' },
        { what: 'strip', value: 5 },
      ],
    ),
  ).toEqual(['sleeve 238 → 251 mm', 'no seal S 1', 'contact A → B', 'strip 5 mm is new']);
});
