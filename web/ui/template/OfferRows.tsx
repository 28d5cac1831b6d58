import { CAPABILITIES, createPinOffer, type Capability, type PinOffer } from 'wattograph-core';
import { toNumber } from '../toNumber';
import styles from './Template.module.css';

/** What the pins of a box give to others: each with what it can do and its limits. */
export function OfferRows({
  offers,
  pins,
  onChange,
}: {
  offers: readonly [string, PinOffer][];
  /** pins of the box, to pair with */
  pins: readonly string[];
  onChange: (offers: [string, PinOffer][]) => void;
}) {
  const change = (index: number, part: Partial<PinOffer>) =>
    onChange(offers.map(([pin, offer], at) => [pin, at === index ? { ...offer, ...part } : offer]));
  const field = (index: number, key: 'volts' | 'limitA' | 'pwmHz', label: string) => (
    <input
      className={styles.small}
      aria-label={`${label} of offer ${index + 1}`}
      defaultValue={String(offers[index]![1][key] ?? '')}
      onChange={(event) => change(index, { [key]: toNumber(event.target.value) })}
    />
  );
  return (
    <>
      {offers.length > 0 && (
        <table className={styles.pinTable} aria-label="What its pins give">
          <thead>
            <tr>
              <th>pin</th>
              <th>name</th>
              <th>can</th>
              <th className={styles.num}>V</th>
              <th className={styles.num}>limit A</th>
              <th className={styles.num}>PWM Hz</th>
              <th>rail, group or bus</th>
              <th>in a pair with</th>
              <th>takes a coil’s kick</th>
              <th title="of a ground stud, to the stud of battery negative; empty: as the source says">chassis mΩ</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {offers.map(([pin, offer], index) => (
              <tr key={index}>
                <td>
                  <input
                    className={styles.small}
                    aria-label={`Pin of offer ${index + 1}`}
                    value={pin}
                    onChange={(event) => onChange(offers.map(([was, one], at) => [at === index ? event.target.value : was, one]))}
                  />
                </td>
                <td>
                  <input
                    className={styles.field}
                    aria-label={`Name of offer ${index + 1}`}
                    value={offer.name}
                    maxLength={80}
                    onChange={(event) => change(index, { name: event.target.value })}
                  />
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`What offer ${index + 1} can do`}
                    value=""
                    onChange={(event) => {
                      const one = event.target.value as Capability;
                      change(index, {
                        can: offer.can.includes(one) ? offer.can.filter((other) => other !== one) : [...offer.can, one].slice(0, 8),
                      });
                    }}
                  >
                    <option value="">{offer.can.join(', ') || 'nothing yet'}</option>
                    {CAPABILITIES.map((one) => (
                      <option key={one} value={one}>
                        {offer.can.includes(one) ? `not ${one}` : one}
                      </option>
                    ))}
                  </select>
                </td>
                <td>{field(index, 'volts', 'Volts')}</td>
                <td>{field(index, 'limitA', 'Limit')}</td>
                <td>{field(index, 'pwmHz', 'PWM')}</td>
                <td>
                  <input
                    className={styles.small}
                    aria-label={`Group of offer ${index + 1}`}
                    value={offer.group ?? ''}
                    maxLength={40}
                    onChange={(event) => change(index, { group: event.target.value || null })}
                  />
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Partner of offer ${index + 1}`}
                    value={offer.pairWith ?? ''}
                    onChange={(event) => change(index, { pairWith: event.target.value || null })}
                  >
                    <option value="">none</option>
                    {pins
                      .filter((other) => other !== pin)
                      .map((other) => (
                        <option key={other}>{other}</option>
                      ))}
                  </select>
                </td>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Offer ${index + 1} takes the kick of a coil`}
                    checked={offer.suppressed}
                    onChange={(event) => change(index, { suppressed: event.target.checked })}
                  />
                </td>
                <td>
                  {offer.can.includes('chassis') && (
                    <input
                      className={styles.small}
                      aria-label={`Chassis resistance of offer ${index + 1}`}
                      placeholder="none"
                      defaultValue={String(offer.chassisMilliohm ?? '')}
                      onChange={(event) =>
                        change(index, {
                          chassisMilliohm: event.target.value.trim() === 'none' ? 'none' : toNumber(event.target.value),
                        })
                      }
                    />
                  )}
                </td>
                <td>
                  <button
                    className={styles.link}
                    aria-label={`Take offer ${index + 1} out`}
                    onClick={() => onChange(offers.filter((_, at) => at !== index))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <button
        className={styles.link}
        onClick={() =>
          onChange([...offers, [String(pins.length + 1), createPinOffer(`way ${offers.length + 1}`, ['feed'], { volts: 12 })]])
        }
      >
        another pin that gives
      </button>
    </>
  );
}
