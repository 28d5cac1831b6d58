import { toSizeWords } from '../../catalogue';
import { listCutPieces } from '../../make';
import { toLayerWords, toSumWords, type PlannedWire } from '../../plan';
import { drawStrip } from '../drawStrip';
import type { Cell, Column } from './createFlow';
import type { SheetContext } from './sheetContext';
import { pushTo, toCount } from '../../units';

const mm = (value: number) => String(Math.round(value));
const tick: Column = { title: '', share: 0.5 };
const number = (title: string, share = 1): Column => ({ title, share, align: 'end', face: 'mono' });
const place = ({ loom }: SheetContext, endId: string, cavity: string) => `${loom.ends[endId]!.name} · ${cavity}`;
const run = ({ loom, plan }: Pick<SheetContext, 'loom' | 'plan'>, segmentId: string) => {
  const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
  return `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
};

function toWhere(context: SheetContext, end: PlannedWire['from']): string {
  return end.kind === 'cavity'
    ? place(context, end.endId, end.cavity)
    : `splice ${context.plan.splices.find(({ id }) => id === end.spliceId)!.label}`;
}

/** Wires by what holds them. */
function groupBy(held: readonly PlannedWire[]): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const { heldBy, number: wire } of held) {
    const words = heldBy.map((hold) => hold.words).join(', ');
    pushTo(groups, words, wire);
  }
  return groups;
}

/** What was chosen by hand in place of what is computed, each with its reason; ratings where they protect a wire of this loom. */
function addChosen({ job, loom, plan, flow }: Pick<SheetContext, 'job' | 'loom' | 'plan' | 'flow'>): void {
  const guards = new Set(plan.currents.flatMap(({ guardIds }) => guardIds));
  const rows: string[][] = [
    ...Object.values(loom.circuits).flatMap(({ number: circuit, name, sizePin, wireTable }) =>
      sizePin ? [[`circuit ${circuit}, ${name}`, toSizeWords({ table: wireTable, size: sizePin.size }), sizePin.reason]] : [],
    ),
    ...Object.entries(job.devices).flatMap(([deviceId, { name, ratings }]) =>
      Object.entries(ratings).flatMap(([linkId, { ratingA, reason }]) =>
        guards.has(`${deviceId}.${linkId}`) ? [[`${name}, ${linkId}`, `${ratingA} A`, reason]] : [],
      ),
    ),
    ...Object.entries(loom.segments).flatMap(([id, { coveringPin }]) =>
      coveringPin ? [[`sleeving, ${run({ loom, plan }, id)}`, coveringPin.itemId ?? coveringPin.kind, coveringPin.reason]] : [],
    ),
    ...Object.entries(loom.layerPins).map(([id, { layer, reason }]) => [
      `lay-up of ${plan.wires.find((wire) => wire.id === id)?.number ?? id}`,
      toLayerWords(layer),
      reason,
    ]),
    ...plan.splices.flatMap(({ id, label }) => {
      const pin = loom.splicePins[id];
      return pin ? [[`splice ${label}`, `${mm(pin.offsetMm)} mm into ${run({ loom, plan }, pin.segmentId)}`, pin.reason]] : [];
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
export function addOverview({ job, loom, plan, findings, flow }: SheetContext): void {
  const { massG, tree } = plan;
  flow.sheet('Loom');
  flow.picture(drawStrip(loom, plan, flow.widthMm));
  flow.paragraph(
    `${toCount(plan.wires.length, 'wire')}, ${toCount(plan.splices.length, 'splice')}, ${toCount(Object.keys(loom.ends).length, 'end')}. Wire ${mm(massG.wire)} g, sleeving ${mm(massG.covering)} g, housings ${mm(massG.housings)} g, contacts ${mm(massG.contacts)} g: ${mm(massG.total)} g in all. Millimetres throughout, from the datum (${loom.nodes[tree.datumId]!.name}).`,
  );
  if (job.notes) flow.paragraph(job.notes);
  const held = plan.wires.filter(({ heldBy }) => heldBy.length > 0);
  if (held.length)
    flow.paragraph(
      `HELD, do not cut: ${[...groupBy(held)].map(([words, numbers]) => `${numbers.join(', ')} (${words})`).join('; ')}.`,
      'narrow-bold',
    );
  addChosen({ job, loom, plan, flow });
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

/** Cut list, reel by reel, with the metres that each reel gives. */
export function addCutList(context: SheetContext): void {
  const { build, flow } = context;
  flow.sheet('Cut list', 'Cut to the rough length where one is given and trim after the trial fit; mark both ends before laying aside.');
  const rows = build.cuts.flatMap((cut) =>
    listCutPieces(cut).map(({ wires, isHeld, roughMm, cutMm }): Cell[] => {
      const longest = wires.find((wire) => wire.cutMm === cutMm)!;
      return [
        isHeld ? '–' : { tick: true },
        wires.map(({ number: of }) => of).join(' '),
        cut.cableId === null ? { colour: longest.colour } : 'cable',
        toSizeWords(longest.conductor),
        isHeld ? 'HELD' : roughMm > cutMm ? mm(roughMm) : '–',
        isHeld ? 'HELD' : mm(cutMm),
        toWhere(context, longest.from),
        toWhere(context, longest.to),
        toSumWords(longest.addends),
      ];
    }),
  );
  flow.table(
    [
      tick,
      { title: 'wire', share: 1.7, face: 'mono' },
      { title: 'colour', share: 2.2 },
      { title: 'size', share: 1.3 },
      number('rough', 1.1),
      number('final', 1.2),
      { title: 'from', share: 2.9 },
      { title: 'to', share: 2.7 },
      { title: 'final is made of', share: 4.2 },
    ],
    rows,
  );
  if (build.fillers.length) {
    flow.heading('Dead wire of the lay-up');
    flow.table(
      [tick, { title: 'piece', share: 1, face: 'mono' }, { title: 'of', share: 3 }, number('cut', 1), { title: 'where', share: 5 }],
      build.fillers.map(({ number: piece, reel, cutMm, words }): Cell[] => [{ tick: true }, piece, reel, mm(cutMm), words]),
    );
  }
  flow.heading('Metres by reel');
  flow.table(
    [{ title: 'reel', share: 5 }, number('pieces'), number('held'), number('off the reel, m', 2), number('finished, m', 2)],
    build.cuts.map(({ reel, wires, held, roughMm, finalMm }) => [
      reel,
      String(wires.length),
      String(held.length),
      (roughMm / 1000).toFixed(2),
      (finalMm / 1000).toFixed(2),
    ]),
  );
}

/** Every addend of every cut length. */
export function addLengths({ plan, flow }: SheetContext): void {
  flow.sheet('What each length is made of', 'Every term of every cut length, in mm. ± is one sigma of the measurements on the path.');
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

/** Splices by their distance from the datum. */
export function addSplices({ loom, plan, flow, wires }: SheetContext): void {
  flow.sheet(
    'Splices',
    'Distances from the datum. Sleeve on the wire before the barrel; wires from the datum’s side | from the other. Hot-air tool parked nose-up, away from fuel.',
  );
  flow.table(
    [
      tick,
      { title: 'splice', share: 1 },
      number('at'),
      { title: 'circuit', share: 3.2 },
      { title: 'wires', share: 4, face: 'mono' },
      { title: 'barrel', share: 3 },
      number('strip', 0.9),
      { title: 'tool', share: 2.6 },
    ],
    plan.splices.map((splice): Cell[] => {
      const barrel = plan.barrels.find(({ spliceId }) => spliceId === splice.id)!;
      return [
        { tick: true },
        splice.label,
        mm(splice.distanceMm),
        loom.circuits[splice.circuitId]!.name,
        [barrel.sides.near, barrel.sides.far].map((ids) => ids.map((id) => wires.get(id)!.number).join(' ')).join(' | '),
        barrel.barrelName,
        String(barrel.stripMm),
        barrel.tool,
      ];
    }),
  );
}

/** Coverings of every run. */
export function addSleeves(context: SheetContext): void {
  const { plan, flow } = context;
  flow.sheet('Sleeves', 'Slide on in the order of the steps; a closed sleeve does not pass a finished end.');
  flow.table(
    [
      tick,
      { title: 'run', share: 4.6 },
      number('length', 1.1),
      number('bundle', 1.1),
      { title: 'covering', share: 3 },
      number('cut'),
      number('over it', 1.1),
      { title: 'because', share: 3 },
    ],
    plan.coverings.map((covering): Cell[] => {
      const bundle = plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!;
      const bare = covering.kind === 'none';
      return [
        bare ? '' : { tick: true },
        run(context, covering.segmentId),
        mm(plan.tree.segments[covering.segmentId]!.lengthMm),
        bundle.odMm.toFixed(1),
        covering.itemName,
        bare ? '–' : mm(covering.cutMm),
        covering.odOutsideMm.toFixed(1),
        covering.because,
      ];
    }),
  );
}

/** The ordered steps with what to do, the tool and the caution. */
export function addSteps({ build, flow }: SheetContext): void {
  flow.sheet(
    'Steps',
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

/** Continuity of every pair that must join. */
export function addContinuity(context: SheetContext): void {
  const { loom, build, flow } = context;
  flow.sheet(
    'Continuity',
    'Wires at 20 °C with contacts, rings and splices; passes up to the larger of 20 % or 0.1 Ω above. What carries much is proved in mV, four-wire, at the current given. Loom unplugged at both ends, controllers disconnected.',
  );
  flow.table(
    [
      { title: 'circuit', share: 3.2 },
      { title: 'from', share: 3.4 },
      { title: 'to', share: 3.4 },
      { title: 'by', share: 3, face: 'mono' },
      number('expect', 1.5),
      number('at most', 1.5),
      { title: 'read', share: 1.3 },
    ],
    build.continuity.map((row) => [
      loom.circuits[row.circuitId]!.name,
      place(context, row.from.endId, row.from.cavity),
      place(context, row.to.endId, row.to.cavity),
      `${row.wires.join(' ')}${row.millivolts ? ` at ${row.millivolts.atA} A` : ''}`,
      row.millivolts ? `${row.millivolts.expectedMv.toFixed(1)} mV` : `${row.expectedOhm.toFixed(3)} Ω`,
      row.millivolts ? `${row.millivolts.mostMv.toFixed(1)} mV` : `${row.mostOhm.toFixed(3)} Ω`,
      '_______',
    ]),
  );
}

/** What to have in the kit before work begins. */
export function addParts({ build, flow }: SheetContext): void {
  flow.sheet('Parts', 'Kit complete before work begins. Held wires are counted: they will be needed.');
  flow.table(
    [tick, { title: 'group', share: 1.4 }, { title: 'part', share: 6 }, number('pieces', 1.2), number('metres', 1.2), number('packs', 1.1)],
    build.parts.map(({ group, name, pieces, lengthMm, packs }): Cell[] => [
      { tick: true },
      group,
      name,
      String(pieces),
      lengthMm === null ? '–' : (lengthMm / 1000).toFixed(2),
      packs === null ? '–' : String(packs),
    ]),
  );
}
