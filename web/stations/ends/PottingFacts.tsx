'use client';

import { useState } from 'react';
import { isOffered, planPottings, setEnd, type End, type Potting } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import styles from './Ends.module.css';

const FIELDS = [
  { key: 'lengthMm', words: 'Cavity length', label: 'Cavity length', unit: 'mm', least: 0.1, most: 300 },
  { key: 'widthMm', words: 'Cavity width', label: 'Cavity width', unit: 'mm', least: 0.1, most: 300 },
  { key: 'depthMm', words: 'Cavity depth', label: 'Cavity depth', unit: 'mm', least: 0.1, most: 300 },
  { key: 'contactsMm3', words: 'Contacts, mm³', label: 'Volume of contacts', unit: null, least: 0, most: 1_000_000 },
  { key: 'changesPerYear', words: 'Changes a year', label: 'Changes a year', unit: null, least: 0, most: 1000 },
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
          {FIELDS.map(({ key, words, ...field }) => (
            <label key={key}>
              {words} <NumberField {...field} value={draft[key]} canBeEmpty onChange={(value) => keep({ [key]: value })} />
            </label>
          ))}
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
