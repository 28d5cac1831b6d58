'use client';

import { useState } from 'react';
import {
  ORDER_WORDS,
  POST_WORDS,
  readLane,
  toCount,
  toLaneName,
  toPost,
  WORK_ORDERS,
  type Claim,
  type Loom,
  type Post,
  type Work,
  type WorkOrder,
} from 'wattograph-core';
import { Pick } from '../../ui/fields/Pick';
import { toClaimWords } from './claimWords';
import { readCode, ScanCode, type CardCode } from './ScanCode';
import styles from './StepList.module.css';

/** Which steps are listed: what can be done now, what is in the lanes that one has, what waits, what is in the lane of the open step, all. */
const SHOWN = ['ready', 'mine', 'waiting', 'here', 'all'] as const;
type Shown = (typeof SHOWN)[number];
const SHOWN_WORDS: Record<Shown, string> = { ready: 'Ready', mine: 'Mine', waiting: 'Waiting', here: 'This one', all: 'All' };

interface Lists {
  loom: Loom;
  work: readonly Work[];
  claims: ReadonlyMap<string, readonly Claim[]>;
  /** lanes that get in the way of one another now */
  touching: ReadonlyMap<string, ReadonlySet<string>>;
  author: string;
  /** of the step that was open */
  lane: string | null;
  nowMs: number;
}

export const toLaneWords = (lane: string, loom: Loom): string => {
  const { kind, id } = readLane(lane);
  return kind === 'post' ? (POST_WORDS[id as Post] ?? id) : toLaneName(lane, loom);
};

