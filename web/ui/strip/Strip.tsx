'use client';

import { useElementSize } from '@mantine/hooks';
import { memo, useCallback, useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { layoutStrip, moveBreakout, type StripLayout } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursor, useCursorStore, type Cursor } from '../cursor';
import { Runs, Ruler, Splices, Traces } from './StripPicture';
import styles from './Strip.module.css';

const LEFT = 44;
const LABELS = 215;
const TOP = 40;
const AUTO_FOLD_ABOVE = 45;

/** The loom along its tape: the navigator of every station that works on one. */
export function Strip({ planned, tools }: { planned: PlannedLoom; tools?: ReactNode }) {
  const { ref, width } = useElementSize();
  const store = useJobStore();
  const cursor = useCursorStore();
  const [zoom, setZoom] = useState(1);
  const [folds, setFolds] = useState<Record<string, boolean>>({});
  const [typing, setTyping] = useState<string | null>(null);
  const frozen = useRef<{ scale: number; planned: PlannedLoom } | null>(null);
  const { loom, plan, loomId, job } = planned;

  const reachMm = useMemo(() => Math.max(100, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm)), [plan]);
  const scale = frozen.current?.scale ?? (Math.max(360, width - LEFT - LABELS) / reachMm) * zoom;
  const folded = useMemo(() => listFolded(planned, folds), [planned, folds]);
  const pitch = plan.wires.length <= 20 ? 6.5 : plan.wires.length <= 50 ? 4.6 : 3.6;
  const layout = useMemo(() => layoutStrip(loom, plan, { scale, pitch, row: 21, left: LEFT, top: TOP, folded }), [loom, plan, scale, pitch, folded]);

  useEffect(() => {
    const at = cursor.get();
    const first = plan.tree.nodes[plan.tree.datumId]!.childSegmentIds[0];
    if (at && plan.tree.segments[at.segmentId]) cursor.set({ ...at, offsetMm: Math.min(at.offsetMm, plan.tree.segments[at.segmentId]!.lengthMm) });
    else cursor.set(first ? { segmentId: first, offsetMm: plan.tree.segments[first]!.lengthMm / 2 } : null);
  }, [plan, cursor]);

  const startDrag = useCallback((nodeId: string, event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    event.preventDefault();
    const base = planned;
    const from = event.clientX;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    frozen.current = { scale, planned: base };
    let moved = 0;
    const recipe = (byMm: number) => (draft: typeof base.job) => { moved = moveBreakout(draft.looms[base.loomId]!, base.plan.tree, nodeId, byMm); };
    const move = (next: globalThis.PointerEvent) => store.preview(recipe((next.clientX - from) / scale));
    const end = (keep: boolean) => (next: globalThis.Event) => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', done);
      target.removeEventListener('pointercancel', dropped);
      window.removeEventListener('keydown', escape);
      frozen.current = null;
      const byMm = next instanceof globalThis.PointerEvent ? (next.clientX - from) / scale : 0;
      store.cancelPreview();
      if (keep && Math.abs(byMm) >= 0.5) store.edit(`move ${base.loom.nodes[nodeId]!.name} by ${Math.round(byMm)} mm`, recipe(byMm));
      void moved;
    };
    const done = end(true);
    const dropped = end(false);
    const escape = (next: globalThis.KeyboardEvent) => { if (next.key === 'Escape') dropped(next); };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', done);
    target.addEventListener('pointercancel', dropped);
    window.addEventListener('keydown', escape);
  }, [planned, scale, store]);

  const point = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const found = findPlace(planned, layout, scale, event.clientX - box.left, event.clientY - box.top);
    if (found) cursor.set(found);
  };
  const press = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement) return;
    const at = cursor.get();
    if (!at) return;
    if (event.key === 'Enter') setTyping(at.segmentId);
    else if (event.key === '+' || event.key === '=') setZoom((now) => Math.min(8, now * 1.25));
    else if (event.key === '-') setZoom((now) => Math.max(0.5, now / 1.25));
    else {
      const next = walk(planned, at, event.key, event.shiftKey ? 50 : 5);
      if (!next) return;
      cursor.set(next);
    }
    event.preventDefault();
  };

  const isEmpty = Object.keys(loom.segments).length === 0;
  const height = layout.height + 34;
  return (
    <section className={styles.panel} aria-label="Strip">
      <div className={styles.bar}>
        <Where planned={planned} onType={setTyping} />
        {tools}
        <button aria-label="Zoom out" onClick={() => setZoom((now) => Math.max(0.5, now / 1.25))}>−</button>
        <button aria-label="Fit the strip" onClick={() => setZoom(1)}>fit</button>
        <button aria-label="Zoom in" onClick={() => setZoom((now) => Math.min(8, now * 1.25))}>+</button>
      </div>
      <div className={styles.scroll} ref={ref} tabIndex={0} onKeyDown={press} role="application" aria-label="Loom along its tape. Arrow keys walk, Enter types a length.">
        {isEmpty ? <p className={styles.empty}>Nothing beyond the datum yet. Give the anchor connector its place with “Add end” at the datum, then add a breakout run or the first leg.</p> : (
          <div className={styles.sheet} style={{ width: layout.width + LABELS, height }} onPointerMove={(event) => event.buttons <= 1 && point(event)} onPointerDown={point} onDoubleClick={() => setTyping(cursor.get()?.segmentId ?? null)}>
            <svg width={layout.width + LABELS} height={height} role="img" aria-label={`Strip of ${loom.name}`}>
              <Ruler left={LEFT} scale={scale} reachMm={reachMm} height={height} />
              <Runs runs={layout.runs} zones={job.zones} />
              <Chosen layout={layout} />
              <Traces traces={layout.traces} />
              <Ends layout={layout} heldNodes={listGuessed(planned)} />
              <Nodes layout={layout} onDrag={startDrag} onNudge={(nodeId, byMm) => store.edit(`move ${loom.nodes[nodeId]!.name} by ${byMm} mm`, (draft) => { moveBreakout(draft.looms[loomId]!, plan.tree, nodeId, byMm); })} />
              <Splices splices={layout.splices} />
              <Folds layout={layout} onFold={(id, to) => setFolds((now) => ({ ...now, [id]: to }))} />
            </svg>
            <CursorLine planned={planned} scale={scale} height={height} />
            {typing !== null && plan.tree.segments[typing] && <TypeLength key={typing} planned={planned} segmentId={typing} x={LEFT + (plan.tree.segments[typing]!.startMm + plan.tree.segments[typing]!.lengthMm / 2) * scale} y={(layout.runs.find(({ segmentId }) => segmentId === typing)?.bottom ?? TOP) + 2} onDone={() => setTyping(null)} />}
          </div>
        )}
      </div>
    </section>
  );
}

