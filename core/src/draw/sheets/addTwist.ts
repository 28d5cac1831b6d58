import { toClockWords, toLayerWords, toThreadWords, type LaidLayer, type LaidStretch, type PlannedLayup } from '../../plan';
import { toCount } from '../../units';
import { drawLaidSection } from '../section/drawLaidSection';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const LAYERS: Column[] = [
  { title: '', share: 0.4 },
  { title: 'layer', share: 1 },
  { title: 'hand', share: 1.1 },
  { title: 'lay mm', share: 0.9, align: 'end', face: 'mono' },
  { title: 'turns/100', share: 1, align: 'end', face: 'mono' },
  { title: 'count five turns', share: 1.5, align: 'end', face: 'mono' },
  { title: 'over it mm', share: 1.1, align: 'end', face: 'mono' },
  { title: '', share: 0.2 },
  { title: 'in order from 12 o’clock, clockwise', share: 7 },
];
const PEELS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'at mm', share: 1, align: 'end', face: 'mono' },
  { title: '', share: 0.2 },
  { title: 'where', share: 2.9 },
  { title: 'wire', share: 2.4, face: 'mono' },
  { title: 'out of', share: 1.4 },
  { title: 'comes up at', share: 2 },
  { title: 'then', share: 4 },
];
const DEAD: Column[] = [
  { title: '', share: 0.5 },
  { title: 'piece', share: 1, face: 'mono' },
  { title: 'of', share: 3 },
  { title: 'cut mm', share: 1, align: 'end', face: 'mono' },
  { title: 'starts', share: 1.2, align: 'end', face: 'mono' },
  { title: 'stops', share: 1.2, align: 'end', face: 'mono' },
  { title: 'in', share: 1.4 },
  { title: 'in the place of', share: 2.4, face: 'mono' },
];
/** bundles of so few that are twisted once from end to end stand in one table */
const FEW_LAYERS = 1;

/** The twist sheets: a stretch a block, its section, its layers in order, what peels off where, and the dead wire. */
export function addTwist(context: SheetContext): void {
  const { flow, plan } = context;
  const isShort = ({ stretches }: PlannedLayup) => stretches.length === 1 && stretches[0]!.layers.length === FEW_LAYERS;
  const long = plan.layups.filter((layup) => !isShort(layup));
  const short = plan.layups.filter(isShort);
  flow.sheet(
    'Twist',
    'twist',
    'Angles are seen from the datum, clockwise from 12 o’clock. Right-hand: clockwise as it goes away from you. Tie at every start, end and change of hand. Numbers without the loom’s letters in the pictures.',
  );
  for (const layup of long) addStrip(context, layup);
  if (short.length) addShort(context, short);
}

const toMm = ({ plan }: SheetContext, layup: PlannedLayup, mark: number) =>
  Math.round(plan.tree.segments[layup.id]!.startMm + layup.marks[mark]!.mm);

function toPlace(context: SheetContext, layup: PlannedLayup, mark: number): string {
  const { nodeId } = layup.marks[mark]!;
  return nodeId === null ? `${toMm(context, layup, mark)} mm` : context.loom.nodes[nodeId]!.name;
}

/** Runs of a strip that a stretch of it lies in. */
const listRuns = ({ segmentIds, segmentMarks, marks }: PlannedLayup, fromMark: number, toMark: number) =>
  segmentIds.filter((_, at) => segmentMarks[at]! < toMark && (segmentMarks[at + 1] ?? marks.length - 1) > fromMark);

function addStrip(context: SheetContext, layup: PlannedLayup): void {
  const { flow, plan } = context;
  const numbers = new Map(plan.wires.map(({ id, number }) => [id, number]));
  layup.stretches.forEach((stretch, at) => {
    const { fromMark, toMark } = stretch;
    flow.heading(
      `${toPlace(context, layup, fromMark)} to ${toPlace(context, layup, toMark)}: ${toMm(context, layup, fromMark)} to ${toMm(context, layup, toMark)} mm${at > 0 ? ', tied and laid anew' : ''}`,
      100,
      {
        id: `step layup.${layup.id}.${at}.0`,
        here: drawSchematic(plan.tree, { segmentIds: listRuns(layup, fromMark, toMark) }, SMALL_SCHEMATIC),
      },
    );
    flow.picture(drawLaidSection(layup, stretch, plan, numbers));
    flow.table(
      LAYERS,
      stretch.layers.map((layer, index) => toLayerRow(layup, layer, index, fromMark, numbers)),
    );
    addPeels(context, layup, stretch, numbers);
    addDead(context, layup, at, numbers);
  });
  if (layup.by !== 'search')
    flow.paragraph('This lay-up was not searched for: it is laid once from end to end, which is safe and seldom best.', 'narrow-bold');
}

