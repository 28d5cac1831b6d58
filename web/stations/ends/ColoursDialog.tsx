import { Modal, Table } from '@mantine/core';
import { useMemo } from 'react';
import { findStandard, proposeColours, recolour, toColourWords, toCount } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { DialogEnd } from '../../ui/DialogEnd';
import { Swatch } from '../../ui/Swatch';
import styles from './Ends.module.css';

/** so many of those that a circuit is taken for tell what is meant */
const MOST_NAMED = 3;

/** Wires that are taken for one beside them, and the least change of colours after which none is. */
export function ColoursDialog({ planned, onClose }: { planned: PlannedLoom; onClose: () => void }) {
  const shop = useShop();
  const store = useJobStore();
  const { job, loom, loomId, plan } = planned;
  const proposal = useMemo(() => proposeColours(loom, plan, findStandard(job, shop)), [job, loom, plan, shop]);
  const { changes, left, isLeast, reelsBefore, reelsAfter } = proposal;
  const numbers = (circuitId: string) =>
    [...new Set(plan.wires.filter((wire) => wire.circuitId === circuitId).map(({ number }) => number))].join(', ');
  const toLikeWords = (ids: readonly string[]) => {
    const words = ids.slice(0, MOST_NAMED).map((id) => `${loom.circuits[id]!.name} (${toColourWords(loom.circuits[id]!.colour)})`);
    return `${words.join(', ')}${ids.length > MOST_NAMED ? ` and ${ids.length - MOST_NAMED} more` : ''}`;
  };
  const take = () => {
    store.edit(recolour(loomId, new Map(changes.map(({ circuitId, to }) => [circuitId, to]))));
    onClose();
  };
  return (
    <Modal opened onClose={onClose} title="Wires that look alike beside one another" size="xl">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          take();
        }}
      >
        <p>
          {changes.length === 0 && left.length === 0
            ? `No wire is taken for one beside it, in any housing or close to any breakout. ${toCount(reelsBefore, 'reel')}.`
            : `${toCount(changes.length, 'circuit')} in another colour${isLeast ? ', no smaller change does' : ''}; ${reelsBefore === reelsAfter ? `${toCount(reelsBefore, 'reel')} as before` : `${reelsBefore} reels become ${reelsAfter}`}.`}
        </p>
        {left.length > 0 && (
          <p>
            <b>{toCount(left.length, 'pair')} stay alike</b>: more wires are together there than the shop has colours that are apart, or a
            cable has its own. They go by their printed numbers.
          </p>
        )}
        {changes.length > 0 && (
          <Table aria-label="Circuits in another colour" className={styles.colours}>
            <thead>
              <tr>
                <th>circuit</th>
                <th>wires</th>
                <th>now</th>
                <th>then</th>
                <th>is taken for</th>
              </tr>
            </thead>
            <tbody>
              {changes.map(({ circuitId, from, to, likeIds }) => (
                <tr key={circuitId}>
                  <td>{loom.circuits[circuitId]!.name}</td>
                  <td>{numbers(circuitId)}</td>
                  <td>
                    <Swatch colour={from} />
                  </td>
                  <td>
                    <Swatch colour={to} />
                  </td>
                  <td>{toLikeWords(likeIds)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
        <p className="faint">
          Compared by CIEDE2000, to most eyes and as those see them who see red or green weakly. What counts as apart, and which colours are
          in stock, is in the house style of the shop.
        </p>
        <DialogEnd onClose={onClose} words="Take these colours" isReady={changes.length > 0} />
      </form>
    </Modal>
  );
}
