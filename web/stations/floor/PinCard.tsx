'use client';

import { useEffect, useRef } from 'react';
import { Swatch } from '../../ui/Swatch';
import { isDoubtful, toHandState, type Asking, type ExpectedReading, type InHand, type HandState, type Step } from 'wattograph-core';
import type { FloorProgress } from '../../server/floorEvent';
import type { BenchPack } from '../../client/floor/useFloorStore';
import { askReason } from '../../ui/fields/askReason';
import { ItemReadings } from './ItemReadings';
import styles from './PinCard.module.css';

type Item = Step['items'][number];

/** What is done with the cavity on the screen. good: a doubtful one was tugged, looked at and rung. */
export type PinDeed = 'hand' | 'down' | 'tick' | 'good' | 'over' | 'left';

const DONE_WORDS: Readonly<Record<string, string>> = { crimp: 'Crimped', seat: 'Seated: clicked, tugged' };

interface Shown {
  pack: Pick<BenchPack, 'plan' | 'job'>;
  step: Step;
  here: FloorProgress;
  inHand: ReadonlyMap<string, InHand>;
  asking: Asking;
}

/** Which cavity is worked at now: what is doubtful first, then what is in one's hand, then the next to do. null: none is left. */
export function findPin({ step, here, inHand, asking }: Omit<Shown, 'pack'>): { item: Item; state: HandState } | null {
  const all = step.items.map((item) => ({
    item,
    state: toHandState(step, item, here.ticked.has(item.id) && !here.failed.has(item.id), inHand, asking),
  }));
  const isMine = ({ item, state }: (typeof all)[number]) =>
    state === 'in hand' && inHand.get(`${step.id} ${item.id}`)!.author === asking.author;
  return all.find(({ state }) => state === 'doubtful') ?? all.find(isMine) ?? all.find(({ state }) => state === 'to do') ?? null;
}

/** One cavity fills the screen (craft D2): which, what wire, what contact; taken in hand, then done. */
export function PinCard({
  pack,
  bars,
  step,
  here,
  inHand,
  asking,
  instrument,
  onInstrument,
  onDeed,
  onRead,
}: Shown & {
  /** by step and item: why it cannot be crimped now */
  bars: ReadonlyMap<string, string>;
  instrument: string;
  onInstrument: (name: string) => void;
  onDeed: (itemId: string, deed: PinDeed, words: string) => void;
  onRead: (itemId: string, one: ExpectedReading, value: number) => void;
}) {
  const { plan } = pack;
  const found = findPin({ step, here, inHand, asking });
  const stateOf = (item: Item) => toHandState(step, item, here.ticked.has(item.id) && !here.failed.has(item.id), inHand, asking);
  const states = step.items.map(stateOf);
  const count = (...of: HandState[]) => states.filter((one) => of.includes(one)).length;
  const later = found === null ? null : (step.items.find((item) => item !== found.item && stateOf(item) === 'to do') ?? null);
  const done = count('crimped', 'seated');
  const elsewhere = step.items.filter(
    (item) => stateOf(item) === 'in hand' && inHand.get(`${step.id} ${item.id}`)!.author !== asking.author,
  );
  const card = useRef<HTMLElement>(null);
  // what stands above it on a small tablet was read on the way here
  useEffect(() => card.current?.scrollIntoView({ block: 'nearest' }), []);
  return (
    <section ref={card} className={styles.pin} aria-label="One cavity">
      <p className={styles.count}>
        <b>{done}</b> of {step.items.length} {step.operation === 'seat' ? 'confirmed' : 'crimped'}
        {count('doubtful') > 0 && <b className={styles.doubt}> · {count('doubtful')} doubtful</b>}
        {count('held') > 0 && <span> · {count('held')} held</span>}
        {elsewhere.map((item) => (
          <span key={item.id}>
            {' '}
            · {item.cavity} in the hand of {inHand.get(`${step.id} ${item.id}`)!.author}
          </span>
        ))}
      </p>
      {found === null ? (
        <p className={styles.all}>{count('held') > 0 ? 'All that is not held is done.' : 'Every cavity of this step is done.'}</p>
      ) : (
        <Cavity
          plan={plan}
          step={step}
          item={found.item}
          state={found.state}
          bar={bars.get(`${step.id} ${found.item.id}`) ?? null}
          taken={inHand.get(`${step.id} ${found.item.id}`) ?? null}
          onDeed={(deed, words = '') => onDeed(found.item.id, deed, words)}
        />
      )}
      {found && found.item.reads.length > 0 && (
        <ItemReadings
          reads={found.item.reads}
          taken={here.readings.get(found.item.id) ?? []}
          instrument={instrument}
          onInstrument={onInstrument}
          onRead={(one, value) => onRead(found.item.id, one, value)}
        />
      )}
      {later && <p className={styles.later}>then {later.words}</p>}
    </section>
  );
}

