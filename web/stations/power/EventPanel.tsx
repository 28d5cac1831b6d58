'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import {
  createEvent,
  findStandard,
  toSizeWords,
  type EventGap,
  type EventHeat,
  type EventKind,
  type Job,
  type LoadEvent,
  type LoomPlan,
  type PlannedLoad,
  type PowerPlan,
  toCount,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { runEvent } from '../../client/eventRunner';
import type { EventAnswer } from '../../workers/event.worker';
import { NumberField } from '../../ui/fields/NumberField';
import { EventChart } from './EventChart';
import { Segmented } from '../../ui/fields/Segmented';
import controls from '../../ui/controls.module.css';

const KINDS = ['start', 'stuck', 'short', 'cranking'] as const;
const NAMES: Record<EventKind, string> = { start: 'switched on', stuck: 'stuck', short: 'shorted at its pin', cranking: 'cranking' };
const GAPS: Record<EventGap, string> = {
  inrush: 'What it draws when it is switched on, and for how long, is not given: enter both under Load.',
  fault: 'It is not fed from the battery, so no short can be worked out.',
  'no-motor': 'Only motors get stuck.',
  'no-starter': 'Only the starter cranks.',
  'no-mode': 'No mode of this job cranks: mark one under Source, modes.',
  unfed: 'Nothing feeds it: assign what is open in Circuits first.',
};

/** What a start, a jam, a short or cranking does to the wires of a load within seconds, and whether its fuse is quicker. */
export function EventPanel({ planned, load }: { planned: { job: Job; power: PowerPlan; looms: LoomPlan[] }; load: PlannedLoad }) {
  const shop = useShop();
  const { job } = planned;
  const [asked, setAsked] = useState<EventKind | null>(null);
  const [crankS, setCrankS] = useState(5);
  const events = useMemo(() => {
    const standard = findStandard(job, shop);
    return KINDS.map((kind) => ({ kind, event: createEvent(planned, standard, load, kind, crankS) }));
  }, [planned, job, shop, load, crankS]);
  // what cannot happen to such a load is not offered
  const offered = events.filter(({ event }) => event !== 'no-motor' && event !== 'no-starter');
  const { kind, event } = offered.find((one) => one.kind === asked) ?? offered.find((one) => typeof one.event !== 'string') ?? offered[0]!;
  return (
    <div className={controls.facts}>
      <h2>{load.name}</h2>
      <Segmented
        label="What happens"
        value={kind}
        onChange={setAsked}
        options={offered.map((one) => ({ value: one.kind, words: NAMES[one.kind] }))}
      />
      {kind === 'cranking' && (
        <div className={controls.sentence}>
          The starter turns for{' '}
          <NumberField
            unit="s"
            label="Cranking time"
            value={crankS}
            least={0.5}
            most={60}
            onChange={(seconds) => seconds !== null && setCrankS(seconds)}
          />{' '}
          s, everything on that is on in cranking.
        </div>
      )}
      {typeof event === 'string' ? (
        <p className={controls.alarm}>{GAPS[event]}</p>
      ) : (
        <Computed key={`${load.id} ${kind}`} planned={planned} event={event} />
      )}
    </div>
  );
}

interface EventState {
  event: LoadEvent;
  done: number;
  /** of this event, or of the one before as long as this one runs */
  answer: EventAnswer | null;
  isOver: boolean;
}

/** Runs an event again whenever it changes; the last result stays until the next is there. */
function useEventHeat(event: LoadEvent): { answer: EventAnswer | null; done: number; isRunning: boolean; stop: () => void } {
  const [state, setState] = useState<EventState | null>(null);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => {
    giveUp.current = runEvent(event, (one) =>
      setState((before) =>
        'done' in one
          ? { event, done: one.done, answer: before?.answer ?? null, isOver: false }
          : { event, done: 0, answer: one, isOver: true },
      ),
    );
    return () => giveUp.current();
  }, [event]);
  const isNow = state?.event === event;
  return {
    answer: state?.answer ?? null,
    done: isNow ? state.done : 0,
    isRunning: !isNow || !state.isOver,
    stop: () => {
      giveUp.current();
      setState({ event, done: 0, answer: { failure: 'Stopped.' }, isOver: true });
    },
  };
}

