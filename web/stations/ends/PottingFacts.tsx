'use client';

import { useState } from 'react';
import { isOffered, planPottings, setEnd, type End, type Potting } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import styles from './Ends.module.css';

const SIDES = [
  ['lengthMm', 'Cavity length'],
  ['widthMm', 'Cavity width'],
  ['depthMm', 'Cavity depth'],
] as const;

type Draft = { [K in keyof Potting]: Potting[K] | null };
const NOTHING: Draft = { resinId: null, lengthMm: null, widthMm: null, depthMm: null, contactsMm3: null, changesPerYear: null };

const isWhole = (draft: Draft): draft is Potting =>
  draft.resinId !== null && draft.lengthMm !== null && draft.widthMm !== null && draft.depthMm !== null && draft.contactsMm3 !== null;

/** Whether an end is potted into its device, with what, and what that comes to. Kept when all of the cavity is known: none of it is guessed. */
export function PottingFacts({ planned, endId }: { planned: PlannedLoom; endId: string }) {
  const store = useJobStore();
  const shop = useShop();
  const { loom, loomId, plan, job } = planned;
  const end = loom.ends[endId]!;
  const [draft, setDraft] = useState<Draft>(end.potting ?? NOTHING);
  const keep = (change: Partial<Draft>) => {
    const next = { ...draft, ...change };
    setDraft(next);
    const value: End['potting'] = isWhole(next) ? next : null;
    if (value !== null || end.potting !== null) store.edit(setEnd({ loomId, endId, name: end.name }, 'potting', value));
  };
  const fill = planPottings(job, plan, shop).find((one) => one.endId === endId);
  return (
    <div className={styles.potting}>
      <Pick
        label="Potted with"
        value={draft.resinId}
        none="not potted: it can be unplugged"
        options={shop.resins
          .filter(({ id }) => id === draft.resinId || isOffered(shop, 'resins', id))
          .map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(resinId) => (resinId === null ? keep(NOTHING) : keep({ resinId }))}
      />
      {draft.resinId !== null && (
        <>
          {SIDES.map(([key, label]) => (
            <label key={key}>
              {label}{' '}
              <NumberField
                label={label}
                value={draft[key]}
                unit="mm"
                least={0.1}
                most={300}
                canBeEmpty
                onChange={(mm) => keep({ [key]: mm })}
              />
            </label>
          ))}
          <label>
            Contacts, mm³{' '}
            <NumberField
              label="Volume of contacts"
              value={draft.contactsMm3}
              unit={null}
              least={0}
              most={1_000_000}
              canBeEmpty
              onChange={(contactsMm3) => keep({ contactsMm3 })}
            />
          </label>
          <label>
            Changes a year{' '}
            <NumberField
              label="Changes a year"
              value={draft.changesPerYear}
              unit={null}
              least={0}
              most={1000}
              canBeEmpty
              onChange={(changesPerYear) => keep({ changesPerYear })}
            />
          </label>
          {fill ? (
            <p data-testid="potting">
              {fill.volumeMl.toFixed(2)} ml, {fill.pouredMl.toFixed(2)} with what stays in the cup: {fill.massG.toFixed(1)} g ={' '}
              {fill.partAG.toFixed(2)} + {fill.partBG.toFixed(2)} g. Cures in {fill.cureH.toFixed(fill.cureH < 10 ? 1 : 0)} h at{' '}
              {fill.workshopC} °C. Behind it {fill.straightMm} mm straight, then a loop of {Math.ceil(fill.loopRadiusMm)} mm radius.
            </p>
          ) : (
            !isWhole(draft) && <p>Kept when all of the cavity is measured.</p>
          )}
        </>
      )}
    </div>
  );
}
