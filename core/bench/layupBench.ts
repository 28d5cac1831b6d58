import { CATALOGUE } from '../src/catalogue';
import { createSkerry } from '../src/demo';
import { setBundling, takeLayup } from '../src/edit';
import { editDocument } from '../src/model';
import { createPlanner, findStandard, plan, searchLayups, USUAL_TRIES } from '../src/plan';
import { createTestStrip, LAYUP_RULES } from '../src/testing/createTestStrip';
import { createStretchChooser } from '../src/plan/layup/chooseStretches';
import { listPresent } from '../src/plan/layup/listPresent';
import { listCrossings } from '../src/plan/layup/listCrossings';
import { listLayupStrips, toLayupRules } from '../src/plan/layup/planLayups';
import { searchLayup } from '../src/plan/layup/searchLayup';

const time = <T>(work: () => T): [T, number] => {
  const started = performance.now();
  const result = work();
  return [result, performance.now() - started];
};

/** A trunk of so many wires of three sizes that leave one after another at so many breakouts. */
const createTrunk = (wires: number, breakouts: number) =>
  createTestStrip({
    through: Math.ceil(wires / (breakouts + 1)),
    odMm: 1.09,
    lengthMm: 120 * (breakouts + 1),
    leaving: Array.from({ length: breakouts }, (_, at) => ({
      count: Math.floor(wires / (breakouts + 1)),
      atMm: 120 * (at + 1),
      sideDeg: (at * 100) % 360,
      odMm: [1.09, 1.27, 1.52][at % 3]!,
    })),
  });

/** Lay-up: the demo's engine loom against laying wires as they come, and made-up trunks. */
export function reportLayups(): void {
  const job = editDocument(createSkerry(), (draft) => setBundling('engine', 'concentric').apply(draft)).next;
  const loom = job.looms.engine!;
  const before = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
  const standard = findStandard(job, CATALOGUE);
  const times = Array.from({ length: 5 }, () => time(() => searchLayups(loom, before, standard, { seed: 1, tries: USUAL_TRIES })));
  const [{ laidUp }] = times[0]!;
  const ms = times.map(([, one]) => one).sort((a, b) => a - b)[2]!;
  const found = editDocument(job, (draft) => takeLayup('engine', laidUp).apply(draft)).next;
  const planned = plan(found, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
  const [trunk] = listLayupStrips({ loom, standard, ...before });
  const rules = toLayupRules(standard, trunk!, new Map(before.wires.map((wire) => [wire.id, wire])));
  // as they come: in the order of their numbers, from the middle outwards, laid once
  const last = trunk!.marks.length - 1;
  const choose = createStretchChooser(trunk!, rules, { beam: 1, pins: new Map(), packings: new Map(), isQuick: true });
  const asTheyCome = choose(0, last, listPresent(trunk!, 0, last)).chosen;
  const crossed = listCrossings(trunk!, asTheyCome.stretch).length;
  const layup = planned.layups.find(({ id }) => id === trunk!.id)!;
  const od = planned.bundles.find(({ segmentId }) => segmentId === trunk!.id)!.odMm;
  console.log(
    `lay-up of the demo's engine loom (${planned.wires.length} wires): searched in ${ms.toFixed(0)} ms; trunk ${layup.crossings.length} crossed, ${layup.fillers.length} pieces of dead wire, ${od.toFixed(1)} mm; as they come ${crossed} crossed, ${asTheyCome.cost.fillers} pieces, ${asTheyCome.cost.odMm.toFixed(1)} mm`,
  );
  const planner = createPlanner(CATALOGUE);
  let edited = found;
  planner(edited);
  const edits = Array.from({ length: 25 }, () => {
    edited = editDocument(edited, (draft) => {
      draft.looms.engine!.segments['r-inlet-plug']!.lengthMm += 3;
    }).next;
    return time(() => planner(edited))[1];
  }).sort((a, b) => a - b);
  console.log(`demo job with that lay-up: one length edit in the engine loom ${edits[12]!.toFixed(1)} ms`);
  for (const [wires, breakouts, target] of [
    [60, 8, 3000],
    [200, 25, 20_000],
  ] as const) {
    const strip = createTrunk(wires, breakouts);
    const options = { beam: 6, pins: new Map<string, number>(), packings: new Map(), seed: 1, tries: USUAL_TRIES };
    const [{ cost }, spent] = time(() => searchLayup(strip, LAYUP_RULES, options));
    console.log(
      `${strip.threads.length} elements over ${breakouts} breakouts: ${spent.toFixed(0)} ms (target ${target}); ${cost.crossings} crossed (bound 0), ${cost.fillers} pieces of dead wire`,
    );
  }
}
