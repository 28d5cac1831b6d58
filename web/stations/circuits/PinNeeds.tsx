'use client';

import { Autocomplete } from '@mantine/core';
import { CAPABILITIES, INSULATIONS, type DevicePin, type Job, type PinNeed, setPinNeed } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { Pick } from '../../ui/fields/Pick';
import { NumberField } from '../../ui/fields/NumberField';
import fields from '../../ui/fields/fields.module.css';
import styles from './Circuits.module.css';

/** What a pin asks of the box that serves it: to be changed where its maker's sheet says otherwise. */
export function PinNeeds({ job, pin }: { job: Job; pin: DevicePin }) {
  const store = useJobStore();
  const { need, loomId, endId, cavity } = pin;
  const name = `${job.looms[loomId]!.ends[endId]!.name} ${cavity}`;
  const change = (what: string, part: Partial<PinNeed>) => store.edit(setPinNeed({ loomId, endId, cavity }, `${what} of ${name}`, part));
  const groups = [
    ...new Set(
      Object.values(job.looms).flatMap(({ ends }) =>
        Object.values(ends).flatMap(({ pins }) =>
          Object.values(pins).flatMap(({ kind, noise }) => (kind === need.kind ? (noise ?? []) : [])),
        ),
      ),
    ),
  ].sort();
  const isShared = need.kind === 'sensor-ground' || need.kind === 'sensor-supply';
  return (
    <div className={styles.form} role="group" aria-label="What it needs">
      {isShared && (
        <label>
          noise group{' '}
          <Autocomplete
            key={`${name} ${need.noise}`}
            aria-label="noise group"
            variant="unstyled"
            classNames={{ root: fields.wrapper!, input: fields.input! }}
            data={groups}
            defaultValue={need.noise ?? ''}
            placeholder="the rest"
            maxLength={40}
            onBlur={(event) => {
              const noise = event.currentTarget.value.trim() || null;
              if (noise !== need.noise) change('noise group', { noise });
            }}
            onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
          />
        </label>
      )}
      <label>
        wants{' '}
        <Pick
          label="wants"
          value={need.wants}
          none="what its kind has"
          options={CAPABILITIES}
          onChange={(wants) => change('what it wants', { wants })}
        />
      </label>
      <label title="insulation of the lead that the maker or the factory has there: what a scheme of leads goes by">
        its lead is{' '}
        <Pick
          label="its lead is"
          value={need.lead}
          none="not known"
          options={INSULATIONS}
          onChange={(lead) => change('the lead', { lead })}
        />
      </label>
      <label>
        <NumberField
          unit="V"
          label="Volts it needs"
          value={need.volts}
          least={-60}
          most={60}
          canBeEmpty
          onChange={(volts) => change('voltage', { volts })}
        />{' '}
        V
      </label>
      <label>
        switched at{' '}
        <NumberField
          unit="Hz"
          label="Switched at, hertz"
          value={need.pwmHz}
          least={0}
          most={100000}
          canBeEmpty
          onChange={(pwmHz) => change('switching', { pwmHz })}
        />{' '}
        Hz
      </label>
    </div>
  );
}
