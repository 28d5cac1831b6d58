import { memo, useDeferredValue, useMemo, type CSSProperties } from 'react';
import {
  listLaidCircles,
  measureCopperDiameter,
  toClockWords,
  toCount,
  WIRE_HEX,
  type ColourName,
  type LaidCircle,
  type PlannedBundle,
  type PlannedLayup,
  type PlannedWire,
  type Section,
} from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { standAt, useCursor } from '../cursor';
import { disc, GroupRing, listCores, OverRing } from './cores';
import styles from './SectionPanel.module.css';
import { SleeveRing } from './SectionPicture';

/** So many elements that each is too small for a number. */
const MANY = 48;

/** A bundle twisted in layers, cut through: each layer turned as far as its lay has brought it, dead wire hatched, the hand as an arrow. */
export function LaidPicture({
  planned,
  layup,
  bundle,
  section,
  wires,
  over,
  onOver,
}: {
  planned: PlannedLoom;
  layup: PlannedLayup;
  bundle: PlannedBundle;
  section: Section;
  wires: ReadonlyMap<string, PlannedWire>;
  over: string | null;
  onOver: (wireId: string | null) => void;
}) {
  const { plan } = planned;
  const covering = plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const wall = Math.max(0, (covering.odOutsideMm - bundle.odMm) / 2);
  const outside = section.odMm / 2 + wall;
  const startMm = layup.marks[layup.segmentMarks[layup.segmentIds.indexOf(bundle.segmentId)]!]!.mm;
  // layers at the start of the section, each turned from there by the cursor
  const { layers, stretch } = useMemo(() => {
    const circles = listLaidCircles(layup, startMm + section.fromMm);
    const mark = layup.marks.findLastIndex(({ mm }) => mm <= startMm + section.fromMm + 1e-6);
    const laid = layup.stretches.find(({ fromMark, toMark }) => fromMark <= mark && mark < toMark)!;
    return { stretch: laid, layers: laid.layers.map((_, index) => circles.filter(({ layer }) => layer === index)) };
  }, [layup, section, startMm]);
  const serial = useMemo(() => new Map(section.elements.flat().map((id, index) => [id, index + 1])), [section]);
  const isMany = section.elements.length > MANY;
  const alongMm = useDeferredValue(
    useCursor((cursor) => {
      const at = standAt(plan, cursor);
      return at?.segmentId === bundle.segmentId ? Math.max(0, at.offsetMm - section.fromMm) : 0;
    }),
  );
  const outermost = layers.findLastIndex((circles) => circles.length > 0);
  return (
    <svg
      className={styles.picture}
      viewBox={`${-outside * 1.3} ${-outside * 1.16} ${outside * 2.6} ${outside * 2.3}`}
      role="img"
      onPointerOver={({ target }) => onOver((target as Element).closest<SVGElement>('[data-wire]')?.dataset.wire ?? null)}
      onPointerLeave={() => onOver(null)}
      aria-label={`Bundle of ${toCount(section.elements.length, 'element')} in ${toCount(outermost + 1, 'layer')}, ${section.odMm.toFixed(1)} mm`}
    >
      <defs>
        <pattern id="dead-wire" width={outside * 0.05} height={outside * 0.05} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d={`M0 0V${outside * 0.05}`} stroke="var(--ink-2)" strokeWidth={outside * 0.018} />
        </pattern>
      </defs>
      <SleeveRing covering={covering} wall={wall} outside={outside} />
      <circle r={section.odMm / 2} fill="var(--paper-2)" stroke="var(--ink-2)" strokeWidth={outside * 0.006} />
      <path d={`M0 ${-outside * 1.02}V${-outside * 1.12}`} stroke="var(--ink)" strokeWidth={outside * 0.025} />
      {layers.map((circles, index) => {
        const { hand, layMm } = stretch.layers[index]!;
        const shown = over === null ? undefined : listLaidCores(circles).find(({ id }) => id === over);
        const turn = layMm === null ? 0 : ((hand === 'right' ? 1 : -1) * 360 * alongMm) / layMm;
        return (
          // numbers stand upright: without them nothing in the layer hangs on how far it is turned
          <g
            key={index}
            transform={`rotate(${turn})`}
            style={isMany ? undefined : ({ '--turn': `${-turn}deg` } as CSSProperties)}
            data-layer={index}
          >
            <LayerCircles circles={circles} wires={wires} serial={isMany ? null : serial} />
            {shown && <OverRing {...shown} />}
          </g>
        );
      })}
      {outermost >= 0 && stretch.layers[outermost]!.hand && <HandArrow hand={stretch.layers[outermost]!.hand} radius={outside * 1.09} />}
    </svg>
  );
}

