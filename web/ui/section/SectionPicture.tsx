import { useMemo, type PointerEvent } from 'react';
import {
  measureCopperDiameter,
  settleCircles,
  WIRE_HEX,
  type Circle,
  type PlannedBundle,
  type PlannedCovering,
  type PlannedWire,
  type Section,
  toCount,
} from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { COVERING_LOOK } from '../coveringLook';
import { disc, GroupRing, listCores, OverRing, type Core } from './cores';
import styles from './SectionPanel.module.css';

/** The lay-up at true proportions: every wire, its copper, the covering. over: the wire that is pointed at, here or in the key. */
export function SectionPicture({
  planned,
  bundle,
  section,
  wires,
  over,
  onOver,
}: {
  planned: PlannedLoom;
  bundle: PlannedBundle;
  section: Section;
  wires: ReadonlyMap<string, PlannedWire>;
  over: string | null;
  onOver: (wireId: string | null) => void;
}) {
  const covering = planned.plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const wall = Math.max(0, (covering.odOutsideMm - bundle.odMm) / 2);
  const outside = section.odMm / 2 + wall;
  const serial = new Map(section.elements.flat().map((id, index) => [id, index + 1]));
  const isLarge = section.elements.length > MANY;
  const circles = useMemo(() => settleCircles(section.circles, section.odMm / 2), [section]);
  const cores = useMemo(
    () => (isLarge ? section.elements.flatMap((ids, index) => listCores(circles[index]!, ids)) : []),
    [isLarge, section, circles],
  );
  const shown = cores.find(({ id }) => id === over);
  const pointAt = (event: PointerEvent<SVGSVGElement>) => {
    const toPicture = event.currentTarget.getScreenCTM()?.inverse();
    if (!toPicture) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(toPicture);
    onOver(cores.find((core) => Math.hypot(core.x - x, core.y - y) <= core.r)?.id ?? null);
  };
  return (
    <svg
      className={styles.picture}
      viewBox={`${-outside * 1.16} ${-outside * 1.06} ${outside * 2.32} ${outside * 2.12}`}
      role="img"
      onPointerMove={isLarge ? pointAt : undefined}
      onPointerLeave={() => onOver(null)}
      aria-label={`Bundle of ${toCount(section.elements.length, 'element')}, ${section.odMm.toFixed(1)} mm`}
    >
      <SleeveRing covering={covering} wall={wall} outside={outside} />
      <circle r={section.odMm / 2} fill="var(--paper-2)" stroke="var(--ink-2)" strokeWidth={outside * 0.006} />
      {isLarge ? (
        <ManyCores section={section} circles={circles} wires={wires} />
      ) : (
        section.elements.map((ids, index) => {
          const cores = listCores(circles[index]!, ids);
          if (ids.length === 1) return drawCore(cores[0]!);
          return (
            <g key={ids.join()}>
              <GroupRing {...circles[index]!} />
              {cores.map(drawCore)}
            </g>
          );
        })
      )}
      {shown && isLarge && <OverRing {...shown} />}
    </svg>
  );

  function drawCore({ id: wireId, x, y, r }: Core) {
    const { colour, number, conductor } = wires.get(wireId)!;
    const copper = Math.min(r * 0.62, measureCopperDiameter(conductor) / 2);
    return (
      <g key={wireId} onPointerEnter={() => onOver(wireId)} onPointerLeave={() => onOver(null)}>
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
}

/** So many elements that each is too small for a number: drawn colour by colour in a few paths. */
const MANY = 48;

function ManyCores({ section, circles, wires }: { section: Section; circles: readonly Circle[]; wires: ReadonlyMap<string, PlannedWire> }) {
  const bases = new Map<string, string>();
  const stripes = new Map<string, string>();
  let copper = '';
  let groups = '';
  section.elements.forEach((ids, index) => {
    const { x, y, r } = circles[index]!;
    if (ids.length > 1) groups += disc(x, y, r);
    for (const core of listCores({ x, y, r }, ids)) {
      const { colour, conductor } = wires.get(core.id)!;
      bases.set(colour.base, `${bases.get(colour.base) ?? ''}${disc(core.x, y, core.r * 0.97)}`);
      if (colour.stripe)
        stripes.set(colour.stripe, `${stripes.get(colour.stripe) ?? ''}M${core.x} ${y}L${core.x + core.r * 0.5} ${y - core.r * 0.8}`);
      copper += disc(core.x, y, Math.min(core.r * 0.62, measureCopperDiameter(conductor) / 2));
    }
  });
  const hex = (name: string) => WIRE_HEX[name as keyof typeof WIRE_HEX];
  return (
    <>
      <path d={groups} fill="none" stroke="var(--ink-2)" strokeWidth={0.07} strokeDasharray="0.3 0.2" />
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

const DASHES: Partial<Record<(typeof COVERING_LOOK)[keyof typeof COVERING_LOOK], (wall: number) => string>> = {
  woven: (wall) => `${wall} ${wall / 2}`,
  wound: (wall) => `${wall * 3} ${wall / 2}`,
};

/** The covering in section: lined in another colour, what is woven or wound broken. */
export const SleeveRing = ({ covering, wall, outside }: { covering: PlannedCovering; wall: number; outside: number }) =>
  wall > 0 && (
    <circle
      r={outside - wall / 2}
      fill="none"
      stroke={COVERING_LOOK[covering.kind] === 'lined' ? 'var(--sea)' : 'var(--ink-2)'}
      strokeWidth={wall}
      strokeDasharray={DASHES[COVERING_LOOK[covering.kind]]?.(wall)}
      opacity={0.45}
    />
  );
