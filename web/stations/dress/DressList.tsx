import { VisuallyHidden } from '@mantine/core';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import type { PlannedLoom } from '../../client/jobContext';
import { useCursorStore } from '../../ui/cursor';
import styles from './Dress.module.css';
import { toKey, type Assembly } from './listAssemblies';

const MARKS = { run: '', hole: '◯', breakout: 'Y', end: '▣' } as const;
const KIND_WORDS = { run: 'run', hole: 'hole', breakout: 'breakout', end: 'end' } as const;

/** The loom from the datum on, what stands on each part of it; ↑ and ↓ walk along. */
export function DressList({
  planned,
  assemblies,
  chosen,
  onPick,
}: {
  planned: PlannedLoom;
  assemblies: readonly Assembly[];
  chosen: Assembly;
  onPick: (one: Assembly) => void;
}) {
  const cursor = useCursorStore();
  const list = useRef<HTMLElement>(null);
  useEffect(() => {
    // what it gives back is a promise in newer browsers, and no clean-up
    void list.current?.querySelector('[aria-current="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [chosen.kind, chosen.id]);
  const pick = (one: Assembly) => {
    onPick(one);
    const { nodes } = planned.plan.tree;
    const nodeId = one.kind === 'end' ? planned.loom.ends[one.id]!.nodeId : one.id;
    const segmentId = one.kind === 'run' ? one.id : (nodes[nodeId]?.parentSegmentId ?? null);
    if (segmentId !== null) cursor.set({ segmentId, offsetMm: 1 });
  };
  const walk = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    const at = assemblies.findIndex((one) => toKey(one) === toKey(chosen)) + step;
    const next = step === 0 ? undefined : assemblies[at];
    if (!next) return;
    event.preventDefault();
    pick(next);
    (list.current?.children[at] as HTMLElement | undefined)?.focus();
  };
  return (
    <nav className={styles.list} aria-label="Runs, holes, breakouts and ends" ref={list} onKeyDown={walk}>
      {assemblies.map((one) => (
        <button
          key={toKey(one)}
          type="button"
          data-kind={one.kind}
          aria-current={toKey(one) === toKey(chosen)}
          tabIndex={toKey(one) === toKey(chosen) ? 0 : -1}
          style={{ paddingLeft: 6 + one.depth * 12 }}
          onClick={() => pick(one)}
        >
          <span className={styles.at} aria-hidden>
            {one.kind === 'run' ? Math.round(one.atMm) : MARKS[one.kind]}
          </span>
          <span className={styles.name} title={one.name}>
            <VisuallyHidden>{`${KIND_WORDS[one.kind]} ${one.name.slice(0, one.name.length - one.short.length)}`}</VisuallyHidden>
            {one.short}
          </span>
          <span className={one.isWrong ? styles.alarm : styles.what}>{one.words}</span>
        </button>
      ))}
    </nav>
  );
}
