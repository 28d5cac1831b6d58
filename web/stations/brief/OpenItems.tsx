'use client';

import { Checkbox } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMemo } from 'react';
import {
  HOLD_OPERATIONS,
  HOLD_WORDS,
  isBlocking,
  OPEN_ITEM_KINDS,
  type Blocked,
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
import { DayField } from '../../ui/fields/DayField';
import { EvidencePick } from '../../ui/fields/EvidencePick';
import { Pick } from '../../ui/fields/Pick';
import { TextField, Words } from '../../ui/fields/TextField';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';

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
  return (
    <DataTable
      name="open-items"
      label="Open items"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={
        <>
          <Note />
          <p className={styles.empty}>
            Nothing is open. What is not known goes here, with what it blocks and the first work that waits for the answer.
          </p>
        </>
      }
    >
      <Note />
    </DataTable>
  );
}

/** Write down another. */
function Note() {
  const store = useJobStore();
  const form = useForm({
    initialValues: { question: '', kind: 'question' as OpenItemKind },
    validate: { question: (words) => (words.trim() ? null : 'expected a question') },
  });
  return (
    <form
      className={styles.bar}
      onSubmit={form.onSubmit(({ question, kind }) => {
        store.edit(addOpenItem(question.trim(), kind, readAuthor()));
        form.setFieldValue('question', '');
      })}
    >
      <Pick
        label="Kind of open item"
        value={form.values.kind}
        options={OPEN_ITEM_KINDS}
        onChange={(kind) => kind && form.setFieldValue('kind', kind)}
      />
      <div className={styles.question}>
        <Words
          label="Open item"
          placeholder="what is not known, what is assumed, or what is let pass for now"
          most={300}
          value={form.values.question}
          onChange={(question) => form.setFieldValue('question', question)}
        />
      </div>
      <button className={styles.button} disabled={!form.values.question.trim()}>
        Note it
      </button>
    </form>
  );
}

function createColumns(job: Job, people: readonly string[], edit: (command: Command) => void): Column<Row>[] {
  const words = new Map(listBlockable(job).map((one) => [toKey(one), one.words]));
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
      value: ({ item }) => item.blocks.map((block) => words.get(toKey(block)) ?? '').join(', '),
      cell: ({ id, item }) => <Blocks job={job} item={item} onChange={(blocks) => edit(setOpenItem(id, 'blocks', blocks))} />,
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
    {
      id: 'owner',
      head: 'owner',
      value: ({ item }) => item.owner,
      cell: ({ id, item }) => (
        <Pick
          label={`Owner of ${item.question}`}
          value={item.owner || null}
          none="nobody yet"
          options={[...new Set([...people, job.customer, item.owner])].filter(Boolean)}
          onChange={(owner) => edit(setOpenItem(id, 'owner', owner ?? ''))}
        />
      ),
    },
    {
      id: 'due',
      head: 'due',
      value: ({ item }) => item.due,
      cell: ({ id, item }) => (
        <DayField label={`Due: ${item.question}`} value={item.due} onChange={(due) => edit(setOpenItem(id, 'due', due))} />
      ),
    },
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

const toKey = ({ loomId, kind, id }: Blocked) => `${loomId} ${kind} ${id}`;

/** Everything that an open item can hold up. */
const listBlockable = (job: Job): (Blocked & { words: string })[] =>
  Object.entries(job.looms).flatMap(([loomId, loom]): (Blocked & { words: string })[] => [
    { loomId, kind: 'loom', id: loomId, words: `all of ${loom.name}` },
    ...Object.entries(loom.ends).map(([id, end]) => ({ loomId, kind: 'end' as const, id, words: `${loom.name} · ${end.name}` })),
    ...Object.entries(loom.segments).map(([id, segment]) => ({
      loomId,
      kind: 'segment' as const,
      id,
      words: `${loom.name} · run to ${loom.nodes[segment.toNodeId]!.name}`,
    })),
    ...Object.entries(loom.circuits).map(([id, circuit]) => ({
      loomId,
      kind: 'circuit' as const,
      id,
      words: `${loom.name} · circuit ${circuit.name}`,
    })),
  ]);

function Blocks({ job, item, onChange }: { job: Job; item: OpenItem; onChange: (blocks: Blocked[]) => void }) {
  const all = listBlockable(job);
  const words = new Map(all.map((one) => [toKey(one), one.words]));
  const chosen = new Set(item.blocks.map(toKey));
  return (
    <>
      {item.blocks.map((block) => (
        <span key={toKey(block)} className={styles.chip}>
          {words.get(toKey(block)) ?? 'what is no longer there'}
          <button aria-label="Does not block this" onClick={() => onChange(item.blocks.filter((one) => one !== block))}>
            ×
          </button>
        </span>
      ))}
      <Pick
        label={`Blocked by ${item.question}`}
        value={null}
        none={item.blocks.length ? 'and …' : 'nothing …'}
        options={all.filter((one) => !chosen.has(toKey(one))).map((one) => ({ value: toKey(one), label: one.words }))}
        onChange={(key) => {
          const { loomId, kind, id } = all.find((one) => toKey(one) === key)!;
          onChange([...item.blocks, { loomId, kind, id }]);
        }}
      />
    </>
  );
}
