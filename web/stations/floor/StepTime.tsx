import { useMemo } from 'react';
import { measureTaken, toTimeWords, type Gap, type Step } from 'wattograph-core';
import type { FloorTimes } from '../../client/floor/useFloorStore';
import type { FloorEvent } from '../../server/floorEvent';
import styles from './Floor.module.css';

/** times that are shown: the latest */
const MOST_GAPS = 3;

/**
 * What a step took whoever is signed in, beside what the shop counts with; a time without a tick was a pause, unless he says otherwise
 * (craft D6). Nobody sees another one's.
 */
export function StepTime({
  step,
  loomId,
  events,
  times,
  author,
  onSay,
}: {
  step: Step;
  loomId: string;
  /** of all looms: whoever ticks in another one is at work */
  events: readonly FloorEvent[];
  times: FloorTimes;
  author: string;
  onSay: (kind: 'worked' | 'paused', gap: Gap) => void;
}) {
  const taken = useMemo(
    () =>
      measureTaken(
        events.flatMap((event) =>
          event.author === author ? [{ ...event, stepId: `${event.loomId} ${event.stepId}`, atMs: Date.parse(event.happenedAt) }] : [],
        ),
        times,
      ),
    [events, author, times],
  );
  const here = taken.get(`${loomId} ${step.id}`);
  const plannedMin = times.minutes[step.id] ?? 0;
  const nameOf = (itemId: string) => {
    const item = step.items.find(({ id }) => id === itemId);
    // a wire by its number: what is done to it stands beside
    return item?.cavity ?? item?.words.replace(/:.*$/, '') ?? 'what came next';
  };
  if (plannedMin === 0 && !here) return null;
  return (
    <section aria-label="Time" className={styles.time}>
      <p>
        {here && here.minutes > 0 ? `Took you ${toTimeWords(here.minutes)} so far. ` : ''}
        {plannedMin > 0 && `The shop counts with ${toTimeWords(plannedMin)}.`}
      </p>
      {here?.gaps.slice(-MOST_GAPS).map((gap) => (
        <p key={gap.eventId}>
          <span>
            {toTimeWords(gap.minutes)} before {nameOf(gap.itemId)}: {gap.isWork ? 'work' : 'a pause'}
          </span>
          <button onClick={() => onSay(gap.isWork ? 'paused' : 'worked', gap)}>{gap.isWork ? 'It was a pause' : 'It was work'}</button>
        </p>
      ))}
    </section>
  );
}