/** The hand of the outermost layer, as an arrow that goes the way it turns away from the datum. */
function HandArrow({ hand, radius }: { hand: 'right' | 'left'; radius: number }) {
  const sign = hand === 'right' ? 1 : -1;
  const at = (deg: number, r = radius) => `${r * Math.sin((deg * Math.PI) / 180) * sign} ${-r * Math.cos((deg * Math.PI) / 180)}`;
  return (
    <g>
      <title>{hand}-hand lay</title>
      <path
        d={`M${at(14)}A${radius} ${radius} 0 0 ${hand === 'right' ? 1 : 0} ${at(48)}M${at(42, radius * 1.05)}L${at(49)}L${at(43, radius * 0.95)}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={radius * 0.025}
      />
      <text
        x={radius * Math.sin((58 * Math.PI) / 180) * sign}
        y={-radius * Math.cos((58 * Math.PI) / 180)}
        fontSize={radius * 0.13}
        textAnchor={hand === 'right' ? 'start' : 'end'}
        fill="var(--ink)"
      >
        {hand}
      </text>
    </g>
  );
}

/** Drawn once for a section, in few elements, for there may be hundreds of wires; turning it is the group's work. */
const LayerCircles = memo(function LayerCircles({
  circles,
  wires,
  serial,
}: {
  circles: readonly LaidCircle[];
  wires: ReadonlyMap<string, PlannedWire>;
  serial: ReadonlyMap<string, number> | null;
}) {
  const cores = listLaidCores(circles);
  const stripes = new Map<ColourName, string>();
  let copper = '';
  for (const { id, x, y, r } of cores) {
    const { colour, conductor } = wires.get(id)!;
    copper += disc(x, y, Math.min(r * 0.62, measureCopperDiameter(conductor) / 2));
    if (colour.stripe) stripes.set(colour.stripe, `${stripes.get(colour.stripe) ?? ''}M${x} ${y - r * 0.95}L${x + r * 0.5} ${y - r * 0.8}`);
  }
  const thin = Math.min(...cores.map(({ r }) => r));
  return (
    <>
      {circles.map(({ x, y, r, slot, wireIds, fillerMassGPerM }) => {
        if (wireIds.length === 0)
          return (
            <circle
              key={slot}
              cx={x}
              cy={y}
              r={r * 0.96}
              fill={fillerMassGPerM ? 'url(#dead-wire)' : 'none'}
              stroke="var(--ink-2)"
              strokeDasharray={`${r * 0.3} ${r * 0.2}`}
              strokeWidth={r * 0.07}
            >
              <title>dead wire</title>
            </circle>
          );
        return wireIds.length === 1 ? null : <GroupRing key={slot} {...{ x, y, r }} />;
      })}
      {cores.map(({ id, x, y, r, deg }) => {
        const { colour, number } = wires.get(id)!;
        return (
          <circle
            key={id}
            data-wire={id}
            cx={x}
            cy={y}
            r={r * 0.985}
            fill={WIRE_HEX[colour.base]}
            stroke="var(--outline)"
            strokeWidth={r * 0.06}
          >
            <title>{`${number}, starts at ${toClockWords(deg)}`}</title>
          </circle>
        );
      })}
      <g pointerEvents="none">
        {[...stripes].map(([name, d]) => (
          <path key={name} d={d} fill="none" stroke={WIRE_HEX[name]} strokeWidth={thin * 0.3} />
        ))}
        <path d={copper} fill="#d9a273" />
        {serial &&
          cores.map(({ id, x, y, r }) => (
            <text
              key={id}
              x={x}
              y={y + r * 0.24}
              textAnchor="middle"
              fontSize={r * 0.7}
              fontWeight={600}
              fill="#14242b"
              style={{ transformOrigin: `${x}px ${y}px`, transform: 'rotate(var(--turn))' }}
            >
              {serial.get(id)}
            </text>
          ))}
      </g>
    </>
  );
});

/** Wires of a layer, with the angle at which each starts. */
const listLaidCores = (circles: readonly LaidCircle[]) =>
  circles.flatMap((circle) => listCores(circle, circle.wireIds).map((core) => ({ ...core, deg: circle.deg })));
