import { CIRCUIT_KINDS, createPinNeed, RETURNS, type CircuitKind, type PinNeed, type Return, KIND_WORDS } from 'wattograph-core';
import { EvidencePick } from '../EvidencePick';
import { RETURN_WORDS } from '../returnWords';
import { toNumber } from '../toNumber';
import styles from './Template.module.css';

/** What the pins of a device need, a row a pin. */
export function NeedRows({ pins, onChange }: { pins: readonly [string, PinNeed][]; onChange: (pins: [string, PinNeed][]) => void }) {
  const ids = pins.map(([pin]) => pin);
  const change = (index: number, part: Partial<PinNeed>) =>
    onChange(pins.map(([pin, need], at) => (at === index ? [pin, { ...need, ...part }] : [pin, need])));
  return (
    <>
      <table className={styles.pinTable}>
        <thead>
          <tr>
            <th>pin</th>
            <th>function</th>
            <th>kind</th>
            <th className={styles.num}>V</th>
            <th className={styles.num}>A while on</th>
            <th>returns by</th>
            <th className={styles.num}>cycle s</th>
            <th>screened</th>
            <th>twisted with</th>
            <th>required</th>
            <th>evidence</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {pins.map(([pin, need], index) => (
            <tr key={index}>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Pin ${index + 1}`}
                  value={pin}
                  onChange={(event) => {
                    const { value } = event.target;
                    onChange(pins.map(([was, one], at) => (at === index ? [value, one] : [was, one])));
                  }}
                />
              </td>
              <td>
                <input
                  className={styles.field}
                  aria-label={`Function of pin ${index + 1}`}
                  value={need.function}
                  onChange={(event) => change(index, { function: event.target.value })}
                />
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Kind of pin ${index + 1}`}
                  value={need.kind}
                  onChange={(event) => change(index, { kind: event.target.value as CircuitKind })}
                >
                  {CIRCUIT_KINDS.map((kind) => (
                    <option key={kind} value={kind}>
                      {KIND_WORDS[kind]}
                    </option>
                  ))}
                </select>
              </td>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Volts of pin ${index + 1}`}
                  defaultValue={need.volts ?? ''}
                  onChange={(event) => change(index, { volts: toNumber(event.target.value) })}
                />
              </td>
              <td>
                <input
                  className={styles.small}
                  aria-label={`Amperes of pin ${index + 1}`}
                  defaultValue={need.currentA ?? ''}
                  onChange={(event) => change(index, { currentA: toNumber(event.target.value) })}
                />
              </td>
              <td>
                {need.kind === 'supply' && (
                  <select
                    className={styles.pick}
                    aria-label={`Return of pin ${index + 1}`}
                    value={need.returnBy}
                    onChange={(event) => change(index, { returnBy: event.target.value as Return })}
                  >
                    {RETURNS.map((value) => (
                      <option key={value} value={value}>
                        {RETURN_WORDS[value]}
                      </option>
                    ))}
                  </select>
                )}
              </td>
              <td>
                {(need.kind === 'supply' || need.kind === 'output') && (
                  <input
                    className={styles.small}
                    aria-label={`Cycle of pin ${index + 1}`}
                    defaultValue={need.cycleS ?? ''}
                    onChange={(event) => change(index, { cycleS: toNumber(event.target.value) })}
                  />
                )}
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Pin ${index + 1} is screened`}
                  checked={need.screened}
                  onChange={(event) => change(index, { screened: event.target.checked })}
                />
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Twist partner of pin ${index + 1}`}
                  value={need.twistWith ?? ''}
                  onChange={(event) => change(index, { twistWith: event.target.value || null })}
                >
                  <option value="">none</option>
                  {[...new Set(ids)]
                    .filter((id) => id !== pin)
                    .map((id) => (
                      <option key={id}>{id}</option>
                    ))}
                </select>
              </td>
              <td>
                <input
                  type="checkbox"
                  aria-label={`Pin ${index + 1} is required`}
                  checked={need.required}
                  onChange={(event) => change(index, { required: event.target.checked })}
                />
              </td>
              <td>
                <EvidencePick
                  className={styles.pick}
                  label={`Evidence of pin ${index + 1}`}
                  value={need.evidence}
                  none="not recorded"
                  onChange={(evidence) => change(index, { evidence })}
                />
              </td>
              <td>
                <button
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
      </table>
      <button className={styles.link} onClick={() => onChange([...pins, [String(pins.length + 1), createPinNeed('signal', 'signal')]])}>
        another pin
      </button>
    </>
  );
}
