import { useEffect, useRef } from 'react';
import { toColourWords, toCount, type LeavingGroup, type PlannedWire } from 'wattograph-core';
import { Swatch } from '../Swatch';
import styles from './SectionPanel.module.css';

/** Which circle is which wire, by where they leave. Pointing at one marks it in the picture; choosing it shows the wire on the strip. */
export function SectionKey({
  groups,
  serial,
  wires,
  over,
  onOver,
  onChoose,
}: {
  groups: readonly LeavingGroup[];
  serial: ReadonlyMap<string, number>;
  wires: ReadonlyMap<string, PlannedWire>;
  over: string | null;
  onOver: (wireId: string | null) => void;
  onChoose: (wireId: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // what is pointed at in the picture is brought into view here; what is pointed at here is in view
    if (over !== null && !box.current?.matches(':hover'))
      box.current?.querySelector(`[data-wire="${over}"]`)?.scrollIntoView?.({ block: 'nearest' });
  }, [over]);
  return (
    <div ref={box} className={styles.key}>
      {joinSplices(groups).map(({ name, kind, distanceMm, wireIds }) => (
        <section key={`${kind} ${name}`} aria-label={`${toCount(wireIds.length, 'wire')} to ${name}`}>
          <h3>
            {kind === 'splice' ? `${name.includes(',') ? 'splices' : 'splice'} ${name}` : name}{' '}
            <span className="mono faint">{Math.round(distanceMm)}</span>
          </h3>
          <div>
            {wireIds.map((id) => {
              const { colour, number } = wires.get(id)!;
              return (
                <button
                  type="button"
                  key={id}
                  data-wire={id}
                  data-on={over === id}
                  title={`${number}, ${toColourWords(colour)}: show it on the strip`}
                  onPointerEnter={() => onOver(id)}
                  onPointerLeave={() => onOver(null)}
                  onFocus={() => onOver(id)}
                  onBlur={() => onOver(null)}
                  onClick={() => onChoose(id)}
                >
                  <span className={styles.serial}>{serial.get(id)}</span>
                  <Swatch colour={colour} words={false} />
                  {number}
                </button>
              );
            })}
          </div>
        </section>
      ))}
    </div>
  );
}

/** Splices that follow each other with no breakout between share a group, up to the last of them. */
function joinSplices(groups: readonly LeavingGroup[]): LeavingGroup[] {
  const joined: LeavingGroup[] = [];
  for (const group of groups) {
    const last = joined.at(-1);
    if (group.kind === 'splice' && last?.kind === 'splice')
      joined[joined.length - 1] = { ...group, name: `${last.name}, ${group.name}`, wireIds: [...last.wireIds, ...group.wireIds] };
    else joined.push(group);
  }
  return joined;
}
