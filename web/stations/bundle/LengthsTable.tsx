'use client';

import { useMemo, useState } from 'react';
import {
  BUNDLING_WORDS,
  BUNDLINGS,
  compareIds,
  LENGTH_STATUSES,
  MEASURE_METHODS,
  type Command,
  type LengthStatus,
  type Loom,
  type MeasureMethod,
  type Segment,
  type Tree,
  joinCommands,
  leaveAt,
  setFitted,
  setHole,
  setLeaves,
  setMethod,
  setReading,
  setRunBundling,
  setRunZone,
  setSecondReading,
  setStatus,
  takeNodeOut,
  toClockWords,
  toCount,
} from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useCursor, useCursorStore } from '../../ui/cursor';
import { Pick } from '../../ui/fields/Pick';
import { DataTable } from '../../ui/table/DataTable';
import { takeFigure, type Column } from '../../ui/table/columns';
import { Why } from '../../ui/Why';
import { LengthField, OF_RUN } from '../../ui/fields/LengthField';
import styles from './Bundle.module.css';
import { DatumBar } from './DatumBar';

interface Run {
  id: string;
  words: string;
  segment: Segment;
  tree: Tree['segments'][string];
  odMm: number;
}

/** Every run of the loom with its reading, method, status and zone, to be typed over or pasted. */
export function LengthsTable({ planned }: { planned: PlannedLoom }) {
  const { loom, plan, loomId } = planned;
  const store = useJobStore();
  const cursor = useCursorStore();
  const here = useCursor((at) => at?.segmentId ?? null);
  const [problem, setProblem] = useState<string | null>(null);
  const rows = useMemo(
    () =>
      Object.keys(plan.tree.segments)
        .sort((a, b) => plan.tree.segments[a]!.startMm - plan.tree.segments[b]!.startMm || compareIds(a, b))
        .map((id): Run => {
          const tree = plan.tree.segments[id]!;
          const words = `${loom.nodes[tree.nearNodeId]!.name} to ${loom.nodes[tree.farNodeId]!.name}`;
          return { id, words, segment: loom.segments[id]!, tree, odMm: plan.bundles.find(({ segmentId }) => segmentId === id)!.odMm };
        }),
    [loom, plan],
  );
  const columns = useMemo(() => {
    const join = (nodeId: string) => {
      try {
        store.edit(takeNodeOut({ loomId, nodeId, name: loom.nodes[nodeId]!.name, tree: plan.tree }));
        setProblem(null);
      } catch (error) {
        setProblem(error instanceof Error ? error.message : String(error));
      }
    };
    return createColumns(planned, store.edit, join);
  }, [planned, store, loom, loomId, plan]);
  return (
    <DataTable
      name="lengths"
      label="Runs of the loom"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      isHere={({ id }) => id === here}
      seek={here}
      onPick={({ id, tree }) => cursor.set({ segmentId: id, offsetMm: Math.min(tree.lengthMm, 1) })}
      onTake={(commands) => store.edit(joinCommands(`paste ${toCount(commands.length, 'figure')} of runs`, commands))}
      empty={<DatumBar planned={planned} />}
    >
      <DatumBar planned={planned} />
      {problem && (
        <p role="alert" style={{ color: 'var(--action)', margin: '4px 0' }}>
          {problem}
        </p>
      )}
    </DataTable>
  );
}

