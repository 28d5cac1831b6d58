'use client';

import { useState } from 'react';
import {
  findGuard,
  RETURNS,
  type Job,
  type LoomPlan,
  type PlannedLoad,
  type PlannedProtection,
  type PowerPlan,
  setDuty,
  setLoadCurrent,
  setPinNeed,
  setRating,
  setRun,
  type PinNeed,
  findMostOn,
  listRunning,
  measureSag,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { askReason } from '../../ui/fields/askReason';
import { Pick } from '../../ui/fields/Pick';
import { NumberField } from '../../ui/fields/NumberField';
import { RETURN_WORDS } from '../../ui/returnWords';
import { Why } from '../../ui/Why';
import { DropChart } from './DropChart';
import { FuseChart } from './FuseChart';
import controls from '../../ui/controls.module.css';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Power.module.css';

const STARTS = new Set(['motor', 'starter']);

/** One load: its figures to change, its fuse or channel against its wire, and where the voltage goes. */
export function LoadPanel({ planned, load }: { planned: { job: Job; power: PowerPlan; looms: LoomPlan[] }; load: PlannedLoad }) {
  const { job, power } = planned;
  const store = useJobStore();
  const { loomId, endId, cavity } = load.pin;
  const pin = job.looms[loomId]!.ends[endId]!.pins[cavity];
  const { parentSegmentId } = planned.looms.find((one) => one.loomId === loomId)!.tree.nodes[job.looms[loomId]!.ends[endId]!.nodeId]!;
  const run = parentSegmentId === null ? null : { segmentId: parentSegmentId, segment: job.looms[loomId]!.segments[parentSegmentId]! };
  const device = load.deviceId === null ? undefined : job.devices[load.deviceId];
  const guard = findGuard(load, power.protections);
  const runs = listRunning(job, power.modeIds);
  const setNeed = (words: string, part: Partial<PinNeed>) => store.edit(setPinNeed(load.pin, words, part));
  return (
    <div className={controls.facts}>
      <h2>{load.name}</h2>
      {load.load !== null && STARTS.has(load.load) && (
        <p className={controls.caution}>It can start by itself when its wiring is powered: fingers and tools out.</p>
      )}
      {load.steps.length === 0 && (
        <p className={controls.alarm}>Nothing feeds it: assign what is open in Circuits, or join it by hand in Bundle.</p>
      )}
      {load.steps.length > 0 && load.load !== 'feed' && <p>{toSwitchWords(load, power)}</p>}
      {!load.returns && (
        <p className={controls.alarm}>
          {load.returnBy === 'pin' ? 'Its current has no way back: the ground leads nowhere.' : RETURN_ALARM[load.returnBy]}
        </p>
      )}
      {load.isOutside && (
        <p>
          Fed through a plug from outside this job: from there on it may lose {load.budgetV.toFixed(2)} V. What feeds the plug has to leave
          it as much.
        </p>
      )}
      {pin && load.load !== 'feed' && (
        <div className={styles.edit}>
          <span>draws while it is on</span>
          <NumberField
            unit="A"
            label="Current while on"
            value={pin.currentA}
            least={0}
            most={1000}
            onChange={(currentA) => store.edit(setLoadCurrent(load.pin, load.name, currentA))}
          />
          <span>A</span>
          <span>when switched on</span>
          <NumberField
            unit="A"
            label="Inrush current"
            value={pin.inrushA}
            least={0.001}
            most={5000}
            canBeEmpty
            onChange={(inrushA) => setNeed(`inrush of ${load.name}`, { inrushA })}
          />
          <span>A</span>
          <span>for</span>
          <NumberField
            unit="ms"
            label="Inrush time"
            value={pin.inrushMs}
            least={0.001}
            most={60000}
            canBeEmpty
            onChange={(inrushMs) => setNeed(`inrush of ${load.name}`, { inrushMs })}
          />
          <span>ms</span>
          <span>one turn of on and off takes</span>
          <NumberField
            unit="s"
            label="Cycle"
            value={pin.cycleS}
            least={0.0001}
            most={86400}
            canBeEmpty
            onChange={(cycleS) => setNeed(`cycle of ${load.name}`, { cycleS })}
          />
          <span>s {pin.cycleS === null && <span className="faint">long: its bundle feels all of it</span>}</span>
          <span>returns by</span>
          <Pick
            label="Return"
            value={pin.returnBy}
            options={RETURNS.map((value) => ({ value, label: RETURN_WORDS[value] }))}
            onChange={(returnBy) => returnBy && setNeed(`${load.name} returns by ${RETURN_WORDS[returnBy]}`, { returnBy })}
          />
          <span />
          {run && (
            <>
              <span>last run to it</span>
              <NumberField
                unit="mm"
                label="Length of the last run"
                value={run.segment.lengthMm}
                least={1}
                most={20000}
                onChange={(lengthMm) =>
                  lengthMm !== null && store.edit(setRun({ loomId, segmentId: run.segmentId, name: `run to ${load.name}` }, lengthMm))
                }
              />
              <span>
                mm{' '}
                <span className="faint">
                  {run.segment.fittedMm === null ? run.segment.status : `reading; fitted ${run.segment.fittedMm} mm counts`}
                </span>
              </span>
            </>
          )}
          {device &&
            power.modeIds.map((id) => (
              <Duty
                key={id}
                name={job.modes[id]!.name}
                unsaid={
                  load.load === 'starter' && job.modes[id]!.engine !== 'cranking'
                    ? 'not given: a starter turns in cranking only'
                    : 'not given: counts as fully on'
                }
                value={device.duty[id] ?? null}
                onChange={(duty) => store.edit(setDuty(load.deviceId!, id, { load: load.name, mode: job.modes[id]!.name }, duty))}
              />
            ))}
        </div>
      )}
      {guard && <Guard planned={planned} guard={guard} />}
      {load.steps.length > 0 && (
        <>
          <h3>
            Where the voltage goes: {load.dropV.toFixed(3)} of {load.budgetV.toFixed(3)} V
            {load.totalBudgetV > load.budgetV &&
              `; with the feed of its box ${findMostOn(load.totalByModeV, load, runs).toFixed(3)} of ${load.totalBudgetV.toFixed(3)} V`}
          </h3>
          <DropChart load={load} volts={job.source.volts} />
          <FactTable label="In every mode">
            <thead>
              <tr>
                <th>mode</th>
                <th className={styles.num}>on</th>
                <th className={styles.num}>drop / its budget</th>
                <th className={styles.num}>is left</th>
              </tr>
            </thead>
            <tbody>
              {power.modeIds.map((id, mode) => {
                const isOff = load.onA[mode] === 0;
                const share = load.dropByModeV[mode]! / load.budgetV;
                return (
                  <tr key={id}>
                    <td>{job.modes[id]!.name}</td>
                    <td className={styles.num}>{isOff ? 'off' : `${load.onA[mode]!.toFixed(2)} A`}</td>
                    <td className={`${styles.num} ${!isOff && share > 1.0005 ? controls.alarm : ''}`}>
                      {isOff ? '' : `${(load.dropByModeV[mode]! * 1000).toFixed(0)} mV, ${(share * 100).toFixed(0)} %`}
                    </td>
                    <td className={styles.num}>
                      {isOff || load.isOutside ? (
                        ''
                      ) : (
                        <Why because={<WhyVolts job={job} power={power} load={load} mode={mode} />}>
                          {load.voltsByMode[mode]!.toFixed(2)} V
                        </Why>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </FactTable>
          <FactTable label="Way out and back">
            <tbody>
              {load.steps.map((step, index) => (
                <tr key={index} data-counts={step.counts}>
                  <td>{step.way}</td>
                  <td>
                    {step.kind === 'contact' ? 'contact ' : ''}
                    {step.words}
                  </td>
                  <td className={styles.num}>{step.milliohm.toFixed(1)} mΩ</td>
                  <td className={styles.num}>{step.currentA.toFixed(2)} A</td>
                  <td className={styles.num}>{(step.dropV * 1000).toFixed(0)} mV</td>
                </tr>
              ))}
            </tbody>
          </FactTable>
          <p className="faint">
            Grey lines count for the feed of the box, which has a budget of its own. Resistance at the computed temperature.
          </p>
        </>
      )}
    </div>
  );
}

const RETURN_ALARM = {
  'engine-case': 'It returns by its case through the engine block, and no strap leads from there to the chassis or to battery negative.',
  'chassis-case': 'It returns by its case through the chassis, and nothing leads from there to battery negative.',
} as const;

function WhyVolts({ job, power, load, mode }: { job: Job; power: PowerPlan; load: PlannedLoad; mode: number }) {
  const drawn = power.sourceA?.on[mode] ?? 0;
  return (
    <>
      {job.source.volts} V of the source, less {measureSag(job.source, drawn).toFixed(2)} V that {drawn.toFixed(0)} A take of it inside the
      battery, less {load.totalByModeV[mode]!.toFixed(2)} V on the way there and back.
    </>
  );
}

/** Every load says what switches it, and on which side. */
function toSwitchWords({ switches }: PlannedLoad, power: PowerPlan): string {
  if (switches.length === 0) return 'Nothing switches it: it is live whenever its feed is.';
  return `Switched ${(['high', 'low'] as const)
    .flatMap((side) => {
      const names = switches.flatMap((one) => {
        if (one.side !== side) return [];
        const coil = power.protections.find(({ id }) => id === one.linkId)?.coil;
        return coil ? `${one.by} (coil ${coil.fed && coil.by ? 'wired' : 'not wired'})` : one.by;
      });
      return names.length ? `on the ${side} side by ${names.join(', then ')}` : [];
    })
    .join(' and ')}.`;
}

/** Share of the time that a device is on in a mode; unsaid: what an empty one counts as. */
function Duty({
  name,
  value,
  unsaid,
  onChange,
}: {
  name: string;
  value: number | null;
  unsaid: string;
  onChange: (value: number | null) => void;
}) {
  return (
    <>
      <span>on in “{name}”</span>
      <NumberField
        unit="%"
        label={`On in ${name}, percent`}
        value={value === null ? null : Math.round(value * 1000) / 10}
        least={0}
        most={100}
        canBeEmpty
        onChange={(percent) => onChange(percent === null ? null : percent / 100)}
      />
      <span>% {value === null && <span className="faint">{unsaid}</span>}</span>
    </>
  );
}

function Guard({ planned: { job, power }, guard }: { planned: { job: Job; power: PowerPlan }; guard: PlannedProtection }) {
  const store = useJobStore();
  const [asked, setAsked] = useState<number | null>(null);
  const pin = (ratingA: number) =>
    askReason(`Why ${ratingA} A for ${guard.name}?`, (reason) => {
      store.edit(setRating(guard, { ratingA, reason }));
      setAsked(null);
    });
  return (
    <>
      <h3>
        {guard.name}: {guard.ratingA === null ? 'nothing fits' : `${guard.ratingA} A`}
        {guard.pinned ? ', pinned' : ', computed'}
      </h3>
      <p className="faint">{guard.because}</p>
      <div className={controls.sentence}>
        <NumberField
          unit="A"
          label={`Rating of ${guard.name}`}
          value={asked ?? guard.ratingA}
          least={0.5}
          most={guard.maxA ?? 1000}
          onChange={(value) => {
            if (value !== null) {
              setAsked(value);
              pin(value);
            }
          }}
        />{' '}
        A{' '}
        {guard.pinned && (
          <button className={styles.linkish} onClick={() => store.edit(setRating(guard, null))}>
            let it be computed
          </button>
        )}
      </div>
      <FuseChart guard={guard} loads={power.loads.filter(({ id }) => guard.loadIds.includes(id))} job={job} />
    </>
  );
}
