'use client';

import { useMemo, useState } from 'react';
import { findStandard, reassignPin, listAblePlaces, listOperations, type DevicePin, type Job } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { Pick } from '../../ui/fields/Pick';
import controls from '../../ui/controls.module.css';

/** Give a pin to a free pin of a box by hand; what goes along is said. */
export function GiveTo({ job, pin }: { job: Job; pin: DevicePin }) {
  const shop = useShop();
  const store = useJobStore();
  const [problem, setProblem] = useState<string | null>(null);
  const { loomId, endId, cavity } = pin;
  const standard = findStandard(job, shop);
  const able = useMemo(() => listAblePlaces(job, standard, { loomId, endId, cavity }), [job, standard, loomId, endId, cavity]);
  if (!able) return null;
  const give = (index: number) => {
    const place = able.places[index]!.pins[0]!;
    const given = reassignPin(job, shop, standard, { loomId, endId, cavity }, place);
    if (!('next' in given)) return setProblem(`${given.wouldTake}.`);
    setProblem(null);
    store.push(`give ${job.looms[loomId]!.ends[endId]!.name} ${cavity} to ${given.words}`.slice(0, 160), listOperations(job, given.next));
  };
  return (
    <>
      <div className={controls.sentence}>
        <label>
          {pin.host ? 'Move it to' : 'Give it to'}{' '}
          <Pick
            label={pin.host ? 'Move it to' : 'Give it to'}
            disabled={able.places.length === 0}
            value={null}
            none={able.places.length === 0 ? 'no other free pin can do it' : `one of ${able.places.length} that can`}
            options={able.places.map(({ words }, index) => ({ value: String(index), label: words }))}
            onChange={(value) => value !== null && give(Number(value))}
          />
        </label>
      </div>
      {able.along > 0 && (
        <p className="faint">
          {able.along} other {able.along === 1 ? 'pin shares' : 'pins share'} it and {able.along === 1 ? 'goes' : 'go'} along.
        </p>
      )}
      {problem && <p className={controls.alarm}>{problem}</p>}
    </>
  );
}