/** Branches folded: as the planner set them; else those off the main strip where the loom is large. */
function listFolded({ plan }: PlannedLoom, folds: Record<string, boolean>): Set<string> {
  const isLarge = plan.wires.length > AUTO_FOLD_ABOVE;
  const folded = new Set<string>();
  for (const { childSegmentIds, parentSegmentId } of Object.values(plan.tree.nodes)) {
    if (parentSegmentId === null) continue;
    for (const id of childSegmentIds.slice(1)) if (folds[id] ?? isLarge) folded.add(id);
  }
  return folded;
}

function listGuessed({ loom }: PlannedLoom): Set<string> {
  return new Set(Object.values(loom.segments).filter(({ status }) => status === 'guessed').map(({ toNodeId }) => toNodeId));
}

function findPlace({ plan }: PlannedLoom, layout: StripLayout, scale: number, x: number, y: number): Cursor | null {
  const within = layout.runs.filter((run) => x >= run.x && x <= run.x + run.width);
  const row = within.find((run) => y >= run.top && y <= run.bottom) ?? within[0] ?? layout.runs.find((run) => y >= run.top && y <= run.bottom);
  if (!row) return null;
  const { lengthMm } = plan.tree.segments[row.segmentId]!;
  return { segmentId: row.segmentId, offsetMm: Math.max(0, Math.min(lengthMm, Math.round((x - row.x) / scale))) };
}

