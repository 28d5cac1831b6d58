'use client';

import { memo, useDeferredValue, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  measureBraid,
  WIRE_HEX,
  type PlannedBundle,
  type PlannedWire,
  type Section,
  measureCopperDiameter,
  toCount,
} from 'wattograph-core';
import { useShop } from '../client/shopContext';
import type { PlannedLoom } from '../client/jobContext';
import { useCursor } from './cursor';
import styles from './SectionPanel.module.css';
import { Swatch } from './Swatch';
import { Why } from './Why';

/** The loom cut through at the cursor. */
export function SectionPanel({ planned }: { planned: PlannedLoom }) {
  // which section, as a word: the panel is drawn again only where it changes, and never before the cursor has moved
  const shown = useDeferredValue(
    useCursor((at) => {
      const sections = planned.plan.bundles.find((one) => one.segmentId === at?.segmentId)?.sections;
      return at && sections
        ? `${at.segmentId} ${Math.max(
            0,
            sections.findIndex(({ toMm }) => at.offsetMm <= toMm),
          )}`
        : '';
    }),
  );
  const [segmentId, index] = shown.split(' ');
  const bundle = planned.plan.bundles.find((one) => one.segmentId === segmentId);
  const section = bundle?.sections[Number(index)] ?? bundle?.sections[0];
  if (!bundle || !section)
    return (
      <aside className={styles.panel}>
        <h2>Section</h2>
        <p className="faint">Move the cursor along the strip to cut the loom there.</p>
      </aside>
    );
  return (
    <aside className={styles.panel} aria-label="Section at the cursor">
      <div className={styles.title}>
        <h2>
          Section at <At planned={planned} /> mm
        </h2>
        <span className="mono faint">{toCount(section.elements.flat().length, 'wire')}</span>
      </div>
      <Cut planned={planned} bundle={bundle} section={section} />
    </aside>
  );
}

/** How hot the run gets in its worst mode, against what its insulation stands. */
function HeatRow({ planned, segmentId }: { planned: PlannedLoom; segmentId: string }) {
  const heat = planned.plan.heats.find((one) => one.segmentId === segmentId);
  if (!heat || heat.limitC === null)
    return (
      <tr>
        <td>Hottest</td>
        <td>
          <Why because="No zone is given for this run, so its ambient is not known. Give it one under Lengths.">ambient not known</Why>
        </td>
      </tr>
    );
  const { ambientC, surfaceC, middleC, wattsPerM, limitC, modeId, uncounted } = heat;
  return (
    <tr>
      <td>Hottest, in the middle</td>
      <td>
        <Why
          because={
            <>
              {modeId === null
                ? 'Nothing known flows here'
                : `In “${planned.job.modes[modeId]!.name}”, when it is hottest, each wire with what it carries then`}
              ; still air of {ambientC} °C
              {wattsPerM === null
                ? ''
                : `: ${wattsPerM.toFixed(2)} W/m, surface ${surfaceC!.toFixed(1)} °C, middle ${middleC!.toFixed(1)} °C`}
              .
              <br />
              Natural convection (Churchill and Chu) and radiation outside, k 0.2 through the covering, 0.16 W/m·K through the bundle;
              copper at the temperature found.
              {uncounted > 0 && (
                <>
                  <br />
                  {uncounted} {uncounted === 1 ? 'wire has' : 'wires have'} no known current and count as carrying none.
                </>
              )}
            </>
          }
        >
          {middleC === null ? 'runs away' : `${middleC.toFixed(0)} °C`} of {limitC}
        </Why>
      </td>
    </tr>
  );
}

function At({ planned }: { planned: PlannedLoom }) {
  const mm = useCursor((at) =>
    at && planned.plan.tree.segments[at.segmentId] ? Math.round(planned.plan.tree.segments[at.segmentId]!.startMm + at.offsetMm) : 0,
  );
  return (
    <span className="mono" data-testid="section-at">
      {mm}
    </span>
  );
}

