'use client';

import { useDisclosure, useElementSize, useMergedRef } from '@mantine/hooks';
import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { moveNode, type StripLayout } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { standAt, useCursorStore, useLit } from '../cursor';
import { WireListButton } from '../wireList/WireListButton';
import { LitWire, LitWords } from './LitWire';
import { Minimap } from './Minimap';
import { PhotoMarks } from './PhotoMarks';
import { RouteLines } from './RouteLines';
import { SpliceTags } from './SpliceTags';
import { Chosen, CursorLine, Ends, LEFT, Nodes, TypeLength, Where, type MateOf } from './StripParts';
import { Ruler, Runs, Splices, toZoneWords, LoomTraces, ZoneNames } from './StripPicture';
import { TOP, useStripView, type StripView } from './useStripView';
import { walk } from './walk';
import styles from './Strip.module.css';

/** The loom along its tape: the navigator of every station that works on one. */
export function Strip({ planned, tools }: { planned: PlannedLoom; tools?: ReactNode }) {
  const { ref: measureRef, width, height: paneHeight } = useElementSize();
  const pane = useRef<HTMLDivElement>(null);
  const ref = useMergedRef(measureRef, pane);
  const router = useRouter();
  const path = usePathname();
  const store = useJobStore();
  const cursor = useCursorStore();
  const [typing, setTyping] = useState<string | null>(null);
  const [isFull, full] = useDisclosure(false);
  const { loom, plan, loomId, job } = planned;
  const mates = useMemo(() => listMates(job, loomId), [job, loomId]);
  const guessed = useMemo(() => listGuessed(planned), [planned]);
  const said = useMemo(
    () => ({ words: listWords(loom, guessed, mates), zones: toZoneWords(job.zones) }),
    [loom, guessed, mates, job.zones],
  );
  const view = useStripView(planned, pane, { width: width || 900, height: paneHeight || 420 }, said);
  const { layout, scale, show } = view;
  const reachMm = useMemo(() => Math.max(100, ...Object.values(plan.tree.nodes).map(({ distanceMm }) => distanceMm)), [plan]);

  useEffect(() => {
    cursor.set(standAt(plan, cursor.get()));
  }, [plan, cursor]);

  // what moves the cursor from elsewhere brings its place into view
  const pointing = useRef(false);
  useEffect(() => {
    const follow = () => {
      const at = cursor.get();
      if (at && !pointing.current) show(at);
    };
    return cursor.subscribe(follow);
  }, [cursor, show]);

  useEffect(() => {
    const box = pane.current;
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const corner = box!.getBoundingClientRect();
      view.zoomBy(Math.exp(-event.deltaY / 300), { x: event.clientX - corner.left, y: event.clientY - corner.top });
    };
    box?.addEventListener('wheel', wheel, { passive: false });
    return () => box?.removeEventListener('wheel', wheel);
  });

  const startDrag = useDrag(planned, view);
  const point = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const found = view.findPlace(event.clientX - box.left, event.clientY - box.top);
    if (!found) return;
    pointing.current = true;
    cursor.set(found);
    pointing.current = false;
  };
  const press = (event: KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey || event.altKey) return;
    const at = cursor.get();
    if (event.key === '+' || event.key === '=') view.zoomBy(1.25, at);
    else if (event.key === '-') view.zoomBy(0.8, at);
    else if (event.key === 'w') full.toggle();
    else if (event.key === 'Escape' && cursor.getLit() !== null) cursor.light(null);
    else if (event.key === 'Escape' && isFull) full.close();
    else if (event.key === 'Enter' && at) setTyping(at.segmentId);
    else {
      const next = at && walk(planned, at, event.key, event.shiftKey ? 50 : 5);
      if (!next) return;
      cursor.set(next);
    }
    event.preventDefault();
  };

  const litId = useLit();
  const lit = plan.wires.some(({ id }) => id === litId);
  const isEmpty = Object.keys(loom.segments).length === 0;
  const height = Math.max(layout.height + 6, paneHeight);
  const sheetWidth = Math.max(layout.width + 4, width);
  return (
    <section className={`${styles.panel} ${isFull ? styles.full : ''}`} aria-label="Strip">
      <div className={styles.bar}>
        {lit ? <LitWords planned={planned} /> : <Where planned={planned} onType={setTyping} />}
        {tools}
        <button type="button" aria-label="Zoom out" disabled={view.zoom === 1} onClick={() => view.zoomBy(0.8, cursor.get())}>
          −
        </button>
        <button type="button" aria-label="Fit the strip" disabled={view.zoom === 1} onClick={view.fit}>
          fit
        </button>
        <button type="button" aria-label="Zoom in" onClick={() => view.zoomBy(1.25, cursor.get())}>
          +
        </button>
        <button type="button" aria-pressed={isFull} onClick={full.toggle} title="The strip alone (w)">
          {isFull ? 'smaller' : 'full screen'}
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
            style={{ width: sheetWidth, height }}
            onPointerMove={(event) => event.buttons <= 1 && point(event)}
            onPointerDown={point}
            onDoubleClick={() => setTyping(cursor.get()?.segmentId ?? null)}
          >
            <svg width={sheetWidth} height={height} role="group" aria-label={`Strip of ${loom.name}`}>
              <Ruler left={LEFT} scale={scale} reachMm={reachMm} height={height} />
              <Runs runs={layout.runs} zones={job.zones} />
              <RouteLines loom={loom} plan={plan} layout={layout} only={isBare} />
              <g opacity={lit ? 0.25 : undefined}>
                <LoomTraces layout={layout} />
              </g>
              <LitWire layout={layout} />
              <ZoneNames zones={layout.zones} />
              <Ends layout={layout} heldNodes={guessed} mates={mates} onMate={(id) => router.push(`${path}?loom=${id}`)} />
              <Nodes
                layout={layout}
                onDrag={startDrag}
                onNudge={(nodeId, byMm) => store.edit(moveNode({ loomId, nodeId, name: loom.nodes[nodeId]!.name, tree: plan.tree }, byMm))}
              />
              <Splices splices={layout.splices} />
              <PhotoMarks loomId={loomId} layout={layout} />
            </svg>
            <Chosen layout={layout} />
            <SpliceTags planned={planned} tags={layout.tags} />
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
      {!isEmpty && (sheetWidth > width + 1 || height > paneHeight + 1) && paneHeight > 0 && (
        <Minimap layout={layout} pane={pane} size={{ width, height: paneHeight }} />
      )}
    </section>
  );
}

