'use client';

import { Checkbox } from '@mantine/core';
import { useState } from 'react';
import {
  CAUTION_LABEL_WORDS,
  CAUTION_LABELS,
  CIRCUIT_KINDS,
  createPinNeed,
  findFamily,
  listCavities,
  listHousings,
  type End,
  renameEnd,
  setEnd,
  setFamily,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { PinEvidence } from '../../ui/fields/PinEvidence';
import bundle from '../bundle/Bundle.module.css';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import { TextField } from '../../ui/fields/TextField';
import { LengthField } from '../../ui/fields/LengthField';
import { listTongues } from '../bundle/listTongues';
import { listFamilyOptions } from '../bundle/RouteDialogs';
import { FactTable } from '../../ui/table/FactTable';
import { PottingFacts } from './PottingFacts';
import styles from './Ends.module.css';

/** no id: those have no colon */
const TAIL = ':tail';

const toFamily = (choice: string | null) => (choice === TAIL ? 'tail' : choice === null ? null : { id: choice });

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
    <FactTable label="Facts of the end" className={styles.facts}>
      <tbody>
        <tr>
          <td>Name</td>
          <td>
            <TextField
              label="Name of the end"
              value={end.name}
              most={80}
              required
              onChange={(name) => store.edit(renameEnd(place, name))}
            />
          </td>
        </tr>
        {(end.kind === 'connector' || (end.kind === 'tail' && !isWired)) && (
          <tr>
            <td>Family</td>
            <td>
              <Pick
                label="Family"
                value={end.kind === 'tail' ? TAIL : end.familyId}
                none="still to be chosen"
                options={[
                  ...(isWired ? [] : [{ value: TAIL, label: 'bare tails' }]),
                  ...listFamilyOptions(shop, job.families, end.familyId).map((one) => ({
                    ...one,
                    label: fitting.has(one.value) ? one.label : `${one.label}: does not have its cavities`,
                    disabled: !fitting.has(one.value),
                  })),
                ]}
                onChange={(choice) => store.edit(setFamily(place, toFamily(choice)))}
              />
            </td>
          </tr>
        )}
        {family && family.keys.length > 0 && (
          <tr>
            <td>Key</td>
            <td>
              <Pick
                label="Key"
                value={end.key}
                none="normal"
                options={family.keys}
                onChange={(key) => store.edit(setEnd(place, 'key', key))}
              />
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
        {end.kind === 'blade' && (
          <tr>
            <td>Tongues, mm</td>
            <td>
              <Pick
                label="Width of the tongues"
                value={String(end.tongueMm)}
                options={listTongues(shop, end.tongueMm)}
                onChange={(mm) => store.edit(setEnd(place, 'tongueMm', Number(mm)))}
              />
            </td>
          </tr>
        )}
        {end.kind === 'ring' && (
          <tr>
            <td>Free thread, mm</td>
            <td>
              <LengthField
                label="Free thread of the stud"
                optional
                value={end.threadMm}
                onChange={(mm) => store.edit(setEnd(place, 'threadMm', mm))}
              />
            </td>
          </tr>
        )}
        {end.kind === 'connector' && (
          <tr>
            <td>Re-terminations</td>
            <td>
              <Pick
                label="Re-terminations"
                value={end.reterminations === null ? null : String(end.reterminations)}
                none="as the shop standard"
                options={Array.from({ length: 11 }, (_, count) => String(count))}
                onChange={(count) => store.edit(setEnd(place, 'reterminations', count === null ? null : Number(count)))}
              />
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
        {end.kind !== 'tail' && (end.pinAt === 'vehicle' || plan.feeds.some(({ pieces }) => pieces.some(({ id }) => id === endId))) && (
          <tr>
            <td>{end.kind === 'ring' ? 'Rings are crimped' : 'Contacts go in'}</td>
            <td>
              <Pick
                label={end.kind === 'ring' ? 'Where its rings are crimped' : 'Where its contacts go in'}
                value={end.pinAt}
                options={[
                  { value: 'bench', label: 'on the bench' },
                  { value: 'vehicle', label: 'in the vehicle, behind its holes' },
                ]}
                onChange={(pinAt) => pinAt && store.edit(setEnd(place, 'pinAt', pinAt as End['pinAt']))}
              />
            </td>
          </tr>
        )}
        <tr>
          <td>Labels of warning</td>
          <td>
            {CAUTION_LABELS.map((one) => (
              <Checkbox
                key={one}
                labelPosition="left"
                className={styles.caution!}
                label={CAUTION_LABEL_WORDS[one]}
                checked={end.cautions.includes(one)}
                onChange={({ currentTarget: { checked } }) => {
                  const next = CAUTION_LABELS.filter((other) => (other === one ? checked : end.cautions.includes(other)));
                  store.edit(setEnd(place, 'cautions', next));
                }}
              />
            ))}
          </td>
        </tr>
        {family && (
          <tr>
            <td>Potted</td>
            <td>
              <PottingFacts key={endId} planned={planned} endId={endId} />
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
    </FactTable>
  );
}

/** Angle and radius of a turn; kept when both are given, none when the angle is cleared. Neither is guessed. */
function Clocking({ value, onChange }: { value: End['clocking']; onChange: (value: End['clocking']) => void }) {
  const [angleDeg, setAngle] = useState(value?.angleDeg ?? null);
  const [radiusMm, setRadius] = useState(value?.radiusMm ?? null);
  const keep = (angle: number | null, radius: number | null) => {
    setAngle(angle);
    setRadius(radius);
    if (angle !== null && radius !== null) onChange({ angleDeg: angle, radiusMm: radius });
    else if (value !== null && angle === null) onChange(null);
  };
  return (
    <>
      <NumberField label="Turn angle" value={angleDeg} unit="°" least={0} most={360} canBeEmpty onChange={(next) => keep(next, radiusMm)} />{' '}
      at{' '}
      <NumberField
        label="Turn radius"
        value={radiusMm}
        unit="mm"
        least={0.1}
        most={1000}
        canBeEmpty
        onChange={(next) => keep(angleDeg, next)}
      />
    </>
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
          <Pick
            label={`Need at cavity ${cavity}`}
            value={pin.kind}
            options={CIRCUIT_KINDS.map((kind) => ({ value: kind, label: kind === pin.kind ? pin.function : kind }))}
            onChange={(kind) => kind && onChange({ ...end.pins, [cavity]: { ...pin, kind, function: kind } })}
          />
          <PinEvidence
            label={`Evidence at cavity ${cavity}`}
            pin={pin}
            none="evidence?"
            onChange={(part) => onChange({ ...end.pins, [cavity]: { ...pin, ...part } })}
          />
          <button className={bundle.link} aria-label={`Forget the need at cavity ${cavity}`} onClick={() => onChange(without(cavity))}>
            ×
          </button>
        </span>
      ))}
      {free.length > 0 && (
        <Pick
          label="Add a need"
          value={null}
          none="add at cavity …"
          options={free}
          onChange={(cavity) => cavity && onChange({ ...end.pins, [cavity]: createPinNeed('signal', 'signal') })}
        />
      )}
    </div>
  );
}
