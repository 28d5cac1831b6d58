'use client';

import { useState } from 'react';
import {
  CIRCUIT_KINDS,
  createPinNeed,
  findFamily,
  listCavities,
  listHousings,
  type CircuitKind,
  type End,
  renameEnd,
  setEnd,
  setFamily,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { EvidencePick } from '../../ui/EvidencePick';
import bundle from '../bundle/Bundle.module.css';
import { LengthField } from '../bundle/LengthsTable';
import { listFamilyOptions } from '../bundle/RouteDialogs';
import styles from './Ends.module.css';

/** no id: those have no colon */
const TAIL = ':tail';

const toFamily = (choice: string) => (choice === TAIL ? 'tail' : choice === '' ? null : { id: choice });

/** What is known of an end, to be changed in place. */
export function EndFacts({ planned, endId, onRemove }: { planned: PlannedLoom; endId: string; onRemove: () => void }) {
  const shop = useShop();
  const { loom, loomId, plan, job } = planned;
  const store = useJobStore();
  const end = loom.ends[endId]!;
  const family = findFamily(job, shop, end.familyId);
  const place = { loomId, endId, name: end.name };
  const wired = Object.values(loom.circuits).flatMap(({ terminations }) =>
    terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])),
  );
  const isWired = wired.length > 0;
  const fitting = new Set(listHousings(job, shop, [...new Set([...wired, ...Object.keys(end.pins)])]).map(([id]) => id));
  const cavities = family ? listCavities(family) : [];
  return (
    <table className={styles.facts}>
      <tbody>
        <tr>
          <td>Name</td>
          <td>
            <NameField value={end.name} onChange={(name) => store.edit(renameEnd(place, name))} />
          </td>
        </tr>
        {(end.kind === 'connector' || (end.kind === 'tail' && !isWired)) && (
          <tr>
            <td>Family</td>
            <td>
              <select
                className={bundle.pick}
                aria-label="Family"
                value={end.kind === 'tail' ? TAIL : (end.familyId ?? '')}
                onChange={(event) => store.edit(setFamily(place, toFamily(event.target.value)))}
              >
                {!isWired && <option value={TAIL}>bare tails</option>}
                <option value="">still to be chosen</option>
                {listFamilyOptions(shop, job.families, end.familyId).map(({ value, label }) => (
                  <option
                    key={value}
                    value={value}
                    disabled={!fitting.has(value)}
                    title={fitting.has(value) ? undefined : 'does not have its cavities'}
                  >
                    {label}
                  </option>
                ))}
              </select>
            </td>
          </tr>
        )}
        {family && family.keys.length > 0 && (
          <tr>
            <td>Key</td>
            <td>
              <select
                className={bundle.pick}
                aria-label="Key"
                value={end.key ?? ''}
                onChange={(event) => store.edit(setEnd(place, 'key', event.target.value || null))}
              >
                <option value="">normal</option>
                {family.keys.map((key) => (
                  <option key={key}>{key}</option>
                ))}
              </select>
            </td>
          </tr>
        )}
        {family && (
          <tr>
            <td>Seating, entry depth</td>
            <td>
              {family.seating}, {family.entryDepthMm} mm
            </td>
          </tr>
        )}
        <tr>
          <td>From the datum</td>
          <td className="mono">{Math.round(plan.tree.nodes[end.nodeId]!.distanceMm)} mm</td>
        </tr>
        <tr>
          <td>Service loop, mm</td>
          <td>
            <LengthField
              label="Service loop"
              optional
              value={end.serviceLoopMm || null}
              onChange={(value) => store.edit(setEnd(place, 'serviceLoopMm', value ?? 0))}
            />
          </td>
        </tr>
        {end.kind === 'connector' && (
          <tr>
            <td>Re-terminations</td>
            <td>
              <select
                className={bundle.pick}
                aria-label="Re-terminations"
                value={end.reterminations ?? ''}
                onChange={(event) =>
                  store.edit(setEnd(place, 'reterminations', event.target.value === '' ? null : Number(event.target.value)))
                }
              >
                <option value="">as the shop standard</option>
                {Array.from({ length: 11 }, (_, count) => (
                  <option key={count}>{count}</option>
                ))}
              </select>
            </td>
          </tr>
        )}
        {end.kind === 'connector' && (
          <tr>
            <td>May turn by, ° at mm</td>
            <td>
              <Clocking
                key={JSON.stringify(end.clocking)}
                value={end.clocking}
                onChange={(clocking) => store.edit(setEnd(place, 'clocking', clocking))}
              />
            </td>
          </tr>
        )}
        {family && (
          <tr>
            <td>The device needs</td>
            <td>
              <PinNeeds end={end} cavities={cavities} onChange={(pins) => store.edit(setEnd(place, 'pins', pins))} />
            </td>
          </tr>
        )}
        <tr>
          <td />
          <td>
            <button
              className={bundle.link}
              onClick={onRemove}
              title="Its leg goes with it, and every circuit loses its pins there. Undo brings it back."
            >
              remove this end
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** Angle and radius of a turn; kept when both are given, none when the angle is cleared. Neither is guessed. */
function Clocking({ value, onChange }: { value: End['clocking']; onChange: (value: End['clocking']) => void }) {
  const [angleDeg, setAngle] = useState(value?.angleDeg ?? null);
  const [radiusMm, setRadius] = useState(value?.radiusMm ?? null);
  const keep = (angle: number | null, radius: number | null) => {
    setAngle(angle);
    setRadius(radius);
    if (angle !== null && radius !== null) onChange({ angleDeg: Math.min(360, angle), radiusMm: Math.min(1000, radius) });
    else if (value !== null && angle === null) onChange(null);
  };
  return (
    <>
      <LengthField label="Turn angle" optional value={angleDeg} onChange={(next) => keep(next, radiusMm)} /> at{' '}
      <LengthField label="Turn radius" optional value={radiusMm} onChange={(next) => keep(angleDeg, next)} />
    </>
  );
}

function NameField({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  const [text, setText] = useState<string | null>(null);
  const keep = () => {
    if (text !== null && text.trim() !== '' && text.trim() !== value) onChange(text.trim());
    setText(null);
  };
  return (
    <input
      className={bundle.field}
      style={{ width: 200 }}
      aria-label="Name of the end"
      maxLength={80}
      value={text ?? value}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
    />
  );
}

/** What the device wants at each cavity; a required one that no circuit reaches is a finding. */
function PinNeeds({ end, cavities, onChange }: { end: End; cavities: readonly string[]; onChange: (pins: End['pins']) => void }) {
  const free = cavities.filter((cavity) => !Object.hasOwn(end.pins, cavity));
  const without = (cavity: string) => Object.fromEntries(Object.entries(end.pins).filter(([id]) => id !== cavity));
  return (
    <div style={{ display: 'grid', justifyItems: 'end' }}>
      {Object.entries(end.pins).map(([cavity, pin]) => (
        <span key={cavity}>
          <b className="mono">{cavity}</b>{' '}
          <select
            className={bundle.pick}
            aria-label={`Need at cavity ${cavity}`}
            value={pin.kind}
            onChange={(event) =>
              onChange({ ...end.pins, [cavity]: { ...pin, kind: event.target.value as CircuitKind, function: event.target.value } })
            }
          >
            {CIRCUIT_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {kind === pin.kind ? pin.function : kind}
              </option>
            ))}
          </select>
          <EvidencePick
            className={bundle.pick}
            label={`Evidence at cavity ${cavity}`}
            value={pin.evidence}
            none="evidence?"
            onChange={(evidence) => onChange({ ...end.pins, [cavity]: { ...pin, evidence } })}
          />
          <button className={bundle.link} aria-label={`Forget the need at cavity ${cavity}`} onClick={() => onChange(without(cavity))}>
            ×
          </button>
        </span>
      ))}
      {free.length > 0 && (
        <select
          className={bundle.pick}
          aria-label="Add a need"
          value=""
          onChange={(event) => onChange({ ...end.pins, [event.target.value]: createPinNeed('signal', 'signal') })}
        >
          <option value="">add at cavity …</option>
          {free.map((cavity) => (
            <option key={cavity}>{cavity}</option>
          ))}
        </select>
      )}
    </div>
  );
}