/** Dragging a breakout along the tape: scale and detail stay meanwhile, else the strip would run away under the pointer. */
function useDrag(planned: PlannedLoom, { scale, freeze }: StripView) {
  const store = useJobStore();
  return (nodeId: string, event: PointerEvent<SVGElement>) => {
    event.stopPropagation();
    event.preventDefault();
    const from = event.clientX;
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    freeze(true);
    const place = { loomId: planned.loomId, nodeId, name: planned.loom.nodes[nodeId]!.name, tree: planned.plan.tree };
    const move = (next: globalThis.PointerEvent) => store.preview(moveNode(place, (next.clientX - from) / scale));
    const end = (keep: boolean) => (next: globalThis.Event) => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', done);
      target.removeEventListener('pointercancel', dropped);
      window.removeEventListener('keydown', escape);
      freeze(false);
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
  };
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

/** What stands behind name and length of an end. */
function listWords(loom: PlannedLoom['loom'], guessed: ReadonlySet<string>, mates: MateOf): ReadonlyMap<string, string> {
  return new Map(
    Object.entries(loom.ends).flatMap(([endId, { nodeId }]) => {
      const mate = mates.get(endId);
      const words = [...(guessed.has(nodeId) ? ['guessed'] : []), ...(mate ? [`⇄ ${mate.loomName}`] : [])];
      return words.length ? [[endId, words.join(' ')]] : [];
    }),
  );
}

/** Nodes whose run is only guessed. */
function listGuessed({ loom }: PlannedLoom): Set<string> {
  return new Set(
    Object.values(loom.segments)
      .filter(({ status }) => status === 'guessed')
      .map(({ toNodeId }) => toNodeId),
  );
}