function createColumns(
  { loom, plan, loomId, job }: PlannedLoom,
  edit: (command: Command) => void,
  join: (nodeId: string) => void,
): Column<Run>[] {
  const at = ({ id, words }: Run) => ({ loomId, segmentId: id, name: words });
  const zones = Object.entries(job.zones).map(([value, { name }]) => ({ value, label: name }));
  const length = (
    id: string,
    head: string,
    label: string,
    read: (run: Run) => number | null,
    set: (run: Run, value: number | null) => Command | null,
  ): Column<Run> => {
    const isOptional = id !== 'length';
    return {
      id,
      head,
      isNumber: true,
      value: read,
      cell: (run) => (
        <LengthField
          label={`${label} of ${run.words}`}
          value={read(run)}
          optional={isOptional}
          onChange={(value) => {
            const command = set(run, value);
            if (command) edit(command);
          }}
        />
      ),
      take: (run, text) => takeFigure(text, read(run), { ...OF_RUN, canBeEmpty: isOptional }, (value) => set(run, value)),
    };
  };
  const takeOneOf =
    <T extends string>(all: readonly T[], set: (run: Run, value: T) => Command) =>
    (run: Run, text: string) => {
      const one = all.find((value) => value === text.toLowerCase());
      return one ? set(run, one) : `one of ${all.join(', ')}`;
    };
  const toMethod = (run: Run, method: MeasureMethod) => setMethod(at(run), method);
  const toStatus = (run: Run, status: LengthStatus) => setStatus(at(run), status, run.tree.lengthMm);
  return [
    {
      id: 'run',
      head: 'run',
      value: ({ words }) => words,
      cell: (run) => <RunName run={run} loom={loom} tree={plan.tree} loomId={loomId} edit={edit} />,
    },
    { id: 'from', head: 'from datum', isNumber: true, value: ({ tree }) => Math.round(tree.startMm) },
    length(
      'length',
      'length mm',
      'Length',
      ({ segment }) => segment.lengthMm,
      (run, value) => (value === null ? null : setReading(at(run), value)),
    ),
    length(
      'second',
      'second reading',
      'Second reading',
      ({ segment }) => segment.secondLengthMm,
      (run, value) => setSecondReading(at(run), value),
    ),
    length(
      'fitted',
      'fitted',
      'Fit',
      ({ segment }) => segment.fittedMm,
      (run, value) => setFitted(at(run), value),
    ),
    {
      id: 'method',
      head: 'method',
      value: ({ segment }) => segment.method,
      cell: (run) => (
        <Pick
          label={`Method of ${run.words}`}
          value={run.segment.method}
          options={MEASURE_METHODS}
          onChange={(method) => method && edit(toMethod(run, method))}
        />
      ),
      take: takeOneOf(MEASURE_METHODS, toMethod),
    },
    {
      id: 'status',
      head: 'status',
      value: ({ segment }) => segment.status,
      cell: (run) => (
        <Pick
          label={`Status of ${run.words}`}
          value={run.segment.status}
          options={LENGTH_STATUSES}
          onChange={(status) => status && edit(toStatus(run, status))}
        />
      ),
      take: takeOneOf(LENGTH_STATUSES, toStatus),
    },
    {
      id: 'sigma',
      head: '±',
      isNumber: true,
      value: ({ tree }) => Math.round(tree.sigmaMm * 10) / 10,
      cell: ({ segment, tree }) => (
        <Why
          because={
            segment.secondLengthMm === null
              ? `One sigma of ${segment.method}: a + b × length, as the shop standard has them.`
              : 'Two readings: their mean, and one sigma divided by √2.'
          }
        >
          {tree.sigmaMm.toFixed(1)}
        </Why>
      ),
    },
    {
      id: 'zone',
      head: 'zone',
      value: ({ segment }) => job.zones[segment.zoneId ?? '']?.name ?? null,
      cell: (run) => (
        <Pick
          label={`Zone of ${run.words}`}
          value={run.segment.zoneId}
          none="not known"
          options={zones}
          onChange={(zoneId) => edit(setRunZone(at(run), zoneId))}
        />
      ),
      take: (run, text) => {
        if (text === '') return setRunZone(at(run), null);
        const zone = zones.find(({ label }) => label.toLowerCase() === text.toLowerCase());
        return zone ? setRunZone(at(run), zone.value) : `a zone of this job (${zones.map(({ label }) => label).join(', ')})`;
      },
    },
    {
      id: 'lies',
      head: 'wires lie',
      value: ({ segment }) => (segment.bundling === null ? 'as the loom' : BUNDLING_WORDS[segment.bundling]),
      cell: (run) => (
        <Pick
          label={`How the wires of ${run.words} lie`}
          value={run.segment.bundling}
          none="as the loom"
          options={BUNDLINGS.map((value) => ({ value, label: BUNDLING_WORDS[value] }))}
          onChange={(bundling) => edit(setRunBundling(at(run), bundling))}
        />
      ),
    },
    {
      id: 'leaves',
      head: 'leaves at',
      value: ({ segment }) => (segment.leavesDeg === null ? null : toClockWords(segment.leavesDeg)),
      cell: (run) =>
        run.tree.onward || loom.nodes[run.tree.nearNodeId]!.kind === 'datum' ? (
          ''
        ) : (
          <Pick
            label={`Side by which ${run.words} leaves`}
            title="seen from the datum, along the bundle"
            value={run.segment.leavesDeg === null ? null : String(run.segment.leavesDeg)}
            none="not known"
            options={listSides(run.segment.leavesDeg)}
            onChange={(deg) => edit(setLeaves(at(run), deg === null ? null : Number(deg)))}
          />
        ),
    },
    { id: 'bundle', head: 'bundle mm', isNumber: true, value: ({ odMm }) => Number(odMm.toFixed(1)), cell: ({ odMm }) => odMm.toFixed(1) },
    {
      id: 'more',
      head: '',
      cell: ({ tree }) => <FarNode nodeId={tree.farNodeId} loom={loom} tree={plan.tree} loomId={loomId} edit={edit} join={join} />,
    },
  ];
}

