import { useEffect, useRef, type PointerEvent, type RefObject } from 'react';
import type { StripLayout } from 'wattograph-core';
import styles from './Strip.module.css';

const WIDTH = 190;
const MOST_HEIGHT = 110;

/** The whole strip in little, with what is in view: shown where some of it is not. Dragging moves the view. */
export function Minimap({ layout, pane }: { layout: StripLayout; pane: RefObject<HTMLDivElement | null> }) {
  const view = useRef<SVGRectElement>(null);
  const factor = Math.min(WIDTH / layout.width, MOST_HEIGHT / layout.height);
  useEffect(() => {
    const box = pane.current;
    if (!box) return;
    const follow = () => {
      const sizes = { x: box.scrollLeft, y: box.scrollTop, width: box.clientWidth, height: box.clientHeight };
      for (const [name, value] of Object.entries(sizes)) view.current?.setAttribute(name, String(value * factor));
    };
    follow();
    box.addEventListener('scroll', follow, { passive: true });
    return () => box.removeEventListener('scroll', follow);
  }, [pane, factor, layout]);
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
      {layout.runs.map(({ segmentId, x, width, top, bottom, count }) => (
        <line
          key={segmentId}
          x1={x * factor}
          x2={(x + width) * factor}
          y1={((top + bottom) / 2) * factor}
          y2={((top + bottom) / 2) * factor}
          strokeWidth={Math.max(1, Math.min((bottom - top) * factor, Math.sqrt(count) * 0.8))}
        />
      ))}
      <rect ref={view} />
    </svg>
  );
}