const Cut = memo(function Cut({ planned, bundle, section }: { planned: PlannedLoom; bundle: PlannedBundle; section: Section }) {
  const [over, setOver] = useState<string | null>(null);
  const { plan, loom } = planned;
  const covering = plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const wall = Math.max(0, (covering.odOutsideMm - bundle.odMm) / 2);
  const outside = section.odMm / 2 + wall;
  const serial = new Map(section.elements.flat().map((id, index) => [id, index + 1]));
  const far = plan.tree.segments[bundle.segmentId]!.farNodeId;
  const onward = plan.tree.nodes[far]!.childSegmentIds[0];
  const leaving = section.elements.flat().filter((id) => !wires.get(id)!.pieces.some(({ segmentId }) => segmentId === onward)).length;
  const kind = loom.nodes[far]!.kind;
  const isLarge = section.elements.length > MANY;
  return (
    <>
      <svg
        className={styles.picture}
        viewBox={`${-outside * 1.16} ${-outside * 1.06} ${outside * 2.32} ${outside * 2.12}`}
        role="img"
        aria-label={`Bundle of ${section.elements.length} elements, ${section.odMm.toFixed(1)} mm`}
      >
        {wall > 0 && (
          <circle
            r={outside - wall / 2}
            fill="none"
            stroke={covering.kind === 'adhesive-shrink' ? 'var(--sea)' : 'var(--ink-2)'}
            strokeWidth={wall}
            strokeDasharray={covering.kind === 'braid' ? `${wall} ${wall / 2}` : undefined}
            opacity={0.45}
          />
        )}
        <circle r={section.odMm / 2} fill="var(--paper-2)" stroke="var(--ink-2)" strokeWidth={outside * 0.006} />
        {isLarge ? (
          <ManyCores section={section} wires={wires} />
        ) : (
          section.elements.map((ids, index) => {
            const { x, y, r } = section.circles[index]!;
            if (ids.length === 1) return drawCore(x, y, r, ids[0]!);
            const inner = r / ids.length;
            return (
              <g key={ids.join()}>
                <circle
                  cx={x}
                  cy={y}
                  r={r}
                  fill="none"
                  stroke="var(--ink-2)"
                  strokeDasharray={`${r * 0.2} ${r * 0.14}`}
                  strokeWidth={r * 0.05}
                />
                {ids.map((id, at) => drawCore(x + (at - (ids.length - 1) / 2) * 2 * inner, y, inner, id))}
              </g>
            );
          })
        )}
      </svg>
      <table className={styles.figures}>
        <tbody>
          <tr>
            <td>Over the wires</td>
            <td>
              <Why
                because={
                  <>
                    <b>{section.odMm.toFixed(2)} mm</b>, laid straight and tied:{' '}
                    {section.method === 'formula' ? 'exact enclosing circle' : 'best found by circle packing'} of {section.elements.length}{' '}
                    elements.
                    <br />
                    No bundle of these can be less than √(Σd²)/√0.9069 = {section.boundMm.toFixed(2)} mm; this one is{' '}
                    {(section.odMm / section.boundMm).toFixed(2)} × that.
                  </>
                }
              >
                {section.odMm.toFixed(1)} mm
              </Why>
            </td>
          </tr>
          <tr>
            <td>Covering</td>
            <td>
              <Why because={<WhyCovering planned={planned} bundle={bundle} />}>
                {covering.kind === 'none' ? 'none' : covering.problem === 'no-size' ? 'no size fits' : covering.itemName}
              </Why>
            </td>
          </tr>
          <tr>
            <td>Over it, inside bend</td>
            <td>
              <Why
                because={
                  <>
                    {covering.kind === 'shrink' || covering.kind === 'adhesive-shrink'
                      ? `The sleeve keeps the volume of its wall: ${bundle.odMm.toFixed(2)} → ${covering.odOutsideMm.toFixed(2)} mm.`
                      : `${bundle.odMm.toFixed(2)} + 2 × ${wall.toFixed(2)} wall = ${covering.odOutsideMm.toFixed(2)} mm.`}
                    <br />
                    Least inside bend radius: {(covering.insideBendMm / (covering.odOutsideMm || 1)).toFixed(0)} ×{' '}
                    {covering.odOutsideMm.toFixed(1)} mm
                    {bundle.isStiff ? ', for a screen or a heavy conductor lies in it' : ''}.
                  </>
                }
              >
                {covering.odOutsideMm.toFixed(1)} mm, ≥ {covering.insideBendMm.toFixed(0)}
              </Why>
            </td>
          </tr>
          <HeatRow planned={planned} segmentId={bundle.segmentId} />
          <tr>
            <td>Leaves next</td>
            <td>
              {kind === 'end' ? 'all' : leaving === 0 ? 'nothing' : leaving} at {loom.nodes[far]!.name}
            </td>
          </tr>
          <tr>
            <td>Wire mass</td>
            <td>{bundle.massGPerM.toFixed(0)} g/m</td>
          </tr>
        </tbody>
      </table>
      {isLarge ? (
        <LongKey ids={section.elements.flat()} wires={wires} />
      ) : (
        <div className={styles.key}>
          {section.elements.flat().map((id) => {
            const wire = wires.get(id)!;
            return (
              <div key={id} data-on={over === id} onPointerEnter={() => setOver(id)} onPointerLeave={() => setOver(null)}>
                <span className="mono faint">{serial.get(id)}</span>
                <Swatch colour={wire.colour} words={false} />
                <span className="mono">{wire.number}</span>
              </div>
            );
          })}
        </div>
      )}
    </>
  );

  function drawCore(x: number, y: number, r: number, wireId: string) {
    const { colour, number, conductor } = wires.get(wireId)!;
    const copper = Math.min(r * 0.62, measureCopperDiameter(conductor) / 2);
    return (
      <g key={wireId} onPointerEnter={() => setOver(wireId)} onPointerLeave={() => setOver(null)}>
        <circle
          cx={x}
          cy={y}
          r={r * 0.985}
          fill={WIRE_HEX[colour.base]}
          stroke={over === wireId ? 'var(--brass)' : 'var(--outline)'}
          strokeWidth={over === wireId ? r * 0.3 : r * 0.06}
        />
        {colour.stripe && (
          <path
            d={`M${x - r * 0.16} ${y - r * 0.97} A${r} ${r} 0 0 1 ${x + r * 0.5} ${y - r * 0.84} L${x + r * 0.32} ${y - copper * 0.95} L${x - r * 0.1} ${y - copper} Z`}
            fill={WIRE_HEX[colour.stripe]}
          />
        )}
        <circle cx={x} cy={y} r={copper} fill="#d9a273" stroke="var(--outline)" strokeWidth={r * 0.05} />
        <text x={x} y={y + r * 0.24} textAnchor="middle" fontSize={r * 0.7} fontWeight={600} fill="#14242b">
          {serial.get(wireId)}
        </text>
        <title>{number}</title>
      </g>
    );
  }
});

