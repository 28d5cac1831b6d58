import type { Loom } from '../model';
import type { LoomPlan } from '../plan';
import { WIRE_HEX } from '../model';
import { FAINT, HAIR, INK, line, text, type Drawing, type Mark } from './drawing';
import { measureText } from './measureText';
import { PAPER_DETAILS } from './strip/details';
import { fitStrip } from './strip/fitStrip';
import { layoutStrip } from './strip/layoutStrip';
import type { StripEnd, StripLayout } from './strip/stripLayout';

const LEFT = 9;
const TEXT = 2.5;
/** above which are the ruler and the names of holes, mm */
const TOP = 9;
const HOLE_TEXT = 2.1;
const HOLE_LINE = 2.6;
/** A strip takes no more of a sheet than this, mm, as long as its wires can be told apart. */
const MOST_HEIGHT = 130;

/** The loom as a strip for paper: ruler, traces in their colours, ends, breakouts, splices. No wider than given, mm. */
export function drawStrip(loom: Loom, plan: LoomPlan, widthMm: number): Drawing {
  const reachMm = Math.max(1, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm));
  const layOut = (lines: number) => {
    const base = { row: 5, left: LEFT, top: TOP + (lines - 1) * HOLE_LINE, text: TEXT };
    const fitted = fitStrip(loom, plan, base, { width: widthMm, height: MOST_HEIGHT }, PAPER_DETAILS);
    return { options: fitted, layout: layoutStrip(loom, plan, fitted) };
  };
  const lines = Math.max(1, ...placeHoleNames(layOut(1).layout.nodes, widthMm).map(({ onLine }) => onLine + 1));
  const { options, layout } = layOut(lines);
  const holeNames = new Map(placeHoleNames(layout.nodes, widthMm).map((name) => [name.nodeId, name]));
  const marks: Mark[] = [...drawRuler(reachMm, options.scale, layout.height)];
  for (const { parts, colour } of layout.listTraces())
    for (const { d, width } of parts) {
      marks.push(
        { kind: 'path', d, fill: null, stroke: INK, width: width + 0.22 },
        { kind: 'path', d, fill: null, stroke: WIRE_HEX[colour.base], width },
      );
      if (colour.stripe) marks.push({ kind: 'path', d, fill: null, stroke: WIRE_HEX[colour.stripe], width: width * 0.36 });
    }
  for (const { nodeId, x, top, bottom } of layout.nodes) {
    const hole = holeNames.get(nodeId);
    if (hole) {
      const y = TOP - 0.8 + hole.onLine * HOLE_LINE;
      marks.push(line([x, top], [x, bottom], 0.25, FAINT, [0.8, 0.8]), text(hole.left, y, hole.words, HOLE_TEXT, { fill: FAINT }));
    } else marks.push({ kind: 'circle', x, y: top, r: 0.8, fill: '#ffffff', stroke: INK, width: 0.3 });
  }
  for (const { x, top, bottom, y } of layout.splices)
    marks.push(line([x, top], [x, bottom], 0.5), { kind: 'circle', x, y, r: 0.9, fill: INK, stroke: '#ffffff', width: 0.2 });
  for (const { words, box } of layout.tags)
    marks.push(
      {
        kind: 'rect',
        x: box.left,
        y: box.top,
        w: box.right - box.left,
        h: box.bottom - box.top,
        fill: '#ffffff',
        stroke: INK,
        width: 0.15,
      },
      text((box.left + box.right) / 2, box.bottom - TEXT * 0.3, words, TEXT * 0.9, { face: 'narrow-bold', anchor: 'middle' }),
    );
  for (const end of layout.ends) marks.push(...drawEnd(end));
  return { widthMm, heightMm: layout.height + 2, marks };
}

/** The holes that a loom passes, named above it: on as many lines as keep each name off the others, and inside the drawing. */
function placeHoleNames(nodes: StripLayout['nodes'], widthMm: number): { nodeId: string; words: string; left: number; onLine: number }[] {
  const ends: number[] = [];
  return nodes
    .filter(({ kind }) => kind === 'pass')
    .sort((a, b) => a.x - b.x)
    .map(({ nodeId, x, name, holeMm }) => {
      const words = `${name}${holeMm === null ? '' : `, Ø ${holeMm}`}`;
      const width = measureText(words, HOLE_TEXT, 'narrow');
      const left = Math.max(0, Math.min(x + 0.8, widthMm - width));
      const free = ends.findIndex((end) => end + HOLE_TEXT <= left);
      const onLine = free === -1 ? ends.length : free;
      ends[onLine] = left + width;
      return { nodeId, words, left, onLine };
    });
}

function drawEnd({ x, top, bottom, name, legMm, words }: StripEnd): Mark[] {
  const atDatum = words === null;
  const block: Mark = {
    kind: 'rect',
    x: atDatum ? x - 3.5 : x,
    y: top,
    w: atDatum ? 3.5 : 1.4,
    h: Math.max(1.2, bottom - top),
    fill: INK,
    stroke: null,
    width: 0,
  };
  if (atDatum) return [block, text(x - 5, (top + bottom) / 2, name, 2.4, { face: 'narrow-bold', anchor: 'middle', turn: -90 })];
  const y = words.bottom - TEXT * 0.28;
  return [
    block,
    text(words.left, y, name, TEXT),
    text(words.left + measureText(`${name} `, TEXT, 'narrow'), y, `+${Math.round(legMm ?? 0)}`, TEXT, { fill: FAINT }),
  ];
}

function drawRuler(reachMm: number, scale: number, bottom: number): Mark[] {
  const step = [10, 20, 50, 100, 200, 500, 1000, 2000].find((one) => one * scale >= 11) ?? 5000;
  const marks: Mark[] = [line([LEFT, 5], [LEFT + reachMm * scale, 5], 0.25)];
  for (let mm = 0; mm <= reachMm; mm += step) {
    const x = LEFT + mm * scale;
    marks.push(
      line([x, 3.6], [x, 5], 0.25),
      line([x, 5], [x, bottom], 0.1, HAIR),
      text(x + 0.6, 3.4, String(mm), 2.3, { face: 'mono', fill: FAINT }),
    );
  }
  return marks;
}
