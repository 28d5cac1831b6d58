import { memo } from 'react';
import { WIRE_HEX, type StripLayout, type StripTrace, type Zone } from 'wattograph-core';
import styles from './Strip.module.css';

const Trace = memo(function Trace({ d, width, base, stripe }: { d: string; width: number; base: string; stripe: string | null }) {
  return (
    <g fill="none" strokeLinejoin="round">
      <path d={d} stroke="var(--outline)" strokeWidth={width + 1} />
      <path d={d} stroke={base} strokeWidth={width} />
      {stripe && <path d={d} stroke={stripe} strokeWidth={width * 0.36} />}
    </g>
  );
});

/** Traces of all wires; a trace that did not move is not drawn again. */
export const Traces = memo(function Traces({ traces }: { traces: readonly StripTrace[] }) {
  const drawn = traces.map(({ id, d, width, colour }) => (
    <Trace
      key={id}
      d={d}
      width={width}

      base={colour ? WIRE_HEX[colour.base] : '#8a9896'}
      stripe={colour?.stripe ? WIRE_HEX[colour.stripe] : null}
    />
  ));
  return <g pointerEvents="none">{drawn}</g>;
});

const zoneTint = (zone: Zone | undefined): string | null => {
  if (!zone) return null;
  if (zone.wet) return 'var(--zone-wet)';
  if (zone.flexing) return 'var(--zone-flex)';
  if (zone.reopen) return 'var(--zone-open)';
  return zone.ambientC > 100 ? 'var(--zone-hot)' : null;
};

const COVER_LOOK = {
  braid: { stroke: 'var(--ink)', dash: '3 2', width: 3 },
  shrink: { stroke: 'var(--ink)', dash: undefined, width: 3 },
  'adhesive-shrink': { stroke: 'var(--sea)', dash: undefined, width: 4 },
  none: null,
} as const;

/** Zones as tints behind the traces, sleeves as bands along the lower edge. */
export const Runs = memo(function Runs({ runs, zones }: { runs: StripLayout['runs']; zones: Record<string, Zone> }) {
  const named = new Set<string>();
  return runs.map(({ segmentId, x, width, top, bottom, zoneId, covering }) => {
    const zone = zoneId === null ? undefined : zones[zoneId];
    const tint = zoneTint(zone);
    const look = COVER_LOOK[covering];
    const isFirst = tint !== null && zone !== undefined && !named.has(zone.name) && width > 120;
    if (isFirst) named.add(zone.name);
    return (
      <g key={segmentId}>
        {tint && <rect x={x} y={top + 1} width={width} height={bottom - top - 2} fill={tint} />}
        {isFirst && (
          <text x={x + width - 4} y={bottom - 8} textAnchor="end" className={styles.leg} style={{ fontFamily: 'inherit' }}>
            {zone.name} {zone.ambientC} °C
          </text>
        )}
        {look && (
          <line
            x1={x + 2}
            x2={x + width - 2}
            y1={bottom - 3}
            y2={bottom - 3}
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

/** Splices as dots with their reach over the traces they join; one that is not clear is marked with a word and a shape. */
export const Splices = memo(function Splices({ splices }: { splices: StripLayout['splices'] }) {
  return splices.map(({ spliceId, label, x, y, top, bottom, clear, labelY }) => (
    <g key={spliceId}>
      <line x1={x} x2={x} y1={top} y2={Math.max(bottom, labelY - 10)} stroke="var(--ink)" strokeWidth={1.6} />
      <circle cx={x} cy={y} r={4.5} fill={clear ? 'var(--ink)' : 'var(--action)'} stroke="var(--paper)" strokeWidth={1.4} />
      <g transform={`translate(${x} ${labelY})`}>
        <rect x={-13} y={-10} width={clear ? 26 : 40} height={16} fill="var(--paper)" stroke={clear ? 'var(--ink)' : 'var(--action)'} />
        <text
          x={clear ? 0 : 7}
          y={3}
          textAnchor="middle"
          style={{ font: '600 13px var(--mono)', fill: clear ? 'var(--ink)' : 'var(--action)' }}
        >
          {clear ? label : `! ${label}`}
        </text>
      </g>
    </g>
  ));
});
