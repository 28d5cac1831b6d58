'use client';

import { useEffect, useState } from 'react';
import { questionReading, TICKS, type ReadingQuestion, type MeasureMethod, type Tick } from 'wattograph-core';
import type { SurveyState, SurveyStore } from '../../client/surveyStore';
import { Digits } from './Digits';
import { Keypad, typeKey } from './Keypad';
import { NamePanel } from './NamePanel';
import styles from './Survey.module.css';
import { SurveyStrip } from './SurveyStrip';
import { useLine } from './useLine';

type What = 'breakout' | 'pass' | 'end';
const KINDS: { what: What; name: string; key: string }[] = [
  { what: 'breakout', name: 'Breakout', key: 'b' },
  { what: 'pass', name: 'Hole', key: 'h' },
  { what: 'end', name: 'End', key: 'e' },
];

/** Marks read off a tape one after another; the strip grows as they come. */
export function MeasureTab({
  store,
  state,
  loomId,
  onRun,
}: {
  store: SurveyStore;
  state: SurveyState;
  loomId: string;
  onRun: (segmentId: string) => void;
}) {
  const { job } = state;
  const loom = job.looms[loomId]!;
  const { tree, line, marks, isClosed, setLine, trunk } = useLine(job, loomId);
  const [text, setText] = useState('');
  const [method, setMethod] = useState<MeasureMethod>('tape');
  const [ticks, setTicks] = useState<Tick[]>([]);
  const [what, setWhat] = useState<What | null>(null);
  const [question, setQuestion] = useState<(ReadingQuestion & { what: What }) | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const atMm = Number(text);
  const isTyped = text !== '' && Number.isFinite(atMm);
  const zero = loom.nodes[line.zeroNodeId]!;

  const choose = (next: What) => {
    setProblem(null);
    if (!isTyped) {
      setProblem('Type the distance first.');
      return;
    }
    const asked = questionReading(marks, atMm);
    if (asked) setQuestion({ ...asked, what: next });
    else setWhat(next);
  };
  const answer = (option: { atMm: number }) => {
    setText(String(option.atMm));
    setWhat(question!.what);
    setQuestion(null);
  };
  const keep = (name: string, holeMm: number | null, deviceId: string | null) => {
    const nodeId = `n-${crypto.randomUUID().slice(0, 13)}`;
    const segmentId = `s-${nodeId.slice(2)}`;
    const against = store.add({
      kind: 'mark',
      loomId,
      zeroNodeId: line.zeroNodeId,
      viaSegmentId: line.viaSegmentId,
      atMm,
      what: what!,
      name,
      holeMm,
      method,
      ticks,
      deviceId,
      nodeId,
      segmentId,
    });
    if (against !== null) {
      setProblem(against);
      setWhat(null);
      return;
    }
    setText('');
    setTicks([]);
    setWhat(null);
    setProblem(null);
    // a leg that has its end is done: the next is another leg of the same breakout. Else the line goes on
    if (what === 'end' && line.zeroNodeId !== tree.datumId) setLine({ ...line, viaSegmentId: null });
    else if (line.viaSegmentId === null) setLine({ ...line, viaSegmentId: segmentId });
  };

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement || event.metaKey || event.ctrlKey) return;
      const kind = KINDS.find(({ key }) => key === event.key);
      if (/^[\d.,]$/.test(event.key) || event.key === 'Backspace') setText((now) => typeKey(now, event.key));
      else if (kind) choose(kind.what);
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });

  const zeros = tree.nodeIds.filter((id) => id !== tree.datumId && loom.nodes[id]!.kind !== 'end');
  return (
    <div className={styles.measure}>
      <SurveyStrip
        state={state}
        loomId={loomId}
        zeroNodeId={line.zeroNodeId}
        onZero={(nodeId) => setLine(nodeId === tree.datumId ? trunk : { zeroNodeId: nodeId, viaSegmentId: null })}
        onRun={onRun}
      />
      <div className={styles.controls}>
        <div className={styles.zeros} role="group" aria-label="Read from">
          <button aria-pressed={line.zeroNodeId === tree.datumId} onClick={() => setLine(trunk)}>
            {loom.nodes[tree.datumId]!.name}
          </button>
          {zeros.map((id) => (
            <button key={id} aria-pressed={line.zeroNodeId === id} onClick={() => setLine({ zeroNodeId: id, viaSegmentId: null })}>
              {loom.nodes[id]!.name}
            </button>
          ))}
        </div>
        <p className={styles.lineWords}>
          from <b>{zero.name}</b>
          {line.viaSegmentId === null ? ', a new leg' : ''}
          {marks.length > 0 && (
            <>
              :{' '}
              {marks
                .slice(-3)
                .map((mark) => `${Math.round(mark.atMm)} ${mark.name}`)
                .join(', ')}
            </>
          )}
          {isClosed ? '. It ends there: choose a breakout to read a leg from.' : ''}
        </p>
        {what === null && question === null && (
          <>
            <Digits label="Distance" text={text} method={method} onMethod={setMethod} />
            <div className={styles.ticks} role="group" aria-label="The run up to here is">
              {TICKS.map((tick) => (
                <button
                  key={tick}
                  aria-pressed={ticks.includes(tick)}
                  onClick={() => setTicks((now) => (now.includes(tick) ? now.filter((one) => one !== tick) : [...now, tick]))}
                >
                  {tick}
                </button>
              ))}
            </div>
            {problem && (
              <p role="alert" className={styles.problem}>
                {problem}
              </p>
            )}
            <Keypad value={text} onChange={setText} />
            <div className={styles.kinds}>
              {KINDS.map(({ what: kind, name, key }) => (
                <button key={kind} onClick={() => choose(kind)} title={`key ${key}`}>
                  {name}
                </button>
              ))}
            </div>
          </>
        )}
        {question && (
          <div className={styles.question} role="alertdialog" aria-label="Is this right?">
            <p>{question.words}</p>
            {question.options.map((option) => (
              <button key={option.label} onClick={() => answer(option)}>
                {option.label}
              </button>
            ))}
            <button onClick={() => setQuestion(null)}>type it again</button>
          </div>
        )}
        {what !== null && <NamePanel job={job} loomId={loomId} what={what} atMm={atMm} onKeep={keep} onCancel={() => setWhat(null)} />}
      </div>
    </div>
  );
}
