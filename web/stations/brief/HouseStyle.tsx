'use client';

import { findSide, HOUSE_STYLE, type Job, departFromHouse } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { askReason } from '../../ui/fields/askReason';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Brief.module.css';

/** Where the shop stands on each question, and where this job departs from it with a reason. */
export function HouseStyle({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const standard = shop.standards[job.standardId]!;
  // noted in a job of an older Wattograph, on questions that nothing hangs on
  const others = Object.entries(job.brief.departures).filter(([id]) => !HOUSE_STYLE.some((one) => one.id === id));
  const choose = (id: string, question: string, side: number, usual: number | null) => {
    if (side === usual) store.edit(departFromHouse(id, question, null));
    else
      askReason(`Why does this job depart from ${standard.name} on ${question.toLowerCase()}?`, (reason) =>
        store.edit(departFromHouse(id, question, { side, reason })),
      );
  };
  return (
    <FactTable label="House style">
      <thead>
        <tr>
          <th>question</th>
          <th>this job</th>
          <th>{standard.name}</th>
        </tr>
      </thead>
      <tbody>
        {HOUSE_STYLE.map((one) => {
          const { id, question, drives, sides } = one;
          const usual = findSide(one, standard);
          const departure = Object.hasOwn(job.brief.departures, id) ? job.brief.departures[id]! : null;
          return (
            <tr key={id}>
              <td>
                {question}
                <br />
                <span className="faint">{drives}</span>
              </td>
              <td className={styles.sides}>
                <div role="radiogroup" aria-label={question}>
                  {sides.map(({ words }, side) => (
                    <button
                      key={words}
                      role="radio"
                      aria-checked={(departure?.side ?? usual) === side}
                      onClick={() => choose(id, question, side, usual)}
                    >
                      {words}
                    </button>
                  ))}
                </div>
              </td>
              <td>
                {departure ? (
                  <span className={styles.alarm}>departs: {departure.reason}</span>
                ) : (
                  <span className="faint">{usual === null ? 'figures of its own, under Shop' : 'as the house does'}</span>
                )}
              </td>
            </tr>
          );
        })}
        {others.map(([id, { reason }]) => (
          <tr key={id}>
            <td>{id}</td>
            <td className="faint">noted; nothing in this version hangs on it</td>
            <td>
              {reason}{' '}
              <button className={styles.link} onClick={() => store.edit(departFromHouse(id, id, null))}>
                forget
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </FactTable>
  );
}
