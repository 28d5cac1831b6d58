import { Table } from '@mantine/core';
import { memo } from 'react';
import {
  toSizeWords,
  type Job,
  type LoomPlan,
  type PinPlace,
  type PlannedLoad,
  type PlannedProtection,
  type PlannedWire,
  type PowerPlan,
  findInMode,
} from 'wattograph-core';
import { Why } from '../../ui/Why';
import controls from '../../ui/controls.module.css';
import styles from './Power.module.css';

interface Branch {
  protection: PlannedProtection | null;
  loads: PlannedLoad[];
  branches: Branch[];
}

/** The links and loads as they hang on each other, the battery first; loads that a controller feeds by itself come last. */
function listBranches(power: PowerPlan): {
  roots: Branch[];
  direct: PlannedLoad[];
  fedByBox: PlannedLoad[];
  outside: PlannedLoad[];
  unfed: PlannedLoad[];
} {
  const byId = new Map(power.protections.map((one) => [one.id, one]));
  const branches = new Map<string, Branch>();
  const roots: Branch[] = [];
  const direct: PlannedLoad[] = [];
  const fedByBox: PlannedLoad[] = [];
  const outside: PlannedLoad[] = [];
  const unfed: PlannedLoad[] = [];
  for (const load of power.loads) {
    let above: Branch | null = null;
    for (const id of load.linkIds) {
      let branch = branches.get(id);
      if (!branch) {
        branch = { protection: byId.get(id)!, loads: [], branches: [] };
        branches.set(id, branch);
        (above ? above.branches : roots).push(branch);
      }
      above = branch;
    }
    if (load.steps.length === 0) unfed.push(load);
    else if (above) above.loads.push(load);
    else if (load.isOutside) outside.push(load);
    else (load.faultA === null ? fedByBox : direct).push(load);
  }
  return { roots, direct, fedByBox, outside, unfed };
}

/** Loads at an end, and those that a box there feeds. */
function listLoadsAt({ loads, protections }: PowerPlan, job: Job, { loomId, endId }: { loomId: string; endId: string }): PlannedLoad[] {
  const device = Object.entries(job.devices).find(([, { at }]) => at?.loomId === loomId && at.endId === endId);
  const unit = device?.[1].unit;
  const isFrom = (linkId: string) => {
    const { deviceId } = protections.find(({ id }) => id === linkId)!;
    return deviceId === device?.[0] || (unit ? job.devices[deviceId]?.unit === unit : false);
  };
  return loads.filter(({ pin, linkIds }) => (pin.loomId === loomId && pin.endId === endId) || linkIds.some(isFrom));
}

/** A vehicle as it is planned now. */
export interface PlannedVehicle {
  job: Job;
  power: PowerPlan;
  looms: LoomPlan[];
}

