import { Checkbox } from '@mantine/core';
import { CAPABILITIES, createPinOffer, INSULATIONS, type PinOffer } from 'wattograph-core';
import { NumberField } from '../fields/NumberField';
import { Pick } from '../fields/Pick';
import { Words } from '../fields/TextField';
import { FactTable } from '../table/FactTable';
import styles from './Template.module.css';

const LIMITS = {
  volts: { unit: 'V', least: -60, most: 60 },
  limitA: { unit: 'A', least: 0, most: 1000 },
  pwmHz: { unit: 'Hz', least: 0, most: 100000 },
} as const;

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
    <NumberField
      label={`${label} of offer ${index + 1}`}
      value={offers[index]![1][key]}
      {...LIMITS[key]}
      canBeEmpty
      onChange={(value) => change(index, { [key]: value })}
    />
  );
  return (
    <>
      {offers.length > 0 && (
        <FactTable label="What its pins give">
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
              <th title="insulation of the lead that its maker supplies">lead</th>
              <th>takes a coil’s kick</th>
              <th title="of a ground stud, to the stud of battery negative; empty: as the source says">chassis mΩ</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {offers.map(([pin, offer], index) => (
              <tr key={index}>
                <td>
                  <Words
                    label={`Pin of offer ${index + 1}`}
                    isShort
                    value={pin}
                    most={80}
                    onChange={(value) => onChange(offers.map(([was, one], at) => [at === index ? value : was, one]))}
                  />
                </td>
                <td>
                  <Words
                    label={`Name of offer ${index + 1}`}
                    value={offer.name}
                    most={80}
                    onChange={(value) => change(index, { name: value })}
                  />
                </td>
                <td>
                  <Pick
                    label={`What offer ${index + 1} can do`}
                    value={null}
                    none={offer.can.join(', ') || 'nothing yet'}
                    options={CAPABILITIES.map((one) => ({ value: one, label: offer.can.includes(one) ? `not ${one}` : one }))}
                    onChange={(one) =>
                      one &&
                      change(index, {
                        can: offer.can.includes(one) ? offer.can.filter((other) => other !== one) : [...offer.can, one].slice(0, 8),
                      })
                    }
                  />
                </td>
                <td>{field(index, 'volts', 'Volts')}</td>
                <td>{field(index, 'limitA', 'Limit')}</td>
                <td>{field(index, 'pwmHz', 'PWM')}</td>
                <td>
                  <Words
                    label={`Group of offer ${index + 1}`}
                    isShort
                    value={offer.group ?? ''}
                    most={40}
                    onChange={(value) => change(index, { group: value || null })}
                  />
                </td>
                <td>
                  <Pick
                    label={`Partner of offer ${index + 1}`}
                    value={offer.pairWith}
                    none="none"
                    options={pins.filter((other) => other !== pin)}
                    onChange={(value) => change(index, { pairWith: value })}
                  />
                </td>
                <td>
                  <Pick
                    label={`Lead of offer ${index + 1}`}
                    value={offer.lead}
                    none="–"
                    options={INSULATIONS}
                    onChange={(lead) => change(index, { lead })}
                  />
                </td>
                <td>
                  <Checkbox
                    size="xs"
                    aria-label={`Offer ${index + 1} takes the kick of a coil`}
                    checked={offer.suppressed}
                    onChange={(event) => change(index, { suppressed: event.target.checked })}
                  />
                </td>
                <td>
                  {offer.can.includes('chassis') && (
                    <ChassisField
                      index={index}
                      value={offer.chassisMilliohm}
                      onChange={(chassisMilliohm) => change(index, { chassisMilliohm })}
                    />
                  )}
                </td>
                <td>
                  <button
                    type="button"
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
        </FactTable>
      )}
      <button
        type="button"
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

/** A stud has a figure of its own, takes that of the source, or conducts nothing, as on a composite tub. */
function ChassisField({
  index,
  value,
  onChange,
}: {
  index: number;
  value: PinOffer['chassisMilliohm'];
  onChange: (value: PinOffer['chassisMilliohm']) => void;
}) {
  return (
    <span style={{ whiteSpace: 'nowrap' }}>
      <NumberField
        label={`Chassis resistance of offer ${index + 1}`}
        value={value === 'none' ? null : value}
        unit="mΩ"
        least={0}
        most={1000}
        canBeEmpty
        onChange={onChange}
      />{' '}
      <Checkbox
        size="xs"
        display="inline-block"
        label="none"
        aria-label={`Offer ${index + 1} is on a composite tub`}
        checked={value === 'none'}
        onChange={(event) => onChange(event.currentTarget.checked ? 'none' : null)}
      />
    </span>
  );
}
