'use client';

import { useState } from 'react';
import {
  isBlocking,
  OPEN_ITEM_KINDS,
  type Blocked,
  type Job,
  type OpenItem,
  type OpenItemKind,
  addOpenItem,
  answerOpenItem,
  setOpenItem,
  strikeOpenItem,
} from 'wattograph-core';
import { readAuthor } from '../../client/author';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { DayField } from '../../ui/DayField';
import { EvidencePick } from '../../ui/EvidencePick';
import { TextField } from '../../ui/TextField';
import styles from './Brief.module.css';

/** What is not known yet, what it holds up, who finds it out and by when. */
export function OpenItems({ job }: { job: Job }) {
  const { people } = useShop();
  const store = useJobStore();
  const [question, setQuestion] = useState('');
  const [kind, setKind] = useState<OpenItemKind>('question');
  const add = () => {
    store.edit(addOpenItem(question.trim(), kind, readAuthor()));
    setQuestion('');
  };
  return (
    <>
      <form
        className={styles.bar}
        onSubmit={(event) => {
          event.preventDefault();
          if (question.trim()) add();
        }}
      >
        <select
          className={styles.pick}
          aria-label="Kind of open item"
          value={kind}
          onChange={(event) => setKind(event.target.value as OpenItemKind)}
        >
          {OPEN_ITEM_KINDS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <input
          className={styles.field}
          aria-label="Open item"
          placeholder="what is not known, what is assumed, or what is let pass for now"
          maxLength={300}
          value={question}
          onChange={(event) => setQuestion(event.target.value)}
        />
        <button className={styles.button} disabled={!question.trim()}>
          Note it
        </button>
      </form>
      {Object.keys(job.openItems).length === 0 && (
        <p className={styles.empty}>
          Nothing is open. What is not known goes here, with what it blocks: a wire that rests on it is not cut before it is answered.
        </p>
      )}
      <table className={styles.table}>
        <thead>
          <tr>
            <th>item</th>
            <th>blocks</th>
            <th>owner</th>
            <th>due</th>
            <th>at the vehicle</th>
            <th>answer</th>
            <th>evidence</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {Object.entries(job.openItems).map(([id, item]) => (
            <tr key={id}>
              <td>
                {isBlocking(item) ? <span className={styles.alarm}>⬣ </span> : item.answer !== null ? '✓ ' : ''}
                <span className="faint">{item.kind}</span> {item.question}
              </td>
              <td>
                <Blocks job={job} item={item} onChange={(blocks) => store.edit(setOpenItem(id, 'blocks', blocks))} />
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Owner of ${item.question}`}
                  value={item.owner}
                  onChange={(event) => {
                    const owner = event.target.value;
                    store.edit(setOpenItem(id, 'owner', owner));
                  }}
                >
                  <option value="">nobody yet</option>
                  {[...new Set([...people, job.customer, item.owner])].filter(Boolean).map((person) => (
                    <option key={person}>{person}</option>
                  ))}
                </select>
              </td>
              <td>
                <DayField label={`Due: ${item.question}`} value={item.due} onChange={(due) => store.edit(setOpenItem(id, 'due', due))} />
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Answer at the vehicle: ${item.question}`}
                  checked={item.atVisit}
                  onChange={(event) => {
                    const { checked } = event.target;
                    store.edit(setOpenItem(id, 'atVisit', checked));
                  }}
                />
              </td>
              <td>
                <TextField
                  label={`Answer to ${item.question}`}
                  value={item.answer ?? ''}
                  most={400}
                  placeholder={item.kind === 'concession' ? 'ends on its day' : 'open'}
                  onChange={(answer) => store.edit(answerOpenItem(id, answer, readAuthor()))}
                />
              </td>
              <td>
                {item.answer !== null && (
                  <EvidencePick
                    className={styles.pick}
                    label={`Evidence for ${item.question}`}
                    value={item.evidence}
                    onChange={(evidence) => store.edit(setOpenItem(id, 'evidence', evidence))}
                  />
                )}
              </td>
              <td>
                <button className={styles.link} onClick={() => store.edit(strikeOpenItem(id))}>
                  strike off
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const toKey = ({ loomId, kind, id }: Blocked) => `${loomId} ${kind} ${id}`;

function Blocks({ job, item, onChange }: { job: Job; item: OpenItem; onChange: (blocks: Blocked[]) => void }) {
  const all = Object.entries(job.looms).flatMap(([loomId, loom]): (Blocked & { words: string })[] => [
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
      <select
        className={styles.pick}
        aria-label={`Blocked by ${item.question}`}
        value=""
        onChange={(event) => {
          const { loomId, kind, id } = all.find((one) => toKey(one) === event.target.value)!;
          onChange([...item.blocks, { loomId, kind, id }]);
        }}
      >
        <option value="">{item.blocks.length ? 'and …' : 'nothing …'}</option>
        {all
          .filter((one) => !chosen.has(toKey(one)))
          .map((one) => (
            <option key={toKey(one)} value={toKey(one)}>
              {one.words}
            </option>
          ))}
      </select>
    </>
  );
}
