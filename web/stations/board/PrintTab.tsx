'use client';

import { useMemo, useState } from 'react';
import {
  compareTiles,
  correctScale,
  drawBoard,
  hangPrint,
  isBarTrue,
  listTiles,
  readBar,
  setPrinter,
  toCount,
  type PlannedBoard,
  type TileMap,
} from 'wattograph-core';
import { toUrl } from '../../client/base';
import { useJob, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { readAuthor } from '../../client/person';
import { requestFile, RequestError } from '../../client/request';
import { saveBlob } from '../../client/saveFile';
import { useShop } from '../../client/shopContext';
import { today } from '../../client/today';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import controls from '../../ui/controls.module.css';
import styles from './Board.module.css';
import { toPath } from './toPath';

/** The print under the loom: pages, files, the bar that says whether it is true, and which pages no longer hold. */
export function PrintTab({ planned, board }: { planned: PlannedLoom; board: PlannedBoard }) {
  const shop = useShop();
  const store = useJobStore();
  const jobId = useJob(({ id }) => id);
  const saved = useJob(({ saving }) => saving === 'saved');
  const [making, setMaking] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { loomId, loom } = planned;
  const { printed, scale } = loom.board;
  const { job, plan } = planned;
  const map = useMemo(() => listTiles(drawBoard(job, shop, plan, board), board, scale), [job, shop, plan, board, scale]);
  const changes = printed ? compareTiles(map, printed.tiles) : null;
  const stale = changes ? [...changes.again, ...changes.added] : [];
  const isChanged = changes !== null && stale.length + changes.gone.length > 0;
  const barMm = printed?.barMm ?? null;
  const isTrue = barMm === null ? null : isBarTrue(barMm);
  const save = async (what: string, query: string) => {
    setMaking(what);
    setProblem(null);
    try {
      const address = encodeURIComponent(`${window.location.origin}${toUrl('')}`);
      const { blob, name } = await requestFile(`/api/jobs/${jobId}/board?loom=${encodeURIComponent(loomId)}&address=${address}&${query}`);
      saveBlob(name, blob);
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.message);
    } finally {
      setMaking(null);
    }
  };
  const file = (what: string, query: string) => (
    <button type="button" className={controls.button} disabled={making !== null || !saved} onClick={() => void save(what, query)}>
      {making === what ? 'making it …' : what}
    </button>
  );
  return (
    <div className={styles.print}>
      {map.tiles.length > 0 ? (
        <Pages map={map} stale={stale} board={board} />
      ) : (
        <p className={styles.alarm}>
          {map.columns} × {map.rows} pages are no print: choose a printer with larger paper.
        </p>
      )}
      <div>
        <div className={styles.row}>
          by{' '}
          <Pick
            label="Printer"
            value={board.printer.id}
            options={shop.printers.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(id) => id && store.edit(setPrinter(loomId, id, shop.printers.find((one) => one.id === id)!.name))}
          />
          <b>
            {toCount(map.tiles.length || map.columns * map.rows, 'page')}, {map.columns} × {map.rows}
          </b>
          <span className="faint">
            true size, {board.printer.overlapMm} mm shared{scale === 1 ? '' : `, multiplied by ${scale.toFixed(4)}`}
          </span>
        </div>
        {isTrue === false && (
          <p className={styles.alarm}>
            The print is out by {Math.abs(barMm! - 100).toFixed(1)} mm in 100 mm: nothing is laid by it. Pages are multiplied by{' '}
            {scale.toFixed(4)} from now on: print and hang them again, and measure.
          </p>
        )}
        {printed && isTrue === null && <p className={styles.alarm}>Nobody has measured its bar: nothing is laid by it before.</p>}
        {changes && isChanged && (
          <p className={styles.alarm}>
            {changes.again.length > 0 &&
              `${toPageWords(changes.again, 'shows', 'show')} what is no longer so: take ${toIt(changes.again)} down and print anew. `}
            {changes.added.length > 0 &&
              `${toPageWords(changes.added, 'is', 'are')} new: the loom reaches beyond what hangs. Print ${toIt(changes.added)} and hang ${toIt(changes.added)} beside it. `}
            {changes.gone.length > 0 &&
              `${toPageWords(changes.gone, 'shows', 'show')} nothing of the loom any more: take ${toIt(changes.gone)} down.`}
          </p>
        )}
        <div className={styles.row}>
          {file('Pages (PDF)', 'what=pages&format=pdf')}
          {stale.length > 0 &&
            stale.length < map.tiles.length &&
            file('Stale pages (PDF)', `what=pages&format=pdf&pages=${stale.join('-')}`)}
          {file('Whole board (PDF)', 'what=whole&format=pdf')}
          {file('Plank (PDF)', 'what=plank&format=pdf')}
          {file('SVG', 'what=whole&format=svg')}
          {file('DXF', 'what=whole&format=dxf')}
          {file('Pegs (CSV)', 'what=whole&format=csv')}
          {file('JSON', 'what=whole&format=json')}
        </div>
        {problem && <p className={styles.alarm}>{problem}</p>}
        <div className={styles.row}>
          {printed ? (
            <span>
              Hung on {printed.on} by {printed.by}. Its bar of 100 mm measures{' '}
              <NumberField
                label="Bar of the print"
                value={printed.barMm}
                unit="mm"
                least={80}
                most={125}
                digits={1}
                canBeEmpty
                onChange={(mm) =>
                  mm !== null && store.edit(readBar(loomId, mm, isBarTrue(mm) ? printed.scale : correctScale(printed.scale, mm)))
                }
              />{' '}
              mm.
            </span>
          ) : (
            <span>No print hangs on the board.</span>
          )}
          {map.tiles.length > 0 && (isChanged || !printed) && (
            <button type="button" className={controls.button} onClick={() => store.edit(hangPrint(loomId, map, today(), readAuthor()))}>
              {printed ? 'The new pages hang' : 'This print hangs'}
            </button>
          )}
        </div>
        {printed && !isChanged && isTrue && <p>The print is true, and shows the loom as it is now.</p>}
      </div>
    </div>
  );
}

