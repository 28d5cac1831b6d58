import { Button, Group, Modal } from '@mantine/core';
import { useMemo } from 'react';
import { drawSleeves, fromLabelList, printSleeves, toCount, toLabelsCsv, type PlannedMark, type PrintedStock } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { saveFile } from '../../client/saveFile';
import { useShop } from '../../client/shopContext';
import { StackPicture } from '../../ui/StackPicture';
import styles from './Dress.module.css';

/** Of the paper that the sleeves are shown on, mm. */
const WIDTH_MM = 160;
/** more of one stock are told by their number */
const MOST_SHOWN = 40;

/** What the label printer would give out for the list that it is fed with: stock by stock, at scale. */
export function PrintDialog({ planned, marks, onClose }: { planned: PlannedLoom; marks: readonly PlannedMark[]; onClose: () => void }) {
  const shop = useShop();
  const { job, loomId, loom } = planned;
  const csv = useMemo(() => toLabelsCsv(job, loomId, marks), [job, loomId, marks]);
  // the stand-in printer sees the file alone, as a real one would
  const { orders, problems } = useMemo(() => fromLabelList(csv, shop.labels), [csv, shop]);
  const stocks = useMemo(() => printSleeves(orders, shop), [orders, shop]);
  const cutOff = stocks.flatMap(({ sleeves }) => sleeves).filter(({ cutOffMm }) => cutOffMm > 0).length;
  return (
    <Modal opened onClose={onClose} title={`Labels of ${loom.name}, as the printer would give them out`} size="xl">
      <p className={styles.why}>
        {toCount(stocks.length, 'stock')} to put in, one after the other, the narrowest first. Within a stock labels come in the order in
        which they go on.
        {cutOff > 0 && <b className={styles.alarm}> The longest line of {toCount(cutOff, 'label')} runs off the sleeve.</b>}
      </p>
      {problems.length > 0 && (
        <ul>
          {problems.map(({ path, message }) => (
            <li key={path}>
              {path}: {message}
            </li>
          ))}
        </ul>
      )}
      {stocks.map((printed) => (
        <section key={printed.stock.id} className={styles.stock}>
          <h3>{toStockWords(printed)}</h3>
          <StackPicture
            words={`Sleeves on ${printed.stock.name}: ${printed.sleeves
              .slice(0, MOST_SHOWN)
              .map(({ lines }) => lines.join(' '))
              .join(', ')}`}
            drawing={drawSleeves({ ...printed, sleeves: printed.sleeves.slice(0, MOST_SHOWN) }, WIDTH_MM)}
          />
          {printed.sleeves.length > MOST_SHOWN && <p className="faint">and {printed.sleeves.length - MOST_SHOWN} more</p>}
        </section>
      ))}
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          Close
        </Button>
        <Button onClick={() => saveFile(`${loom.name} labels.csv`, csv)}>Save the printer’s list (CSV)</Button>
      </Group>
    </Modal>
  );
}

const toStockWords = ({ stock, sleeves, packs }: PrintedStock): string =>
  [
    stock.name,
    toCount(sleeves.length, 'piece'),
    packs ? `${toCount(packs.opened, 'pack')} opened, ${packs.left} left` : 'how many are in a pack is not stated',
  ].join(', ');
