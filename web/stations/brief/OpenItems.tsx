'use client';

import { Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import {
  HOLD_OPERATIONS,
  HOLD_WORDS,
  isBlocking,
  OPEN_ITEM_KINDS,
  type Command,
  type Job,
  type OpenItem,
  type OpenItemKind,
  addOpenItem,
  answerOpenItem,
  setOpenItem,
  strikeOpenItem,
} from 'wattograph-core';
import { readAuthor } from '../../client/person';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { EvidencePick } from '../../ui/fields/EvidencePick';
import { Pick } from '../../ui/fields/Pick';
import { TextField } from '../../ui/fields/TextField';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';
import { NoteLine } from './NoteLine';
import { createOwnerColumns } from './ownerColumns';
import { listPlaces, Places, toPlaceWord } from './Places';

interface Row {
  id: string;
  item: OpenItem;
}

/** What is not known yet, what it holds up, who finds it out and by when. */
export function OpenItems({ job }: { job: Job }) {
  const { people } = useShop();
  const store = useJobStore();
  const rows = useMemo(() => Object.entries(job.openItems).map(([id, item]) => ({ id, item })), [job]);
  const columns = useMemo(() => createColumns(job, people, store.edit), [job, people, store]);
  const note = (
    <NoteLine<OpenItemKind>
      kindLabel="Kind of open item"
      kinds={OPEN_ITEM_KINDS}
      first="question"
      label="Open item"
      placeholder="what is not known, what is assumed, or what is let pass for now"
      onNote={(kind, question) => store.edit(addOpenItem(question, kind, readAuthor()))}
    />
  );
  return (
    <DataTable
      name="open-items"
      label="Open items"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={
        <>
          {note}
          <p className={styles.empty}>
            Nothing is open. What is not known goes here, with what it blocks and the first work that waits for the answer.
          </p>
        </>
      }
    >
      {note}
    </DataTable>
  );
}

function createColumns(job: Job, people: readonly string[], edit: (command: Command) => void): Column<Row>[] {
  const all = listPlaces(job, true);
  const toWords = toPlaceWord(all);
  return [
    {
      id: 'item',
      head: 'item',
      className: styles.item,
      value: ({ item }) => `${item.kind} ${item.question}`,
      cell: ({ item }) => (
        <>
          {isBlocking(item) ? <span className={styles.alarm}>⬣ </span> : item.answer !== null ? '✓ ' : ''}
          <span className="faint">{item.kind}</span> {item.question}
        </>
      ),
    },
    {
      id: 'blocks',
      head: 'blocks',
      value: ({ item }) => item.blocks.map(toWords).join(', '),
      cell: ({ id, item }) => (
        <Places
          label={`Blocked by ${item.question}`}
          remove="Does not block this"
          all={all}
          chosen={item.blocks}
          onChange={(blocks) => edit(setOpenItem(id, 'blocks', blocks))}
        />
      ),
    },
    {
      id: 'stops',
      head: 'holds from',
      value: ({ item }) => (item.kind === 'concession' ? '' : HOLD_WORDS[item.stops]),
      cell: ({ id, item }) =>
        item.kind !== 'concession' && (
          <Pick
            label={`Held by ${item.question}`}
            title="The first work that waits for the answer; what comes before it is done as usual."
            value={item.stops}
            options={HOLD_OPERATIONS.map((value) => ({ value, label: HOLD_WORDS[value] }))}
            onChange={(stops) => stops && edit(setOpenItem(id, 'stops', stops))}
          />
        ),
    },
    ...createOwnerColumns<Row>({
      people: [...people, job.customer],
      toOwned: ({ item }) => ({ ...item, words: item.question }),
      onOwner: ({ id }, owner) => edit(setOpenItem(id, 'owner', owner)),
      onDue: ({ id }, due) => edit(setOpenItem(id, 'due', due)),
    }),
    {
      id: 'visit',
      head: 'at the vehicle',
      value: ({ item }) => (item.atVisit ? 'yes' : 'no'),
      cell: ({ id, item }) => (
        <Checkbox
          size="xs"
          aria-label={`Answer at the vehicle: ${item.question}`}
          checked={item.atVisit}
          onChange={(event) => edit(setOpenItem(id, 'atVisit', event.currentTarget.checked))}
        />
      ),
    },
    {
      id: 'answer',
      head: 'answer',
      value: ({ item }) => item.answer,
      cell: ({ id, item }) => (
        <TextField
          label={`Answer to ${item.question}`}
          value={item.answer ?? ''}
          most={400}
          placeholder={item.kind === 'concession' ? 'ends on its day' : 'open'}
          onChange={(answer) => edit(answerOpenItem(id, answer, readAuthor()))}
        />
      ),
    },
    {
      id: 'evidence',
      head: 'evidence',
      value: ({ item }) => item.evidence,
      cell: ({ id, item }) =>
        item.answer !== null && (
          <EvidencePick
            label={`Evidence for ${item.question}`}
            value={item.evidence}
            onChange={(evidence) => edit(setOpenItem(id, 'evidence', evidence))}
          />
        ),
    },
    {
      id: 'do',
      head: '',
      cell: ({ id }) => (
        <button className={styles.link} onClick={() => edit(strikeOpenItem(id))}>
          strike off
        </button>
      ),
    },
  ];
}
