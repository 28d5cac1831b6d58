import { startTransition, useCallback, useLayoutEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { fitStrip, layoutStrip, SCREEN_DETAILS, zoomDetail, type StripLayout, type StripOptions } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import type { Cursor } from '../cursor';
import { LEFT } from './StripParts';

/** Room above the first strip for the ruler and the cursor's flag. */
export const TOP = 36;
const MARGIN = 10;
const MOST_ZOOM = 12;

/** A place that stays where it is on the screen while the strip is zoomed. */
interface Anchor {
  place: Cursor;
  /** how far down its run, 0 to 1 */
  share: number;
  /** from the corner of the pane, px */
  x: number;
  y: number;
}

export interface StripView {
  layout: StripLayout;
  scale: number;
  zoom: number;
  /** Zooms by a factor about a point of the pane; where none is given, about a place of the loom. */
  zoomBy: (factor: number, at: { x: number; y: number } | Cursor | null) => void;
  /** Everything in view again. */
  fit: () => void;
  /** Holds scale and detail while something is dragged; false: lets go. */
  freeze: (isFrozen: boolean) => void;
  /** Place of the loom at a point of the sheet. */
  findPlace: (x: number, y: number) => Cursor | null;
  /** Scrolls as little as needed to have a place of the loom in view. */
  show: (place: Cursor) => void;
}

/** How a loom is laid out in its pane, and what of it is in view. */
export function useStripView(
  planned: PlannedLoom,
  pane: RefObject<HTMLDivElement | null>,
  size: { width: number; height: number },
  said: Pick<StripOptions, 'words' | 'zones'>,
): StripView {
  const [zoom, setZoom] = useState(1);
  const [frozen, setFrozen] = useState<StripOptions | null>(null);
  const anchor = useRef<Anchor | null>(null);
  const { width, height } = size;
  const { loom, plan } = planned;
  const [fitter] = useState(createFitter);
  const options = useMemo(() => {
    if (frozen) return frozen;
    const fitted = fitter(planned, said, Math.max(360, width - MARGIN), Math.max(160, height - MARGIN));
    return zoom === 1 ? fitted : { ...fitted, scale: fitted.scale * zoom, detail: zoomDetail(fitted.detail, zoom) };
  }, [frozen, fitter, planned, said, width, height, zoom]);
  const layout = useMemo(() => layoutStrip(loom, plan, options), [loom, plan, options]);
  const { scale } = options;

  useLayoutEffect(() => {
    const kept = anchor.current;
    const run = layout.runs.find(({ segmentId }) => segmentId === kept?.place.segmentId);
    if (!kept || !run || !pane.current) return;
    anchor.current = null;
    pane.current.scrollTo({
      left: run.x + kept.place.offsetMm * scale - kept.x,
      top: run.top + kept.share * (run.bottom - run.top) - kept.y,
    });
  }, [layout, scale, pane]);

  const findPlace = useCallback((x: number, y: number) => findPlaceIn(layout, plan, scale, x, y), [layout, plan, scale]);
  const zoomBy: StripView['zoomBy'] = (factor, at) => {
    const box = pane.current;
    if (!box) return;
    const isPlace = at !== null && 'segmentId' in at;
    const point = isPlace ? toPoint(layout, scale, at) : at && { x: at.x + box.scrollLeft, y: at.y + box.scrollTop };
    const place = isPlace ? at : point && findPlace(point.x, point.y);
    const run = layout.runs.find(({ segmentId }) => segmentId === place?.segmentId);
    if (place && point && run) {
      const within = (value: number, most: number) => (isPlace ? Math.max(40, Math.min(most - 40, value)) : value);
      anchor.current = {
        place,
        share: (point.y - run.top) / (run.bottom - run.top),
        x: within(point.x - box.scrollLeft, box.clientWidth),
        y: within(point.y - box.scrollTop, box.clientHeight),
      };
    }
    setZoom((now) => Math.max(1, Math.min(MOST_ZOOM, now * factor)));
  };
  const show = useCallback(
    (place: Cursor) => {
      const box = pane.current;
      const point = toPoint(layout, scale, place);
      if (!box || !point) return;
      const toView = (now: number, room: number, value: number) =>
        value < now + 50 ? Math.max(0, value - 50) : value > now + room - 80 ? value - room + 80 : now;
      box.scrollTo({ left: toView(box.scrollLeft, box.clientWidth, point.x), top: toView(box.scrollTop, box.clientHeight, point.y) });
    },
    [layout, scale, pane],
  );
  return {
    layout,
    scale,
    zoom,
    zoomBy,
    fit: () => setZoom(1),
    // fitting it anew is no part of letting go
    freeze: (isFrozen) => (isFrozen ? setFrozen(options) : startTransition(() => setFrozen(null))),
    findPlace,
    show,
  };
}

/** Fits looms into their pane; one that was edited stays as it was drawn where that still fits. */
function createFitter() {
  let last: { key: string; options: StripOptions } | null = null;
  return (
    { loom, plan, loomId }: PlannedLoom,
    said: Pick<StripOptions, 'words' | 'zones'>,
    width: number,
    height: number,
  ): StripOptions => {
    const key = `${loomId} ${width} ${height}`;
    const base = { row: 18, left: LEFT, top: TOP, text: 14, ...said };
    const options = fitStrip(loom, plan, base, { width, height }, SCREEN_DETAILS, last?.key === key ? last.options : null);
    last = { key, options };
    return options;
  };
}

function toPoint(layout: StripLayout, scale: number, { segmentId, offsetMm }: Cursor): { x: number; y: number } | null {
  const run = layout.runs.find((one) => one.segmentId === segmentId);
  return run ? { x: run.x + offsetMm * scale, y: (run.top + run.bottom) / 2 } : null;
}

/** The place on the run under a point; beside all runs, on the nearest of those that pass it along the tape. */
function findPlaceIn(layout: StripLayout, { tree }: PlannedLoom['plan'], scale: number, x: number, y: number): Cursor | null {
  const within = layout.runs.filter((run) => x >= run.x && x <= run.x + run.width);
  const away = ({ top, bottom }: StripLayout['runs'][number]) => Math.max(0, top - y, y - bottom);
  const [run] = (within.length ? within : layout.runs).toSorted((a, b) => away(a) - away(b));
  if (!run) return null;
  const { lengthMm } = tree.segments[run.segmentId]!;
  return { segmentId: run.segmentId, offsetMm: Math.max(0, Math.min(lengthMm, Math.round((x - run.x) / scale))) };
}
