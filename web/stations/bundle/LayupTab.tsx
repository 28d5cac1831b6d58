'use client';

import { useDebouncedValue } from '@mantine/hooks';
import { Link } from '../../ui/Link';
import { memo, useDeferredValue, useMemo } from 'react';
import {
  BUNDLING_WORDS,
  BUNDLINGS,
  findStandard,
  setBundling,
  toCount,
  toThreadWords,
  type Bundling,
  type LoomPlan,
  type PlannedLayup,
  type PricedBreakout,
  type WayOn,
} from 'wattograph-core';
import { useJob, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { standAt, useCursor, useCursorStore, type Cursor } from '../../ui/cursor';
import { Pick } from '../../ui/fields/Pick';
import { Why } from '../../ui/Why';
import { SearchProgress } from '../../ui/search/SearchProgress';
import type { Search } from '../../ui/search/useSearch';
import controls from '../../ui/controls.module.css';
import { LayerList } from './LayerList';
import styles from './Layup.module.css';
import { useLayupSearch } from './useLayupSearch';
import { usePricedBreakouts } from './usePricedBreakouts';

/** How the bundles of a loom are twisted: the school, the search, what is done at each breakout, and the layers where the cursor stands. */
export function LayupTab({ planned }: { planned: PlannedLoom }) {
  const store = useJobStore();
  const search = useLayupSearch(planned, store);
  const { layups } = planned.plan;
  const place = useCursor((cursor) => toPlace(planned.plan, cursor));
  const [rested] = useDebouncedValue(place, REST_MS);
  // long lists: drawn where the cursor rests and bit by bit, together with the plan that they are of
  const here = useMemo(() => findHere(planned, rested) ?? findHere(planned, place), [planned, rested, place]);
  const behind = useDeferredValue(here);
  const shown = here && (behind ?? here);
  return (
    <div className={styles.layup}>
      <SchoolBar planned={planned} search={search} />
      {layups.length === 0 ? (
        <p className={styles.none}>
          Nothing of this loom is twisted in layers. Choose it above, or for one run under Lengths: then core, layers, dead wire and the
          angle at which every wire starts are planned for each line of runs.
        </p>
      ) : shown === null ? (
        <p className={styles.none}>The run at the cursor is not twisted in layers, or only one wire lies in it.</p>
      ) : (
        <div className={styles.halves}>
          <Breakouts planned={shown.planned} layup={shown.layup} />
          <LayerList {...shown} isSearching={search.done !== null} />
        </div>
      )}
    </div>
  );
}

/** so long the cursor stands still before long lists follow it */
const REST_MS = 80;

/** The run at the cursor and the last mark of its lay-up before it, as a word: who asks is drawn again only where it becomes another. */
function toPlace(plan: LoomPlan, cursor: Cursor | null): string {
  const at = standAt(plan, cursor);
  const layup = plan.layups.find(({ segmentIds }) => segmentIds.includes(at?.segmentId ?? ''));
  if (!at || !layup) return '';
  const mm = layup.marks[layup.segmentMarks[layup.segmentIds.indexOf(at.segmentId)]!]!.mm + at.offsetMm;
  return `${at.segmentId} ${layup.marks.findLastIndex((mark) => mark.mm <= mm + 1e-6)}`;
}

function findHere(planned: PlannedLoom, place: string): { planned: PlannedLoom; layup: PlannedLayup; mark: number } | null {
  const [segmentId, mark] = place.split(' ');
  const layup = planned.plan.layups.find(({ segmentIds }) => segmentIds.includes(segmentId!));
  return layup ? { planned, layup, mark: Math.min(Number(mark), layup.marks.length - 2) } : null;
}

function SchoolBar({ planned, search }: { planned: PlannedLoom; search: Search }) {
  const shop = useShop();
  const store = useJobStore();
  const { loom, loomId, job, plan } = planned;
  const { layups } = plan;
  const standard = findStandard(job, shop);
  const crossings = layups.reduce((sum, one) => sum + one.crossings.length, 0);
  const dead = layups.flatMap(({ fillers }) => fillers);
  const relaid = layups.reduce((sum, { stretches }) => sum + stretches.length - 1, 0);
  const first = plan.bundles.find(({ segmentId }) => segmentId === layups[0]?.id)?.sections[0] ?? { odMm: 0, boundMm: 0 };
  const jobId = useJob(({ id }) => id);
  const isOpen = layups.some(({ by }) => by !== 'search');
  const isStale = layups.some(({ by }) => by === 'stale');
  return (
    <div className={styles.bar}>
      <span>
        Bundles{' '}
        <Pick<Bundling>
          label="How the bundles of this loom lie"
          value={loom.bundling}
          none={`as the shop: ${BUNDLING_WORDS[standard.bundling]}`}
          options={BUNDLINGS.map((value) => ({ value, label: BUNDLING_WORDS[value] }))}
          onChange={(bundling) => store.edit(setBundling(loomId, bundling))}
        />
      </span>
      {layups.length > 0 && (
        <>
          {search.done === null ? (
            <button type="button" className={controls.button} onClick={search.start}>
              {isOpen ? 'Search the lay-up' : 'Search again'}
            </button>
          ) : (
            <SearchProgress search={search} name="lay-up" />
          )}
          <span className={styles.sums} data-testid="layup-sums">
            <b className={crossings ? styles.alarm : undefined}>{toCount(crossings, 'crossed breakout')}</b> (least 0),{' '}
            {toCount(dead.length, 'piece')} of dead wire, {(dead.reduce((sum, { cutMm }) => sum + cutMm, 0) / 1000).toFixed(1)} m, laid anew
            at {toCount(relaid, 'breakout')}; {first.odMm.toFixed(1)} mm where it begins (least {first.boundMm.toFixed(1)})
          </span>
          <span className={isOpen ? styles.alarm : 'faint'}>
            {isStale
              ? 'What was found does not fit any more: laid once from end to end until it is searched again.'
              : isOpen
                ? 'Not searched yet: laid once from end to end, which is safe and seldom best.'
                : 'searched'}
          </span>
        </>
      )}
      {layups.length > 0 && <Link href={`/jobs/${jobId}/sheets?loom=${loomId}`}>Twist sheet</Link>}
      {search.failure && <span className={styles.alarm}>{search.failure}</span>}
    </div>
  );
}

/** What is done at each breakout of a line of runs, and what the other ways would come to. */
const Breakouts = memo(function Breakouts({ planned, layup }: { planned: PlannedLoom; layup: PlannedLayup }) {
  const shop = useShop();
  const cursor = useCursorStore();
  const { loom, plan } = planned;
  const answer = usePricedBreakouts(planned, layup);
  const numbers = useMemo(() => new Map(plan.wires.map(({ id, number }) => [id, number])), [plan]);
  const threads = new Map(layup.threads.map((thread) => [thread.id, thread]));
  const startMm = plan.tree.segments[layup.id]!.startMm;
  const go = (mark: number) => {
    const index = layup.segmentMarks.findLastIndex((first) => first <= mark);
    const segmentId = layup.segmentIds[index]!;
    cursor.set({ segmentId, offsetMm: layup.marks[mark]!.mm - layup.marks[layup.segmentMarks[index]!]!.mm + 1 });
  };
  const toList = (ids: readonly string[], mark: number) => ids.map((id) => toThreadWords(threads.get(id)!, numbers, mark)).join(', ');
  if (answer === null)
    return (
      <p className={styles.none} role="status">
        Pricing the ways on from each breakout …
      </p>
    );
  if ('failure' in answer) return <p className={`${styles.none} ${styles.alarm}`}>The ways on could not be priced: {answer.failure}.</p>;
  const { priced } = answer;
  if (priced.length === 0) return <p className={styles.none}>No breakout on this line of runs: laid up once from end to end.</p>;
  return (
    <table className={styles.breakouts} aria-label="Breakouts of the lay-up">
      <thead>
        <tr>
          <th>mm</th>
          <th>breakout</th>
          <th>leave</th>
          <th>done there</th>
          <th>fill on</th>
          <th>lay anew</th>
          <th>end the layer</th>
        </tr>
      </thead>
      <tbody>
        {priced.map((one) => {
          const { mark, ends, begins, taken } = one;
          const { mm, nodeId } = layup.marks[mark]!;
          const crossed = layup.crossings.filter((crossing) => crossing.mark === mark);
          return (
            <tr key={mark}>
              <td className="mono">{Math.round(startMm + mm)}</td>
              <td>
                <button type="button" className={styles.place} onClick={() => go(mark)}>
                  {loom.nodes[nodeId!]!.name}
                </button>
              </td>
              <td>
                <Why
                  because={
                    <>
                      {ends.length > 0 && <>Out: {toList(ends, mark - 1)}.</>}
                      {begins.length > 0 && <> In: {toList(begins, mark)}.</>}
                      {crossed.length > 0 && (
                        <>
                          {' '}
                          Through a layer:{' '}
                          {toList(
                            crossed.map(({ threadId }) => threadId),
                            mark,
                          )}
                          .
                        </>
                      )}
                    </>
                  }
                >
                  {ends.length}
                  {begins.length > 0 && `, ${begins.length} in`}
                  {crossed.length > 0 && <b className={styles.alarm}>, {crossed.length} crossed</b>}
                </Why>
              </td>
              <td>
                {one.crossedElse > 0 ? (
                  <Why
                    because={`If it were not laid anew here, ${toCount(one.crossedElse, 'wire')} would have to pass a layer from here on.`}
                  >
                    {DONE[taken]}
                  </Why>
                ) : (
                  DONE[taken]
                )}
              </td>
              <Way way={one.fill} isTaken={taken === 'fill'} money={shop.currency} />
              <Way way={one.relay} isTaken={taken === 'relay'} money={shop.currency} />
              <Way way={one.drop} isTaken={taken === 'drop'} money={shop.currency} straight={one.drop?.straight} />
            </tr>
          );
        })}
      </tbody>
    </table>
  );
});

const DONE: Record<PricedBreakout['taken'], string> = {
  fill: 'dead wire goes on',
  relay: 'tied and laid anew',
  drop: 'the layer ends',
  on: 'goes on',
};

function Way({
  way,
  isTaken,
  money,
  straight = 0,
}: {
  way: WayOn | null;
  isTaken: boolean;
  money: string | null;
  straight?: number | undefined;
}) {
  if (way === null) return <td className="faint">–</td>;
  return (
    <td data-taken={isTaken}>
      <Why
        because={
          <>
            {toCount(way.fillers, 'piece')} of dead wire, {(way.fillerMm / 1000).toFixed(2)} m; {way.minutes.toFixed(0)} min of work
            {straight > 0 && <>; {straight} of the layer go on straight, along the outside</>}.
          </>
        }
      >
        {way.odMm.toFixed(1)} mm, {way.cost.toFixed(2)}
        {money === null ? '' : ` ${money}`}
      </Why>
    </td>
  );
}
