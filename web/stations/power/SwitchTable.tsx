'use client';

import { useMemo } from 'react';
import {
  createNetlist,
  findSetting,
  LINK_STATES,
  listDevicesBehind,
  pushTo,
  setEnabledBy,
  setLinkStates,
  setPosition,
  type Job,
  type LinkSetting,
  type LinkState,
  type NamedLink,
  type SwitchgearLink,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Power.module.css';
import type { PlannedVehicle } from './PowerTree';

const SETTING_WORDS: Record<LinkSetting, string> = { closed: 'closed', open: 'open', momentary: 'while held', unsaid: 'not said' };

const isSwitching = ({ kind }: SwitchgearLink) => kind === 'switch' || kind === 'relay' || kind === 'channel';

/** Every switch, relay and channel of the vehicle, and how it stands in each mode. */
export function SwitchTable({ planned, mode }: { planned: PlannedVehicle; mode: number | null }) {
  const { job, power } = planned;
  const store = useJobStore();
  const shop = useShop();
  const { links, behind } = useMemo(() => {
    const netlist = createNetlist(job, shop, planned.looms);
    return { links: netlist.links.filter(isSwitching), behind: listDevicesBehind(job, netlist) };
  }, [job, shop, planned.looms]);
  const modeIds = mode === null ? power.modeIds : [power.modeIds[mode]!];
  if (links.length === 0)
    return <p className="faint">No switch, relay or channel is on a loom yet: what hangs on the battery is live in every mode.</p>;
  const boxes = new Map<string, SwitchgearLink[]>();
  for (const link of links) pushTo(boxes, job.devices[link.deviceId]!.unit || job.devices[link.deviceId]!.name, link);
  const settingsOf = (of: readonly SwitchgearLink[], id: string) =>
    of.map((link) => findSetting(job, link, id, behind.get(link.id)!).setting);
  const isMixed = (of: readonly SwitchgearLink[], id: string) => new Set(settingsOf(of, id)).size > 1;
  const nameMode = (id: string) => job.modes[id]!.name;
  const set = (of: readonly NamedLink[], ids: readonly string[], state: LinkState | null) => store.edit(setLinkStates(of, ids, state));
  return (
    <FactTable label="Switches by mode" className={`${styles.table} ${styles.switches}`}>
      <thead>
        <tr>
          <th>what switches</th>
          {modeIds.map((id) => (
            <th key={id}>{nameMode(id)}</th>
          ))}
          <th>works only while</th>
        </tr>
      </thead>
      {[...boxes].map(([box, ofBox]) => (
        <tbody key={box}>
          {ofBox.length > 1 && (
            <tr className={styles.source}>
              <td>{box}, all of it</td>
              {modeIds.map((id) => (
                <td key={id}>
                  <StatePick
                    label={`All of ${box} in ${nameMode(id)}`}
                    none={isMixed(ofBox, id) ? 'mixed' : 'not said'}
                    value={findCommon(settingsOf(ofBox, id))}
                    onChange={(state) =>
                      set(
                        ofBox.filter(({ closedIn }) => closedIn.length === 0),
                        [id],
                        state,
                      )
                    }
                  />
                </td>
              ))}
              <td />
            </tr>
          )}
          {ofBox.map((link) => (
            <tr key={link.id}>
              <td>
                <span className={styles.glyph} data-kind={link.kind} /> {link.name}
              </td>
              {modeIds.map((id) => {
                const { setting, by } = findSetting(job, link, id, behind.get(link.id)!);
                const label = `${link.name} in ${nameMode(id)}`;
                return (
                  <td key={id}>
                    {link.closedIn.length > 0 ? (
                      <PositionPick job={job} links={links} link={link} modeId={id} label={label} />
                    ) : (
                      <StatePick
                        label={label}
                        value={by === 'said' ? setting : null}
                        none={by === 'loads' ? `${SETTING_WORDS[setting]}, as its loads` : 'not said'}
                        onChange={(state) => set([link], [id], state)}
                      />
                    )}
                  </td>
                );
              })}
              <td>
                <EnablePick job={job} links={links} link={link} />
              </td>
            </tr>
          ))}
        </tbody>
      ))}
    </FactTable>
  );
}

const findCommon = (settings: readonly LinkSetting[]): LinkSetting | null => (new Set(settings).size === 1 ? settings[0]! : null);

function StatePick({
  label,
  value,
  none = 'not said',
  onChange,
}: {
  label: string;
  value: LinkSetting | null;
  none?: string;
  onChange: (state: LinkState | null) => void;
}) {
  return (
    <Pick
      label={label}
      value={value === 'unsaid' ? null : value}
      none={none}
      options={LINK_STATES.map((state) => ({ value: state, label: SETTING_WORDS[state] }))}
      onChange={onChange}
    />
  );
}

interface LinkIn {
  job: Job;
  links: readonly SwitchgearLink[];
  link: SwitchgearLink;
}

/** The position that its switch is in: all contacts of one device move together. */
function PositionPick({ job, links, link, modeId, label }: LinkIn & { modeId: string; label: string }) {
  const store = useJobStore();
  const { deviceId } = link;
  const device = job.devices[deviceId]!;
  const positions = [...new Set(links.flatMap((one) => (one.deviceId === deviceId ? one.closedIn : [])))];
  const at = Object.hasOwn(device.positions, modeId) ? device.positions[modeId]! : null;
  return (
    <Pick
      label={label}
      value={at}
      none="not said"
      options={[...new Set([...positions, 'none of them', ...(at === null ? [] : [at])])].map((one) => ({
        value: one,
        label: link.closedIn.includes(one) ? `${one}: closed` : `${one}: open`,
      }))}
      onChange={(position) => store.edit(setPosition(deviceId, device.name, modeId, position))}
    />
  );
}

/** What has to give before it works: an interlock, the relay of the controller. */
function EnablePick({ job, links, link }: LinkIn) {
  const store = useJobStore();
  const { enabledBy } = job.devices[link.deviceId]!;
  const by = Object.hasOwn(enabledBy, link.linkId) ? enabledBy[link.linkId]! : null;
  const value = by && `${by.deviceId}.${by.linkId}`;
  const others = links.filter(({ id }) => id !== link.id);
  return (
    <Pick
      label={`What ${link.name} works only with`}
      value={value}
      none={link.coil ? 'its coil is fed' : 'by itself'}
      options={[
        ...others.map(({ id, name }) => ({ value: id, label: `${name} gives` })),
        ...(value !== null && others.every(({ id }) => id !== value) ? [{ value, label: 'what is gone: never' }] : []),
      ]}
      onChange={(id) => {
        const other = others.find((one) => one.id === id);
        store.edit(setEnabledBy(link, other ? { deviceId: other.deviceId, linkId: other.linkId } : null));
      }}
    />
  );
}
