'use client';

import { Input } from '@mantine/core';
import { memo, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { measureText, type StripLayout, setRun } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursor } from '../cursor';
import { readLength } from '../fields/readLength';
import styles from './Strip.module.css';

/** Where a strip begins: room for the anchor's name. */
export const LEFT = 44;

export function Where({ planned, onType }: { planned: PlannedLoom; onType: (segmentId: string) => void }) {
  const segmentId = useCursor((at) => at?.segmentId ?? null);
  const segment = segmentId === null ? undefined : planned.plan.tree.segments[segmentId];
  if (!segment) return <span className={styles.where} />;
  const { nodes } = planned.loom;
  return (
    <span className={styles.where}>
      {nodes[segment.nearNodeId]!.name} to {nodes[segment.farNodeId]!.name},{' '}
      <button type="button" onClick={() => onType(segment.id)} title="Type this length (Enter)">
        <b className="mono">{Math.round(segment.lengthMm)}</b> mm
      </button>
    </span>
  );
}

/** The run under the cursor, as a wash over the picture: moving it does not draw the picture again. */
export function Chosen({ layout }: { layout: StripLayout }) {
  const segmentId = useCursor((at) => at?.segmentId ?? null);
  const run = layout.runs.find((one) => one.segmentId === segmentId);
  if (!run) return null;
  return (
    <div
      className={styles.chosen}
      style={{ transform: `translate(${run.x}px, ${run.top}px)`, width: run.width, height: run.bottom - run.top }}
    />
  );
}

export function CursorLine({ planned, scale, height }: { planned: PlannedLoom; scale: number; height: number }) {
  const at = useCursor((cursor) => cursor);
  const segment = at ? planned.plan.tree.segments[at.segmentId] : undefined;
  if (!at || !segment) return null;
  const mm = segment.startMm + at.offsetMm;
  return (
    <div className={styles.line} style={{ height, transform: `translateX(${LEFT + mm * scale - 1}px)` }} data-testid="cursor">
      <span className={styles.flag}>{Math.round(mm)}</span>
    </div>
  );
}

/** What an end plugs into: the loom and the words for it. */
export type MateOf = ReadonlyMap<string, { loomId: string; loomName: string; words: string }>;

export const Ends = memo(function Ends({
  layout,
  heldNodes,
  mates,
  onMate,
}: {
  layout: StripLayout;
  heldNodes: ReadonlySet<string>;
  mates: MateOf;
  onMate: (loomId: string) => void;
}) {
  return layout.ends.map(({ endId, nodeId, x, top, bottom, name, legMm, words }) => {
    const mate = mates.get(endId);
    const goes = mate && {
      role: 'link',
      tabIndex: 0,
      'aria-label': `${name} plugs into ${mate.words}`,
      style: { cursor: 'pointer' },
      onClick: () => onMate(mate.loomId),
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'Enter') onMate(mate.loomId);
      },
      onPointerDown: (event: PointerEvent<SVGElement>) => event.stopPropagation(),
    };
    if (words === null) {
      return (
        <DatumEnd key={endId} name={name} x={x} top={top} bottom={bottom} more={mate && `⇄ ${mate.words}`}>
          {mate && <tspan {...goes} style={{ cursor: 'pointer', textDecoration: 'underline' }}>{`⇄ ${mate.words}`}</tspan>}
        </DatumEnd>
      );
    }
    return (
      <g key={endId}>
        <rect x={x} y={top} width={8} height={Math.max(6, bottom - top)} fill="var(--ink)" />
        <text x={words.left} y={words.bottom - 3} className={styles.name}>
          {name} <tspan className={styles.leg}>+{Math.round(legMm ?? 0)}</tspan>
          {heldNodes.has(nodeId) && <tspan style={{ fill: 'var(--action)', fontWeight: 600 }}> guessed</tspan>}
          {mate && (
            <tspan className={styles.mate} {...goes}>
              {' '}
              ⇄ {mate.loomName}
            </tspan>
          )}
        </text>
      </g>
    );
  });
});

interface DatumEndProps {
  name: string;
  x: number;
  top: number;
  bottom: number;
  /** a second line, drawn by the children */
  more?: string;
  children?: ReactNode;
}

