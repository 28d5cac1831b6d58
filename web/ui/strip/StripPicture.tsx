import { memo } from 'react';
import { WIRE_HEX, type StripLayout, type StripTrace, type Zone } from 'wattograph-core';
import styles from './Strip.module.css';

/** A wire without colour is drawn faint: it is not what is meant. */
export interface DrawnTrace extends Pick<StripTrace, 'parts'> {
  colour: StripTrace['colour'] | null;
}

/** Wires of one look are one path: 300 wires are a few dozen elements. The outline keeps white and yellow readable on paper. */
export const Traces = memo(function Traces({ traces }: { traces: readonly DrawnTrace[] }) {
  const looks = new Map<string, { width: number; base: string; stripe: string | null; d: string }>();
  for (const { colour, parts } of traces)
    for (const { width, d } of parts) {
      const base = colour ? WIRE_HEX[colour.base] : '#8a9896';
      const stripe = colour?.stripe ? WIRE_HEX[colour.stripe] : null;
      const key = `${width} ${base} ${stripe}`;
      const look = looks.get(key);
      if (look) look.d += d;
      else looks.set(key, { width, base, stripe, d });
    }
  const drawn = [...looks];
  return (
    <g pointerEvents="none" fill="none" strokeLinejoin="round">
      {drawn.map(([key, { width, d }]) => (
        <path key={key} d={d} stroke="var(--outline)" strokeWidth={width + (width < 1.4 ? 0.5 : 1)} />
      ))}
      {drawn.map(([key, { width, d, base }]) => (
        <path key={key} d={d} stroke={base} strokeWidth={width} />
      ))}
      {drawn.map(([key, { width, d, stripe }]) => stripe && <path key={key} d={d} stroke={stripe} strokeWidth={width * 0.36} />)}
    </g>
  );
});

const zoneTint = (zone: Zone | undefined): string | null => {
  if (!zone) return null;
  if (zone.wet) return 'var(--zone-wet)';
  if (zone.flexing) return 'var(--zone-flex)';
  if (zone.reopen) return 'var(--zone-open)';
  return zone.ambientC > 100 ? 'var(--zone-hot)' : null;
};

const COVER_LOOK = {
  braid: { stroke: 'var(--ink)', dash: '3 2', width: 2 },
  shrink: { stroke: 'var(--ink)', dash: undefined, width: 2 },
  'adhesive-shrink': { stroke: 'var(--sea)', dash: undefined, width: 2.6 },
  none: null,
} as const;

/** A zone that is tinted has its name on the strip. */
export const toZoneWords = (zones: Record<string, Zone>): ReadonlyMap<string, string> =>
  new Map(Object.entries(zones).flatMap(([id, zone]) => (zoneTint(zone) === null ? [] : [[id, `${zone.name} ${zone.ambientC} °C`]])));

/** Zones as tints behind the traces, sleeves as bands along the far edge of their wires. */
export const Runs = memo(function Runs({ runs, zones }: { runs: StripLayout['runs']; zones: Record<string, Zone> }) {
  return runs.map(({ segmentId, x, width, top, bottom, side, lanes, zoneId, covering }) => {
    const zone = zoneId === null ? undefined : zones[zoneId];
    const tint = zoneTint(zone);
    const look = COVER_LOOK[covering];
    const away = look ? look.width / 2 + 0.5 : 0;
    const y = side === 'below' ? lanes.bottom + away : lanes.top - away;
    return (
      <g key={segmentId}>
        {tint && (
          <rect x={x} y={top + 1} width={width} height={bottom - top - 2} fill={tint}>
            <title>
              {zone!.name} {zone!.ambientC} °C
            </title>
          </rect>
        )}
        {look && (
          <line
            x1={x + 2}
            x2={x + width - 2}
            y1={y}
            y2={y}
            stroke={look.stroke}
            strokeWidth={look.width}
            strokeDasharray={look.dash}
            opacity={0.55}
          />
        )}
      </g>
    );
  });
});

/** Ruler: a figure at every round step, finer ticks between. */
export const Ruler = memo(function Ruler({
  left,
  scale,
  reachMm,
  height,
}: {
  left: number;
  scale: number;
  reachMm: number;
  height: number;
}) {
  const step = [5, 10, 20, 50, 100, 200, 500, 1000, 2000].find((one) => one * scale >= 58) ?? 5000;
  const ticks = Array.from({ length: Math.floor((reachMm * 5) / step) + 1 }, (_, index) => (index * step) / 5);
  return (
    <g>
      <line x1={left} x2={left + reachMm * scale} y1={27.5} y2={27.5} stroke="var(--ink)" />
      {ticks.map((mm) => {
        const isWhole = Math.abs(mm / step - Math.round(mm / step)) < 1e-9;
        const x = left + mm * scale;
        return (
          <g key={mm}>
            <line x1={x} x2={x} y1={isWhole ? 19 : 23} y2={27} stroke="var(--ink)" />
            {isWhole && <line x1={x} x2={x} y1={28} y2={height} stroke="var(--grid)" />}
            {isWhole && (
              <text x={x + 2} y={15} className={styles.tick}>
                {mm}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
});

/** Splices as dots with their reach over the traces they join; one that is not clear is marked with a word and a shape at its tag. */
export const Splices = memo(function Splices({ splices }: { splices: StripLayout['splices'] }) {
  return splices.map(({ spliceId, x, y, top, bottom, clear }) => (
    <g key={spliceId} pointerEvents="none">
      <line x1={x} x2={x} y1={top} y2={bottom} stroke="var(--ink)" strokeWidth={1.6} />
      <circle
        cx={x}
        cy={y}
        r={bottom - top < 24 ? 3.2 : 4.5}
        fill={clear ? 'var(--ink)' : 'var(--action)'}
        stroke="var(--paper)"
        strokeWidth={1.2}
      />
    </g>
  ));
});

/** Names of zones, where the layout found room for them. */
export const ZoneNames = memo(function ZoneNames({ zones }: { zones: StripLayout['zones'] }) {
  return zones.map(({ zoneId, words, box }) => (
    <text key={zoneId} x={box.left} y={box.bottom - 4} className={styles.zone}>
      {words}
    </text>
  ));
});
