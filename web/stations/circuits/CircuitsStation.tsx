'use client';

import { useHotkeys } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useDeferredValue, useMemo, useState } from 'react';
import { listDevicePins, listOperations, toPinKey, toPinsCsv, type Assignment, type DeviceLine, type DevicePin } from 'wattograph-core';
import { assign } from '../../client/assigner';
import { useFindings, useJobStore, usePower } from '../../client/jobContext';
import { useLoomId } from '../../ui/JobShell';
import { AssignedList } from './AssignedList';
import { BoxesPanel } from './BoxesPanel';
import { BreaksPanel } from './BreaksPanel';
import { saveFile } from '../../client/saveFile';
import { Words } from '../../ui/fields/TextField';
import { Segmented } from '../../ui/fields/Segmented';
import { TapeBand } from '../../ui/strip/TapeBand';
import { SideTabs } from '../../ui/SideTabs';
import controls from '../../ui/controls.module.css';
import styles from './Circuits.module.css';
import { PartsPanel } from './PartsPanel';
import { PinBoard } from './PinBoard';
import { PinPanel } from './PinPanel';
import { UnknownPanel } from './UnknownPanel';

type Side = 'pin' | 'boxes' | 'breaks' | 'parts' | 'unknown';
const NAMES: Record<Side, string> = { pin: 'Pin', boxes: 'Boxes', breaks: 'Breaks', parts: 'Inline parts', unknown: 'Unknown wire' };
type Show = 'all' | 'open' | 'wrong';

