import { findFamily, toSizeWords, type Catalogue } from '../../catalogue';
import type { Finding } from '../../check';
import { listCutPieces, type LoomBuild } from '../../make';
import { toColourWords, type Job, type Loom } from '../../model';
import {
  DRESS_ROLE_WORDS,
  isHeldFromCutting,
  listMarks,
  planClips,
  toHoldWords,
  type DressPiece,
  type LoomPlan,
  type PlannedWire,
} from '../../plan';
import { number, words, yesNo, type DataCell, type DataTable } from './dataTable';

/** What the lists of a loom are made from. */
export interface ListSource {
  job: Job;
  plan: LoomPlan;
  build: LoomBuild;
  /** of the whole job */
  findings: readonly Finding[];
  catalogue: Catalogue;
}

interface Context extends ListSource {
  loom: Loom;
  wires: ReadonlyMap<string, PlannedWire>;
}

/** Every list of a planned loom, with numbers as numbers: what a spreadsheet is made from. Lengths in mm unless a column says otherwise. */
export function listTables(source: ListSource): DataTable[] {
  const loom = source.job.looms[source.plan.loomId]!;
  const context = { ...source, loom, wires: new Map(source.plan.wires.map((wire) => [wire.id, wire])) };
  return [
    listWires(context),
    listTerms(context),
    listCut(context),
    listEnds(context),
    listSplices(context),
    listRuns(context),
    listPieces(context),
    listLabels(context),
    listClips(context),
    listKit(context),
    listWork(context),
    listPairs(context),
    listOpen(context),
  ].filter(({ rows }) => rows.length > 0);
}

const numbersOf = ({ wires }: Context, ids: readonly string[]) => ids.map((id) => wires.get(id)!.number).join(' ');

function toWhere({ loom, plan }: Context, end: PlannedWire['from']): [string, string | null] {
  if (end.kind === 'cavity') return [loom.ends[end.endId]!.name, end.cavity];
  return [`splice ${plan.splices.find(({ id }) => id === end.spliceId)!.label}`, null];
}

function toRun({ loom, plan }: Context, segmentId: string): [string, string] {
  const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
  return [loom.nodes[nearNodeId]!.name, loom.nodes[farNodeId]!.name];
}

const listWires = (context: Context): DataTable => ({
  name: 'Wires',
  columns: [
    ...words('wire', 'circuit', 'from', 'from cavity', 'to', 'to cavity', 'colour', 'size', 'because'),
    number('cut'),
    number('rough'),
    number('one sigma', 1),
    number('mass g', 1),
    yesNo('held'),
    ...words('held because'),
  ],
  rows: context.plan.wires.map((wire) => [
    wire.number,
    context.loom.circuits[wire.circuitId]!.name,
    ...toWhere(context, wire.from),
    ...toWhere(context, wire.to),
    toColourWords(wire.colour),
    toSizeWords(wire.conductor),
    wire.because,
    wire.cutMm,
    wire.roughMm,
    wire.sigmaMm,
    wire.massG,
    isHeldFromCutting(wire),
    wire.heldBy.map(toHoldWords).join(', ') || null,
  ]),
});

const listTerms = ({ plan }: Context): DataTable => ({
  name: 'Lengths',
  columns: [...words('wire', 'term'), number('mm', 1)],
  rows: plan.wires.flatMap((wire) => wire.addends.map(({ words: of, mm }): DataCell[] => [wire.number, of, mm])),
});

const listCut = ({ build }: Context): DataTable => ({
  name: 'Cut list',
  columns: [...words('reel', 'piece'), number('rough'), number('final'), yesNo('held')],
  rows: [
    ...build.cuts.flatMap((cut) =>
      listCutPieces(cut).map(({ wires, isHeld, roughMm, cutMm }): DataCell[] => [
        cut.reel,
        wires.map((wire) => wire.number).join(' '),
        roughMm,
        cutMm,
        isHeld,
      ]),
    ),
    ...build.fillers.map(({ reel, number: piece, cutMm }): DataCell[] => [`dead wire, ${reel}`, piece, cutMm, cutMm, false]),
  ],
});

const listEnds = (context: Context): DataTable => ({
  name: 'Ends',
  columns: [
    ...words('end', 'housing', 'key', 'cavity', 'wire', 'contact', 'seal'),
    number('strip', 1),
    ...words('tool', 'setting', 'removal tool'),
    number('pull N'),
  ],
  rows: context.plan.terminations.map((one) => {
    const end = context.loom.ends[one.endId]!;
    const pulls = one.pullOffsN.filter((force) => force !== null);
    return [
      end.name,
      findFamily(context.job, context.catalogue, end.familyId)?.name ?? end.kind,
      end.key,
      one.cavity,
      numbersOf(context, one.wireIds),
      one.contactName,
      one.sealName || null,
      one.stripMm,
      one.tool || null,
      one.positioner || null,
      one.removalTool || null,
      pulls.length > 0 ? Math.min(...pulls) : null,
    ];
  }),
});

const listSplices = (context: Context): DataTable => ({
  name: 'Splices',
  columns: [
    ...words('splice', 'circuit'),
    number('from datum'),
    ...words('from its side', 'from the other', 'barrel'),
    number('strip', 1),
    ...words('tool'),
  ],
  rows: context.plan.splices.map((splice) => {
    const barrel = context.plan.barrels.find(({ spliceId }) => spliceId === splice.id)!;
    return [
      splice.label,
      context.loom.circuits[splice.circuitId]!.name,
      splice.distanceMm,
      numbersOf(context, barrel.sides.near),
      numbersOf(context, barrel.sides.far),
      barrel.barrelName,
      barrel.stripMm,
      barrel.tool,
    ];
  }),
});

