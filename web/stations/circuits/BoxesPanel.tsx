import { findStandard, listBuses, type Bus, type Finding, type Job, type LoomPlan, type PowerPlan, listBoxUse } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { FindingLines } from '../../ui/findings/FindingLine';
import { NextAction } from '../../ui/NextAction';
import controls from '../../ui/controls.module.css';
import styles from './Circuits.module.css';

const OF_BOXES = /^CI(4|5|8|9|10|11|12|13|14|15)$/;

/** Rails against their limit, sensor grounds by noise, the bus, and what each box has left. */
export function BoxesPanel({
  planned,
  findings,
}: {
  planned: { job: Job; power: PowerPlan; looms: LoomPlan[] };
  findings: readonly Finding[];
}) {
  const shop = useShop();
  const { job, power } = planned;
  const standard = findStandard(job, shop);
  const boxes = listBoxUse(job, power);
  const about = findings.filter(({ code }) => OF_BOXES.test(code));
  if (boxes.length === 0)
    return (
      <NextAction
        words="What each box has left: channels, outputs, 5 V rails, sensor grounds. There is no controller, module, fuse box or ground stud yet: add them in Brief under “boxes” or “power”, and put them on an end."
        at="brief?tab=devices"
        action="Add a box in Brief"
      />
    );
  return (
    <div className={controls.facts}>
      <FindingLines findings={about} />
      {boxes.map(({ name, pins, used, rails, grounds }) => {
        return (
          <section key={name} aria-label={name}>
            <h2>
              {name}{' '}
              <span className="faint">
                {used} of {pins} pins used
              </span>
            </h2>
            {rails.map(({ group, usedA, limitA }) => (
              <Bar
                key={group}
                label={`5 V rail ${group}`}
                value={usedA}
                limit={limitA}
                mark={standard.railShare}
                words={`${Math.round(usedA * 1000)} of ${Math.round(limitA * 1000)} mA`}
              />
            ))}
            {grounds.map((one) => (
              <p key={`${one.name}`} className={styles.group}>
                <b>{one.name}</b> <span className={one.groups.length > 1 ? controls.alarm : 'faint'}>{one.groups.join(' + ')}</span>:{' '}
                {one.devices.join(', ')}
              </p>
            ))}
          </section>
        );
      })}
      {listBuses(job, planned).map((bus) => (
        <BusLine key={`${bus.host.loomId}/${bus.host.endId}/${bus.host.cavity}`} bus={bus} job={job} mostMm={standard.canStubMm} />
      ))}
    </div>
  );
}

/** A bus: who is on it, what ends it, what a meter reads across it, and its longest stub. */
function BusLine({ bus: { host, nodes, terminators, ohms, stubs, pitchMm }, job, mostMm }: { bus: Bus; job: Job; mostMm: number }) {
  const { name, offers } = job.looms[host.loomId]!.ends[host.endId]!;
  const offer = offers[host.cavity]!;
  const longest = stubs.reduce<Bus['stubs'][number] | null>((most, one) => (most && most.lengthMm >= one.lengthMm ? most : one), null);
  return (
    <section aria-label={`CAN ${offer.group ?? offer.name}`}>
      <h2>
        CAN {offer.group ?? offer.name}{' '}
        <span className="faint">
          at {name} {host.cavity}
        </span>
      </h2>
      <p className={styles.group}>
        <b>on it</b> {nodes.join(', ')}
      </p>
      <p className={`${styles.group} ${terminators.length === 2 ? '' : controls.alarm}`}>
        <b>ended</b> {terminators.length === 0 ? 'nowhere' : `at ${terminators.join(' and ')}`}
        {ohms !== null && `: ${Number(ohms.toFixed(0))} Ω across the pair with the power off`}
      </p>
      <p className={styles.group}>
        <b>twisted</b> {pitchMm === null ? 'not all the way' : `one turn every ${pitchMm} mm or closer`}
        {longest && (
          <>
            ; longest stub{' '}
            <span className={longest.lengthMm > mostMm ? controls.alarm : ''}>
              {Math.round(longest.lengthMm)} of {mostMm} mm ({longest.number})
            </span>
          </>
        )}
      </p>
    </section>
  );
}

/** A load against a limit; the tick is where the shop stops. */
export function Bar({ label, value, limit, mark, words }: { label: string; value: number; limit: number; mark: number; words: string }) {
  const share = limit > 0 ? value / limit : 0;
  return (
    <div className={styles.meter}>
      <span>{label}</span>
      <span
        className={controls.track}
        role="meter"
        aria-label={label}
        aria-valuenow={Math.round(share * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
      >
        <span className={controls.fill} data-over={share > mark + 1e-9} style={{ width: `${Math.min(100, share * 100)}%` }} />
        <span className={styles.tick} style={{ left: `${mark * 100}%` }} />
      </span>
      <span className="mono">{words}</span>
    </div>
  );
}
