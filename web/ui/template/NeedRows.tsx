import { Checkbox } from '@mantine/core';
import { CIRCUIT_KINDS, createPinNeed, INSULATIONS, RETURNS, type PinNeed, KIND_WORDS } from 'wattograph-core';
import { PinEvidence } from '../fields/PinEvidence';
import { RETURN_WORDS } from '../returnWords';
import { NumberField } from '../fields/NumberField';
import { Pick } from '../fields/Pick';
import { Words } from '../fields/TextField';
import { FactTable } from '../table/FactTable';
import styles from './Template.module.css';

/** What the pins of a device need, a row a pin. */
export function NeedRows({ pins, onChange }: { pins: readonly [string, PinNeed][]; onChange: (pins: [string, PinNeed][]) => void }) {
  const ids = pins.map(([pin]) => pin);
  const change = (index: number, part: Partial<PinNeed>) =>
    onChange(pins.map(([pin, need], at) => (at === index ? [pin, { ...need, ...part }] : [pin, need])));
  return (
    <>
      <FactTable label="What its pins need">
        <thead>
          <tr>
            <th>pin</th>
            <th className={styles.function}>function</th>
            <th>kind</th>
            <th className={styles.num}>V</th>
            <th className={styles.num}>A while on</th>
            <th>returns by</th>
            <th className={styles.num}>cycle s</th>
            <th>screened</th>
            <th>twisted with</th>
            <th title="insulation of the lead that the maker or the factory has there">lead</th>
            <th>required</th>
            <th>evidence</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {pins.map(([pin, need], index) => (
            <tr key={index}>
              <td>
                <Words
                  label={`Pin ${index + 1}`}
                  isShort
                  value={pin}
                  most={80}
                  onChange={(value) => onChange(pins.map(([was, one], at) => (at === index ? [value, one] : [was, one])))}
                />
              </td>
              <td>
                <Words
                  label={`Function of pin ${index + 1}`}
                  value={need.function}
                  most={80}
                  onChange={(value) => change(index, { function: value })}
                />
              </td>
              <td>
                <Pick
                  label={`Kind of pin ${index + 1}`}
                  value={need.kind}
                  options={CIRCUIT_KINDS.map((kind) => ({ value: kind, label: KIND_WORDS[kind] }))}
                  onChange={(value) => value && change(index, { kind: value })}
                />
              </td>
              <td>
                <NumberField
                  label={`Volts of pin ${index + 1}`}
                  value={need.volts}
                  unit="V"
                  least={-60}
                  most={60}
                  canBeEmpty
                  onChange={(volts) => change(index, { volts })}
                />
              </td>
              <td>
                <NumberField
                  label={`Amperes of pin ${index + 1}`}
                  value={need.currentA}
                  unit="A"
                  least={0}
                  most={1000}
                  canBeEmpty
                  onChange={(currentA) => change(index, { currentA })}
                />
              </td>
              <td>
                {need.kind === 'supply' && (
                  <Pick
                    label={`Return of pin ${index + 1}`}
                    value={need.returnBy}
                    options={RETURNS.map((value) => ({ value, label: RETURN_WORDS[value] }))}
                    onChange={(value) => value && change(index, { returnBy: value })}
                  />
                )}
              </td>
              <td>
                {(need.kind === 'supply' || need.kind === 'output') && (
                  <NumberField
                    label={`Cycle of pin ${index + 1}`}
                    value={need.cycleS}
                    unit="s"
                    least={0}
                    most={86400}
                    canBeEmpty
                    onChange={(cycleS) => change(index, { cycleS })}
                  />
                )}
              </td>
              <td>
                <Checkbox
                  size="xs"
                  aria-label={`Pin ${index + 1} is screened`}
                  checked={need.screened}
                  onChange={(event) => change(index, { screened: event.target.checked })}
                />
              </td>
              <td>
                <Pick
                  label={`Twist partner of pin ${index + 1}`}
                  value={need.twistWith}
                  none="none"
                  options={[...new Set(ids)].filter((id) => id !== pin)}
                  onChange={(value) => change(index, { twistWith: value })}
                />
              </td>
              <td>
                <Pick
                  label={`Lead of pin ${index + 1}`}
                  value={need.lead}
                  none="–"
                  options={INSULATIONS}
                  onChange={(lead) => change(index, { lead })}
                />
              </td>
              <td>
                <Checkbox
                  size="xs"
                  aria-label={`Pin ${index + 1} is required`}
                  checked={need.required}
                  onChange={(event) => change(index, { required: event.target.checked })}
                />
              </td>
              <td>
                <PinEvidence
                  label={`Evidence of pin ${index + 1}`}
                  pin={need}
                  none="not recorded"
                  onChange={(part) => change(index, part)}
                />
              </td>
              <td>
                <button
                  type="button"
                  className={styles.link}
                  aria-label={`Take pin ${pin} out`}
                  onClick={() => onChange(pins.filter((_, at) => at !== index))}
                >
                  ×
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </FactTable>
      <button
        type="button"
        className={styles.link}
        onClick={() => onChange([...pins, [String(pins.length + 1), createPinNeed('signal', 'signal')]])}
      >
        another pin
      </button>
    </>
  );
}