function toLayerRow(
  layup: PlannedLayup,
  { hand, layMm, outerOdMm, slots }: LaidLayer,
  index: number,
  mark: number,
  numbers: ReadonlyMap<string, string>,
): Cell[] {
  const byId = new Map(layup.threads.map((thread) => [thread.id, thread]));
  const inOrder = [...slots].sort((a, b) => a.startDeg - b.startDeg);
  const words = inOrder.map(({ threadId, startDeg }) => {
    const thread = threadId === null ? null : byId.get(threadId)!;
    const name = thread && thread.from.mark <= mark ? toThreadWords(thread, numbers, mark) : 'dead';
    return `${Math.round(startDeg) % 360}° ${name}`;
  });
  return [
    { tick: true },
    toLayerWords(index),
    hand === null ? 'straight' : `${hand}-hand`,
    layMm === null ? '–' : layMm.toFixed(1),
    layMm === null ? '–' : (100 / layMm).toFixed(2),
    layMm === null ? '–' : `= ${Math.ceil(5 * layMm - 1e-6)} mm`,
    outerOdMm.toFixed(1),
    '',
    words.join(', '),
  ];
}

/** What leaves and comes within a stretch, by mm and clock position. */
function addPeels(
  context: SheetContext,
  layup: PlannedLayup,
  { fromMark, toMark, layers }: LaidStretch,
  numbers: ReadonlyMap<string, string>,
): void {
  const { flow } = context;
  const layerOf = new Map(
    layers.flatMap(({ slots }, layer) =>
      slots.flatMap((slot) => (slot.threadId === null ? [] : [[slot.threadId, { layer, slot }] as const])),
    ),
  );
  const rows = layup.threads.flatMap((thread) => {
    const lies = layerOf.get(thread.id);
    if (!lies) return [];
    const { hand, layMm } = layers[lies.layer]!;
    return [thread.from, thread.to].flatMap(({ mark, kind }, end) => {
      const isHere = end === 0 ? mark >= fromMark && mark > 0 : mark <= toMark;
      if (!isHere || kind === 'strip') return [];
      const along = layup.marks[mark]!.mm - layup.marks[fromMark]!.mm;
      const deg = lies.slot.startDeg + (layMm === null ? 0 : ((hand === 'right' ? 1 : -1) * 360 * along) / layMm);
      const dead = lies.slot.fillers.length > 0;
      const then = end === 0 ? 'joins here' : dead ? 'dead wire in its place' : mark === toMark ? 'the stretch ends' : 'the layer ends';
      const name = toThreadWords(thread, numbers, end === 0 ? mark : mark - 1);
      return [
        {
          mark,
          cells: [
            { tick: true },
            String(toMm(context, layup, mark)),
            '',
            toPlace(context, layup, mark),
            name,
            toLayerWords(lies.layer),
            toClockWords(deg),
            then,
          ] as Cell[],
        },
      ];
    });
  });
  if (rows.length === 0) return;
  flow.table(
    PEELS,
    rows.sort((a, b) => a.mark - b.mark).map(({ cells }) => cells),
  );
}

function addDead(context: SheetContext, layup: PlannedLayup, stretch: number, numbers: ReadonlyMap<string, string>): void {
  const here = context.build.fillers.filter((one) => one.stripId === layup.id && one.stretch === stretch);
  if (here.length === 0) return;
  const startMm = context.plan.tree.segments[layup.id]!.startMm;
  const byId = new Map(layup.threads.map((thread) => [thread.id, thread]));
  context.flow.table(
    DEAD,
    here.map(({ number, reel, cutMm, fromMm, toMm: until, layer, afterThreadId }): Cell[] => [
      { tick: true },
      number,
      reel,
      String(cutMm),
      String(Math.round(startMm + fromMm)),
      String(Math.round(startMm + until)),
      toLayerWords(layer),
      afterThreadId === null ? 'nothing: all along' : toThreadWords(byId.get(afterThreadId)!, numbers, 0),
    ]),
  );
}

/** Branches of a few wires, twisted once: a line each. */
function addShort(context: SheetContext, short: readonly PlannedLayup[]): void {
  const { flow, plan } = context;
  const numbers = new Map(plan.wires.map(({ id, number }) => [id, number]));
  flow.heading(`Twisted once: ${toCount(short.length, 'branch', 'branches')}`);
  flow.table(
    [{ title: 'run', share: 3 }, ...LAYERS.filter(({ title }) => title !== 'layer')],
    short.map((layup): Cell[] => {
      const [tick, , ...rest] = toLayerRow(layup, layup.stretches[0]!.layers[0]!, 0, 0, numbers);
      return [`${toPlace(context, layup, 0)} to ${toPlace(context, layup, layup.marks.length - 1)}`, tick!, ...rest];
    }),
  );
}