/** The anchor at the datum: a block as high as its trunks or its words, whichever is more. */
function DatumEnd({ name, x, top, bottom, more = '', children }: DatumEndProps) {
  const height = Math.max(bottom - top, measureText(name, 14, 'narrow-bold') + 14, measureText(more, 14, 'narrow') + 14);
  const from = Math.max(30, (top + bottom - height) / 2);
  const middle = from + height / 2;
  return (
    <g>
      <rect x={x - 30} y={from} width={30} height={height} fill="var(--ink)" />
      <text
        x={x - (children ? 17 : 10)}
        y={middle}
        textAnchor="middle"
        transform={`rotate(-90 ${x - (children ? 17 : 10)} ${middle})`}
        className={styles.datum}
      >
        {name}
      </text>
      {children && (
        <text
          x={x - 4}
          y={middle}
          textAnchor="middle"
          transform={`rotate(-90 ${x - 4} ${middle})`}
          className={styles.datum}
          style={{ fontWeight: 400 }}
        >
          {children}
        </text>
      )}
    </g>
  );
}

export const Nodes = memo(function Nodes({
  layout,
  onDrag,
  onNudge,
}: {
  layout: StripLayout;
  onDrag: (nodeId: string, event: PointerEvent<SVGElement>) => void;
  onNudge: (nodeId: string, byMm: number) => void;
}) {
  return layout.nodes.map(({ nodeId, kind, name, holeMm, atMm, x, top, bottom }) => {
    const press = (event: KeyboardEvent) => {
      if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
      event.preventDefault();
      event.stopPropagation();
      onNudge(nodeId, (event.key === 'ArrowLeft' ? -1 : 1) * (event.shiftKey ? 10 : 1));
    };
    const shared = {
      className: styles.handle,
      tabIndex: 0,
      role: 'slider',
      'aria-label': `${kind} ${name}`,
      'aria-valuenow': Math.round(atMm),
      'aria-valuetext': `${Math.round(atMm)} mm`,
      onPointerDown: (event: PointerEvent<SVGElement>) => onDrag(nodeId, event),
      onKeyDown: press,
    };
    if (kind === 'pass') {
      return (
        <g key={nodeId}>
          <rect x={x - 6} y={top - 2} width={6} height={bottom - top + 4} fill="var(--paper)" stroke="var(--ink)" strokeDasharray="3 2" />
          <rect x={x - 5} y={top - 8} width={10} height={10} {...shared}>
            <title>
              {name}
              {holeMm === null ? '' : `, hole Ø ${holeMm} mm`}: drag along the tape
            </title>
          </rect>
        </g>
      );
    }
    return (
      <circle key={nodeId} cx={x} cy={top} r={6} {...shared}>
        <title>{name}: drag along the tape</title>
      </circle>
    );
  });
});

/** The length of a run, typed where it lies. */
export function TypeLength({
  planned,
  segmentId,
  x,
  y,
  onDone,
}: {
  planned: PlannedLoom;
  segmentId: string;
  x: number;
  y: number;
  onDone: () => void;
}) {
  const store = useJobStore();
  const { lengthMm, nearNodeId, farNodeId } = planned.plan.tree.segments[segmentId]!;
  const [text, setText] = useState(String(Math.round(lengthMm)));
  const value = readLength(text) ?? NaN;
  const isGood = value > 0 && value <= 20000;
  const run = `${planned.loom.nodes[nearNodeId]!.name} to ${planned.loom.nodes[farNodeId]!.name}`;
  const keep = () => {
    if (!isGood) return;
    store.edit(setRun({ loomId: planned.loomId, segmentId, name: run }, value));
    onDone();
  };
  return (
    <div
      className={styles.type}
      style={{ left: Math.max(4, x - 90), top: y }}
      onPointerDown={(event) => event.stopPropagation()}
      onPointerMove={(event) => event.stopPropagation()}
    >
      <label className="narrow" htmlFor="run-length">
        {run}
      </label>
      <Input
        variant="unstyled"
        id="run-length"
        inputMode="decimal"
        autoFocus
        value={text}
        error={!isGood}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => setText(event.currentTarget.value)}
        onBlur={onDone}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') onDone();
        }}
      />
      <span>mm</span>
      {!isGood && <span style={{ color: 'var(--action)' }}>above 0, at most 20 000; also 1.2 m, 24 1/2 in</span>}
    </div>
  );
}