/** So many elements that each is too small for a number: drawn colour by colour in a few paths. */
const MANY = 48;

const disc = (x: number, y: number, r: number) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;

function ManyCores({ section, wires }: { section: Section; wires: ReadonlyMap<string, PlannedWire> }) {
  const bases = new Map<string, string>();
  const stripes = new Map<string, string>();
  let copper = '';
  section.elements.forEach((ids, index) => {
    const { x, y, r } = section.circles[index]!;
    const inner = r / ids.length;
    ids.forEach((id, at) => {
      const { colour, conductor } = wires.get(id)!;
      const cx = x + (at - (ids.length - 1) / 2) * 2 * inner;
      bases.set(colour.base, `${bases.get(colour.base) ?? ''}${disc(cx, y, inner * 0.97)}`);
      if (colour.stripe)
        stripes.set(colour.stripe, `${stripes.get(colour.stripe) ?? ''}M${cx} ${y}L${cx + inner * 0.5} ${y - inner * 0.8}`);
      copper += disc(cx, y, Math.min(inner * 0.62, measureCopperDiameter(conductor) / 2));
    });
  });
  const hex = (name: string) => WIRE_HEX[name as keyof typeof WIRE_HEX];
  return (
    <>
      {[...bases].map(([name, d]) => (
        <path key={name} d={d} fill={hex(name)} stroke="var(--outline)" strokeWidth={0.06} />
      ))}
      {[...stripes].map(([name, d]) => (
        <path key={name} d={d} fill="none" stroke={hex(name)} strokeWidth={0.22} />
      ))}
      <path d={copper} fill="#d9a273" />
    </>
  );
}

/** The key of a large section, drawn as far as it is looked at. */
function LongKey({ ids, wires }: { ids: readonly string[]; wires: ReadonlyMap<string, PlannedWire> }) {
  const scroll = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: ids.length, getScrollElement: () => scroll.current, estimateSize: () => 22, overscan: 3 });
  return (
    <div ref={scroll} className={styles.key} style={{ columns: 1 }}>
      <div style={{ height: rows.getTotalSize(), position: 'relative', display: 'block' }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const wire = wires.get(ids[index]!)!;
          return (
            <div key={ids[index]} style={{ position: 'absolute', top: 0, transform: `translateY(${start}px)` }}>
              <Swatch colour={wire.colour} words={false} />
              <span className="mono">{wire.number}</span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** Why this covering and this cut length. */
export function WhyCovering({ planned, bundle }: { planned: PlannedLoom; bundle: PlannedBundle }) {
  const shop = useShop();
  const { plan, loom } = planned;
  const covering = plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const { lengthMm } = plan.tree.segments[bundle.segmentId]!;
  if (covering.kind === 'none') return <>{covering.because}</>;
  const item = shop.coverings.find(({ id }) => id === covering.itemId);
  return (
    <>
      <b>{covering.kind}</b>, {covering.ruledBy === 'pinned' ? 'pinned' : `by the ${covering.ruledBy}`}: {covering.because}.<br />
      {covering.kind === 'braid' ? (
        <>
          Size: relaxed bore ≤ {bundle.odMm.toFixed(2)} ≤ 0.9 × expanded bore.
          <br />
        </>
      ) : (
        <>
          Size: recovered bore ≤ 0.9 × {bundle.odMm.toFixed(2)} and supplied bore ≥ 1.1 × {covering.mustPassMm.toFixed(1)}, the largest
          thing it has to pass (
          {loom.segments[bundle.segmentId]!.slideOn === 'before-ends'
            ? 'it goes on before the ends are closed'
            : 'it goes on after the ends are closed'}
          ).
          <br />
        </>
      )}
      Cut for {Math.round(lengthMm)} mm: <b>{covering.cutMm} mm</b>
      {item?.kind === 'braid'
        ? `, for braid opened to ${bundle.odMm.toFixed(1)} keeps ${measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, bundle.odMm).toFixed(4)} of its length (yarn at ${item.yarnAngleDeg}°)`
        : item
          ? `, for it loses ${(item.longitudinalChange * 100).toFixed(0)} % in shrinking, and overlaps its neighbour`
          : ''}
      .
      {covering.alsoFits.length > 0 && (
        <>
          <br />
          Also fits: {covering.alsoFits.join(', ')}.
        </>
      )}
    </>
  );
}
