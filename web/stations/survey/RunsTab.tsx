'use client';

import { modals } from '@mantine/modals';
import { useMemo, useState } from 'react';
import { toUrl } from '../../client/base';
import { createTree, findStandard, listTrims, TICKS, toClockWords, type MeasureMethod, type Tick } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import type { SurveyState, SurveyStore } from '../../client/surveyStore';
import { BlobPicture } from '../../ui/BlobPicture';
import { CameraInput } from '../../ui/fields/CameraInput';
import { Digits } from './Digits';
import { Keypad } from './Keypad';
import styles from './Survey.module.css';

/** Every run with its readings and error band; second readings, fitted lengths, ticks and photos go in here. */
export function RunsTab({
  store,
  state,
  loomId,
  runId,
  onRun,
}: {
  store: SurveyStore;
  state: SurveyState;
  loomId: string;
  runId: string | null;
  onRun: (segmentId: string | null) => void;
}) {
  const shop = useShop();
  const { job } = state;
  const loom = job.looms[loomId]!;
  const tree = useMemo(() => createTree(loom, findStandard(job, shop)), [loom, job, shop]);
  const order = tree.nodeIds.flatMap((id) => tree.nodes[id]!.parentSegmentId ?? []);
  const disagree = new Set(
    (state.result?.findings ?? [])
      .filter(({ code, loomId: of }) => code === 'SC3' && of === loomId)
      .flatMap(({ places }) => places.map(({ id }) => id)),
  );
  if (runId !== null && tree.segments[runId])
    return <Run store={store} state={state} loomId={loomId} segmentId={runId} disagrees={disagree.has(runId)} onDone={() => onRun(null)} />;
  const plan = state.result?.looms.find((one) => one.loomId === loomId);
  const hasFits = Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);
  return (
    <div className={styles.runs}>
      {order.length === 0 && <p className={styles.empty}>No runs yet: read the first mark under Measure.</p>}
      {order.map((id) => {
        const segment = loom.segments[id]!;
        const { nearNodeId, farNodeId, lengthMm, sigmaMm } = tree.segments[id]!;
        return (
          <button key={id} className={styles.run} onClick={() => onRun(id)}>
            <span>
              {loom.nodes[nearNodeId]!.name} to <b>{loom.nodes[farNodeId]!.name}</b>
            </span>
            <span className="mono">
              {Math.round(lengthMm)} ± {sigmaMm.toFixed(0)}
            </span>
            <span className={styles.faint}>
              {segment.status}, {segment.method}
              {segment.secondLengthMm === null ? '' : `, read ${segment.lengthMm} and ${segment.secondLengthMm}`}
              {segment.ticks.length ? `, ${segment.ticks.join(' ')}` : ''}
              {segment.leavesDeg === null ? '' : `, at ${toClockWords(segment.leavesDeg)}`}
            </span>
            {disagree.has(id) && <span className={styles.alarm}>▲ readings disagree</span>}
            {segment.status === 'guessed' && <span className={styles.alarm}>⬣ held: only guessed</span>}
          </button>
        );
      })}
      {hasFits && plan && plan.wires.length > 0 && (
        <section className={styles.trims} aria-label="Trim sheet">
          <h2>Trim, after the fit</h2>
          {listTrims(loom, plan).map(({ name, trims }) => (
            <div key={name}>
              <h3>{name}</h3>
              {trims.map(({ wireId, number, offMm, waitsFor }) => (
                <p key={wireId}>
                  <span className="mono">{number}</span>{' '}
                  {offMm === null ? (
                    <span className={styles.faint}>not final: {waitsFor.join(', ')} not fitted</span>
                  ) : offMm < 0 ? (
                    <b className={styles.alarm}>{-offMm} mm too short</b>
                  ) : (
                    <b>take off {offMm} mm</b>
                  )}
                </p>
              ))}
            </div>
          ))}
        </section>
      )}
    </div>
  );
}

