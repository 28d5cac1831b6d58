import type { Loom } from '../model';
import type { LoomPlan } from '../plan';
import { WIRE_HEX } from './colours';
import { FAINT, HAIR, INK, line, text, type Drawing, type Mark } from './drawing';
import { fitText, measureText } from './measureText';
import { layoutStrip } from './strip/layoutStrip';
import { listFolded } from './strip/listFolded';

const LABEL_ROOM = 34;
const LEFT = 9;

/** The loom as a strip for paper: ruler, traces in their colours, ends, breakouts, splices. No wider than given, mm. */
export function drawStrip(loom: Loom, plan: LoomPlan, widthMm: number): Drawing {
  const reachMm = Math.max(1, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm));
  const scale = (widthMm - LEFT - LABEL_ROOM) / reachMm;
  const many = plan.wires.length > 60;
  const layout = layoutStrip(loom, plan, { scale, pitch: many ? 0.7 : 1.1, row: 5, left: LEFT, top: 9, folded: listFolded(plan) });
  const marks: Mark[] = [...drawRuler(reachMm, scale, layout.height)];
  for (const { x, top, holeMm, name, kind, bottom } of layout.nodes) {
    if (kind === 'pass') {
      marks.push(
        line([x, top], [x, bottom], 0.25, FAINT, [0.8, 0.8]),
        text(x + 0.8, 8.2, `${name}${holeMm === null ? '' : `, Ø ${holeMm}`}`, 2.1, { fill: FAINT }),
      );
    } else marks.push({ kind: 'circle', x, y: top, r: 0.8, fill: '#ffffff', stroke: INK, width: 0.3 });
  }
  for (const { d, colour, width } of layout.traces) {
    marks.push(
      { kind: 'path', d, fill: null, stroke: INK, width: width + 0.22 },
      { kind: 'path', d, fill: null, stroke: colour ? WIRE_HEX[colour.base] : '#7d8a8c', width },
    );
    if (colour?.stripe) marks.push({ kind: 'path', d, fill: null, stroke: WIRE_HEX[colour.stripe], width: width * 0.36 });
  }
  for (const { folded, count, x, y } of layout.folds)
    if (folded)
      marks.push(
        { kind: 'rect', x: x + 1.6, y: y - 1.5, w: 5, h: 3, fill: '#ffffff', stroke: INK, width: 0.2 },
        text(x + 4.1, y + 0.8, String(count), 2.2, { face: 'mono', anchor: 'middle' }),
      );
  for (const { x, top, bottom, y, label } of layout.splices) {
    marks.push(
      line([x, top], [x, bottom], 0.5),
      { kind: 'circle', x, y, r: 0.9, fill: INK, stroke: '#ffffff', width: 0.2 },
      text(x, top - 1, label, 2.2, { face: 'narrow-bold', anchor: 'middle' }),
    );
  }
  for (const { x, top, bottom, name, legMm, segmentId } of layout.ends) {
    const atDatum = segmentId === null;
    marks.push({
      kind: 'rect',
      x: atDatum ? x - 3.5 : x,
      y: top,
      w: atDatum ? 3.5 : 1.8,
      h: Math.max(1.6, bottom - top),
      fill: INK,
      stroke: null,
      width: 0,
    });
    if (atDatum) marks.push(text(x - 5, (top + bottom) / 2, name, 2.4, { face: 'narrow-bold', anchor: 'middle', turn: -90 }));
    else {
      const words = fitText(name, 2.5, 'narrow', LABEL_ROOM - 12);
      const y = (top + bottom) / 2 + 0.9;
      marks.push(
        text(x + 2.8, y, words, 2.5),
        text(x + 3.8 + measureText(words, 2.5, 'narrow'), y, `+${Math.round(legMm ?? 0)}`, 2.3, { face: 'mono', fill: FAINT }),
      );
    }
  }
  return { widthMm, heightMm: layout.height + 2, marks };
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
