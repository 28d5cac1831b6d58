'use client';

import { Input } from '@mantine/core';
import { useState } from 'react';
import type { Anchor, AnchorState, Job } from 'wattograph-core';
import type { SurveyStore } from '../../client/surveyStore';
import styles from './Survey.module.css';

const STATES: Record<AnchorState, string> = { open: 'Open', fixed: 'Fixed', 'not-here': 'Not here' };

/** What has to stand still before anything is measured: the anchors, and the datum under its clamp. */
export function AnchorsTab({ store, job, loomId }: { store: SurveyStore; job: Job; loomId: string }) {
  const loom = job.looms[loomId]!;
  const datum = Object.values(loom.nodes).find(({ kind }) => kind === 'datum')!;
  const isClamped = loom.clampedBy !== null;
  return (
    <div className={styles.anchors}>
      <section className={styles.clamp}>
        <h2>Datum: {datum.name}</h2>
        {!isClamped && (
          <DatumName
            key={datum.name}
            name={datum.name}
            anchors={Object.values(job.anchors).map(({ name }) => name)}
            onKeep={(name) => store.add({ kind: 'datum', loomId, name, seen: datum.name })}
          />
        )}
        <p>
          {isClamped
            ? `Tied and taped by ${loom.clampedBy}: every length is from here.`
            : 'Not clamped: tie and tape it, so that every cut shares one zero.'}
        </p>
        <button aria-pressed={isClamped} onClick={() => store.add({ kind: 'clamp', loomId, clamped: !isClamped, seen: isClamped })}>
          {isClamped ? 'Take the clamp off' : 'Datum is clamped'}
        </button>
      </section>
      <h2>Anchors</h2>
      <p className={styles.faint}>Nothing is cut before each is fixed, or said not to be part of this job.</p>
      {Object.keys(job.anchors).length === 0 && <p>This job lists no anchors.</p>}
      {Object.entries(job.anchors).map(([id, anchor]) => (
        <AnchorRow
          key={`${id} ${anchor.place}`}
          anchor={anchor}
          onKeep={(state, place) => store.add({ kind: 'anchor', loomId, anchorId: id, state, place, seen: anchor.state })}
        />
      ))}
    </div>
  );
}

/** What the zero of every length is: one of the anchors, or a place in words. */
function DatumName({ name, anchors, onKeep }: { name: string; anchors: string[]; onKeep: (name: string) => void }) {
  const [text, setText] = useState(name);
  const keep = (next: string) => {
    if (next.trim() !== '' && next.trim() !== name) onKeep(next.trim());
  };
  return (
    <>
      <Input
        variant="unstyled"
        aria-label="What the datum is"
        maxLength={80}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => keep(text)}
      />
      <div className={styles.chips} role="group" aria-label="The datum is at">
        {anchors.map((anchor) => (
          <button key={anchor} aria-pressed={anchor === name} onClick={() => keep(anchor)}>
            {anchor}
          </button>
        ))}
      </div>
    </>
  );
}

function AnchorRow({ anchor, onKeep }: { anchor: Anchor; onKeep: (state: AnchorState, place: string) => void }) {
  const [place, setPlace] = useState(anchor.place);
  return (
    <section className={styles.anchor} aria-label={anchor.name}>
      <h3>
        {anchor.name} {anchor.by && <span className={styles.faint}>{anchor.by}</span>}
      </h3>
      <Input
        variant="unstyled"
        aria-label={`Where the ${anchor.name} is`}
        placeholder="where it is"
        maxLength={200}
        value={place}
        onChange={(event) => setPlace(event.target.value)}
        onBlur={() => place !== anchor.place && onKeep(anchor.state, place)}
      />
      <div className={styles.ticks} role="group" aria-label={`State of the ${anchor.name}`}>
        {(Object.keys(STATES) as AnchorState[]).map((state) => (
          <button key={state} aria-pressed={anchor.state === state} onClick={() => onKeep(state, place)}>
            {STATES[state]}
          </button>
        ))}
      </div>
    </section>
  );
}