/** Battery to load as a tree: rating, current, wire and rule, drop against budget. */
export const PowerTree = memo(function PowerTree({
  planned: { job, power, looms },
  only,
  mode,
  chosen,
  onPick,
}: {
  planned: PlannedVehicle;
  /** an end whose loads alone are shown, with what feeds them, or what hangs on it where it is a box; null: all */
  only: { loomId: string; endId: string } | null;
  mode: number | null;
  chosen: string;
  onPick: (load: PlannedLoad) => void;
}) {
  const loads = only ? listLoadsAt(power, job, only) : power.loads;
  const { roots, direct, fedByBox, outside, unfed } = listBranches({ ...power, loads });
  const row = (load: PlannedLoad, depth: number) => (
    <LoadRow key={load.id} load={load} depth={depth} mode={mode} looms={looms} isChosen={load.id === chosen} onPick={onPick} />
  );
  const branch = (one: Branch, depth: number): React.ReactNode => {
    return [
      <LinkRow key={one.protection!.id} one={one.protection!} depth={depth} mode={mode} job={job} />,
      ...one.loads.map((load) => row(load, depth + 1)),
      ...one.branches.map((below) => branch(below, depth + 1)),
    ];
  };
  return (
    <Table unstyled className={styles.table}>
      <thead>
        <tr>
          <th>from the battery on</th>
          <th className={styles.num}>A while on</th>
          <th>protected by</th>
          <th>its wire, ruled by</th>
          <th>drop / its budget</th>
        </tr>
      </thead>
      <tbody>
        {(roots.length > 0 || direct.length > 0) && (
          <tr className={styles.source}>
            <td colSpan={5}>battery, {job.source.volts} V</td>
          </tr>
        )}
        {direct.map((load) => row(load, 1))}
        {roots.map((one) => branch(one, 1))}
        {fedByBox.length > 0 && (
          <tr className={styles.source}>
            <td colSpan={5}>fed by a controller or module itself</td>
          </tr>
        )}
        {fedByBox.map((load) => row(load, 1))}
        {outside.length > 0 && (
          <tr className={styles.source}>
            <td colSpan={5}>fed through a plug from outside this job: what has to protect it, and figures from there on</td>
          </tr>
        )}
        {power.outside
          .map((one) => ({ one, behind: outside.filter(({ id }) => one.loadIds.includes(id)) }))
          .filter(({ behind }) => behind.length > 0)
          .map(({ one, behind }) => [
            <LinkRow key={one.id} one={one} depth={1} mode={mode} job={job} />,
            ...behind.map((load) => row(load, 2)),
          ])}
        {unfed.length > 0 && (
          <tr className={styles.source}>
            <td colSpan={5} className={controls.alarm}>
              fed by nothing
            </td>
          </tr>
        )}
        {unfed.map((load) => row(load, 1))}
        {loads.length === 0 && only && (
          <tr>
            <td colSpan={5}>Nothing at {job.looms[only.loomId]!.ends[only.endId]!.name} draws or feeds a current.</td>
          </tr>
        )}
      </tbody>
    </Table>
  );
});

const WORDS = { fuse: 'fuse', channel: 'channel', relay: 'relay', switch: 'switch', bar: 'bar' } as const;
const toPinWords = (job: Job, { loomId, endId, cavity }: PinPlace) => `${job.looms[loomId]!.ends[endId]!.name} ${cavity}`;
const toA = (value: number) => value.toFixed(value < 0.1 ? 3 : value < 10 ? 2 : 1);

function LinkRow({ one, depth, mode, job }: { one: PlannedProtection; depth: number; mode: number | null; job: Job }) {
  const isBad = one.problems.length > 0;
  return (
    <tr className={styles.link}>
      <td style={{ paddingLeft: depth * 9 }}>
        <span className={styles.glyph} data-kind={one.kind} aria-hidden /> {one.name}
      </td>
      <td className={styles.num}>{toA(findInMode(one.onA, mode))}</td>
      <td className={isBad ? controls.alarm : ''}>
        {one.ratingA === null ? (
          one.kind === 'fuse' || one.kind === 'channel' ? (
            <Why because={one.because}>nothing fits</Why>
          ) : (
            <>
              {WORDS[one.kind]}
              {one.coil &&
                (one.coil.by ? `, coil by ${toPinWords(job, one.coil.by)}` : <b className={controls.alarm}>, coil by nothing</b>)}
            </>
          )
        ) : (
          <Why
            because={
              <>
                {one.because}
                <br />
                {one.pinned ? 'chosen by hand' : 'computed'}
                {one.weakest && (
                  <>
                    <br />
                    the weakest wire behind it bears {one.weakest.steadyA.toFixed(1)} A in its bundle
                  </>
                )}
                {one.leastFaultA !== null && (
                  <>
                    <br />a short at the far end draws {one.leastFaultA.toFixed(0)} A
                  </>
                )}
                <br />
                {job.zones[job.devices[one.deviceId]?.zoneId ?? '']?.name ?? 'zone not known'}, {one.ambientC} °C
                {one.inrushA > 0 && (
                  <>
                    <br />
                    {one.inrushA.toFixed(0)} A for {one.inrushMs.toFixed(0)} ms as what it feeds is switched on
                  </>
                )}
              </>
            }
          >
            {one.kind === 'channel' ? 'set to ' : ''}
            {one.ratingA} A{one.kind === 'fuse' ? ' fuse' : ''}
            {one.pinned ? ' (pinned)' : ''}
          </Why>
        )}
      </td>
      <td />
      <td />
    </tr>
  );
}

