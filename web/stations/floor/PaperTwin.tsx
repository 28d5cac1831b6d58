import { useLocalStorage } from '@mantine/hooks';
import { useMemo } from 'react';
import { createPinningPages, PAPERS, toSvg, type Paper, type PinningWork } from 'wattograph-core';
import type { BenchPack } from '../../client/floor/useFloorStore';
import { today } from '../../client/today';
import { Segmented } from '../../ui/fields/Segmented';
import styles from './PaperTwin.module.css';

const PAPER_NAMES = Object.keys(PAPERS) as Paper[];

/** A step that goes cavity by cavity on paper, for the day on which the tablet is dead (craft D2). */
export function PaperTwin({
  pack,
  onClose,
  ...work
}: Pick<PinningWork, 'step' | 'isDone' | 'inHand' | 'asking'> & {
  pack: Pick<BenchPack, 'job' | 'plan' | 'families' | 'release'>;
  onClose: () => void;
}) {
  const { job, plan, families, release } = pack;
  const loom = job.looms[plan.loomId]!;
  const [paper, setPaper] = useLocalStorage<Paper>({ key: 'wattograph.paper', defaultValue: 'A4', getInitialValueInEffect: false });
  const { step, isDone, inHand, asking } = work;
  const pages = useMemo(() => {
    const familyId = step.endId === null ? null : (loom.ends[step.endId]?.familyId ?? null);
    const family = familyId === null ? null : (families[familyId] ?? null);
    const meta = { paper, job: job.name, loom: loom.name, revision: `revision ${release}`, date: today() };
    return createPinningPages({ loom, plan, step, family, isDone, inHand, asking }, meta).map((page) => toSvg(page));
  }, [loom, plan, step, families, isDone, inHand, asking, paper, job.name, release]);
  return (
    <main className={styles.paper}>
      <style>{`@page { size: ${paper.toLowerCase()}; margin: 0; }`}</style>
      <div className={`${styles.bar} no-print`}>
        <button onClick={onClose}>Back to the step</button>
        <h1>{step.title}, on paper</h1>
        <Segmented label="Paper" value={paper} options={PAPER_NAMES.map((value) => ({ value, words: value }))} onChange={setPaper} />
        <button className={styles.print} onClick={() => window.print()}>
          Print
        </button>
      </div>
      {/* pages come as SVG that our own writer made, with every text escaped */}
      {pages.map((svg, at) => (
        <div
          key={at}
          className={styles.page}
          role="img"
          aria-label={`Sheet ${at + 1} of ${pages.length}`}
          dangerouslySetInnerHTML={{ __html: svg }}
        />
      ))}
    </main>
  );
}
