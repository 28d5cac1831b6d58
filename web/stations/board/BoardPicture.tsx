'use client';

import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { planBoard, toCount, turnFork, type BoardPoint, type BoardRun, type PlannedBoard } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import styles from './Board.module.css';
import { nameRun } from './nameRun';
import { toPath } from './toPath';
import { findTurn, isFork, listTurns, withTurn } from './turns';
import { useView } from './useView';

/** letters on the screen, px; a shorter end than this has no name beside it until it is looked at closely */
const LETTER_PX = 13;
/** a press that moves less is no drag, px */
const STILL_PX = 4;
const KEY_DEG = 5;
/** of the picture beside the board, px */
const EDGE_PX = 18;

/** The loom on its board: forks are dragged round or turned with the arrow keys, the wheel looks closer. */
export function BoardPicture({
  planned,
  board: stored,
  chosen,
  onChoose,
}: {
  planned: PlannedLoom;
  board: PlannedBoard;
  chosen: string | null;
  onChoose: (segmentId: string | null) => void;
}) {
  const shop = useShop();
  const store = useJobStore();
  const box = useRef<SVGSVGElement>(null);
  // what was dragged is shown until it has been planned
  const [drag, setDragged] = useState<{ segmentId: string; deg: number; of: PlannedBoard } | null>(null);
  const dragged = drag?.of === stored ? drag : null;
  const press = useRef<{ segmentId: string | null; x: number; y: number; isMoved: boolean } | null>(null);
  const { board: size } = stored;
  const view = useView(size.widthMm, size.heightMm, box);
  const board = useMemo(
    () => (dragged ? planBoard(withTurn(planned, stored, dragged), shop, planned.plan) : stored),
    [dragged, planned, stored, shop],
  );
  const turn = (run: BoardRun, deg: number) => {
    const turns = listTurns(stored);
    const { loomId } = planned;
    store.edit(turnFork({ loomId, segmentId: run.segmentId, name: nameRun(planned, run.segmentId) }, deg, { turns, at: stored.at }));
  };
  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (event.button !== 0) return;
    const segmentId = (event.target as Element).closest('[data-segment]')?.getAttribute('data-segment') ?? null;
    press.current = { segmentId, x: event.clientX, y: event.clientY, isMoved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const from = press.current;
    if (!from) return;
    if (!from.isMoved && Math.hypot(event.clientX - from.x, event.clientY - from.y) < STILL_PX) return;
    from.isMoved = true;
    const run = stored.runs.find(({ segmentId }) => segmentId === from.segmentId);
    if (run && isFork(planned.plan.tree, run.segmentId)) {
      const deg = findTurn(planned.plan.tree, stored, run.segmentId, view.toBoard(event.clientX, event.clientY));
      setDragged((was) =>
        was?.deg === deg && was.segmentId === run.segmentId && was.of === stored ? was : { segmentId: run.segmentId, deg, of: stored },
      );
      return;
    }
    view.pan(event.clientX - from.x, event.clientY - from.y);
    [from.x, from.y] = [event.clientX, event.clientY];
  };
  const up = () => {
    const from = press.current;
    press.current = null;
    if (!from) return;
    if (!from.isMoved) return onChoose(from.segmentId);
    if (!dragged) return;
    onChoose(dragged.segmentId);
    turn(
      stored.runs.find(({ segmentId }) => segmentId === dragged.segmentId)!,
      dragged.deg,
    );
  };
  const keyOn = (event: KeyboardEvent, run: BoardRun) => {
    if (event.key === 'Enter' || event.key === ' ') onChoose(run.segmentId);
    else if ((event.key === 'ArrowLeft' || event.key === 'ArrowRight') && isFork(planned.plan.tree, run.segmentId))
      turn(run, (run.turnDeg ?? 0) + (event.key === 'ArrowLeft' ? KEY_DEG : -KEY_DEG));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const px = view.mmPerPx;
  const { names, left } = placeNames(board, px);
  return (
    <div className={styles.picture}>
      <svg
        ref={box}
        role="group"
        aria-label={`Board of ${planned.loom.name}`}
        viewBox={view.viewBox}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => {
          press.current = null;
          setDragged(null);
        }}
      >
        <rect className={styles.edge} x={0} y={0} width={size.widthMm} height={size.heightMm} strokeWidth={1.5 * px} />
        <rect
          className={styles.used}
          x={size.edgeMm}
          y={size.edgeMm}
          width={Math.max(0, size.widthMm - 2 * size.edgeMm)}
          height={Math.max(0, size.heightMm - 2 * size.edgeMm)}
          strokeWidth={px}
        />
        {board.runs.map((run) => (
          <g
            key={run.segmentId}
            className={styles.run}
            role="button"
            tabIndex={0}
            data-segment={run.segmentId}
            data-chosen={run.segmentId === chosen}
            data-fork={isFork(planned.plan.tree, run.segmentId)}
            aria-pressed={run.segmentId === chosen}
            aria-label={`${nameRun(planned, run.segmentId)}, ${Math.round(run.lengthMm)} mm`}
            onKeyDown={(event) => keyOn(event, run)}
          >
            <path className={styles.wide} d={toPath(run.points)} strokeWidth={run.odMm} />
            <path
              className={styles.line}
              d={toPath(run.points)}
              strokeWidth={1.6 * px}
              strokeDasharray={run.isFitted ? undefined : `${7 * px} ${3 * px}`}
            />
            <path className={styles.grip} d={toPath(run.points)} strokeWidth={Math.max(run.odMm, 14 * px)} />
          </g>
        ))}
        {board.pegs.map(({ number, x, y, diameterMm }) => (
          <circle key={number} className={styles.peg} cx={x} cy={y} r={Math.max(diameterMm / 2, 1.6 * px)} strokeWidth={px} />
        ))}
        {board.ends.map((end) => (
          // held by its housing, a branch is turned as by its run
          <g
            key={end.endId}
            transform={`translate(${end.x} ${end.y}) rotate(${end.deg})`}
            data-segment={planned.plan.tree.nodes[planned.loom.ends[end.endId]!.nodeId]!.parentSegmentId ?? undefined}
          >
            <rect className={styles.end} x={0} y={-end.widthMm / 2} width={end.depthMm} height={end.widthMm} strokeWidth={1.4 * px} />
            {end.sigmaMm >= 0.5 && (
              <rect
                className={styles.band}
                x={-end.sigmaMm}
                y={-end.widthMm / 2 - 3}
                width={2 * end.sigmaMm}
                height={end.widthMm + 6}
                strokeWidth={px}
                strokeDasharray={`${3 * px} ${2 * px}`}
              />
            )}
          </g>
        ))}
        {names.map(({ key, x, y, words, anchor, isFaint }) => (
          <text
            key={key}
            x={x}
            y={y}
            fontSize={LETTER_PX * px}
            strokeWidth={3 * px}
            textAnchor={anchor}
            className={isFaint ? styles.faint : undefined}
          >
            {words}
          </text>
        ))}
      </svg>
      <div className={styles.zoom}>
        <button type="button" aria-label="Look from further" onClick={() => view.zoom(1.4)}>
          −
        </button>
        <button type="button" onClick={view.fit}>
          fit
        </button>
        <button type="button" aria-label="Look closer" onClick={() => view.zoom(1 / 1.4)}>
          +
        </button>
      </div>
      <p className={styles.scale}>
        1 : {Math.max(1, Math.round(px * 3.78))} ·{' '}
        {dragged ? `${Math.abs(dragged.deg)}° to the ${dragged.deg < 0 ? 'right' : 'left'}` : 'drag a branch to turn it'}
        {left > 0 && ` · ${toCount(left, 'name')} when looked at closer`}
      </p>
    </div>
  );
}

