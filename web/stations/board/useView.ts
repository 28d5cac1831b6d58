import { useEffect, useMemo, useState, type RefObject } from 'react';
import type { BoardPoint } from 'wattograph-core';

interface View {
  x: number;
  y: number;
  widthMm: number;
  heightMm: number;
}

const MARGIN = 0.03;
/** nearest and furthest look, mm across */
const LEAST_MM = 120;
const MOST = 3;

/** What part of a board is looked at: fitted to the picture, looked closer with the wheel, moved by dragging. */
export function useView(boardMm: number, highMm: number, box: RefObject<SVGSVGElement | null>) {
  const [size, setSize] = useState({ width: 900, height: 420 });
  const [chosen, setChosen] = useState<View | null>(null);
  useEffect(() => {
    const element = box.current;
    if (!element || typeof ResizeObserver === 'undefined') return;
    const observer = new ResizeObserver(() => {
      const { width, height } = element.getBoundingClientRect();
      if (width > 0 && height > 0) setSize({ width, height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [box]);
  const fitted = useMemo((): View => {
    const mm = Math.max(boardMm / size.width, highMm / size.height) * (1 + 2 * MARGIN);
    const [widthMm, heightMm] = [size.width * mm, size.height * mm];
    return { x: (boardMm - widthMm) / 2, y: (highMm - heightMm) / 2, widthMm, heightMm };
  }, [boardMm, highMm, size]);
  const view = chosen ?? fitted;
  const mmPerPx = view.widthMm / size.width;
  const zoomAt = (by: number, atX: number, atY: number) =>
    setChosen((was) => {
      const now = was ?? fitted;
      const widthMm = Math.max(LEAST_MM, Math.min(fitted.widthMm * MOST, now.widthMm * by));
      const share = widthMm / now.widthMm;
      return {
        x: now.x + (atX - now.x) * (1 - share),
        y: now.y + (atY - now.y) * (1 - share),
        widthMm,
        heightMm: (widthMm * size.height) / size.width,
      };
    });
  const toBoard = (clientX: number, clientY: number): BoardPoint => {
    const { left, top } = box.current!.getBoundingClientRect();
    return { x: view.x + (clientX - left) * mmPerPx, y: view.y + (clientY - top) * mmPerPx };
  };
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    // React listens to the wheel passively: the page would scroll along
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = toBoard(event.clientX, event.clientY);
      zoomAt(event.deltaY > 0 ? 1.15 : 1 / 1.15, at.x, at.y);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });
  return {
    viewBox: `${view.x} ${view.y} ${view.widthMm} ${view.heightMm}`,
    mmPerPx,
    toBoard,
    zoom: (by: number) => zoomAt(by, view.x + view.widthMm / 2, view.y + view.heightMm / 2),
    fit: () => setChosen(null),
    pan: (dx: number, dy: number) => setChosen({ ...view, x: view.x - dx * mmPerPx, y: view.y - dy * mmPerPx }),
  };
}
