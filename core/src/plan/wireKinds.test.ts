import { CATALOGUE, chooseWireKind, createDemoShop, createLookup } from '../catalogue';

import { createInlet } from '../demo';
import { checkJob, copyWireKind, editDocument, toProblemLines, type Job } from '../model';
import { createBuild, listFindings } from '../make';
import { plan } from './plan';

/** The demo shop with a kind of wire of its own: the plated one, for hotter places. */
const shop = copyWireKind(createDemoShop(), 'etfe-plated', 'ptfe');
for (const wire of shop.wires.ptfe!) wire.insulation = 'PTFE';
for (const standard of Object.values(shop.standards)) standard.insulationLimitC.ptfe = 260;

const inKind = (job: Job, kind: string) =>
  editDocument(job, (draft) => {
    for (const circuit of Object.values(draft.looms.inlet!.circuits)) circuit.wireTable = kind;
  }).next;
const heat = (job: Job, ambientC: number) =>
  editDocument(job, (draft) => {
    const zoneId = Object.keys(draft.zones).find((id) => Object.values(draft.looms.inlet!.segments).some((one) => one.zoneId === id))!;
    draft.zones[zoneId]!.ambientC = ambientC;
  }).next;

test('a loom of a kind of wire that only this shop has is planned and built as the shop calls it', () => {
  const plated = inKind(createInlet(), 'etfe-plated');
  const own = inKind(createInlet(), 'ptfe');
  expect(checkJob(own, createLookup(shop))).toMatchObject({ ok: true });
  const [as, is] = [plated, own].map((job) => plan(job, shop).looms.find(({ loomId }) => loomId === 'inlet')!);
  expect(is!.wires.map(({ cutMm, conductor: { size } }) => [cutMm, size])).toEqual(
    as!.wires.map(({ cutMm, conductor: { size } }) => [cutMm, size]),
  );
  const { cuts, steps } = createBuild(own, is!, shop);
  expect(cuts.filter(({ cableId }) => cableId === null).every(({ reel }) => reel.includes(' PTFE '))).toBe(true);
  expect(JSON.stringify(steps)).not.toContain('ETFE plated');
});

test('a shop that has not the kind says which it has, and where', () => {
  const checked = checkJob(inKind(createInlet(), 'ptfe'), createLookup(CATALOGUE));
  const [line] = checked.ok ? [] : toProblemLines(checked.problems);
  expect(line).toMatch(
    /^\/looms\/inlet\/circuits\/\w+\/wireTable: expected a kind of wire of the shop \(etfe, etfe-plated, thinwall\), got "ptfe"$/,
  );
});

test('a zone that is too hot for all other wire takes the shop’s own', () => {
  const hot = heat(inKind(createInlet(), 'etfe-plated'), 230);
  const [finding] = listFindings(hot, plan(hot, shop), shop, null).filter(({ code }) => code === 'PO16');
  expect(finding!.sentence).toContain('PTFE (260 °C) would do');
  expect(finding!.fix).toMatchObject({ label: 'Take PTFE for them (260 °C)' });
  expect(
    new Set(finding!.fix!.patch.filter(({ path }) => path.endsWith('/wireTable')).map((one) => (one as { value: unknown }).value)),
  ).toEqual(new Set(['ptfe']));
});

test('a new circuit is begun with the kind of most of the job, and with the shop’s first where there are none', () => {
  expect(chooseWireKind({ looms: {} }, shop)).toBe('etfe');
  expect(chooseWireKind(inKind(createInlet(), 'ptfe'), shop)).toBe('ptfe');
});
