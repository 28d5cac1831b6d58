'use client';

import { Checkbox } from '@mantine/core';
import {
  compareIds,
  ENGINE_STATES,
  type EngineState,
  type Job,
  addMode,
  removeMode,
  renameMode,
  setEngine,
  setSource,
  setStud,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { TextField } from '../../ui/fields/TextField';
import controls from '../../ui/controls.module.css';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Power.module.css';

const ENGINE_WORDS: Record<EngineState, string> = { off: 'engine off', cranking: 'the starter turns', running: 'engine runs' };

/** Battery, generator, chassis; and the states of the vehicle in which loads are on or off. */
export function SourcePanel({ job }: { job: Job }) {
  const store = useJobStore();
  const set = (key: Exclude<keyof Job['source'], 'isolator'>) => (value: number | null) => store.edit(setSource(key, value));
  const { source } = job;
  const modes = Object.keys(job.modes).sort(compareIds);
  return (
    <div className={controls.facts}>
      <p className={controls.caution}>Battery negative off before work. Main fuse at the battery. Live studs booted.</p>
      <h3>Source</h3>
      <div className={styles.edit}>
        <span>voltage that budgets are a share of</span>
        <NumberField unit="V" label="Source voltage" value={source.volts} least={1} most={60} onChange={set('volts')} />
        <span>V</span>
        <span>inside the battery</span>
        <NumberField unit="mΩ" label="Battery resistance" value={source.milliohm} least={0} most={1000} onChange={set('milliohm')} />
        <span>mΩ</span>
        <span>through the chassis, case to battery</span>
        <NumberField
          unit="mΩ"
          label="Chassis resistance"
          value={source.chassisMilliohm}
          least={0}
          most={1000}
          canBeEmpty
          onChange={set('chassisMilliohm')}
        />
        <span>mΩ {source.chassisMilliohm === null && <span className="faint">composite tub: every return needs a wire</span>}</span>
        <span>generator, for good</span>
        <NumberField
          unit="A"
          label="Generator current"
          value={source.continuousA}
          least={0.1}
          most={1000}
          canBeEmpty
          onChange={set('continuousA')}
        />
        <span>A {source.continuousA === null && <span className="faint">not known: not checked</span>}</span>
      </div>
      <StudsTable job={job} />
      <h3>Modes</h3>
      <FactTable label="Modes">
        <tbody>
          {modes.map((id) => (
            <tr key={id}>
              <td>
                <TextField
                  label={`Name of mode ${job.modes[id]!.name}`}
                  value={job.modes[id]!.name}
                  most={80}
                  required
                  onChange={(name) => store.edit(renameMode(id, name))}
                />
              </td>
              <td>
                <Pick
                  label={`Engine in ${job.modes[id]!.name}`}
                  value={job.modes[id]!.engine}
                  options={ENGINE_STATES.map((state) => ({ value: state, label: ENGINE_WORDS[state] }))}
                  onChange={(engine) => engine && store.edit(setEngine(id, job.modes[id]!.name, engine))}
                />
              </td>
              <td>
                <button
                  className={styles.linkish}
                  disabled={modes.length === 1}
                  aria-label={`Take mode ${job.modes[id]!.name} out`}
                  onClick={() => store.edit(removeMode(id, job.modes[id]!.name))}
                >
                  take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </FactTable>
      <button className={controls.button} onClick={() => store.edit(addMode())}>
        Add a mode
      </button>
      <p className="faint">
        How long a device is on in each mode is set at its load. A device that says nothing about a mode counts as fully on; a starter only
        where it turns. What a switch, a relay or a channel cuts off draws nothing: how they stand is under “Switches”.
      </p>
    </div>
  );
}

/** Every ground stud on the chassis with its own way to the stud of battery negative. */
function StudsTable({ job }: { job: Job }) {
  const store = useJobStore();
  const studs = Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.entries(job.looms[loomId]!.ends).flatMap(([endId, { name, offers }]) =>
        Object.entries(offers)
          .filter(([, { can }]) => can.includes('chassis'))
          .map(([cavity, offer]) => ({ loomId, endId, cavity, name, own: offer.chassisMilliohm })),
      ),
    );
  if (studs.length === 0) return null;
  const set = (at: (typeof studs)[number], value: number | 'none' | null) => store.edit(setStud(at, at.name, value));
  return (
    <>
      <h3>Ground studs, to battery negative</h3>
      <FactTable label="Ground studs">
        <tbody>
          {studs.map((stud) => (
            <tr key={`${stud.loomId}/${stud.endId}/${stud.cavity}`}>
              <td>{stud.name}</td>
              <td>
                <NumberField
                  unit="mΩ"
                  label={`Chassis resistance at ${stud.name}`}
                  value={stud.own === 'none' ? null : stud.own}
                  least={0}
                  most={1000}
                  canBeEmpty
                  onChange={(value) => set(stud, value)}
                />{' '}
                mΩ {stud.own === null && <span className="faint">as above</span>}
              </td>
              <td>
                <label>
                  <Checkbox
                    size="xs"
                    aria-label={`${stud.name} is on a composite tub`}
                    checked={stud.own === 'none'}
                    onChange={(event) => set(stud, event.target.checked ? 'none' : null)}
                  />{' '}
                  conducts nothing
                </label>
              </td>
            </tr>
          ))}
        </tbody>
      </FactTable>
    </>
  );
}