/** One step with the arrow keys: along the run, over its ends, into the next branch and back. */
function walk({ plan }: PlannedLoom, at: Cursor, key: string, stepMm: number): Cursor | null {
  const { tree } = plan;
  const segment = tree.segments[at.segmentId];
  if (!segment) return null;
  const far = tree.nodes[segment.farNodeId]!;
  if (key === 'ArrowRight') {
    if (at.offsetMm + stepMm <= segment.lengthMm) return { ...at, offsetMm: at.offsetMm + stepMm };
    const next = far.childSegmentIds[0];
    return next ? { segmentId: next, offsetMm: Math.min(tree.segments[next]!.lengthMm, at.offsetMm + stepMm - segment.lengthMm) } : { ...at, offsetMm: segment.lengthMm };
  }
  if (key === 'ArrowLeft') {
    if (at.offsetMm >= stepMm) return { ...at, offsetMm: at.offsetMm - stepMm };
    const before = tree.nodes[segment.nearNodeId]!.parentSegmentId;
    return before ? { segmentId: before, offsetMm: Math.max(0, tree.segments[before]!.lengthMm + at.offsetMm - stepMm) } : { ...at, offsetMm: 0 };
  }
  if (key === 'ArrowDown') {
    const siblings = segment.onward ? [] : tree.nodes[segment.nearNodeId]!.childSegmentIds.slice(1);
    const branch = siblings[siblings.indexOf(at.segmentId) + 1] ?? far.childSegmentIds[1];
    return branch ? { segmentId: branch, offsetMm: 0 } : null;
  }
  if (key === 'ArrowUp') {
    const before = tree.nodes[segment.nearNodeId]!.parentSegmentId;
    return before ? { segmentId: before, offsetMm: tree.segments[before]!.lengthMm } : null;
  }
  return null;
}

function Where({ planned, onType }: { planned: PlannedLoom; onType: (segmentId: string) => void }) {
  const segmentId = useCursor((at) => at?.segmentId ?? null);
  const segment = segmentId === null ? undefined : planned.plan.tree.segments[segmentId];
  if (!segment) return <span className={styles.where} />;
  const { nodes } = planned.loom;
  return (
    <span className={styles.where}>
      {nodes[segment.nearNodeId]!.name} to {nodes[segment.farNodeId]!.name}, <button onClick={() => onType(segment.id)} title="Type this length (Enter)"><b className="mono">{Math.round(segment.lengthMm)}</b> mm</button>
    </span>
  );
}

function Chosen({ layout }: { layout: StripLayout }) {
  const segmentId = useCursor((at) => at?.segmentId ?? null);
  const run = layout.runs.find((one) => one.segmentId === segmentId);
  return run ? <rect className={styles.chosen} x={run.x} y={run.top} width={run.width} height={run.bottom - run.top} /> : null;
}

function CursorLine({ planned, scale, height }: { planned: PlannedLoom; scale: number; height: number }) {
  const at = useCursor((cursor) => cursor);
  const segment = at ? planned.plan.tree.segments[at.segmentId] : undefined;
  if (!at || !segment) return null;
  const mm = segment.startMm + at.offsetMm;
  return <div className={styles.line} style={{ height, transform: `translateX(${LEFT + mm * scale - 1}px)` }} data-testid="cursor"><span className={styles.flag}>{Math.round(mm)}</span></div>;
}

const Ends = memo(function Ends({ layout, heldNodes }: { layout: StripLayout; heldNodes: ReadonlySet<string> }) {
  return layout.ends.map(({ endId, nodeId, segmentId, x, top, bottom, name, legMm }) => {
    const middle = (top + bottom) / 2;
    if (segmentId === null) {
      return (
        <g key={endId}>
          <rect x={x - 30} y={top} width={30} height={Math.max(24, bottom - top)} fill="var(--ink)" />
          <text x={x - 10} y={middle} textAnchor="middle" transform={`rotate(-90 ${x - 10} ${middle})`} style={{ fontSize: 14, fontWeight: 600, fill: 'var(--paper)', fontStretch: '84%' }}>{name}</text>
        </g>
      );
    }
    return (
      <g key={endId}>
        <rect x={x} y={top} width={8} height={Math.max(6, bottom - top)} fill="var(--ink)" />
        <text x={x + 13} y={middle + 5} className={styles.name}>{name} <tspan className={styles.leg}>+{Math.round(legMm ?? 0)}</tspan>{heldNodes.has(nodeId) && <tspan style={{ fill: 'var(--action)', fontWeight: 600 }}> guessed</tspan>}</text>
      </g>
    );
  });
});

