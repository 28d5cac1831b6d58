'use client';

import { ANSWER_WORDS, isAnswer, type ProblemAnswer } from 'wattograph-core';
import type { FloorProgress } from '../../server/floorEvent';
import { useMay } from '../../client/person';
import { usePhotoIds } from '../../client/usePhotoIds';
import { askReason } from '../../ui/fields/askReason';
import { KeptPhoto, ToldPhoto } from '../../ui/ToldPhoto';
import { askConcession } from './askConcession';
import styles from './Floor.module.css';

const ASKED: Record<Exclude<ProblemAnswer, 'concession'>, string> = {
  'carry-on': 'Carry on: what does the crew have to know?',
  redo: 'Do it over: what has to be different?',
  change: 'Change: what will the next revision do otherwise?',
};

const PHOTO = 'photo of the problem';

/** What is wrong at a step, and what whoever plans says to it (craft D4); solved when somebody says so. */
export function Trouble({
  jobId,
  title,
  told: { trouble, answer },
  kept,
  author,
  onAnswer,
  onSolved,
}: {
  jobId: string;
  /** of the step */
  title: string;
  told: Pick<FloorProgress, 'trouble' | 'answer'>;
  /** its picture, as long as the server has none; null: this device has none either */
  kept: Blob | null;
  author: string;
  onAnswer: (answer: ProblemAnswer, words: string) => void;
  onSolved: () => void;
}) {
  const mayPlan = useMay('plan');
  const photos = usePhotoIds(jobId, trouble !== null);
  if (!trouble) return null;
  const hasPhoto = photos.has(trouble.id);
  const ask = (kind: ProblemAnswer) => {
    if (kind === 'concession') askConcession({ jobId, title, words: trouble.words, author }, (words) => onAnswer(kind, words));
    else askReason(ASKED[kind], (words) => onAnswer(kind, words), 'the crew reads it at the step');
  };
  return (
    <div className={styles.trouble}>
      Problem: {trouble.words} ({trouble.author}){' '}
      {hasPhoto ? <ToldPhoto id={trouble.id} alt={PHOTO} /> : kept && <KeptPhoto blob={kept} alt={PHOTO} />}
      {answer && isAnswer(answer.itemId) ? (
        <p className={styles.answer}>
          <b>{ANSWER_WORDS[answer.itemId]}:</b> {answer.words} ({answer.author})
        </p>
      ) : (
        !mayPlan && <p className={styles.answer}>It is on the wall of whoever plans.</p>
      )}
      <span className={styles.answers}>
        {mayPlan &&
          !answer &&
          (['carry-on', 'redo', 'change', 'concession'] as const).map((kind) => (
            <button key={kind} onClick={() => ask(kind)}>
              {BUTTONS[kind]}
            </button>
          ))}
        <button onClick={onSolved}>solved</button>
      </span>
    </div>
  );
}

const BUTTONS: Record<ProblemAnswer, string> = { 'carry-on': 'Carry on', redo: 'Redo', change: 'Change', concession: 'Let pass until …' };
