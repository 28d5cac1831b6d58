import type { Cell } from './flow/flowTypes';
import { mm, toRunWords, type SheetContext } from './sheetContext';

/** Coverings of every run, in the order in which they slide on. */
export function addSleeves(context: SheetContext): void {
  const { plan, build, flow } = context;
  flow.sheet('Sleeves', 'sleeve', 'In the order of the steps; a closed sleeve does not pass a finished end.');
  const order = build.steps.flatMap(({ operation, segmentId }) =>
    segmentId !== null && (operation === 'slide' || operation === 'cover') ? [segmentId] : [],
  );
  const placeOf = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
  flow.table(
    [
      { title: '', share: 0.5 },
      { title: 'run', share: 4.4 },
      { title: 'cut mm', share: 1.4, align: 'end', face: 'narrow-bold', isBig: true },
      { title: '', share: 0.2 },
      { title: 'covering', share: 3.4 },
      { title: 'run mm', share: 1.1, align: 'end', face: 'mono' },
      { title: 'bundle', share: 1.1, align: 'end', face: 'mono' },
      { title: 'over it', share: 1.1, align: 'end', face: 'mono' },
      { title: 'because', share: 3 },
    ],
    [...plan.coverings]
      .sort((a, b) => placeOf(a.segmentId) - placeOf(b.segmentId))
      .map((covering): Cell[] => {
        const bundle = plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!;
        const isBare = covering.kind === 'none';
        return [
          isBare ? '' : { tick: true },
          toRunWords(context, covering.segmentId),
          isBare ? '–' : mm(covering.cutMm),
          '',
          covering.itemName,
          mm(plan.tree.segments[covering.segmentId]!.lengthMm),
          bundle.odMm.toFixed(1),
          covering.odOutsideMm.toFixed(1),
          covering.because,
        ];
      }),
  );
}
