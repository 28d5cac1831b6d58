import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { setBundling, takeLayup } from '../../edit';
import { createBuild } from '../../make';
import { editDocument, type Job } from '../../model';
import { findStandard, plan, searchLayups } from '../../plan';
import { createSheets } from './createSheets';
import type { SheetPage } from '../drawing';

const laidAt = (job: Job) => plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
const start = createCleanSkerry();
const quick = editDocument(start, (draft) => setBundling('engine', 'concentric').apply(draft)).next;
const { laidUp } = searchLayups(quick.looms.engine!, laidAt(quick), findStandard(quick, CATALOGUE), { seed: 1, tries: 40 });
const job = editDocument(quick, (draft) => takeLayup('engine', laidUp).apply(draft)).next;
const makeSheets = (of: Job) => {
  const whole = plan(of, CATALOGUE);
  const loom = whole.looms.find(({ loomId }) => loomId === 'engine')!;
  const pack = { job: of, whole, plan: loom, build: createBuild(of, loom, CATALOGUE), findings: [], catalogue: CATALOGUE };
  return createSheets(pack, { paper: 'A4', job: of.name, loom: 'engine', revision: 'draft', date: '2026-11-27' });
};
const twist = makeSheets(job).filter(({ sheet }) => sheet === 'Twist');
const listTexts = (pages: readonly SheetPage[]) =>
  pages.flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])));
const words = listTexts(twist).join(' ');
const loom = laidAt(job);

test('the twist sheet is there where something is twisted in layers, and only there', () => {
  expect(twist.length).toBeGreaterThan(2);
  expect(makeSheets(start).some(({ sheet }) => sheet === 'Twist')).toBe(false);
});

test('every layer says its hand, its lay, its turns per 100 mm and what five turns measure', () => {
  for (const { stretches } of loom.layups)
    for (const { layers } of stretches)
      for (const { hand, layMm } of layers) {
        if (layMm === null) continue;
        expect(words).toContain(`${hand}-hand`);
        expect(words).toContain(`${layMm.toFixed(1)} ${(100 / layMm).toFixed(2)} = ${Math.ceil(5 * layMm - 1e-6)} mm`);
      }
});

test('every piece of dead wire has its line, with where it starts and stops; every wire that leaves a trunk peels off at its millimetre', () => {
  const { fillers } = createBuild(job, loom, CATALOGUE);
  for (const { number, cutMm } of fillers) expect(words).toMatch(new RegExp(`\\b${number} .*?\\b${cutMm}\\b`));
  const trunk = loom.layups[0]!;
  for (const { to, parts } of trunk.threads) {
    if (to.kind !== 'breakout') continue;
    const mm = Math.round(loom.tree.segments[trunk.id]!.startMm + trunk.marks[to.mark]!.mm);
    const { number } = loom.wires.find(({ id }) => id === parts.at(-1)!.wireIds[0])!;
    expect(words).toMatch(new RegExp(`\\b${mm} ${job.looms.engine!.nodes[trunk.marks[to.mark]!.nodeId!]!.name} [^|]*?${number}\\b`));
  }
});

test('every section is drawn to scale: the circles of its enlarged and its true picture are the same but for one factor', () => {
  const page = twist[0]!;
  const [stretch] = loom.layups[0]!.stretches;
  const od = Math.max(...stretch!.layers.map(({ outerOdMm }) => outerOdMm));
  expect(listTexts([page])).toContain(`true size: ${od.toFixed(1)} mm`);
  const slots = stretch!.layers.flatMap(({ slots: all }) => all).length;
  // the true picture: grey or empty rounds with the thinnest line
  const small = page.marks.filter((mark) => mark.kind === 'circle' && mark.width === 0.1);
  expect(small.length).toBeGreaterThanOrEqual(slots);
  const sizes = [...new Set(small.map((mark) => (mark.kind === 'circle' ? mark.r : 0)))];
  const ods = new Set(stretch!.layers.flatMap(({ slots: all }) => all.map(({ odMm }) => odMm / 2)));
  for (const r of sizes) expect([...ods].some((one) => Math.abs(one - r) < 1e-6)).toBe(true);
});
