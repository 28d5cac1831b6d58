import { toSizeWords, type Catalogue } from '../../catalogue';
import { toLayerWords, type PlannedWire } from '../../plan';
import { drawStrip } from '../drawStrip';
import type { Cell, Column } from './flow/flowTypes';
import { mm, toRunWords, type SheetContext } from './sheetContext';
import { compareIds, pushTo, toCount } from '../../units';
import { HOLD_OPERATIONS, HOLD_WORDS, type Blocked, type HoldOperation, type OpenItem, type OpenItemKind } from '../../model';

const tick: Column = { title: '', share: 0.5 };
const number = (title: string, share = 1): Column => ({ title, share, align: 'end', face: 'mono' });

/** Wires by what stops a kind of work on them. */
function groupBy(held: readonly PlannedWire[], stops: HoldOperation): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const { heldBy, number: wire } of held) {
    const words = heldBy
      .filter((hold) => hold.stops === stops)
      .map((hold) => hold.words)
      .join(', ');
    if (words === '') continue;
    pushTo(groups, words, wire);
  }
  return groups;
}

const toPinWords = ({ wires }: Catalogue, kind: string, size: string) => toSizeWords(wires[kind]!.find((one) => one.size === size)!);

/** What was chosen by hand in place of what is computed, each with its reason; ratings where they protect a wire of this loom. */
function addChosen({ job, loom, plan, catalogue, flow }: Pick<SheetContext, 'job' | 'loom' | 'plan' | 'catalogue' | 'flow'>): void {
  const guards = new Set(plan.currents.flatMap(({ guardIds }) => guardIds));
  const rows: string[][] = [
    ...Object.values(loom.circuits).flatMap(({ number: circuit, name, sizePin, wireTable }) =>
      sizePin ? [[`circuit ${circuit}, ${name}`, toPinWords(catalogue, wireTable, sizePin.size), sizePin.reason]] : [],
    ),
    ...Object.entries(job.devices).flatMap(([deviceId, { name, ratings }]) =>
      Object.entries(ratings).flatMap(([linkId, { ratingA, reason }]) =>
        guards.has(`${deviceId}.${linkId}`) ? [[`${name}, ${linkId}`, `${ratingA} A`, reason]] : [],
      ),
    ),
    ...Object.entries(loom.segments).flatMap(([id, { coveringPin }]) =>
      coveringPin ? [[`sleeving, ${toRunWords({ loom, plan }, id)}`, coveringPin.itemId ?? coveringPin.kind, coveringPin.reason]] : [],
    ),
    ...Object.entries(loom.layerPins).map(([id, { layer, reason }]) => [
      `lay-up of ${plan.wires.find((wire) => wire.id === id)?.number ?? id}`,
      toLayerWords(layer),
      reason,
    ]),
    ...plan.splices.flatMap(({ id, label }) => {
      const pin = loom.splicePins[id];
      return pin ? [[`splice ${label}`, `${mm(pin.offsetMm)} mm into ${toRunWords({ loom, plan }, pin.segmentId)}`, pin.reason]] : [];
    }),
  ];
  if (rows.length === 0) return;
  flow.heading('Chosen by hand');
  flow.table(
    [
      { title: 'what', share: 4 },
      { title: 'chosen', share: 3 },
      { title: 'because', share: 4 },
    ],
    rows,
  );
}

/** First sheet: the strip, what is held, and the findings with why they stand. */
export function addOverview({ job, loom, plan, findings, catalogue, flow }: SheetContext): void {
  const { massG, tree } = plan;
  flow.sheet('Loom', 'office');
  flow.picture(drawStrip(loom, plan, flow.widthMm));
  flow.paragraph(
    `${toCount(plan.wires.length, 'wire')}, ${toCount(plan.splices.length, 'splice')}, ${toCount(Object.keys(loom.ends).length, 'end')}. Wire ${mm(massG.wire)} g, sleeving ${mm(massG.covering)} g, housings ${mm(massG.housings)} g, contacts ${mm(massG.contacts)} g: ${mm(massG.total)} g in all. Millimetres throughout, from the datum (${loom.nodes[tree.datumId]!.name}).`,
  );
  if (job.notes) flow.paragraph(job.notes);
  for (const stops of HOLD_OPERATIONS) {
    const held = groupBy(plan.wires, stops);
    if (held.size === 0) continue;
    flow.paragraph(
      `HELD from ${HOLD_WORDS[stops]}: ${[...held].map(([words, numbers]) => `${numbers.join(', ')} (${words})`).join('; ')}.`,
      'narrow-bold',
    );
  }
  addChosen({ job, loom, plan, catalogue, flow });
  const told = findings.filter(({ grade }) => grade !== 'note');
  if (told.length === 0) return;
  flow.heading('Findings');
  flow.table(
    [
      { title: 'grade', share: 1.2 },
      { title: 'finding', share: 7 },
      { title: 'stands because', share: 4 },
    ],
    told.map(({ grade, code, sentence, key }) => {
      const accepted = Object.hasOwn(job.accepted, key) ? job.accepted[key] : undefined;
      return [`${grade} ${code}`, sentence, accepted ? `${accepted.reason} (${accepted.by})` : 'OPEN'];
    }),
  );
}