interface PlacedName extends BoardPoint {
  key: string;
  words: string;
  anchor: 'start' | 'middle' | 'end';
  isFaint: boolean;
}

/** Names of ends and breakouts where there is room for them: none lies on another. left: for how many there is none. */
function placeNames({ board, ends, nodes }: PlannedBoard, px: number): { names: PlacedName[]; left: number } {
  const high = LETTER_PX * px;
  const taken: { left: number; right: number; top: number; bottom: number }[] = [];
  const place = (name: PlacedName): PlacedName[] => {
    const wide = name.words.length * high * 0.46;
    const left = name.anchor === 'end' ? name.x - wide : name.anchor === 'middle' ? name.x - wide / 2 : name.x;
    const box = { left, right: left + wide, top: name.y - high, bottom: name.y + high * 0.25 };
    if (taken.some((one) => box.left < one.right && one.left < box.right && box.top < one.bottom && one.top < box.bottom)) return [];
    taken.push(box);
    return [name];
  };
  const ofEnds = ends.flatMap((end): PlacedName[] => {
    const [c, s] = [Math.cos((end.deg * Math.PI) / 180), Math.sin((end.deg * Math.PI) / 180)];
    const away = end.depthMm + 5 * px;
    const anchor: PlacedName['anchor'] = c < -0.35 ? 'end' : c > 0.35 ? 'start' : 'middle';
    const y = end.y + s * away + (Math.abs(c) <= 0.35 ? (s > 0 ? high * 0.9 : 0) : high * 0.35);
    // beside the board there is little room: what would run over the edge of the picture stands back from it, clear of its housing
    const edge = board.widthMm + EDGE_PX * px;
    const isOver = anchor === 'start' && end.x + c * away + end.name.length * high * 0.46 > edge;
    const clear = (end.widthMm / 2 + 4 * px) * (s > 0 ? 1 : -1);
    const name: Pick<PlacedName, 'x' | 'y' | 'anchor'> = isOver
      ? { x: edge, y: end.y + s * away + clear, anchor: 'end' }
      : { x: end.x + c * away, y, anchor };
    return place({ key: end.endId, words: end.name, isFaint: false, ...name });
  });
  const ofNodes = nodes.flatMap((node) =>
    node.kind === 'end' || node.kind === 'datum'
      ? []
      : place({ key: node.nodeId, x: node.x + 4 * px, y: node.y + high * 1.1, words: node.name, anchor: 'start', isFaint: true }),
  );
  const names = [...ofEnds, ...ofNodes];
  return { names, left: ends.length + nodes.filter(({ kind }) => kind !== 'end' && kind !== 'datum').length - names.length };
}
