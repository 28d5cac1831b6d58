import { LINK_KINDS, type DeviceTemplate, type LinkKind, type TemplateLink } from 'wattograph-core';
import { toNumber } from '../toNumber';
import styles from './Template.module.css';

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
    <select className={styles.pick} aria-label={label} value={value} onChange={(event) => onPick(event.target.value)}>
      {(empty !== null || !from.includes(value)) && <option value={from.includes(value) ? '' : value}>{empty ?? value}</option>}
      {from.map((pin) => (
        <option key={pin}>{pin}</option>
      ))}
    </select>
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
        },
      ],
    ]);
  };
  return (
    <>
      {links.length > 0 && (
        <table className={styles.pinTable} aria-label="What joins its pins inside">
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
              <th />
            </tr>
          </thead>
          <tbody>
            {links.map(([id, link], index) => (
              <tr key={id}>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Kind of link ${index + 1}`}
                    value={link.kind}
                    onChange={(event) => {
                      const kind = event.target.value as LinkKind;
                      change(index, { kind, coil: kind === 'relay' ? link.coil : null });
                    }}
                  >
                    {LINK_KINDS.map((kind) => (
                      <option key={kind}>{kind}</option>
                    ))}
                  </select>
                </td>
                <td>
                  <input
                    className={styles.field}
                    aria-label={`Name of link ${index + 1}`}
                    value={link.name}
                    maxLength={80}
                    onChange={(event) => change(index, { name: event.target.value })}
                  />
                </td>
                <td>
                  {link.a.part === null ? (
                    pick(`Supply side of link ${index + 1}`, link.a.cavity, pins, (cavity) => change(index, { a: { part: null, cavity } }))
                  ) : (
                    <input
                      className={styles.small}
                      aria-label={`Supply side of link ${index + 1}`}
                      value={link.a.cavity}
                      onChange={(event) => change(index, { a: { ...link.a, cavity: event.target.value } })}
                    />
                  )}
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Plug of the supply side of link ${index + 1}`}
                    value={link.a.part ?? ''}
                    onChange={(event) => change(index, { a: { ...link.a, part: event.target.value || null } })}
                  >
                    <option value="">this one</option>
                    {Object.entries(others).map(([value, { name }]) => (
                      <option key={value} value={value}>
                        {name}
                      </option>
                    ))}
                  </select>
                </td>
                <td>
                  {pick(`Load side of link ${index + 1}`, link.b.cavity, pins, (cavity) => change(index, { b: { part: null, cavity } }))}
                </td>
                <td>
                  <input
                    className={styles.small}
                    aria-label={`Most amperes of link ${index + 1}`}
                    defaultValue={String(link.maxA ?? '')}
                    onChange={(event) => change(index, { maxA: toNumber(event.target.value) })}
                  />
                </td>
                <td>
                  {link.kind !== 'fuse' && link.kind !== 'bar' && (
                    <input
                      className={styles.small}
                      aria-label={`Amperes for a moment of link ${index + 1}`}
                      defaultValue={String(link.peakA ?? '')}
                      onChange={(event) => change(index, { peakA: toNumber(event.target.value) })}
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
                  <button
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
        </table>
      )}
      <button className={styles.link} disabled={pins.length < 2} onClick={add}>
        another fuse, relay, switch or channel
      </button>
    </>
  );
}
