import { listCutPieces, type CutGroup } from '../../make';
import { listMarks, type PlannedWire } from '../../plan';
import { toCount } from '../../units';
import type { Drawing } from '../drawing';
import type { Band, Cell, Column } from './flow/flowTypes';
import { drawSwatch } from './flow/drawCell';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import { mm, toBag, toWhere, type SheetContext } from './sheetContext';

const COLUMNS: Column[] = [
  { title: '', share: 0.5 },
  { title: 'wire', share: 2.4, face: 'narrow-bold', isBig: true },
  { title: 'cut mm', share: 1.5, align: 'end', face: 'narrow-bold', isBig: true },
  { title: 'final', share: 1.1, align: 'end', face: 'mono' },
  { title: 'label, both ends', share: 2.6 },
  { title: 'bag', share: 2.6 },
  { title: 'from', share: 3 },
  { title: 'to', share: 3 },
];

/** The cutting bench: a reel after another, its pieces longest first, each with its label and the bag that it goes into. */
export function addCutting(context: SheetContext): void {
  const { build, flow, job, plan, catalogue } = context;
  flow.sheet(
    'Cut list',
    'cut',
    'The longest piece of a reel first. Cut to the length in large type; final is what is left of it after the trim. Mark both ends and bag the piece before the next is cut. What is HELD is not cut.',
  );
  const labels = new Map(
    listMarks(job, plan, catalogue)
      .filter(({ kind }) => kind === 'wire')
      .map(({ id, text, stockName }) => [id, `${text}${stockName ? '' : ' (tag)'}`]),
  );
  flow.bands(
    COLUMNS,
    build.cuts.map((cut) => toReel(context, cut, labels)),
  );
  if (build.fillers.length === 0) return;
  flow.heading('Dead wire of the lay-up');
  flow.table(
    [
      { title: '', share: 0.5 },
      { title: 'piece', share: 1.6, face: 'narrow-bold', isBig: true },
      { title: 'cut mm', share: 1.5, align: 'end', face: 'narrow-bold', isBig: true },
      { title: 'of', share: 4 },
      { title: 'where', share: 6 },
    ],
    build.fillers.map(({ number: piece, reel, cutMm, words }): Cell[] => [{ tick: true }, piece, mm(cutMm), reel, words]),
  );
}

function toReel(context: SheetContext, cut: CutGroup, labels: ReadonlyMap<string, string>): Band {
  const { plan } = context;
  const pieces = listCutPieces(cut);
  const segmentIds = [...cut.wires, ...cut.held].flatMap((wire) => wire.pieces.map(({ segmentId }) => segmentId));
  const held = pieces.filter(({ isHeld }) => isHeld).length;
  const words = [
    toCount(pieces.length - held, 'piece'),
    ...(held > 0 ? [`${held} HELD`] : []),
    `${(cut.roughMm / 1000).toFixed(2)} m off the reel`,
    `${(cut.finalMm / 1000).toFixed(2)} m finished`,
  ];
  return {
    id: `cut ${cut.id}`,
    title: cut.reel,
    words: words.join(' · '),
    here: drawSchematic(plan.tree, { segmentIds }, SMALL_SCHEMATIC),
    picture: cut.cableId === null ? toReelPicture(cut) : null,
    rows: pieces.map(({ wires, isHeld, roughMm, cutMm }): Cell[] => {
      const longest = wires.find((wire) => wire.cutMm === cutMm)!;
      return [
        isHeld ? '–' : { tick: true },
        wires.map(({ number }) => number).join(' '),
        isHeld ? 'HELD' : mm(Math.max(roughMm, cutMm)),
        isHeld || roughMm <= cutMm ? '' : mm(cutMm),
        wires.map(({ id }) => labels.get(id) ?? '–').join(' '),
        toBagWords(context, wires),
        toWhere(context, longest.from),
        toWhere(context, longest.to),
      ];
    }),
  };
}

const toBagWords = (context: SheetContext, wires: readonly PlannedWire[]) =>
  [...new Set(wires.map((wire) => toBag(context, wire)))].join(', ');

/** What is taken off the shelf, as it looks. */
const toReelPicture = ({ colour }: CutGroup): Drawing => ({ widthMm: 15, heightMm: 8, marks: drawSwatch(colour, 0, 1.6, 15, 5) });