/** Every addend of every cut length. */
export function addLengths({ plan, flow }: SheetContext): void {
  flow.sheet(
    'What each length is made of',
    'office',
    'Every term of every cut length, in mm. ± is one sigma of the measurements on the path.',
  );
  flow.table(
    [{ title: 'wire', share: 1.5, face: 'mono' }, { title: 'terms', share: 11 }, number('±', 0.8), number('cut', 1.1)],
    plan.wires.map((wire) => [
      wire.number,
      wire.addends.map(({ mm: value, words }) => `${value.toFixed(1)} ${words}`).join(' + '),
      wire.sigmaMm.toFixed(0),
      mm(wire.cutMm),
    ]),
  );
}

/** The ordered steps with what to do, the tool and the caution. */
export function addSteps({ build, flow }: SheetContext): void {
  flow.sheet(
    'Steps',
    'office',
    'In this order: what slides on goes on before the end that stops it. Local codes and makers’ instructions come first.',
  );
  if (build.steps.length === 0) {
    flow.paragraph('No order of work: there are no wires yet, or the findings say what stands in the way.');
    return;
  }
  flow.table(
    [
      tick,
      number('no', 0.7),
      { title: 'step', share: 4.2, face: 'narrow-bold' },
      { title: 'do', share: 6.4 },
      { title: 'tool and parts', share: 3.4 },
    ],
    build.steps.map((step, index): Cell[] => {
      const work = step.items.map(({ words, heldBecause }) => (heldBecause ? `HELD (${heldBecause}): ${words}` : words));
      return [
        { tick: true },
        String(index + 1),
        step.title,
        [...work, ...(step.caution ? [`CAUTION ${step.caution}`] : [])].join('; '),
        [step.tool, ...step.parts].filter(Boolean).join(' · '),
      ];
    }),
  );
}

/** What is not known yet, taken to be so for now, or let pass until a day: of this loom, and of the job as a whole. */
export function addOpenItems(context: SheetContext): void {
  const { job, plan, flow } = context;
  const items = Object.values(job.openItems).filter(
    ({ blocks }) => blocks.length === 0 || blocks.some(({ loomId }) => loomId === plan.loomId),
  );
  if (items.length === 0) return;
  flow.sheet(
    'Open items',
    'office',
    'Nothing that an open question blocks is cut before it is answered; a guess is no answer. A concession ends on its day.',
  );
  const byDay = (a: OpenItem, b: OpenItem) => compareIds(a.due ?? '9', b.due ?? '9');
  for (const [kind, title] of Object.entries(ITEM_WORDS)) {
    const here = items.filter((item) => item.kind === kind).sort(byDay);
    if (here.length === 0) continue;
    flow.heading(title);
    flow.table(
      ITEMS,
      here.map((item): Cell[] => [
        item.question,
        item.blocks
          .filter(({ loomId }) => loomId === plan.loomId)
          .map((block) => toBlockedWords(context, block))
          .join(', ') || '–',
        item.owner || 'nobody yet',
        item.due ?? 'no day',
        item.answer === null
          ? 'OPEN'
          : `${item.answer}${item.evidence === null ? '' : ` (${item.evidence}${item.answeredBy && `, ${item.answeredBy}`})`}`,
      ]),
    );
  }
}

const ITEM_WORDS = { question: 'Questions', assumption: 'Assumptions', concession: 'Concessions' } satisfies Record<OpenItemKind, string>;
const ITEMS: Column[] = [
  { title: 'what', share: 5 },
  { title: 'blocks', share: 3 },
  { title: 'who', share: 2 },
  { title: 'by', share: 1.6, face: 'mono' },
  { title: 'answer', share: 3.4 },
];

function toBlockedWords({ loom, plan }: SheetContext, { kind, id }: Blocked): string {
  if (kind === 'segment') return toRunWords({ loom, plan }, id);
  if (kind === 'end') return loom.ends[id]?.name ?? id;
  if (kind === 'circuit') return loom.circuits[id]?.name ?? id;
  return 'the whole loom';
}
