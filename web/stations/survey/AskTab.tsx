'use client';

import { Input } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useState } from 'react';
import { EVIDENCE, type Evidence, type Job, type OpenItem } from 'wattograph-core';
import type { SurveyStore } from '../../client/surveyStore';
import styles from './Survey.module.css';

/** What has to be answered before the visit is over. */
export function AskTab({ store, job, loomId }: { store: SurveyStore; job: Job; loomId: string }) {
  const form = useForm({
    initialValues: { question: '' },
    validate: { question: (question) => (question.trim() ? null : 'expected a question') },
  });
  const note = ({ question }: { question: string }) => {
    store.add({ kind: 'ask', loomId, itemId: `q-${crypto.randomUUID().slice(0, 13)}`, question: question.trim(), blocks: [] });
    form.reset();
  };
  const items = Object.entries(job.openItems).filter(([, item]) => item.kind !== 'concession' && item.atVisit);
  const open = items.filter(([, { answer }]) => answer === null);
  const answered = items.filter(([, { answer }]) => answer !== null);
  return (
    <div className={styles.anchors}>
      <h2>{open.length === 0 ? 'Every question is answered' : `${open.length} to answer here`}</h2>
      {open.map(([id, item]) => (
        <Question
          key={id}
          item={item}
          onAnswer={(answer, evidence) => store.add({ kind: 'answer', loomId, itemId: id, answer, evidence, seen: item.answer })}
        />
      ))}
      <form className={styles.name} onSubmit={form.onSubmit(note)}>
        <Input
          variant="unstyled"
          aria-label="A new question"
          placeholder="a new question"
          maxLength={300}
          {...form.getInputProps('question')}
        />
        <div className={styles.kinds}>
          <button type="submit" disabled={!form.isValid()}>
            Note it
          </button>
        </div>
      </form>
      {answered.length > 0 && <h2>Answered</h2>}
      {answered.map(([id, { question: asked, answer, evidence, answeredBy }]) => (
        <p key={id}>
          {asked} <b>{answer}</b>{' '}
          <span className={styles.faint}>
            {evidence}, {answeredBy}
          </span>
        </p>
      ))}
    </div>
  );
}

function Question({ item, onAnswer }: { item: OpenItem; onAnswer: (answer: string, evidence: Evidence) => void }) {
  const [answer, setAnswer] = useState('');
  return (
    <section className={styles.anchor} aria-label={item.question}>
      <h3>
        {item.question} {item.owner && <span className={styles.faint}>{item.owner}</span>}
      </h3>
      {item.blocks.length > 0 && <p className={styles.alarm}>⬣ wires wait for this</p>}
      <Input
        variant="unstyled"
        aria-label={`Answer: ${item.question}`}
        placeholder="answer"
        maxLength={400}
        value={answer}
        onChange={(event) => setAnswer(event.target.value)}
      />
      <div className={styles.ticks} role="group" aria-label="Known how">
        {EVIDENCE.map((evidence) => (
          <button key={evidence} disabled={answer.trim() === ''} onClick={() => onAnswer(answer.trim(), evidence)}>
            {evidence}
          </button>
        ))}
      </div>
    </section>
  );
}