const Nodes = memo(function Nodes({ layout, onDrag, onNudge }: { layout: StripLayout; onDrag: (nodeId: string, event: PointerEvent<SVGElement>) => void; onNudge: (nodeId: string, byMm: number) => void }) {
  return layout.nodes.map(({ nodeId, kind, name, holeMm, x, top, bottom }) => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
      event.preventDefault();
      event.stopPropagation();
      onNudge(nodeId, (event.key === 'ArrowLeft' ? -1 : 1) * (event.shiftKey ? 10 : 1));
    };
    const shared = { className: styles.handle, tabIndex: 0, role: 'slider', 'aria-label': `${kind} ${name}`, 'aria-valuenow': Math.round(x), onPointerDown: (event: PointerEvent<SVGElement>) => onDrag(nodeId, event), onKeyDown: press };
    if (kind === 'pass') {
      return (
        <g key={nodeId}>
          <rect x={x - 3} y={top - 2} width={6} height={bottom - top + 4} fill="var(--paper)" stroke="var(--ink)" strokeDasharray="3 2" />
          <rect x={x - 5} y={top - 8} width={10} height={10} {...shared}><title>{name}{holeMm === null ? '' : `, hole Ø ${holeMm} mm`}: drag along the tape</title></rect>
        </g>
      );
    }
    return <circle key={nodeId} cx={x} cy={top + 1} r={6} {...shared}><title>{name}: drag along the tape</title></circle>;
  });
});

function Folds({ layout, onFold }: { layout: StripLayout; onFold: (segmentId: string, to: boolean) => void }) {
  return layout.folds.map(({ segmentId, folded, count, x, y, name }) => (
    <g key={segmentId} role="button" tabIndex={0} aria-label={`${folded ? 'Unfold' : 'Fold'} the branch to ${name}`} style={{ cursor: 'pointer' }} onClick={() => onFold(segmentId, !folded)} onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => { if (event.key === 'Enter' || event.key === ' ') { event.stopPropagation(); onFold(segmentId, !folded); } }}>
      <rect x={x + 10} y={y - 10} width={34} height={20} fill="var(--paper)" stroke="var(--ink)" />
      <text x={x + 27} y={y + 5} textAnchor="middle" style={{ font: '600 13px var(--mono)', fill: 'var(--ink)' }}>{folded ? `▸${count}` : '▾'}</text>
    </g>
  ));
}

/** The length of a run, typed where it lies. */
function TypeLength({ planned, segmentId, x, y, onDone }: { planned: PlannedLoom; segmentId: string; x: number; y: number; onDone: () => void }) {
  const store = useJobStore();
  const { lengthMm, nearNodeId, farNodeId } = planned.plan.tree.segments[segmentId]!;
  const [text, setText] = useState(String(Math.round(lengthMm)));
  const value = Number(text.replace(',', '.'));
  const isGood = value > 0 && value <= 20000;
  const run = `${planned.loom.nodes[nearNodeId]!.name} to ${planned.loom.nodes[farNodeId]!.name}`;
  const keep = () => {
    if (!isGood) return;
    store.edit(`${run} ${value} mm`, (draft) => {
      const segment = draft.looms[planned.loomId]!.segments[segmentId]!;
      segment.lengthMm = value;
      segment.secondLengthMm = null;
    });
    onDone();
  };
  return (
    <div className={styles.type} style={{ left: Math.max(4, x - 90), top: y }} onPointerDown={(event) => event.stopPropagation()} onPointerMove={(event) => event.stopPropagation()}>
      <label className="narrow" htmlFor="run-length">{run}</label>
      <input id="run-length" inputMode="decimal" autoFocus value={text} aria-invalid={!isGood} onFocus={(event) => event.currentTarget.select()} onChange={(event) => setText(event.currentTarget.value)} onBlur={onDone}
        onKeyDown={(event) => { event.stopPropagation(); if (event.key === 'Enter') keep(); if (event.key === 'Escape') onDone(); }} />
      <span>mm</span>{!isGood && <span style={{ color: 'var(--action)' }}>above 0, at most 20 000</span>}
    </div>
  );
}
