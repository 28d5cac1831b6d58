import { toColourWords } from '../../model';
import { findFreeTurn, findStandard, type PlannedFeed } from '../../plan';
import { drawFeedRows } from '../feed/drawFeed';
import { drawSchematic, SMALL_SCHEMATIC } from './drawSchematic';
import type { Cell, Column } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

const TURNS: Column[] = [
  { title: '', share: 0.4 },
  { title: 'no.', share: 0.6, align: 'end', face: 'mono' },
  { title: 'end', share: 4 },
  { title: 'goes as', share: 1.6 },
  { title: 'it asks mm', share: 1.3, align: 'end', face: 'mono' },
  { title: 'through already', share: 1.6, align: 'end', face: 'mono' },
  { title: 'together', share: 1.2, align: 'end', face: 'mono' },
];
const CAVITIES: Column[] = [
  { title: '', share: 0.4 },
  { title: 'cavity', share: 1, face: 'mono' },
  { title: 'wire', share: 1.6, face: 'mono' },
  { title: 'colour', share: 2 },
  { title: 'contact', share: 4 },
];

const DRILLING: Column[] = [
  { title: '', share: 0.4 },
  { title: 'to be made', share: 6 },
  { title: 'asks for', share: 3 },
];

/** How the loom goes into the vehicle: hole by hole, part by part in its order, and what is pinned behind the holes. */
export function addFeeds(context: SheetContext): void {
  const { plan, loom, flow } = context;
  if (plan.feeds.length === 0) return;
  flow.sheet(
    'Through holes',
    'vehicle',
    'Battery negative off. A hole that is still to be made: pilot 3 mm, look at both sides, light through, then saw; deburr, coat the edge, grommet in. Parts go through one after another by their numbers; local codes and the makers’ instructions come first.',
  );
  for (const feed of plan.feeds) {
    const { name } = loom.nodes[feed.nodeId]!;
    flow.heading(`${name}, ${feed.boreMm} mm, ${Math.round(plan.tree.nodes[feed.nodeId]!.distanceMm)} mm from the datum`, 80, {
      id: 'step route',
      here: drawSchematic(plan.tree, { nodeIds: [feed.nodeId] }, SMALL_SCHEMATIC),
    });
    addDrilling(context, feed);
    flow.paragraph(toWay(feed));
    for (const row of drawFeedRows(feed, (id) => loom.ends[id]!.name)) flow.picture(row);
    flow.table(
      TURNS,
      feed.pieces.map((piece, at): Cell[] => [
        { tick: true },
        String(at + 1),
        loom.ends[piece.id]!.name,
        piece.goesAs === 'wires' ? 'wires, taped' : piece.goesAs,
        piece.envelopeMm.toFixed(1),
        piece.throughMm.toFixed(1),
        `${piece.needMm.toFixed(1)}${piece.passes ? '' : ' !'}`,
      ]),
    );
    if (feed.unknownIds.length > 0)
      flow.paragraph(`Size not known, try first: ${feed.unknownIds.map((id) => loom.ends[id]!.name).join(', ')}.`);
  }
  addPinned(context);
}

/** How a hole is made that is not there yet: what the drill asks for, and what there is. */
function addDrilling({ loom, flow, job, catalogue }: SheetContext, { nodeId, boreMm }: PlannedFeed): void {
  const { drill } = loom.nodes[nodeId]!;
  if (drill === null) return;
  const { drillMm, drillThroughMm } = findStandard(job, catalogue);
  const has = (mm: number | null) => (mm === null ? 'not measured' : `${Math.round(mm)} mm`);
  flow.table(
    DRILLING,
    [
      [
        { tick: true },
        'look at both sides; light through: nothing behind that a saw could reach',
        `${drillThroughMm} mm, there: ${has(drill.behindMm)}`,
      ],
      [{ tick: true }, 'drill and saw straight in front of it', `${drillMm} mm, there: ${has(drill.roomMm)}`],
      [{ tick: true }, 'pilot, then saw', `3 mm, then ${boreMm} mm`],
      [{ tick: true }, 'deburr both edges, coat the bare edge, grommet in', 'no swarf left'],
    ].map((row): Cell[] => row as Cell[]),
  );
}

/** What is led through, and what has to be free. */
const toWay = (feed: PlannedFeed) => {
  const { direction, because, boreMm, leaveMm, besideMm } = feed;
  const freeFrom = findFreeTurn(feed);
  return `${direction === 'outward' ? 'What lies beyond the hole is led through, from the side of the datum' : 'The part with the datum is led through, from the far side'} (${because}). ${besideMm > 0 ? `${besideMm.toFixed(1)} mm are taken by other looms, which go through first. ` : ''}${(boreMm - leaveMm).toFixed(1)} mm are free.${freeFrom === null ? '' : ` From ${freeFrom} on the order does not matter.`}`;
};

/** Ends that get their housings in the vehicle: which wire goes where, by its colour. */
function addPinned({ loom, plan, flow, wires }: SheetContext): void {
  for (const [endId, { name, kind, pinAt, nodeId }] of Object.entries(loom.ends)) {
    const rows = plan.terminations.filter((one) => one.endId === endId);
    if (pinAt !== 'vehicle' || kind === 'tail' || rows.length === 0) continue;
    flow.heading(`Closed in the vehicle: ${name}`, 30, {
      id: `late ${endId}`,
      here: drawSchematic(plan.tree, { nodeIds: [nodeId] }, SMALL_SCHEMATIC),
    });
    flow.table(
      CAVITIES,
      rows.map(({ cavity, wireIds, contactName }): Cell[] => {
        const here = wireIds.map((id) => wires.get(id)!);
        return [
          { tick: true },
          cavity,
          here.map(({ number }) => number).join(', '),
          here.map(({ colour }) => toColourWords(colour)).join(', '),
          contactName,
        ];
      }),
    );
    flow.paragraph('Then ring out every pair of it once more.');
  }
}