function LoadRow({
  load,
  depth,
  mode,
  looms,
  isChosen,
  onPick,
}: {
  load: PlannedLoad;
  depth: number;
  mode: number | null;
  looms: readonly LoomPlan[];
  isChosen: boolean;
  onPick: (load: PlannedLoad) => void;
}) {
  const ways = listWires(load, looms);
  // the wire at its own pin; what it shares with others is in the why
  const own = ways.filter(({ way }) => way === 'out').at(-1);
  const isOff = mode !== null && load.onA[mode] === 0;
  const dropV = mode === null ? load.dropV : load.dropByModeV[mode]!;
  const share = load.budgetV > 0 ? dropV / load.budgetV : 0;
  return (
    <tr className={styles.load} aria-selected={isChosen} onClick={() => onPick(load)}>
      <td style={{ paddingLeft: depth * 9 }}>
        <button className={styles.name}>{load.name}</button>
      </td>
      <td className={styles.num}>{toA(findInMode(load.onA, mode))}</td>
      <td className="faint">{load.load ?? 'load not given'}</td>
      <td>
        {own && (
          <Why because={<WhyWire own={own} ways={ways} />}>
            {toSizeWords(own.wire.conductor)}, {own.wire.ruledBy}
          </Why>
        )}
      </td>
      <td>
        {isOff && <span className="faint">off in this mode</span>}
        {!isOff && load.steps.length > 0 && (
          <span className={styles.drop}>
            <span
              className={controls.track}
              role="meter"
              aria-label={`${load.name}: drop`}
              aria-valuenow={Math.round(share * 100)}
              aria-valuemin={0}
              aria-valuemax={100}
            >
              <span className={controls.fill} data-over={share > 1.0005} style={{ width: `${Math.min(100, share * 100)}%` }} />
            </span>
            <span className={`${styles.figures} ${share > 1.0005 ? controls.alarm : ''}`}>
              {dropV.toFixed(2)} / {load.budgetV.toFixed(2)} V
            </span>
          </span>
        )}
      </td>
    </tr>
  );
}

interface WireOnWay {
  wire: PlannedWire;
  way: 'out' | 'back';
  dropV: number;
}

/** Wires that count for a load, out and back. */
const listWires = ({ steps }: PlannedLoad, looms: readonly LoomPlan[]): WireOnWay[] =>
  steps.flatMap(({ wireId, loomId, counts, way, dropV }): WireOnWay[] => {
    if (wireId === null || !counts) return [];
    const wire = looms.find((one) => one.loomId === loomId)?.wires.find(({ id }) => id === wireId);
    return wire ? [{ wire, way, dropV }] : [];
  });

function WhyWire({ own, ways }: { own: WireOnWay; ways: readonly WireOnWay[] }) {
  return (
    <>
      {own.wire.number}: {own.wire.because}.
      {ways.length > 1 && (
        <Table unstyled>
          <tbody>
            {ways.map(({ wire, way, dropV }) => (
              <tr key={wire.id}>
                <td className="faint">{way}</td>
                <td className="mono">{wire.number}</td>
                <td>
                  {toSizeWords(wire.conductor)}, {wire.ruledBy}
                </td>
                <td className="mono" style={{ textAlign: 'right', paddingLeft: 12 }}>
                  {(dropV * 1000).toFixed(0)} mV
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}
