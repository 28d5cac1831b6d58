import { LINK_KINDS, type DeviceTemplate, type TemplateLink } from 'wattograph-core';
import { NumberField } from '../fields/NumberField';
import { Pick } from '../fields/Pick';
import { TextField, Words } from '../fields/TextField';
import { FactTable } from '../table/FactTable';
import styles from './Template.module.css';

const toPositions = (words: string): string[] => [
  ...new Set(
    words
      .split(',')
      .map((one) => one.trim())
      .filter((one) => one !== ''),
  ),
];

/** What joins pins inside a box: fuses, channels, relay contacts with their coils, switches, bars. */
export function LinkRows({
  links,
  pins,
  others,
  onChange,
}: {
  links: readonly [string, TemplateLink][];
  pins: readonly string[];
  /** other kinds of device: plugs of the same unit may be among them */
  others: Readonly<Record<string, DeviceTemplate>>;
  onChange: (links: [string, TemplateLink][]) => void;
}) {
  const change = (index: number, part: Partial<TemplateLink>) =>
    onChange(links.map(([id, link], at) => [id, at === index ? { ...link, ...part } : link]));
  const pick = (label: string, value: string, from: readonly string[], onPick: (pin: string) => void, empty: string | null = null) => (
    <Pick
      label={label}
      value={value || null}
      none={empty ?? undefined}
      // a pin that is no longer there stays to be seen
      options={from.includes(value) || value === '' ? from : [value, ...from]}
      onChange={(pin) => onPick(pin ?? '')}
    />
  );
  const add = () => {
    const nth = links.length + 1;
    const id = Array.from({ length: nth }, (_, index) => `l${index + 1}`).find((one) => links.every(([other]) => other !== one))!;
    const side = (cavity: string) => ({ part: null, cavity });
    onChange([
      ...links,
      [
        id,
        {
          name: `fuse ${nth}`,
          kind: 'fuse',
          a: side(pins[0] ?? '1'),
          b: side(pins[nth] ?? pins.at(-1) ?? '2'),
          maxA: null,
          peakA: null,
          coil: null,
          closedIn: [],
        },
      ],
    ]);
  };
  return (
    <>
      {links.length > 0 && (
        <FactTable label="What joins its pins inside">
          <thead>
            <tr>
              <th>kind</th>
              <th>name</th>
              <th>supply side</th>
              <th>on the plug</th>
              <th>load side</th>
              <th className={styles.num}>most A</th>
              <th className={styles.num} title="for a moment, as things are switched on; empty: three times the most of a contact">
                for a moment A
              </th>
              <th>coil feed</th>
              <th>coil switch</th>
              <th title="of a switch of several throws: positions in which this contact is closed, with commas between">closed in</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {links.map(([id, link], index) => (
              <tr key={id}>
                <td>
                  <Pick
                    label={`Kind of link ${index + 1}`}
                    value={link.kind}
                    options={LINK_KINDS}
                    onChange={(kind) =>
                      kind &&
                      change(index, { kind, coil: kind === 'relay' ? link.coil : null, closedIn: kind === 'switch' ? link.closedIn : [] })
                    }
                  />
                </td>
                <td>
                  <Words
                    label={`Name of link ${index + 1}`}
                    value={link.name}
                    most={80}
                    onChange={(value) => change(index, { name: value })}
                  />
                </td>
                <td>
                  {link.a.part === null ? (
                    pick(`Supply side of link ${index + 1}`, link.a.cavity, pins, (cavity) => change(index, { a: { part: null, cavity } }))
                  ) : (
                    <Words
                      label={`Supply side of link ${index + 1}`}
                      isShort
                      value={link.a.cavity}
                      most={80}
                      onChange={(value) => change(index, { a: { ...link.a, cavity: value } })}
                    />
                  )}
                </td>
                <td>
                  <Pick
                    label={`Plug of the supply side of link ${index + 1}`}
                    value={link.a.part}
                    none="this one"
                    options={Object.entries(others).map(([value, { name }]) => ({ value, label: name }))}
                    onChange={(part) => change(index, { a: { ...link.a, part } })}
                  />
                </td>
                <td>
                  {pick(`Load side of link ${index + 1}`, link.b.cavity, pins, (cavity) => change(index, { b: { part: null, cavity } }))}
                </td>
                <td>
                  <NumberField
                    label={`Most amperes of link ${index + 1}`}
                    value={link.maxA}
                    unit="A"
                    least={0}
                    most={1000}
                    canBeEmpty
                    onChange={(maxA) => change(index, { maxA })}
                  />
                </td>
                <td>
                  {link.kind !== 'fuse' && link.kind !== 'bar' && (
                    <NumberField
                      label={`Amperes for a moment of link ${index + 1}`}
                      value={link.peakA}
                      unit="A"
                      least={0}
                      most={5000}
                      canBeEmpty
                      onChange={(peakA) => change(index, { peakA })}
                    />
                  )}
                </td>
                {(['feed', 'switch'] as const).map((key) => (
                  <td key={key}>
                    {link.kind === 'relay' &&
                      pick(
                        `Coil ${key} of link ${index + 1}`,
                        link.coil?.[key] ?? '',
                        pins,
                        (pin) => change(index, { coil: pin === '' ? null : { feed: pin, switch: pin, ...link.coil, [key]: pin } }),
                        'worked inside',
                      )}
                  </td>
                ))}
                <td>
                  {link.kind === 'switch' && (
                    <TextField
                      label={`Positions in which link ${index + 1} is closed`}
                      value={link.closedIn.join(', ')}
                      most={200}
                      onChange={(words) => change(index, { closedIn: toPositions(words) })}
                    />
                  )}
                </td>
                <td>
                  <button
                    type="button"
                    className={styles.link}
                    aria-label={`Take link ${index + 1} out`}
                    onClick={() => onChange(links.filter((_, at) => at !== index))}
                  >
                    ×
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </FactTable>
      )}
      <button type="button" className={styles.link} disabled={pins.length < 2} onClick={add}>
        another fuse, relay, switch or channel
      </button>
    </>
  );
}