function Computed({ planned, event }: { planned: { job: Job; power: PowerPlan; looms: LoomPlan[] }; event: LoadEvent }) {
  const { answer, done, isRunning, stop } = useEventHeat(event);
  const guard = planned.power.protections.find(({ id }) => id === event.guardId);
  const heat = answer && 'heat' in answer ? answer.heat : null;
  return (
    <>
      {isRunning && (
        <p role="status">
          Stretch {Math.min(done + 1, event.runs.length)} of {event.runs.length} …{' '}
          <button className={controls.button} onClick={stop}>
            Stop
          </button>
        </p>
      )}
      {answer && 'failure' in answer && <p className={controls.alarm}>{answer.failure}</p>}
      {answer && 'heat' in answer && heat === null && (
        <p className={controls.alarm}>No stretch of its wires lies in a known zone: give its runs one in Bundle, under Lengths.</p>
      )}
      {heat && (
        <>
          <EventChart event={event} heat={heat} guardName={guard?.name ?? null} />
          <Words planned={planned} event={event} heat={heat} />
        </>
      )}
    </>
  );
}

function Words({
  planned: { job, power, looms },
  event,
  heat,
}: {
  planned: { job: Job; power: PowerPlan; looms: LoomPlan[] };
  event: LoadEvent;
  heat: EventHeat;
}) {
  const { run, mostC, mostS, harmS, earliestC } = heat;
  const loom = job.looms[run.loomId]!;
  const plan = looms.find(({ loomId }) => loomId === run.loomId)!;
  const { nearNodeId, farNodeId } = plan.tree.segments[run.segmentId]!;
  const wire = plan.wires.find(({ id }) => id === run.wireId)!;
  const guard = power.protections.find(({ id }) => id === event.guardId);
  const where = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
  const opens =
    !guard || guard.ratingA === null
      ? 'No fuse or channel ends it.'
      : event.opens === null
        ? `${guard.name} at ${guard.ratingA} A does not open at this current.`
        : `${guard.name} at ${guard.ratingA} A opens after ${toBand(event.opens)}${earliestC === null ? '' : `, the wire at ${earliestC.toFixed(0)} °C at the earliest`}.`;
  return (
    <>
      <p>
        It draws <b className="mono">{event.currentA.toFixed(1)} A</b>.{' '}
        <span className={event.opens === null && event.kind !== 'start' && event.kind !== 'cranking' ? controls.alarm : undefined}>
          {opens}
        </span>
      </p>
      <p className={harmS === null ? undefined : controls.alarm}>
        Worst from {where}, wire {wire.number} ({toSizeWords(wire.conductor)}): <b className="mono">{mostC.toFixed(0)} °C</b> after{' '}
        {toSeconds(mostS)}.{' '}
        {harmS === null
          ? `Its insulation stands ${run.shortC} °C for a short time, ${run.limitC} °C for good.`
          : `It passes the ${run.shortC} °C that its insulation stands for a short time after ${toSeconds(harmS)}.`}
      </p>
      <p className="faint">
        {toCount(event.runs.length, 'stretch', 'stretches')} of its own wires looked at
        {event.lacksInrush && '. What it draws as it starts to turn is not given, and not in this'}
        {event.unknown > 0 && `, ${event.unknown} in no known zone left out`}. Each begins as warm as its worst mode leaves it; only the
        wires that carry the current are counted as mass, which is the safe side.
      </p>
    </>
  );
}

const toBand = ({ shortestS, longestS }: { shortestS: number; longestS: number }) =>
  toSeconds(shortestS) === toSeconds(longestS) ? toSeconds(longestS) : `${toSeconds(shortestS)} to ${toSeconds(longestS)}`;

const toSeconds = (seconds: number) =>
  seconds >= 120
    ? `${(seconds / 60).toFixed(0)} min`
    : seconds >= 10
      ? `${seconds.toFixed(0)} s`
      : seconds >= 0.995
        ? `${seconds.toFixed(1)} s`
        : `${(seconds * 1000).toFixed(0)} ms`;
