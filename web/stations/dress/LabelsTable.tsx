'use client';

import { Button } from '@mantine/core';
import { useMemo, useState } from 'react';
import { listMarks, toCount, type PlannedMark } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import bundle from '../bundle/Bundle.module.css';
import styles from './Dress.module.css';
import { PrintDialog } from './PrintDialog';

const PROBLEM_WORDS = {
  'no-sleeve': 'no marker sleeve of the shop fits',
  'too-long': 'letters too low to be read',
  'no-clear': 'no clear sleeve goes over it',
} satisfies Record<NonNullable<PlannedMark['problem']>, string>;

/** Labels of wires and ends: the sleeve that goes over, the legend as it is broken into lines, how high its letters come out. */
export function LabelsTable({ planned }: { planned: PlannedLoom }) {
  const shop = useShop();
  const [isPrinting, setPrinting] = useState(false);
  const { job, plan } = planned;
  const marks = useMemo(() => listMarks(job, plan, shop), [job, plan, shop]);
  const bad = marks.filter(({ problem }) => problem !== null).length;
  const pieces = marks.reduce((sum, one) => sum + (one.stockId === null ? 0 : one.pieces), 0);
  return (
    <>
      <div className={styles.labelsBar}>
        <span>
          {toCount(pieces, 'sleeve')} to print
          {bad > 0 && <b className={styles.alarm}>, {toCount(bad, 'label')} cannot be read or does not go on</b>}
        </span>
        <Button variant="default" size="compact-sm" disabled={pieces === 0} onClick={() => setPrinting(true)}>
          Print labels …
        </Button>
      </div>
      <DataTable
        name="labels"
        label="Labels"
        rows={marks}
        columns={COLUMNS}
        keyOf={({ kind, id }) => `${kind} ${id}`}
        empty={<p className={bundle.wait}>Nothing to mark yet: every wire gets its number at both ends, every end its name.</p>}
      />
      {isPrinting && <PrintDialog planned={planned} marks={marks} onClose={() => setPrinting(false)} />}
    </>
  );
}

const COLUMNS: Column<PlannedMark>[] = [
  { id: 'of', head: 'of', value: ({ kind }) => kind },
  { id: 'legend', head: 'legend', value: ({ text, legend }) => legend?.lines.join(' / ') ?? text },
  { id: 'pieces', head: 'pieces', isNumber: true, value: ({ pieces }) => pieces },
  { id: 'over', head: 'over mm', isNumber: true, value: ({ odMm }) => odMm, cell: ({ odMm }) => odMm?.toFixed(1) ?? '–' },
  {
    id: 'sleeve',
    head: 'sleeve',
    value: ({ kind, stockName, odMm, problem }) =>
      stockName ?? (kind === 'device' ? 'sticks on the device' : odMm === null ? 'a tag, tied on' : PROBLEM_WORDS[problem!]),
    cell: ({ kind, stockName, odMm, problem }) => {
      if (stockName !== null) return stockName;
      if (kind === 'device') return 'sticks on the device';
      return odMm === null ? 'a tag, tied on: no single run leaves it' : <b className={styles.alarm}>{PROBLEM_WORDS[problem!]}</b>;
    },
  },
  {
    id: 'clear',
    head: 'clear sleeve',
    value: ({ clear, problem }) =>
      clear ? `${clear.itemName}, ${clear.cutMm} mm` : problem === 'no-clear' ? PROBLEM_WORDS[problem] : null,
    cell: ({ clear, problem }) =>
      clear ? (
        `${clear.itemName}, ${clear.cutMm} mm`
      ) : problem === 'no-clear' ? (
        <b className={styles.alarm}>{PROBLEM_WORDS[problem]}</b>
      ) : (
        '–'
      ),
  },
  {
    id: 'letters',
    head: 'letters mm',
    isNumber: true,
    value: ({ legend }) => legend?.capMm ?? null,
    cell: ({ legend, problem }) =>
      legend === null ? '–' : problem === 'too-long' ? <b className={styles.alarm}>{legend.capMm.toFixed(1)}</b> : legend.capMm.toFixed(1),
  },
];
