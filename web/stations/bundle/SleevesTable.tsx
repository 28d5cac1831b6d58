'use client';

import { COVERING_KINDS, type CoveringKind, isOffered, setCovering, setSlideOn } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { WhyCovering } from '../../ui/section/SectionPanel';
import { Why } from '../../ui/Why';
import { askReason } from '../../ui/askReason';
import styles from './Bundle.module.css';

/** The covering of every run: computed or pinned, its cut length, and when it slides on. */
export function SleevesTable({ planned }: { planned: PlannedLoom }) {
  const shop = useShop();
  const { loom, plan, loomId } = planned;
  const store = useJobStore();
  const pin = (segmentId: string, run: string, choice: string) => {
    if (choice === '') {
      store.edit(setCovering({ loomId, segmentId, name: run }, null));
      return;
    }
    const [kind, itemId] = choice.split(' ') as [CoveringKind, string | undefined];
    askReason(`Why ${itemId ?? kind} on ${run}?`, (reason) =>
      store.edit(setCovering({ loomId, segmentId, name: run }, { kind, itemId: itemId ?? null, reason })),
    );
  };
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          <th>run</th>
          <th className={styles.num}>bundle mm</th>
          <th>covering</th>
          <th className={styles.num}>cut mm</th>
          <th className={styles.num}>over it mm</th>
          <th>chosen by</th>
          <th>pinned</th>
          <th>slides on</th>
        </tr>
      </thead>
      <tbody>
        {plan.coverings.map((covering) => {
          const tree = plan.tree.segments[covering.segmentId]!;
          const segment = loom.segments[covering.segmentId]!;
          const bundle = plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!;
          const run = `${loom.nodes[tree.nearNodeId]!.name} to ${loom.nodes[tree.farNodeId]!.name}`;
          const value = segment.coveringPin ? [segment.coveringPin.kind, segment.coveringPin.itemId].filter(Boolean).join(' ') : '';
          return (
            <tr key={covering.segmentId}>
              <td>{run}</td>
              <td className={styles.num}>{bundle.odMm.toFixed(2)}</td>
              <td>
                <Why because={<WhyCovering planned={planned} bundle={bundle} />}>
                  {covering.problem ? (
                    <b style={{ color: 'var(--action)' }}>
                      {covering.itemName}
                      {covering.problem === 'cannot-pass' ? ', cannot pass' : ''}
                    </b>
                  ) : (
                    covering.itemName
                  )}
                </Why>
              </td>
              <td className={styles.num}>{covering.kind === 'none' ? '–' : covering.cutMm}</td>
              <td className={styles.num}>{covering.odOutsideMm.toFixed(1)}</td>
              <td>
                {covering.ruledBy}: {covering.because}
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`Covering of ${run}`}
                  value={value}
                  onChange={(event) => pin(covering.segmentId, run, event.target.value)}
                >
                  <option value="">computed</option>
                  {COVERING_KINDS.map((kind) => (
                    <option key={kind} value={kind}>
                      {kind}, any size
                    </option>
                  ))}
                  {shop.coverings
                    .filter(({ id }) => id === segment.coveringPin?.itemId || isOffered(shop, 'coverings', id))
                    .map((item) => (
                      <option key={item.id} value={`${item.kind} ${item.id}`}>
                        {item.name}
                      </option>
                    ))}
                </select>
              </td>
              <td>
                <select
                  className={styles.pick}
                  aria-label={`When the sleeve of ${run} goes on`}
                  value={segment.slideOn}
                  onChange={(event) =>
                    store.edit(
                      setSlideOn({ loomId, segmentId: covering.segmentId, name: run }, event.target.value as 'before-ends' | 'after-ends'),
                    )
                  }
                >
                  <option value="before-ends">before its ends are closed</option>
                  <option value="after-ends">after its ends are closed</option>
                </select>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
