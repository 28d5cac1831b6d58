'use client';

import { Button, Group, Modal } from '@mantine/core';
import { useState } from 'react';
import {
  createHandover,
  listInHand,
  toHandoverLine,
  toWaitingLine,
  type Claim,
  type FloorDeed,
  type Loom,
  pushTo,
  type Quarantine,
  type Work,
} from 'wattograph-core';
import type { FloorProgress } from '../../server/floorEvent';
import { Pick } from '../../ui/fields/Pick';
import { copyText } from '../../ui/table/copyText';
import type { Crimps } from './crimp/useCrimps';
import { toLaneWords } from './StepList';
import styles from './Handover.module.css';

const HOURS = ['4', '8', '12', '24'] as const;
const HOUR_MS = 3_600_000;
/** of a list that says enough by its beginning */
const MOST_WAITING = 6;

interface Handed {
  /** job, loom and revision */
  title: string;
  loom: Loom;
  work: readonly Work[];
  deeds: readonly FloorDeed[];
  claims: ReadonlyMap<string, readonly Claim[]>;
  progress: ReadonlyMap<string, FloorProgress>;
  crimps: Pick<Crimps, 'quarantines' | 'unproved' | 'toWhere'>;
  nowMs: number;
}

/** What the next shift has to know, made from what was ticked, told and taken (craft D4): to read, or to send on as text. */
export function HandoverDialog({ onClose, ...handed }: Handed & { onClose: () => void }) {
  const [hours, setHours] = useState<string>('12');
  const [isCopied, setCopied] = useState(false);
  const sections = listSections(handed, handed.nowMs - Number(hours) * HOUR_MS);
  const clock = new Date(handed.nowMs).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  const text = [
    `${handed.title}, ${clock}`,
    ...sections.flatMap(({ head, lines }) => ['', head, ...lines.map((line) => `- ${line}`)]),
  ].join('\n');
  return (
    <Modal opened onClose={onClose} title="Hand over" size="xl">
      <div className={styles.hand}>
        <div className={styles.head}>
          {handed.title}, {clock}. What was done in the last{' '}
          <Pick
            label="How far back"
            value={hours}
            options={HOURS.map((value) => ({ value, label: `${value} hours` }))}
            onChange={(value) => {
              if (!value) return;
              setHours(value);
              setCopied(false);
            }}
          />
        </div>
        {sections.map(({ head, lines }) => (
          <section key={head} aria-label={head}>
            <h3>{head}</h3>
            <ul>
              {lines.map((line, at) => (
                <li key={at}>{line}</li>
              ))}
            </ul>
          </section>
        ))}
        {sections.length === 0 && <p>Nothing was done, told or taken, and nothing waits.</p>}
      </div>
      <Group justify="flex-end" mt="md">
        <Button
          variant="default"
          onClick={() => {
            copyText(text);
            setCopied(true);
          }}
        >
          {isCopied ? 'Copied' : 'Copy as text'}
        </Button>
        <Button onClick={onClose}>Close</Button>
      </Group>
    </Modal>
  );
}

function listSections({ loom, work, deeds, claims, progress, crimps }: Handed, sinceMs: number): { head: string; lines: string[] }[] {
  const { done, begun, waiting, held, here } = createHandover(work, deeds, claims, sinceMs);
  const problems = work.flatMap(({ step }) => {
    const { trouble, answer } = progress.get(step.id)!;
    if (!trouble) return [];
    return [
      `${step.title}: ${trouble.words} (${trouble.author})${answer ? `, answered: ${answer.words} (${answer.author})` : ', not answered'}`,
    ];
  });
  const inHand = [...listInHand(deeds).values()].flatMap(({ stepId, itemId, author }) => {
    const step = work.find((one) => one.step.id === stepId)?.step;
    const item = step?.items.find(({ id }) => id === itemId);
    return step && item ? [`${step.title}: ${item.cavity ?? item.words} (${author})`] : [];
  });
  const more = waiting.length - MOST_WAITING;
  return [
    { head: 'Problems', lines: problems },
    { head: 'Crimps to be done over: a sample failed', lines: crimps.quarantines.map((one) => toQuarantineLine(one, crimps.toWhere)) },
    { head: 'No sample stands for', lines: crimps.unproved.map(({ state }) => `${state.series.contactName} on ${state.series.wires}`) },
    { head: 'In hand, not finished: doubtful', lines: inHand },
    {
      head: 'Begun and not finished: look before it goes on',
      lines: begun.map(({ title, done: items, of, author }) => `${toHandoverLine({ title, items, of })}${author && ` (${author})`}`),
    },
    ...done.map(({ author, steps }) => ({ head: `Done by ${author}`, lines: steps.map(toHandoverLine) })),
    { head: 'Who is where', lines: here.map(({ lane, authors }) => `${toLaneWords(lane, loom)}: ${authors.join(', ')}`) },
    {
      head: 'Waiting',
      lines: [...waiting.slice(0, MOST_WAITING).map(toWaitingLine), ...(more > 0 ? [`and for ${more} other steps`] : [])],
    },
    { head: 'Held', lines: held },
  ].filter(({ lines }) => lines.length > 0);
}

/** "Hollin size 22 contact on AWG 22 ETFE (Tobin): inlet bulkhead B1 3, 4; throttle 1" */
function toQuarantineLine({ series, author, places }: Quarantine, toWhere: Crimps['toWhere']): string {
  const byPlace = new Map<string, string[]>();
  for (const place of places) pushTo(byPlace, toWhere(place), place.cavity);
  const where = [...byPlace].map(([words, cavities]) => `${words} ${cavities.join(', ')}`);
  return `${series.contactName} on ${series.wires} (${author}): ${where.join('; ')}`;
}