const toListWords = (numbers: readonly number[]) =>
  numbers.length < 2 ? numbers.join('') : `${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;

const toPageWords = (numbers: readonly number[], one: string, several: string) =>
  numbers.length === 1 ? `Page ${numbers[0]} ${one}` : `Pages ${toListWords(numbers)} ${several}`;
const toIt = (numbers: readonly number[]) => (numbers.length === 1 ? 'it' : 'them');

/** The pages as they hang, with the loom under them. */
function Pages({ map, stale, board }: { map: TileMap; stale: readonly number[]; board: PlannedBoard }) {
  const [left, top] = [Math.min(...map.tiles.map(({ x }) => x)), Math.min(...map.tiles.map(({ y }) => y))];
  const width = Math.max(...map.tiles.map(({ x, widthMm }) => x + widthMm)) - left;
  const height = Math.max(...map.tiles.map(({ y, heightMm }) => y + heightMm)) - top;
  const letter = Math.max(width / 28, height / 12);
  return (
    <svg
      className={styles.map}
      viewBox={`${left} ${top} ${width} ${height}`}
      width={Math.min(300, (130 * width) / height)}
      height={Math.min(130, (300 * height) / width)}
      role="img"
      aria-label={`Map of ${toCount(map.tiles.length, 'page')}${stale.length ? `, stale: ${stale.join(', ')}` : ''}`}
    >
      {map.tiles.map(({ number, x, y, widthMm, heightMm }) => (
        <rect
          key={number}
          className={styles.tile}
          data-stale={stale.includes(number)}
          x={x}
          y={y}
          width={widthMm}
          height={heightMm}
          strokeWidth={width / 300}
        />
      ))}
      {board.runs.map(({ segmentId, points }) => (
        <path key={segmentId} className={styles.line} strokeWidth={width / 220} d={toPath(points)} />
      ))}
      {map.tiles.map(({ number, x, y }) => (
        <text key={number} x={x + letter * 0.4} y={y + letter * 1.1} fontSize={letter}>
          {number}
        </text>
      ))}
    </svg>
  );
}