/** Every hour of the clock, and what a file says between them. */
const listSides = (deg: number | null) =>
  [...new Set([...Array.from({ length: 12 }, (_, hour) => hour * 30), ...(deg === null ? [] : [deg])])].map((value) => ({
    value: String(value),
    label: toClockWords(value),
  }));

/** From where to where a run goes; a branch can be let leave somewhere else. */
function RunName({
  run,
  loom,
  tree,
  loomId,
  edit,
}: {
  run: Run;
  loom: Loom;
  tree: Tree;
  loomId: string;
  edit: (command: Command) => void;
}) {
  const { nearNodeId, farNodeId, onward } = run.tree;
  if (onward || loom.nodes[nearNodeId]!.kind === 'datum') return run.words;
  const options = Object.entries(loom.nodes).flatMap(([value, node]) =>
    node.kind === 'end' || isBeyond(tree, farNodeId, value) ? [] : [{ value, label: node.name }],
  );
  const far = loom.nodes[farNodeId]!.name;
  return (
    <span style={{ whiteSpace: 'nowrap' }}>
      <Pick
        label={`Where ${far} leaves`}
        title="let this branch leave somewhere else; it keeps its length"
        value={nearNodeId}
        options={options}
        onChange={(nodeId) => nodeId && edit(leaveAt({ loomId, nodeId, name: loom.nodes[nodeId]!.name, tree }, run.id, far))}
      />{' '}
      to {far}
    </span>
  );
}

/** What can be said of the far end of a run: the bore of a hole it goes through, or that it is no place of its own. */
function FarNode({
  nodeId,
  loom,
  tree,
  loomId,
  edit,
  join,
}: {
  nodeId: string;
  loom: Loom;
  tree: Tree;
  loomId: string;
  edit: (command: Command) => void;
  join: (nodeId: string) => void;
}) {
  const node = loom.nodes[nodeId]!;
  return (
    <span style={{ whiteSpace: 'nowrap' }}>
      {node.kind === 'pass' && (
        <>
          bore{' '}
          <LengthField
            label={`Bore of ${node.name}`}
            optional
            value={node.holeMm}
            onChange={(value) => edit(setHole({ loomId, nodeId, name: node.name }, value))}
          />
        </>
      )}
      {tree.nodes[nodeId]!.childSegmentIds.length === 1 && (
        <button
          className={styles.link}
          aria-label={`take out ${node.name}`}
          title={`${node.name} is no place of its own: its two runs become one`}
          onClick={() => join(nodeId)}
        >
          take out
        </button>
      )}
    </span>
  );
}

/** Does a node lie at or beyond another, seen from the datum? */
function isBeyond(tree: Tree, fromNodeId: string, nodeId: string): boolean {
  for (let at: string | null = nodeId; at !== null; at = tree.nodes[at]!.parentNodeId) if (at === fromNodeId) return true;
  return false;
}
