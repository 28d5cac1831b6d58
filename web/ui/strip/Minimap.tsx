import { memo, useEffect, useState, type PointerEvent, type RefObject } from 'react';
import type { StripLayout } from 'wattograph-core';
import styles from './Strip.module.css';

const WIDTH = 190;
const MOST_HEIGHT = 110;

interface Size {
  width: number;
  height: number;
}

/** The whole strip in little, with what is in view: shown where some of it is not. Dragging moves the view. */
export function Minimap({ layout, pane, size }: { layout: StripLayout; pane: RefObject<HTMLDivElement | null>; size: Size }) {
  const [seen, setSeen] = useState({ left: 0, top: 0 });
  const factor = Math.min(WIDTH / layout.width, MOST_HEIGHT / layout.height);
  // asked only where it scrolls: asking after each drawing would have the page laid out there and then
  useEffect(() => {
    const box = pane.current;
    if (!box) return;
    const follow = () => setSeen({ left: box.scrollLeft, top: box.scrollTop });
    follow();
    box.addEventListener('scroll', follow, { passive: true });
    return () => box.removeEventListener('scroll', follow);
  }, [pane]);
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const box = pane.current;
    if (!box || event.buttons !== 1) return;
    const corner = event.currentTarget.getBoundingClientRect();
    box.scrollTo({
      left: (event.clientX - corner.left) / factor - box.clientWidth / 2,
      top: (event.clientY - corner.top) / factor - box.clientHeight / 2,
    });
  };
  return (
    <svg
      className={styles.map}
      width={layout.width * factor}
      height={layout.height * factor}
      data-testid="minimap"
      aria-hidden
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        move(event);
      }}
      onPointerMove={move}
    >
      <Lines layout={layout} factor={factor} />
      <rect x={seen.left * factor} y={seen.top * factor} width={size.width * factor} height={size.height * factor} />
    </svg>
  );
}

/** Runs of about the same count are one path. */
const Lines = memo(function Lines({ layout, factor }: { layout: StripLayout; factor: number }) {
  const paths = new Map<number, string>();
  for (const { x, width, top, bottom, count } of layout.runs) {
    const thick = Math.max(1, Math.min((bottom - top) * factor, Math.sqrt(count) * 0.8));
    const key = Math.round(thick * 2) / 2;
    paths.set(key, `${paths.get(key) ?? ''}M${x * factor} ${((top + bottom) / 2) * factor}h${width * factor}`);
  }
  return [...paths].map(([thick, d]) => <path key={thick} d={d} strokeWidth={thick} />);
});
