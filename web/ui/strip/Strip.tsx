'use client';

import { useElementSize } from '@mantine/hooks';
import { useCallback, useEffect, useMemo, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { usePathname, useRouter } from 'next/navigation';
import { layoutStrip, listFolded, type StripLayout, moveNode } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursorStore, type Cursor } from '../cursor';
import { Chosen, CursorLine, Ends, Folds, LEFT, Nodes, TypeLength, Where, type MateOf } from './StripParts';
import { PhotoMarks } from './PhotoMarks';
import { RouteLines } from './RouteLines';
import { Runs, Ruler, Splices, Traces } from './StripPicture';
import { walk } from './walk';
import { WireListButton } from '../WireListButton';
import styles from './Strip.module.css';

const LABELS = 215;
const TOP = 36;

/** The loom along its tape: the navigator of every station that works on one. */
export function Strip({ planned, tools }: { planned: PlannedLoom; tools?: ReactNode }) {
  const { ref, width } = useElementSize();
  const router = useRouter();
  const path = usePathname();
  const store = useJobStore();
  const cursor = useCursorStore();
  const [zoom, setZoom] = useState(1);
  const [folds, setFolds] = useState<Record<string, boolean>>({});
  const [typing, setTyping] = useState<string | null>(null);
  // while a breakout is dragged the scale stays, else the strip would run away under the pointer
  const [frozenScale, setFrozenScale] = useState<number | null>(null);
  const { loom, plan, loomId, job } = planned;

  const reachMm = useMemo(() => Math.max(100, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm)), [plan]);
  const scale = frozenScale ?? (Math.max(360, width - LEFT - LABELS) / reachMm) * zoom;
  const folded = useMemo(() => listFolded(plan, folds), [plan, folds]);
  const pitch = plan.wires.length <= 20 ? 6 : plan.wires.length <= 50 ? 3.9 : 3.2;
  const layout = useMemo(
    () => layoutStrip(loom, plan, { scale, pitch, row: 18, left: LEFT, top: TOP, folded }),
    [loom, plan, scale, pitch, folded],
  );

  useEffect(() => {
    const at = cursor.get();
    const first = plan.tree.nodes[plan.tree.datumId]!.childSegmentIds[0];
    if (at && plan.tree.segments[at.segmentId])
      cursor.set({ ...at, offsetMm: Math.min(at.offsetMm, plan.tree.segments[at.segmentId]!.lengthMm) });
    else cursor.set(first ? { segmentId: first, offsetMm: plan.tree.segments[first]!.lengthMm / 2 } : null);
  }, [plan, cursor]);

  const startDrag = useCallback(
    (nodeId: string, event: PointerEvent<SVGElement>) => {
      event.stopPropagation();
      event.preventDefault();
      const base = planned;
      const from = event.clientX;
      const target = event.currentTarget;
      target.setPointerCapture(event.pointerId);
      setFrozenScale(scale);
      const place = { loomId: base.loomId, nodeId, name: base.loom.nodes[nodeId]!.name, tree: base.plan.tree };
      const move = (next: globalThis.PointerEvent) => store.preview(moveNode(place, (next.clientX - from) / scale));
      const end = (keep: boolean) => (next: globalThis.Event) => {
        target.removeEventListener('pointermove', move);
        target.removeEventListener('pointerup', done);
        target.removeEventListener('pointercancel', dropped);
        window.removeEventListener('keydown', escape);
        setFrozenScale(null);
        const byMm = next instanceof globalThis.PointerEvent ? (next.clientX - from) / scale : 0;
        if (keep && Math.abs(byMm) >= 0.5) store.edit(moveNode(place, byMm));
        else store.cancelPreview();
      };
      const done = end(true);
      const dropped = end(false);
      const escape = (next: globalThis.KeyboardEvent) => {
        if (next.key === 'Escape') dropped(next);
      };
      target.addEventListener('pointermove', move);
      target.addEventListener('pointerup', done);
      target.addEventListener('pointercancel', dropped);
      window.addEventListener('keydown', escape);
    },
    [planned, scale, store],
  );

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

  const mates = useMemo(() => listMates(job, loomId), [job, loomId]);
  const isEmpty = Object.keys(loom.segments).length === 0;
  const height = layout.height + 34;
  return (
    <section className={styles.panel} aria-label="Strip">
      <div className={styles.bar}>
        <Where planned={planned} onType={setTyping} />
        {tools}
        <button aria-label="Zoom out" onClick={() => setZoom((now) => Math.max(0.5, now / 1.25))}>
          −
        </button>
        <button aria-label="Fit the strip" onClick={() => setZoom(1)}>
          fit
        </button>
        <button aria-label="Zoom in" onClick={() => setZoom((now) => Math.min(8, now * 1.25))}>
          +
        </button>
      </div>
      <div
        className={styles.scroll}
        ref={ref}
        tabIndex={0}
        onKeyDown={press}
        role="application"
        aria-label="Loom along its tape. Arrow keys walk, Enter types a length."
      >
        {isEmpty ? (
          <div className={styles.empty}>
            <p>
              Nothing beyond the datum yet. Give the anchor connector its place with “Add end” at the datum, then add a breakout run or the
              first leg.
            </p>
            <WireListButton job={job} />
          </div>
        ) : (
          <div
            className={styles.sheet}
            style={{ width: layout.width + LABELS, height }}
            onPointerMove={(event) => event.buttons <= 1 && point(event)}
            onPointerDown={point}
            onDoubleClick={() => setTyping(cursor.get()?.segmentId ?? null)}
          >
            <svg width={layout.width + LABELS} height={height} role="img" aria-label={`Strip of ${loom.name}`}>
              <Ruler left={LEFT} scale={scale} reachMm={reachMm} height={height} />
              <Runs runs={layout.runs} zones={job.zones} />
              <RouteLines loom={loom} plan={plan} layout={layout} only={isBare} />
              <Traces traces={layout.traces} />
              <Ends layout={layout} heldNodes={listGuessed(planned)} mates={mates} onMate={(id) => router.push(`${path}?loom=${id}`)} />
              <Nodes
                layout={layout}
                onDrag={startDrag}
                onNudge={(nodeId, byMm) => store.edit(moveNode({ loomId, nodeId, name: loom.nodes[nodeId]!.name, tree: plan.tree }, byMm))}
              />
              <Splices splices={layout.splices} />
              <PhotoMarks loomId={loomId} layout={layout} />
              <Folds layout={layout} onFold={(id, to) => setFolds((now) => ({ ...now, [id]: to }))} />
            </svg>
            <Chosen layout={layout} />
            <CursorLine planned={planned} scale={scale} height={height} />
            {typing !== null && plan.tree.segments[typing] && (
              <TypeLength
                key={typing}
                planned={planned}
                segmentId={typing}
                x={LEFT + (plan.tree.segments[typing]!.startMm + plan.tree.segments[typing]!.lengthMm / 2) * scale}
                y={(layout.runs.find(({ segmentId }) => segmentId === typing)?.bottom ?? TOP) + 2}
                onDone={() => setTyping(null)}
              />
            )}
          </div>
        )}
      </div>
    </section>
  );
}