function Run({
  store,
  state,
  loomId,
  segmentId,
  disagrees,
  onDone,
}: {
  store: SurveyStore;
  state: SurveyState;
  loomId: string;
  segmentId: string;
  disagrees: boolean;
  onDone: () => void;
}) {
  const shop = useShop();
  const { job } = state;
  const loom = job.looms[loomId]!;
  const segment = loom.segments[segmentId]!;
  const tree = useMemo(() => createTree(loom, findStandard(job, shop)), [loom, job, shop]);
  const { nearNodeId, farNodeId, sigmaMm, lengthMm } = tree.segments[segmentId]!;
  const isBranch = !tree.segments[segmentId]!.onward && loom.nodes[nearNodeId]!.kind === 'breakout';
  const [text, setText] = useState('');
  const [method, setMethod] = useState<MeasureMethod>(
    segment.method === 'fitted' || segment.method === 'estimate' ? 'tape' : segment.method,
  );
  const [problem, setProblem] = useState<string | null>(null);
  const value = Number(text);
  const isGood = text !== '' && value > 0 && value <= 20000;
  const send = (entry: Parameters<SurveyStore['add']>[0]) => {
    const against = store.add(entry);
    setProblem(against);
    if (against === null) setText('');
  };
  const tick = (one: Tick) =>
    send({
      kind: 'ticks',
      loomId,
      segmentId,
      ticks: segment.ticks.includes(one) ? segment.ticks.filter((other) => other !== one) : [...segment.ticks, one],
      seen: segment.ticks,
    });
  return (
    <div className={styles.detail}>
      <div className={styles.detailHead}>
        <h2>
          {loom.nodes[nearNodeId]!.name} to {loom.nodes[farNodeId]!.name}
        </h2>
        <button onClick={onDone}>All runs</button>
      </div>
      <p>
        <b className="mono">{Math.round(lengthMm)}</b> mm ± {sigmaMm.toFixed(1)}, {segment.status}, {segment.method}
        {segment.fittedMm === null ? '' : ` (read ${segment.lengthMm})`}
        {segment.secondLengthMm === null ? '' : `; second reading ${segment.secondLengthMm}`}
      </p>
      {disagrees && <p className={styles.alarm}>▲ The two readings are further apart than either may err: read it again.</p>}
      <div className={styles.ticks} role="group" aria-label="This run is">
        {TICKS.map((one) => (
          <button key={one} aria-pressed={segment.ticks.includes(one)} onClick={() => tick(one)}>
            {one}
          </button>
        ))}
      </div>
      <Digits label="Length" text={text} method={method} onMethod={setMethod} />
      {problem && (
        <p role="alert" className={styles.problem}>
          Not entered: {problem}
        </p>
      )}
      <Keypad value={text} onChange={setText} />
      <div className={styles.kinds}>
        <button
          disabled={!isGood}
          onClick={() =>
            send({
              kind: 'reading',
              loomId,
              segmentId,
              lengthMm: value,
              method,
              seen: { lengthMm: segment.lengthMm, secondLengthMm: segment.secondLengthMm },
            })
          }
        >
          {segment.method === 'estimate' ? 'Reading' : 'Second reading'}
        </button>
        <button disabled={!isGood} onClick={() => send({ kind: 'fitted', loomId, segmentId, fittedMm: value, seen: segment.fittedMm })}>
          Fitted
        </button>
      </div>
      {isBranch && (
        <Side
          deg={segment.leavesDeg}
          onSide={(leavesDeg) => send({ kind: 'side', loomId, segmentId, leavesDeg, seen: segment.leavesDeg })}
        />
      )}
      <Photos store={store} state={state} loomId={loomId} nodeId={farNodeId} name={loom.nodes[farNodeId]!.name} />
    </div>
  );
}

const HOURS = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11];

/** The side by which a branch leaves the run before, as a clock is read by who looks along the bundle from the datum; pressed again: not known. */
function Side({ deg, onSide }: { deg: number | null; onSide: (deg: number | null) => void }) {
  return (
    <>
      <p className={styles.faint}>
        Leaves the bundle at {deg === null ? 'a side not known yet' : toClockWords(deg)}, looking along it from the datum, 12 up.
      </p>
      <div className={styles.hours} role="group" aria-label="Leaves at">
        {HOURS.map((hour) => {
          const at = (hour % 12) * 30;
          return (
            <button key={hour} aria-pressed={deg === at} aria-label={`${hour} o’clock`} onClick={() => onSide(deg === at ? null : at)}>
              {hour}
            </button>
          );
        })}
      </div>
    </>
  );
}

function Photos({
  store,
  state,
  loomId,
  nodeId,
  name,
}: {
  store: SurveyStore;
  state: SurveyState;
  loomId: string;
  nodeId: string;
  name: string;
}) {
  const photos = state.photos.filter((photo) => photo.loomId === loomId && photo.nodeId === nodeId);
  const waiting = state.waitingPhotos.filter((photo) => photo.loom === loomId && photo.node === nodeId);
  return (
    <section className={styles.photos} aria-label={`Photos at ${name}`}>
      <label className={styles.camera}>
        Photo at {name}
        <CameraInput label={`Photo at ${name}`} onPicture={(blob) => store.addPhoto({ loom: loomId, node: nodeId, caption: '', blob })} />
      </label>
      {waiting.map(({ id, blob }) => (
        <figure key={id}>
          <BlobPicture blob={blob} alt="kept on this device" />
          <figcaption>kept here</figcaption>
        </figure>
      ))}
      {photos.map((photo) => (
        <figure key={photo.id}>
          {/* eslint-disable-next-line @next/next/no-img-element */}
          <img src={toUrl(`/api/photos/${photo.id}`)} alt={`${name}, by ${photo.author}`} loading="lazy" />
          <figcaption>
            {photo.author} <button onClick={() => askRemove(name, () => void store.removePhoto(photo.id))}>remove</button>
          </figcaption>
        </figure>
      ))}
    </section>
  );
}

/** A photo that is removed is gone for good, so that a slip of the thumb must not do it. */
function askRemove(name: string, onRemove: () => void): void {
  modals.openConfirmModal({
    title: `Remove the photo at ${name}?`,
    children: 'It goes for everybody, and undo does not bring it back.',
    labels: { confirm: 'Remove it', cancel: 'Leave it' },
    onConfirm: onRemove,
  });
}