function Cavity({
  plan,
  step,
  item,
  state,
  bar,
  taken,
  onDeed,
}: {
  plan: BenchPack['plan'];
  step: Step;
  item: Item;
  state: HandState;
  bar: string | null;
  taken: InHand | null;
  onDeed: (deed: PinDeed, words?: string) => void;
}) {
  const one = plan.terminations.find(({ endId, cavity }) => endId === step.endId && cavity === item.cavity);
  const wires = plan.wires.filter(({ id }) => item.wireIds.includes(id));
  return (
    <>
      <div className={styles.cavity}>
        <strong>{item.cavity}</strong>
        <div className={styles.facts}>
          {wires.map((wire) => (
            <span key={wire.id} className={styles.wire}>
              <b>{wire.number}</b> <Swatch colour={wire.colour} />
            </span>
          ))}
          {one?.contactName && <span>{one.contactName}</span>}
          {one?.sealName && <span>{one.sealName}</span>}
          {one && one.stripMm !== null && step.operation === 'crimp' && (
            <span>
              strip <b>{one.stripMm} mm</b>
            </span>
          )}
        </div>
      </div>
      {state === 'doubtful' && taken ? (
        <>
          <p className={styles.doubtful} role="alert">
            <b>Doubtful.</b> {taken.author} had it in hand when work stopped ({toClock(taken.atMs)}). Tug it, look at it, ring it through;
            then go on.
          </p>
          <div className={styles.deeds}>
            <button className={styles.main} onClick={() => onDeed('good', 'doubtful: tugged, looked at, rung')}>
              It is good
            </button>
            <button onClick={() => onDeed('over')}>Do it over</button>
            <button
              onClick={() =>
                askReason(
                  `Why is cavity ${item.cavity} left doubtful?`,
                  (words) => onDeed('left', words),
                  'goes to the wall of whoever plans',
                )
              }
            >
              Leave it, with a reason
            </button>
          </div>
        </>
      ) : (
        <div className={styles.deeds}>
          {state === 'to do' ? (
            <button className={styles.main} disabled={bar !== null} title={bar ?? undefined} onClick={() => onDeed('hand')}>
              Take it
            </button>
          ) : (
            <>
              <button className={styles.main} onClick={() => onDeed('tick')}>
                {DONE_WORDS[step.operation] ?? 'Done'}
              </button>
              <button onClick={() => onDeed('down')}>Put it down</button>
            </>
          )}
        </div>
      )}
      <p className={styles.words}>{item.words}</p>
    </>
  );
}

const toClock = (atMs: number) => new Date(atMs).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** Cavities of a step that an interruption left doubtful. */
export const listDoubtful = (step: Step, inHand: ReadonlyMap<string, InHand>, asking: Asking): InHand[] =>
  step.items.flatMap(({ id }) => {
    const one = inHand.get(`${step.id} ${id}`);
    return one && isDoubtful(one, asking) ? [one] : [];
  });