/** A run that no wire lies in yet shows as the bare route. */
const isBare = ({ count }: StripLayout['runs'][number]) => count === 0;

/** What each end of a loom plugs into. */
function listMates(job: PlannedLoom['job'], loomId: string): MateOf {
  const sides = Object.values(job.mates).flatMap(({ a, b }) => [
    { here: a, there: b },
    { here: b, there: a },
  ]);
  return new Map(
    sides.flatMap(({ here, there }) => {
      const loom = job.looms[there.loomId];
      return here.loomId === loomId && loom
        ? [[here.endId, { loomId: there.loomId, loomName: loom.name, words: `${loom.name} · ${loom.ends[there.endId]!.name}` }] as const]
        : [];
    }),
  );
}

/** Branches folded: as the planner set them; else those off the main strip where the loom is large. */
function listGuessed({ loom }: PlannedLoom): Set<string> {
  return new Set(
    Object.values(loom.segments)
      .filter(({ status }) => status === 'guessed')
      .map(({ toNodeId }) => toNodeId),
  );
}

function findPlace({ plan }: PlannedLoom, layout: StripLayout, scale: number, x: number, y: number): Cursor | null {
  const within = layout.runs.filter((run) => x >= run.x && x <= run.x + run.width);
  const row =
    within.find((run) => y >= run.top && y <= run.bottom) ?? within[0] ?? layout.runs.find((run) => y >= run.top && y <= run.bottom);
  if (!row) return null;
  const { lengthMm } = plan.tree.segments[row.segmentId]!;
  return { segmentId: row.segmentId, offsetMm: Math.max(0, Math.min(lengthMm, Math.round((x - row.x) / scale))) };
}
