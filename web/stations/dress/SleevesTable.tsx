'use client';

import { useMemo } from 'react';
import {
  COVERING_KINDS,
  COVERING_WORDS,
  type PlannedBundle,
  type Command,
  type PlannedCovering,
  type CoveringKind,
  type Segment,
  type Shop,
  isOffered,
  setCovering,
  setSlideOn,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { WhyCovering } from '../../ui/section/WhyCovering';
import { useCursor, useCursorStore } from '../../ui/cursor';
import { Pick } from '../../ui/fields/Pick';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { Why } from '../../ui/Why';
import { askReason } from '../../ui/fields/askReason';
import styles from '../bundle/Bundle.module.css';

interface Row {
  covering: PlannedCovering;
  run: string;
  segment: Segment;
  bundle: PlannedBundle;
}

/** The covering of every run: computed or pinned, its cut length, and when it slides on. */
export function SleevesTable({ planned }: { planned: PlannedLoom }) {
  const shop = useShop();
  const store = useJobStore();
  const here = useCursor((at) => at?.segmentId ?? null);
  const cursor = useCursorStore();
  const rows = useMemo(() => {
    const { loom, plan } = planned;
    return plan.coverings.map((covering): Row => {
      const tree = plan.tree.segments[covering.segmentId]!;
      return {
        covering,
        run: `${loom.nodes[tree.nearNodeId]!.name} to ${loom.nodes[tree.farNodeId]!.name}`,
        segment: loom.segments[covering.segmentId]!,
        bundle: plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!,
      };
    });
  }, [planned]);
  const columns = useMemo(() => createColumns(planned, shop, store.edit), [planned, shop, store]);
  return (
    <DataTable
      name="sleeves"
      label="Coverings of the runs"
      rows={rows}
      columns={columns}
      keyOf={({ covering }) => covering.segmentId}
      isHere={({ covering }) => covering.segmentId === here}
      seek={here}
      onPick={({ covering }) => cursor.set({ segmentId: covering.segmentId, offsetMm: 1 })}
      empty={<p className={styles.wait}>No runs yet, so nothing to cover: add an end on the strip, or survey the loom with a tape.</p>}
    />
  );
}

function createColumns(planned: PlannedLoom, shop: Shop, edit: (command: Command) => void): Column<Row>[] {
  const { loomId } = planned;
  const pin = ({ covering: { segmentId }, run }: Row, choice: string | null) => {
    if (choice === null) return edit(setCovering({ loomId, segmentId, name: run }, null));
    const [kind, itemId] = choice.split(' ') as [CoveringKind, string | undefined];
    askReason(`Why ${itemId ?? kind} on ${run}?`, (reason) =>
      edit(setCovering({ loomId, segmentId, name: run }, { kind, itemId: itemId ?? null, reason })),
    );
  };
  const kinds = COVERING_KINDS.map((kind) => ({
    value: kind as string,
    label: `${COVERING_WORDS[kind]}${kind === 'none' ? '' : ', any size'}`,
  }));
  const listOptions = ({ segment: { coveringPin } }: Row) => [
    ...kinds,
    ...shop.coverings
      .filter(({ id }) => id === coveringPin?.itemId || isOffered(shop, 'coverings', id))
      .map((item) => ({ value: `${item.kind} ${item.id}`, label: item.name })),
  ];
  return [
    { id: 'run', head: 'run', value: ({ run }) => run },
    {
      id: 'bundle',
      head: 'bundle mm',
      isNumber: true,
      value: ({ bundle }) => Number(bundle.odMm.toFixed(2)),
      cell: ({ bundle }) => bundle.odMm.toFixed(2),
    },
    {
      id: 'covering',
      head: 'covering',
      value: ({ covering }) => covering.itemName,
      cell: ({ covering, bundle }) => (
        <Why because={<WhyCovering planned={planned} bundle={bundle} />}>
          {covering.problem ? (
            <b style={{ color: 'var(--action)' }}>
              {covering.itemName}
              {covering.problem === 'cannot-pass' ? ', cannot pass' : ''}
            </b>
          ) : (
            covering.itemName
          )}
        </Why>
      ),
    },
    {
      id: 'cut',
      head: 'cut mm',
      isNumber: true,
      value: ({ covering }) => (covering.kind === 'none' ? null : covering.cutMm),
      cell: ({ covering }) => (covering.kind === 'none' ? '–' : covering.cutMm),
    },
    {
      id: 'over',
      head: 'over it mm',
      isNumber: true,
      value: ({ covering }) => Number(covering.odOutsideMm.toFixed(1)),
      cell: ({ covering }) => covering.odOutsideMm.toFixed(1),
    },
    { id: 'because', head: 'chosen by', value: ({ covering }) => `${covering.ruledBy}: ${covering.because}` },
    {
      id: 'pinned',
      head: 'pinned',
      value: ({ segment }) => (segment.coveringPin ? (segment.coveringPin.itemId ?? segment.coveringPin.kind) : 'computed'),
      cell: (row) => (
        <Pick
          label={`Covering of ${row.run}`}
          value={row.segment.coveringPin ? [row.segment.coveringPin.kind, row.segment.coveringPin.itemId].filter(Boolean).join(' ') : null}
          none="computed"
          options={listOptions(row)}
          onChange={(choice) => pin(row, choice)}
        />
      ),
    },
    {
      id: 'slides',
      head: 'slides on',
      value: ({ segment }) => SLIDES.find(({ value }) => value === segment.slideOn)!.label,
      cell: ({ covering: { segmentId }, run, segment }) => (
        <Pick
          label={`When the sleeve of ${run} goes on`}
          value={segment.slideOn}
          options={SLIDES}
          onChange={(slideOn) => slideOn && edit(setSlideOn({ loomId, segmentId, name: run }, slideOn))}
        />
      ),
    },
  ];
}

const SLIDES = [
  { value: 'before-ends', label: 'before its ends are closed' },
  { value: 'after-ends', label: 'after its ends are closed' },
] as const;
