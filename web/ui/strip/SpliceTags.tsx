import { Popover } from '@mantine/core';
import { memo, useState } from 'react';
import type { StripLayout } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useCursorStore, type Cursor } from '../cursor';
import styles from './Strip.module.css';

/** Of what can be pressed, px (WCAG 2.2, 2.5.8); the tag that is seen is lower. */
const HEIGHT = 24;

type Tag = StripLayout['tags'][number];
type PlannedSplice = PlannedLoom['plan']['splices'][number];

/** Names of splices, one for those that stand too close; it opens to a list of them. Choosing one takes the cursor there. */
export const SpliceTags = memo(function SpliceTags({ planned, tags }: { planned: PlannedLoom; tags: readonly Tag[] }) {
  const cursor = useCursorStore();
  const byId = new Map(planned.plan.splices.map((splice) => [splice.id, splice]));
  return tags.map((tag) => (
    <SpliceTag key={tag.spliceIds[0]} tag={tag} splices={tag.spliceIds.map((id) => byId.get(id)!)} onGo={(place) => cursor.set(place)} />
  ));
});

function SpliceTag({ tag, splices, onGo }: { tag: Tag; splices: PlannedSplice[]; onGo: (place: Cursor) => void }) {
  const [isOpen, setOpen] = useState(false);
  const { box, words, clear } = tag;
  const go = ({ place }: PlannedSplice) => {
    setOpen(false);
    onGo({ segmentId: place.segmentId, offsetMm: place.offsetMm });
  };
  const button = (
    <button
      type="button"
      className={styles.tag}
      data-clear={clear}
      style={{ left: box.left, top: (box.top + box.bottom - HEIGHT) / 2, width: box.right - box.left, height: HEIGHT }}
      aria-expanded={splices.length > 1 ? isOpen : undefined}
      onPointerDown={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onClick={() => (splices.length === 1 ? go(splices[0]!) : setOpen(!isOpen))}
    >
      <span style={{ height: box.bottom - box.top }}>{words}</span>
    </button>
  );
  if (splices.length === 1) return button;
  return (
    <Popover opened={isOpen} onChange={setOpen} position="bottom-start" trapFocus withinPortal>
      <Popover.Target>{button}</Popover.Target>
      <Popover.Dropdown p={4}>
        <div className={styles.list}>
          {splices.map((splice) => (
            <button type="button" key={splice.id} onClick={() => go(splice)}>
              <b>{splice.label}</b>
              <span className="mono">{Math.round(splice.distanceMm)} mm</span>
              <span style={{ color: splice.clear ? 'var(--ink-2)' : 'var(--action)' }}>
                {splice.clear ? 'clear of its neighbours' : '! not clear'}
              </span>
            </button>
          ))}
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
