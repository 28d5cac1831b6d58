'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { toSizeWords, type LengthAllowance, type PlannedWire } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useCursor, useCursorStore, useLit } from '../../ui/cursor';
import { Swatch } from '../../ui/Swatch';
import { Why } from '../../ui/Why';
import styles from './Bundle.module.css';
import { useChanges } from './Changes';

const ROW = 25;
const TINT: Record<LengthAllowance['kind'], string> = {
  segment: '#bcd9d1',
  breakout: '#d9c27a',
  entry: '#e0a94e',
  'service-loop': '#9db4d0',
  're-termination': '#7f9cc0',
  clocking: '#b39ac6',
  strip: '#c9a98c',
  splice: '#55666c',
  rounding: '#dfe3dc',
};

/** The wires under the cursor (or all), with the cut length of each and what it is made of. */
export function WiresTable({ planned }: { planned: PlannedLoom }) {
  const [all, setAll] = useState(false);
  const scroll = useRef<HTMLDivElement>(null);
  const here = useDeferredValue(useCursor((at) => at?.segmentId ?? null));
  const index = useDeferredValue(
    useCursor((at) => {
      const sections = planned.plan.bundles.find(({ segmentId }) => segmentId === at?.segmentId)?.sections ?? [];
      return at ? sections.findIndex(({ toMm }) => at.offsetMm <= toMm) : -1;
    }),
  );
  const { plan } = planned;
  const wires = useMemo(() => {
    if (all || here === null) return plan.wires;
    const ids = new Set(plan.bundles.find(({ segmentId }) => segmentId === here)?.sections[Math.max(0, index)]?.elements.flat());
    return plan.wires.filter(({ id }) => ids.has(id));
  }, [all, here, index, plan]);
  const changes = useChanges(planned);
  const was = useMemo(() => new Map(changes?.cuts.map(({ wireId, fromMm }) => [wireId, fromMm])), [changes]);
  const longest = plan.wires.reduce((most, { cutMm }) => Math.max(most, cutMm), 1);
  // the table is windowed: 300 rows are not drawn while a breakout is dragged
  const rows = useVirtualizer({ count: wires.length, getScrollElement: () => scroll.current, estimateSize: () => ROW, overscan: 6 });
  const items = rows.getVirtualItems();
  const lit = useLit();
  const litAt = wires.findIndex(({ id }) => id === lit);
  useEffect(() => {
    if (litAt >= 0) rows.scrollToIndex(litAt, { align: 'auto' });
    // the virtualizer is another with each drawing; only a new light or its new place moves the table
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [litAt]);
  if (plan.wires.length === 0) return <p className={styles.wait}>No wires yet: add circuits on the tab Circuits.</p>;
  return (
    <div ref={scroll} style={{ overflow: 'auto', height: '100%' }}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th>wire</th>
            <th>colour</th>
            <th>from</th>
            <th>to</th>
            <th>size</th>
            <th className={styles.num}>cut mm</th>
            <th />
            <th>made of</th>
            <th style={{ textAlign: 'right' }}>
              <button className={styles.link} aria-pressed={all} onClick={() => setAll(!all)}>
                {all
                  ? `all ${plan.wires.length}, show those under the cursor`
                  : `${wires.length} under the cursor, show all ${plan.wires.length}`}
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          {items[0] && items[0].start > 0 && (
            <tr style={{ height: items[0].start }}>
              <td />
            </tr>
          )}
          {items.map(({ index: row }) => (
            <WireRow
              key={wires[row]!.id}
              wire={wires[row]!}
              planned={planned}
              was={was.get(wires[row]!.id) ?? null}
              longest={longest}
              isLit={wires[row]!.id === lit}
            />
          ))}
          {items.length > 0 && (
            <tr style={{ height: rows.getTotalSize() - items.at(-1)!.end }}>
              <td />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

const WireRow = memo(function WireRow({
  wire,
  planned,
  was,
  longest,
  isLit,
}: {
  wire: PlannedWire;
  planned: PlannedLoom;
  was: number | null;
  longest: number;
  isLit: boolean;
}) {
  const cursor = useCursorStore();
  const { loom, plan } = planned;
  const where = (end: PlannedWire['from']) =>
    end.kind === 'cavity'
      ? `${loom.ends[end.endId]!.name} · ${end.cavity}`
      : `splice ${plan.splices.find(({ id }) => id === end.spliceId)!.label}`;
  const short = (words: string) => (words.length > 25 ? `${words.slice(0, 24)}…` : words);
  return (
    <tr style={{ height: ROW }} data-here={isLit}>
      <td className="mono">
        <button
          className={styles.number}
          aria-pressed={isLit}
          title="Show it on the strip from end to end"
          onClick={() => cursor.light(isLit ? null : wire.id)}
        >
          {wire.number}
        </button>
      </td>
      <td>
        <Swatch colour={wire.colour} />
      </td>
      <td title={where(wire.from)}>{short(where(wire.from))}</td>
      <td title={where(wire.to)}>{short(where(wire.to))}</td>
      <td>
        <Why
          because={
            <>
              {toSizeWords(wire.conductor)}, {wire.conductor.areaMm2} mm², {wire.conductor.odMm} mm over the insulation.
              <br />
              Ruled by <b>{wire.ruledBy}</b>: {wire.because}.
            </>
          }
        >
          {toSizeWords(wire.conductor)}
        </Why>
      </td>
      <td className={styles.num}>
        {wire.heldBy.length ? (
          <Why because={`Held from cutting: ${wire.heldBy.map(({ words }) => words).join(', ')}.`}>
            <b style={{ color: 'var(--action)' }}>held {wire.cutMm}</b>
          </Why>
        ) : (
          <Why because={<WhyCut wire={wire} />}>
            <b>{wire.cutMm}</b>
          </Why>
        )}
      </td>
      <td className={styles.was}>{was !== null && was !== wire.cutMm ? `was ${was}` : ''}</td>
      <td colSpan={2}>
        <span className={styles.bar} style={{ width: `${Math.max(6, (210 * wire.cutMm) / longest)}px` }} aria-hidden="true">
          {wire.addends.map((addend, at) => (
            <span key={at} style={{ background: TINT[addend.kind], flexGrow: addend.mm }} />
          ))}
        </span>
      </td>
    </tr>
  );
});

/** Every term of a cut length. */
export function WhyCut({ wire }: { wire: PlannedWire }) {
  return (
    <table>
      <tbody>
        {wire.addends.map((addend, index) => (
          <tr key={index}>
            <td className="mono" style={{ textAlign: 'right', paddingRight: 12 }}>
              {addend.mm.toFixed(1)}
            </td>
            <td>
              <i style={{ display: 'inline-block', width: 10, height: 10, marginRight: 6, background: TINT[addend.kind] }} />
              {addend.words}
            </td>
          </tr>
        ))}
        <tr>
          <td className="mono" style={{ textAlign: 'right', paddingRight: 12, borderTop: '1.5px solid var(--ink)' }}>
            <b>{wire.cutMm}</b>
          </td>
          <td style={{ borderTop: '1.5px solid var(--ink)' }}>
            to cut; ± {wire.sigmaMm.toFixed(0)} mm on the path, so rough cut {wire.roughMm}
          </td>
        </tr>
      </tbody>
    </table>
  );
}
