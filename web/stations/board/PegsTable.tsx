'use client';

import { useMemo } from 'react';
import type { BoardPeg, PlannedBoard } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import { nameRun } from './nameRun';

const KINDS = { end: 'at an end', breakout: 'in a fork', along: 'along a run', fold: 'former of a bend' } as const;

/** Pegs in the order in which they are set. */
export function PegsTable({
  planned,
  board,
  onChoose,
}: {
  planned: PlannedLoom;
  board: PlannedBoard;
  onChoose: (segmentId: string) => void;
}) {
  const columns = useMemo((): Column<BoardPeg>[] => {
    const names = new Map(board.nodes.map(({ nodeId, name }) => [nodeId, name]));
    return [
      { id: 'no', head: 'peg', value: ({ number }) => number },
      { id: 'kind', head: 'stands', value: ({ kind }) => KINDS[kind] },
      { id: 'x', head: 'from the left, mm', isNumber: true, value: ({ x }) => Math.round(x) },
      { id: 'y', head: 'from the top, mm', isNumber: true, value: ({ y }) => Math.round(y) },
      { id: 'd', head: 'Ø mm', isNumber: true, value: ({ diameterMm }) => Math.round(diameterMm) },
      {
        id: 'holds',
        head: 'holds',
        value: ({ segmentId, nodeId, atMm }) =>
          segmentId === null ? names.get(nodeId!)! : `${nameRun(planned, segmentId)}${atMm === null ? '' : `, ${atMm} mm along`}`,
      },
    ];
  }, [planned, board]);
  return (
    <DataTable
      name="pegs"
      label="Pegs of the board"
      rows={board.pegs}
      columns={columns}
      keyOf={({ number }) => number}
      rowProps={({ segmentId }) => (segmentId === null ? {} : { onClick: () => onChoose(segmentId) })}
      empty="No pegs: the loom has no runs."
    />
  );
}