const listRuns = (context: Context): DataTable => ({
  name: 'Runs',
  columns: [
    ...words('from', 'to'),
    number('starts at'),
    number('length', 1),
    number('one sigma', 1),
    number('bundle', 2),
    ...words('covering'),
    number('cut'),
    number('over it', 2),
    ...words('because'),
  ],
  rows: context.plan.coverings.map((covering) => {
    const { startMm, lengthMm, sigmaMm } = context.plan.tree.segments[covering.segmentId]!;
    const bundle = context.plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!;
    return [
      ...toRun(context, covering.segmentId),
      startMm,
      lengthMm,
      sigmaMm,
      bundle.odMm,
      covering.itemName,
      covering.kind === 'none' ? null : covering.cutMm,
      covering.odOutsideMm,
      covering.because,
    ];
  }),
});

const listPieces = ({ plan, loom }: Context): DataTable => {
  const toRow = (at: string, { role, itemName, cutMm, table, fromMm, toMm, underMm, overMm }: DressPiece, index: number): DataCell[] => [
    at,
    index + 1,
    DRESS_ROLE_WORDS[role],
    itemName,
    table === 'coverings' ? cutMm : null,
    fromMm,
    toMm,
    underMm,
    overMm,
  ];
  return {
    name: 'Dress',
    columns: [
      ...words('at'),
      number('order'),
      ...words('what', 'part'),
      number('cut'),
      number('from'),
      number('to'),
      number('on', 2),
      number('over it', 2),
    ],
    rows: [
      ...plan.breakoutDress.flatMap(({ nodeId, pieces }) => pieces.map((piece, at) => toRow(loom.nodes[nodeId]!.name, piece, at))),
      ...plan.endDress.flatMap(({ endId, pieces }) => pieces.map((piece, at) => toRow(loom.ends[endId]!.name, piece, at))),
    ],
  };
};

const listLabels = ({ job, plan, catalogue }: Context): DataTable => ({
  name: 'Labels',
  columns: [...words('of', 'text'), number('pieces'), ...words('sleeve'), number('letters', 2), number('on', 2)],
  rows: listMarks(job, plan, catalogue).map(({ kind, text, pieces, stockName, legend, odMm }) => [
    kind,
    text,
    pieces,
    stockName,
    legend?.capMm ?? null,
    odMm,
  ]),
});

const listClips = (context: Context): DataTable => ({
  name: 'Clips',
  columns: [...words('from', 'to', 'clip'), number('at')],
  rows: planClips(context.job, context.plan, context.catalogue).flatMap(({ segmentId, item, atMm }) =>
    atMm.map((at): DataCell[] => [...toRun(context, segmentId), item?.name ?? null, at]),
  ),
});

const listKit = ({ build, catalogue }: Context): DataTable => ({
  name: 'Parts',
  columns: [
    ...words('group', 'part', 'name'),
    number('pieces'),
    number('m', 3),
    number('packs'),
    number(catalogue.currency === null ? 'cost' : `cost ${catalogue.currency}`, 2),
  ],
  rows: build.parts.map(({ group, id, name, pieces, lengthMm, packs, cost }) => [
    group,
    id,
    name,
    pieces,
    lengthMm === null ? null : lengthMm / 1000,
    packs,
    cost,
  ]),
});

const listWork = ({ build }: Context): DataTable => ({
  name: 'Steps',
  columns: [number('no.'), ...words('work', 'step', 'do'), yesNo('held'), ...words('tool', 'parts', 'caution')],
  rows: build.steps.flatMap((step, at) =>
    step.items.map((item): DataCell[] => [
      at + 1,
      step.operation,
      step.title,
      item.words,
      item.heldBecause !== null,
      step.tool || null,
      step.parts.join(', ') || null,
      step.caution,
    ]),
  ),
});

const listPairs = ({ build, loom }: Context): DataTable => ({
  name: 'Continuity',
  columns: [
    ...words('circuit', 'from', 'from cavity', 'to', 'to cavity', 'by'),
    number('expect ohm', 4),
    number('at most ohm', 4),
    number('at A', 1),
    number('expect mV', 1),
    number('at most mV', 1),
  ],
  rows: build.continuity.map(({ circuitId, from, to, wires, expectedOhm, mostOhm, millivolts }) => [
    loom.circuits[circuitId]!.name,
    loom.ends[from.endId]!.name,
    from.cavity,
    loom.ends[to.endId]!.name,
    to.cavity,
    wires.join(' '),
    expectedOhm,
    mostOhm,
    millivolts?.atA ?? null,
    millivolts?.expectedMv ?? null,
    millivolts?.mostMv ?? null,
  ]),
});

const listOpen = ({ job, plan, findings }: Context): DataTable => ({
  name: 'Findings',
  columns: words('grade', 'code', 'finding', 'stands because', 'says'),
  rows: findings
    .filter(({ loomId }) => loomId === plan.loomId || loomId === '')
    .map(({ grade, code, sentence, key }) => {
      const accepted = Object.hasOwn(job.accepted, key) ? job.accepted[key]! : null;
      return [grade, code, sentence, accepted?.reason ?? null, accepted?.by ?? null];
    }),
});
