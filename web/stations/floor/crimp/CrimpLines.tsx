'use client';

import { useState } from 'react';
import { CHANGEOVERS, toCount, toDueWords, toToolWords, type Changeover, type Step } from 'wattograph-core';
import type { FloorProgress } from '../../../server/floorEvent';
import type { WaitingPhoto } from '../../../client/photoLine';
import { usePhotoIds } from '../../../client/usePhotoIds';
import { KeptPhoto, ToldPhoto } from '../../../ui/ToldPhoto';
import { askReason } from '../../../ui/fields/askReason';
import { SampleDialog } from './SampleDialog';
import type { CrimpLine, Crimps } from './useCrimps';
import styles from './Crimp.module.css';

const ANOTHER: Record<Changeover, string> = { reel: 'another reel', lot: 'another lot', tool: 'tool set anew' };

const toClock = (atMs: number) => new Date(atMs).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** How a series stands where nothing of it waits. */
function sayProof({ state: { last, since } }: CrimpLine, every: number): string {
  if (last === null) return 'all made';
  if (last.grade === 'none') return `without samples: ${last.words}`;
  return `${last.grade === 'warn' ? 'passed with a warning' : 'proved'} ${toClock(last.atMs)}, ${since} of ${every} since`;
}

const isWaitingLine = ({ bar, state }: CrimpLine): boolean => bar !== null || state.due === 'last';

/** The series of the next crimp of the step; where all are made, the first that a last-off is due for. */
function findNow(step: Step, here: Pick<FloorProgress, 'ticked' | 'failed'>, lines: readonly CrimpLine[]): CrimpLine | undefined {
  const next = step.items.find(({ id, heldBecause }) => heldBecause === null && (!here.ticked.has(id) || here.failed.has(id)));
  const isOf = ({ state }: CrimpLine) => state.series.places.some(({ stepId, itemId }) => stepId === step.id && itemId === next?.id);
  return (next && lines.find(isOf)) ?? lines.find(isWaitingLine) ?? lines[0];
}

/** What the crimps of a step are proved by (craft D3): each kind with its tool, what is due before the next, and what a bad sample takes back. */
export function CrimpLines({
  jobId,
  loomId,
  step,
  here,
  crimps,
  instruments,
  waiting: kept,
  onOpenAgain,
}: {
  jobId: string;
  loomId: string;
  step: Step;
  here: Pick<FloorProgress, 'ticked' | 'failed'>;
  crimps: Crimps;
  instruments: readonly string[];
  /** photos taken here and not on the server yet */
  waiting: readonly WaitingPhoto[];
  onOpenAgain: (itemIds: readonly string[]) => void;
}) {
  const [openId, setOpenId] = useState<string | null>(null);
  const [isWhole, setWhole] = useState(false);
  const lines = crimps.listLines(step.id);
  // asked for only where samples could have a picture
  const known = usePhotoIds(
    jobId,
    lines.some((line) => crimps.findPhotoId(line) !== null),
  );
  const now = findNow(step, here, lines);
  const shown = isWhole ? lines : lines.filter((line) => line === now);
  const waiting = lines.filter((line) => line !== now && isWaitingLine(line)).length;
  const open = lines.find(({ state }) => state.series.id === openId);
  if (lines.length === 0) return null;
  return (
    <section className={styles.lines} aria-label="How the crimps are proved">
      {crimps.quarantines.map((one) => {
        const here = one.places.filter(({ loomId: of, stepId }) => of === loomId && stepId === step.id);
        if (here.length === 0) return null;
        const elsewhere = one.places.length - here.length;
        return (
          <div key={`${one.series.id} ${one.atMs}`} className={styles.quarantine} role="alert">
            <p>
              <b>A sample failed at {toClock(one.atMs)}</b> ({one.author}), {one.series.contactName} on {one.series.wires}:{' '}
              {toCount(one.took, 'crimp', 'crimps')} since {toClock(one.sinceMs)} to be done over. Here:{' '}
              {here.map(({ cavity }) => cavity).join(', ')}
              {elsewhere > 0 && `; ${elsewhere} elsewhere`}
            </p>
            <button onClick={() => onOpenAgain(here.map(({ itemId }) => itemId))}>Cut them off and open them again</button>
          </div>
        );
      })}
      <ul>
        {shown.map((line) => {
          const { series, due } = line.state;
          const isWaiting = isWaitingLine(line);
          const photoId = crimps.findPhotoId(line);
          const photo = kept.find(({ id }) => id === photoId);
          const alt = `samples of ${series.contactName}`;
          return (
            <li key={series.id} className={isWaiting ? styles.waiting : undefined}>
              <span>
                <b>{series.contactName}</b> on {series.wires}
                <small>{toToolWords(series)}</small>
                <small className={line.bar !== null ? styles.bar : undefined}>
                  {line.bar ?? (due === 'last' ? toDueWords(line.state) : sayProof(line, crimps.sampling.sampleEvery))}
                </small>
                {photoId !== null && known.has(photoId) ? (
                  <ToldPhoto id={photoId} alt={alt} />
                ) : (
                  photo && <KeptPhoto blob={photo.blob} alt={alt} />
                )}
              </span>
              {isWaiting ? (
                <button className={styles.main} onClick={() => setOpenId(series.id)}>
                  {due === null ? 'The tool' : toCount(line.state.dueCount, 'sample', 'samples')}
                </button>
              ) : (
                line.state.last !== null && <AnotherMenu onPick={(what) => crimps.keepChangeover(line, what)} name={series.contactName} />
              )}
            </li>
          );
        })}
      </ul>
      {lines.length > 1 && (
        <button className={styles.more} aria-expanded={isWhole} onClick={() => setWhole(!isWhole)}>
          {isWhole
            ? 'The next one alone'
            : `${toCount(lines.length - 1, 'other kind', 'other kinds')} here${waiting > 0 ? `, ${waiting} to be sampled` : ''}`}
        </button>
      )}
      {open && (
        <SampleDialog
          key={`${open.state.series.id} ${open.state.due}`}
          line={open}
          instruments={instruments}
          sampling={crimps.sampling}
          onGauge={(words) => {
            crimps.keepGauge(open, words);
            if (open.state.due === null || words !== '') setOpenId(null);
          }}
          onKeep={(set, photo) => {
            crimps.keepSamples(open, set, photo, step.endId);
            setOpenId(null);
          }}
          onWithout={() =>
            askReason(
              `Why is ${open.state.series.contactName} crimped without?`,
              (why) => {
                crimps.goWithout(open, step, why);
                setOpenId(null);
              },
              'goes to the wall of whoever plans; what is made so stays unproved',
            )
          }
          onClose={() => setOpenId(null)}
        />
      )}
    </section>
  );
}

/** A change asks for a sample: which it is. */
function AnotherMenu({ name, onPick }: { name: string; onPick: (what: Changeover) => void }) {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen)
    return (
      <button aria-label={`Change … ${name}`} onClick={() => setOpen(true)}>
        Change …
      </button>
    );
  return (
    <span className={styles.another}>
      {CHANGEOVERS.map((what) => (
        <button
          key={what}
          onClick={() => {
            onPick(what);
            setOpen(false);
          }}
        >
          {ANOTHER[what]}
        </button>
      ))}
      <button onClick={() => setOpen(false)}>none</button>
    </span>
  );
}