/** The steps of a loom by lane (craft D1): who is where, what is ready, and the way to any of them by a few letters. */
export function StepList({
  order,
  onOrder,
  onOpen,
  onScan,
  onHandOver,
  onTake,
  onLeave,
  ...lists
}: Lists & {
  /** in which the work is listed, and taken where several could come next */
  order: WorkOrder;
  onOrder: (order: WorkOrder) => void;
  onOpen: (stepId: string) => void;
  /** the code of a card of the pack was read in */
  onScan: (code: CardCode) => void;
  onHandOver: () => void;
  onTake: (lane: string) => void;
  onLeave: (lane: string) => void;
}) {
  const { loom, work, claims, author, lane: here } = lists;
  const [shown, setShown] = useState<Shown>('ready');
  const [post, setPost] = useState<string | null>(null);
  const [words, setWords] = useState('');
  const isMine = (lane: string | null) => lane !== null && (claims.get(lane) ?? []).some((claim) => claim.author === author);
  const isShown: Record<Shown, (one: Work) => boolean> = {
    ready: ({ state }) => state === 'ready',
    mine: ({ lane, state }) => isMine(lane) && state !== 'done',
    waiting: ({ state }) => state === 'waiting' || state === 'held',
    here: ({ lane }) => here !== null && lane === here,
    all: () => true,
  };
  const ofPost = work.filter(({ step }) => post === null || toPost(step.operation) === post);
  const wanted = words.trim().toLowerCase();
  const listed = wanted === '' ? ofPost.filter(isShown[shown]) : find(ofPost, wanted, loom);
  const posts = [...new Set(work.map(({ step }) => toPost(step.operation)))].filter((one): one is string => one !== null);
  const lanes = groupByLane(listed);
  return (
    <main className={styles.list} aria-label="Steps of the loom">
      <div className={styles.bar}>
        <div role="group" aria-label="Which steps" className={styles.shown}>
          {SHOWN.map((one) => (
            <button key={one} aria-pressed={shown === one && wanted === ''} onClick={() => (setShown(one), setWords(''))}>
              {SHOWN_WORDS[one]} <span>{ofPost.filter(isShown[one]).length}</span>
            </button>
          ))}
        </div>
        <Pick
          label="At which post"
          value={post}
          none="every post"
          options={posts.map((value) => ({ value, label: POST_WORDS[value as Post] ?? value }))}
          onChange={setPost}
        />
        <Pick
          label="In which order"
          value={order}
          options={WORK_ORDERS.map((value) => ({ value, label: ORDER_WORDS[value] }))}
          onChange={(value) => onOrder(value ?? 'operation')}
        />
        <form
          onSubmit={(event) => {
            event.preventDefault();
            const scanned = readCode(words);
            if (scanned) onScan(scanned);
            else if (wanted !== '') {
              const first = listed.find(({ state }) => state !== 'done') ?? listed[0];
              if (first) onOpen(first.step.id);
            }
          }}
        >
          <input
            aria-label="Find an end, a wire or a step"
            placeholder="end, wire, code"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
        </form>
        <ScanCode onScan={onScan} />
        <button className={styles.hand} onClick={onHandOver}>
          Hand over
        </button>
      </div>
      {lanes.length === 0 && <p className={styles.none}>{wanted === '' ? NONE_WORDS[shown] : `Nothing is called “${words.trim()}”.`}</p>}
      {lanes.map(([lane, steps]) => (
        <section key={lane ?? ''} aria-label={lane === null ? 'To be undone' : toLaneWords(lane, loom)}>
          <LaneHead {...lists} lane={lane} onTake={onTake} onLeave={onLeave} />
          <ul>
            {steps.map((one) => (
              <li key={one.step.id}>
                <button className={styles.row} data-state={one.state} onClick={() => onOpen(one.step.id)}>
                  <b>{one.step.title}</b>
                  <span className={styles.count}>
                    {one.done} of {one.step.items.length}
                  </span>
                  <span className={styles.state}>{toStateWords(one)}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </main>
  );
}

const NONE_WORDS: Record<Shown, string> = {
  ready: 'Nothing can be done now: see what waits, and for what.',
  mine: 'You have taken nothing. Take an end, a run or a post, and others see that you are there.',
  waiting: 'Nothing waits.',
  here: 'The open step is of no end, run or post.',
  all: 'There is no step here.',
};

function LaneHead({
  lane,
  loom,
  claims,
  touching,
  author,
  nowMs,
  onTake,
  onLeave,
}: Lists & { lane: string | null; onTake: (lane: string) => void; onLeave: (lane: string) => void }) {
  if (lane === null)
    return (
      <header>
        <h2>To be undone</h2>
      </header>
    );
  const here = claims.get(lane) ?? [];
  const mine = here.find((claim) => claim.author === author);
  const others = here.filter((claim) => claim.author !== author);
  const name = toLaneWords(lane, loom);
  const beside = [...(touching.get(lane) ?? [])].flatMap((other) =>
    (claims.get(other) ?? []).filter((claim) => claim.author !== author).map((claim) => `${toLaneWords(other, loom)} (${claim.author})`),
  );
  return (
    <header>
      <h2>{name}</h2>
      <span className={styles.who}>
        {others.map((claim) => toClaimWords(claim, nowMs)).join(' · ')}
        {beside.length > 0 && <em> Works into {beside.join(', ')}: agree who goes first.</em>}
      </span>
      {mine ? (
        <button aria-label={`Leave ${name}`} onClick={() => onLeave(lane)}>
          Leave
        </button>
      ) : (
        <button aria-label={`${others.length > 0 ? 'Join' : 'Take'} ${name}`} onClick={() => onTake(lane)}>
          {others.length > 0 ? 'Join' : 'Take'}
        </button>
      )}
    </header>
  );
}

function toStateWords({ state, waitsFor, step }: Work): string {
  if (state === 'done') return 'done';
  if (state === 'ready') return 'ready';
  if (state === 'held') return `HELD: ${step.items.find(({ heldBecause }) => heldBecause !== null)!.heldBecause}`;
  const [first, ...rest] = waitsFor;
  const { title } = first!.step;
  return `waits for ${title.slice(0, 1).toLowerCase()}${title.slice(1)}${rest.length > 0 ? ` and ${toCount(rest.length, 'more step')}` : ''}`;
}

/** What is called so first, then steps of that name, then those in which it is named. */
function find(work: readonly Work[], wanted: string, loom: Loom): Work[] {
  const has = (text: string) => text.toLowerCase().includes(wanted);
  const rank = ({ step, lane }: Work): number => {
    const name = lane === null ? '' : toLaneWords(lane, loom).toLowerCase();
    if (name === wanted) return 0;
    if (has(name)) return 1;
    if (has(step.title)) return 2;
    return step.items.some((item) => has(item.words)) ? 3 : 4;
  };
  return work
    .map((one) => ({ one, at: rank(one) }))
    .filter(({ at }) => at < 4)
    .sort((a, b) => a.at - b.at)
    .map(({ one }) => one);
}

function groupByLane(work: readonly Work[]): [string | null, Work[]][] {
  const lanes = new Map<string | null, Work[]>();
  for (const one of work) {
    const here = lanes.get(one.lane);
    if (here) here.push(one);
    else lanes.set(one.lane, [one]);
  }
  return [...lanes];
}
