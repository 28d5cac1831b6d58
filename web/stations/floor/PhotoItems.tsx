import { useState } from 'react';
import type { LoomPlan, Step } from 'wattograph-core';
import type { FloorStore } from '../../client/floor/floorStore';
import { refusePhoto, type WaitingPhoto } from '../../client/photoLine';
import { usePhotoIds } from '../../client/usePhotoIds';
import type { FloorEvent, FloorProgress } from '../../server/floorEvent';
import { KeptPhoto, ToldPhoto } from '../../ui/ToldPhoto';
import { CameraInput } from '../../ui/fields/CameraInput';
import styles from './Floor.module.css';

/** What is photographed before it is covered: each is done with its picture, and the picture has the id of its tick. */
export function PhotoItems({
  jobId,
  plan,
  step,
  here,
  told,
  store,
  author,
  waiting,
}: {
  jobId: string;
  plan: Pick<LoomPlan, 'loomId' | 'splices' | 'tree'>;
  step: Step;
  here: Pick<FloorProgress, 'ticked' | 'carried'>;
  told: readonly FloorEvent[];
  store: Pick<FloorStore, 'add' | 'addWithPhoto'>;
  author: string;
  /** taken here and not on the server yet */
  waiting: readonly WaitingPhoto[];
}) {
  const known = usePhotoIds(jobId, true);
  const [refused, setRefused] = useState<string | null>(null);
  const tellTick = (itemId: string, words: string, blob: Blob) => {
    const because = refusePhoto(blob);
    setRefused(because);
    if (because) return;
    const node = plan.splices.find(({ id }) => id === itemId)?.nodeId ?? plan.tree.datumId;
    store.addWithPhoto(
      { loomId: plan.loomId, stepId: step.id, itemId, kind: 'tick', words: '', author },
      { blob, node, caption: `Before it is covered: ${words}` },
    );
  };
  return (
    <>
      <ul className={styles.items} aria-label="To do">
        {step.items.map(({ id, words, heldBecause }) => {
          const isTicked = here.ticked.has(id);
          const from = isTicked ? here.carried.get(id) : undefined;
          const tick = told.findLast((event) => event.stepId === step.id && event.itemId === id && event.kind === 'tick');
          const kept = waiting.find((photo) => photo.id === tick?.id);
          const alt = `photo of ${words}`;
          return (
            <li key={id}>
              <label className={`${styles.item} ${styles.shot}`} data-done={isTicked || undefined}>
                <span className={styles.box}>{heldBecause !== null ? '–' : isTicked ? '✓' : ''}</span>
                <span>
                  {words}
                  {from !== undefined && <small className={styles.carried}>done in revision {from}, and the same now</small>}
                  {heldBecause !== null && (
                    <>
                      <br />
                      <b>HELD: {heldBecause}</b>
                    </>
                  )}
                  {heldBecause === null && (
                    <small className={styles.carried}>{isTicked ? 'press for another photo' : 'press to take its photo'}</small>
                  )}
                  <CameraInput
                    label={`${isTicked ? 'Another photo' : 'Photo'}: ${words}`}
                    isDisabled={heldBecause !== null}
                    onPicture={(picture) => tellTick(id, words, picture)}
                  />
                </span>
              </label>
              {isTicked && tick && known.has(tick.id) ? (
                <ToldPhoto id={tick.id} alt={alt} />
              ) : (
                isTicked && kept && <KeptPhoto blob={kept.blob} alt={alt} />
              )}
              {isTicked && (
                <button
                  className={styles.prove}
                  onClick={() => store.add({ loomId: plan.loomId, stepId: step.id, itemId: id, kind: 'untick', words: '', author })}
                >
                  Not done
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {refused && (
        <p className={styles.failed} role="alert">
          {refused}
        </p>
      )}
    </>
  );
}
