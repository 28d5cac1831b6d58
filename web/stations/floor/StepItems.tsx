import { toShortWords, type ExpectedReading, type FloorBoard, type Step } from 'wattograph-core';
import type { FloorProgress } from '../../server/floorEvent';
import type { BenchPack } from '../../client/floor/useFloorStore';
import type { Crimps } from './crimp/useCrimps';
import { ItemReadings } from './ItemReadings';
import styles from './Floor.module.css';
import { BoardWay } from './LayOnBoard';

/** What a step asks for, one thing a line: ticked, read with an instrument, or held with the reason. */
export function StepItems({
  pack: { plan, board, instruments },
  step,
  here,
  isBarred,
  crimps,
  instrument,
  onInstrument,
  onTick,
  onRead,
}: {
  pack: Omit<BenchPack, 'leaseMin'> & { board: FloorBoard | null };
  step: Step;
  here: FloorProgress;
  /** somebody else has to tick it */
  isBarred: boolean;
  crimps: Pick<Crimps, 'bars' | 'refused' | 'short'>;
  instrument: string;
  onInstrument: (name: string) => void;
  onTick: (itemId: string, isTicked: boolean) => void;
  onRead: (itemId: string, one: ExpectedReading, value: number) => void;
}) {
  return (
    <>
      <datalist id="instruments">
        {instruments.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <ul className={styles.items} aria-label="To do">
        {step.items.map((item) => {
          const isTicked = here.ticked.has(item.id);
          const key = `${step.id} ${item.id}`;
          const short = crimps.short.get(key);
          const reopened = isTicked ? undefined : here.reopened.get(item.id);
          const bar = isTicked ? undefined : crimps.bars.get(key);
          const taken = isTicked ? crimps.refused.get(key) : undefined;
          const from = isTicked ? here.carried.get(item.id) : undefined;
          return (
            <li key={item.id}>
              <button
                className={styles.item}
                aria-pressed={isTicked}
                disabled={item.heldBecause !== null || bar !== undefined || (isBarred && !isTicked)}
                onClick={() => onTick(item.id, isTicked)}
              >
                <span className={styles.box}>{item.heldBecause !== null ? '–' : isTicked ? '✓' : ''}</span>
                <span>
                  {item.words}
                  {step.operation === 'lay' && board && <BoardWay plan={plan} board={board} nodeId={item.id} />}
                  {from !== undefined && <small className={styles.carried}>done in revision {from}, and the same now</small>}
                  {reopened && (
                    <small className={styles.reopened}>
                      Done in revision {reopened.revision}, changed since: {reopened.differences.join('; ')}
                      {reopened.serves !== null && ` (${reopened.serves})`}
                    </small>
                  )}
                  {item.heldBecause !== null && (
                    <>
                      <br />
                      <b>HELD: {item.heldBecause}</b>
                    </>
                  )}
                  {bar !== undefined && item.heldBecause === null && <small className={styles.carried}>{bar}</small>}
                  {short && <small className={styles.failed}>{toShortWords(short)}</small>}
                  {isTicked && here.failed.has(item.id) && (
                    <small className={styles.failed}>
                      {taken
                        ? `Not done: a sample of ${taken.author} failed. Cut it off and crimp it anew.`
                        : 'Not done: a reading is outside its limit.'}
                    </small>
                  )}
                </span>
              </button>
              {item.reads.length > 0 && item.heldBecause === null && (
                <ItemReadings
                  reads={item.reads}
                  taken={here.readings.get(item.id) ?? []}
                  instrument={instrument}
                  onInstrument={onInstrument}
                  onRead={(one, value) => onRead(item.id, one, value)}
                />
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