/** Every device pin against the box, rail or ground that serves it. */
export function CircuitsStation() {
  const planned = useDeferredValue(usePower());
  const loomId = useLoomId();
  const store = useJobStore();
  const findings = useFindings();
  const [whole, setWhole] = useState(false);
  const [show, setShow] = useState<Show>('all');
  const [wanted, setWanted] = useState('');
  // an end of the loom that is open; of another it says nothing
  const [at, setAt] = useState<{ loomId: string; endId: string } | null>(null);
  const [side, setSide] = useState<Side>('boxes');
  const [chosen, setChosen] = useState<{ loomId: string; endId: string; cavity: string } | null>(null);
  const [result, setResult] = useState<{ assignment: Assignment; ms: number } | null>(null);
  const [cancel, setCancel] = useState<(() => void) | null>(null);
  const lines = useMemo(() => (planned ? listDevicePins(planned.job, planned.power.nets) : []), [planned]);
  const wrong = useMemo(() => listWrong(findings), [findings]);
  const isWrong = (pin: DevicePin) =>
    wrong.get(toPinKey(pin)) ?? (pin.circuitId === null ? undefined : wrong.get(`${pin.loomId}/${pin.endId}/${pin.circuitId}`));
  const begin = () => {
    const { document } = store.get();
    const stop = assign({ job: document, shop: store.shop }, (answer) => {
      setCancel(null);
      if ('failure' in answer) {
        notifications.show({ color: 'flame', title: 'Not assigned', message: answer.failure });
        return;
      }
      const { assignment } = answer;
      if (assignment.assigned.length) store.push(`assign ${assignment.assigned.length} needs`, listOperations(document, assignment.next));
      setResult(answer);
    });
    setCancel(() => stop);
  };
  useHotkeys([['a', () => cancel === null && begin()]]);
  if (!planned) return <p className={controls.wait}>Computing the plan …</p>;
  const { job, power } = planned;
  const endId = at?.loomId === loomId && job.looms[loomId]?.ends[at.endId] ? at.endId : null;
  const plan = planned.looms.find((one) => one.loomId === loomId);
  const shown = lines
    .filter((line) => (endId === null ? whole || line.loomId === loomId : line.loomId === loomId && line.endId === endId))
    .filter(
      ({ name, pins }) =>
        wanted === '' ||
        [name, ...pins.map(({ need }) => need.function)].some((words) => words.toLowerCase().includes(wanted.toLowerCase())),
    )
    .map((line): DeviceLine => ({
      ...line,
      pins:
        show === 'all'
          ? line.pins
          : line.pins.filter((pin) => (show === 'open' ? pin.state === 'open' || pin.state === 'waiting' : isWrong(pin))),
    }))
    .filter(({ pins }) => pins.length > 0);
  const of = lines.filter((line) => whole || line.loomId === loomId).flatMap(({ pins }) => pins);
  const counts = {
    all: of.length,
    open: of.filter(({ state }) => state === 'open' || state === 'waiting').length,
    wrong: of.filter((pin) => isWrong(pin)).length,
  };
  const pick = (pin: DevicePin) => {
    setChosen(pin);
    setSide('pin');
  };
  const file = () => saveFile(`${job.name} pins.csv`, toPinsCsv(job, power));
  return (
    <div className={styles.station}>
      <div className={styles.bar}>
        <Segmented
          label="Which devices"
          value={whole ? 'vehicle' : 'loom'}
          onChange={(one) => setWhole(one === 'vehicle')}
          options={[
            { value: 'loom', words: 'this loom' },
            { value: 'vehicle', words: 'whole vehicle' },
          ]}
        />
        <Segmented
          label="Which pins"
          value={show}
          onChange={setShow}
          options={(['all', 'open', 'wrong'] as const).map((value) => ({
            value,
            isAlarm: value !== 'all' && counts[value] > 0,
            words: (
              <>
                {value === 'all' ? 'all pins' : value} <span className="mono">{counts[value]}</span>
              </>
            ),
          }))}
        />
        <span className={controls.find}>
          <Words label="Find a device or function" placeholder="device or function" most={80} value={wanted} onChange={setWanted} />
        </span>
        <span className={styles.right}>
          <button className={controls.button} onClick={file}>
            Pins as CSV
          </button>
          {cancel ? (
            <button
              className={controls.button}
              onClick={() => {
                cancel();
                setCancel(null);
              }}
            >
              Stop assigning
            </button>
          ) : (
            <button className={`${controls.button} ${styles.main}`} onClick={begin} title="Assign what is open (a)">
              <kbd>a</kbd> Assign what is open
            </button>
          )}
        </span>
      </div>
      {plan && (
        <TapeBand
          loom={job.looms[loomId]!}
          plan={plan}
          chosen={endId}
          onChoose={(end) => setAt(end === null ? null : { loomId, endId: end })}
        />
      )}
      <div className={styles.board} aria-label="Pins" role="region">
        {endId !== null && shown.length === 0 && (
          <p className={controls.wait}>
            {job.looms[loomId]!.ends[endId]!.name} has no pins of a device to show{show === 'all' ? '' : ` that are ${show}`}.
          </p>
        )}
        {result && <AssignedList result={result} onClose={() => setResult(null)} />}
        <PinBoard lines={shown} job={job} isWrong={isWrong} chosen={chosen} onPick={pick} />
      </div>
      <aside className={styles.side}>
        <SideTabs names={NAMES} value={side} onChange={setSide}>
          {side === 'pin' && (
            <PinPanel
              planned={planned}
              pin={lines.flatMap(({ pins }) => pins).find((pin) => chosen && toPinKey(pin) === toPinKey(chosen)) ?? null}
              findings={findings}
            />
          )}
          {side === 'boxes' && <BoxesPanel planned={planned} findings={findings} />}
          {side === 'breaks' && <BreaksPanel planned={planned} loomId={loomId} />}
          {side === 'parts' && <PartsPanel job={job} power={power} loomId={loomId} />}
          {side === 'unknown' && <UnknownPanel />}
        </SideTabs>
      </aside>
    </div>
  );
}

const OF_PINS = /^CI(1|3|4|5|6|9|10|11|15)$/;

/** Codes by end and circuit (or end and cavity where it has none). */
function listWrong(findings: ReturnType<typeof useFindings>): Map<string, string> {
  const wrong = new Map<string, string>();
  for (const { code, loomId, places } of findings) {
    if (!OF_PINS.test(code)) continue;
    const end = places.find(({ kind }) => kind === 'end');
    const circuit = places.find(({ kind }) => kind === 'circuit');
    if (!end || !circuit) continue;
    // CI1 names end and cavity, the others the circuit
    const cavity = circuit.id.startsWith(`${end.id}-`) ? circuit.id.slice(end.id.length + 1) : null;
    wrong.set(`${loomId}/${end.id}/${cavity ?? circuit.id}`, code);
  }
  return wrong;
}
