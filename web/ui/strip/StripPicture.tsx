import { memo } from 'react';
import { WIRE_HEX, type StripLayout, type StripTrace, type Zone } from 'wattograph-core';
import { COVERING_LOOK } from '../coveringLook';
import styles from './Strip.module.css';

/** A wire without colour is drawn faint: it is not what is meant. */
export interface DrawnTrace extends Pick<StripTrace, 'parts'> {
  colour: StripTrace['colour'] | null;
}

/** widths that the eye does not tell apart are one, px */
const WIDTH_STEP = 0.25;

/** Wires of one look are one path: 300 wires are a few dozen elements. The outline keeps white and yellow readable on paper. */
export const Traces = memo(function Traces({ traces }: { traces: readonly DrawnTrace[] }) {
  const layers = { outline: new Looks(), base: new Looks(), stripe: new Looks() };
  for (const { colour, parts } of traces)
    for (const part of parts) {
      const width = Math.max(WIDTH_STEP, Math.round(part.width / WIDTH_STEP) * WIDTH_STEP);
      layers.outline.add('var(--outline)', width + (width < 1.4 ? 0.5 : 1), part.d);
      layers.base.add(colour ? WIRE_HEX[colour.base] : '#8a9896', width, part.d);
      if (colour?.stripe) layers.stripe.add(WIRE_HEX[colour.stripe], width * 0.36, part.d);
    }
  return (
    <g pointerEvents="none" fill="none" strokeLinejoin="round">
      {[...layers.outline.list(), ...layers.base.list(), ...layers.stripe.list()].map(({ stroke, width, d }, index) => (
        <path key={index} d={d} stroke={stroke} strokeWidth={width} />
      ))}
    </g>
  );
});

/** Lines gathered by their look. */
class Looks {
  private readonly looks = new Map<string, { stroke: string; width: number; d: string }>();

  add(stroke: string, width: number, d: string): void {
    const key = `${width} ${stroke}`;
    const look = this.looks.get(key);
    if (look) look.d += d;
    else this.looks.set(key, { stroke, width, d });
  }

  list = () => this.looks.values();
}

/** The wires of a loom: a part of its own, so that their lines are not made in the same breath as all else. */
export const LoomTraces = memo(function LoomTraces({ layout }: { layout: StripLayout }) {
  return <Traces traces={layout.listTraces()} />;
});

const zoneTint = (zone: Zone | undefined): string | null => {
  if (!zone) return null;
  if (zone.wet) return 'var(--zone-wet)';
  if (zone.flexing) return 'var(--zone-flex)';
  if (zone.reopen) return 'var(--zone-open)';
  return zone.ambientC > 100 ? 'var(--zone-hot)' : null;
};

const LOOKS = {
  woven: { stroke: 'var(--ink)', dash: '3 2', width: 2 },
  wound: { stroke: 'var(--ink)', dash: '8 2', width: 2 },
  plain: { stroke: 'var(--ink)', dash: undefined, width: 2 },
  lined: { stroke: 'var(--sea)', dash: undefined, width: 2.6 },
  bare: null,
} as const;

/** A zone that is tinted has its name on the strip. */
export const toZoneWords = (zones: Record<string, Zone>): ReadonlyMap<string, string> =>
  new Map(Object.entries(zones).flatMap(([id, zone]) => (zoneTint(zone) === null ? [] : [[id, `${zone.name} ${zone.ambientC} °C`]])));

/** Zones as tints behind the traces, sleeves as bands along the far edge of their wires. */
export const Runs = memo(function Runs({ runs, zones }: { runs: StripLayout['runs']; zones: Record<string, Zone> }) {
  return runs.map(({ segmentId, x, width, top, bottom, side, lanes, zoneId, covering }) => {
    const zone = zoneId === null ? undefined : zones[zoneId];
    const tint = zoneTint(zone);
    const look = LOOKS[COVERING_LOOK[covering]];
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
  const wholes = Array.from({ length: Math.floor(reachMm / step) + 1 }, (_, index) => index * step);
  const ticks = Array.from({ length: Math.floor((reachMm * 5) / step) + 1 }, (_, index) => (index * step) / 5);
  const toX = (mm: number) => left + mm * scale;
  return (
    <g>
      <path d={wholes.map((mm) => `M${toX(mm)} 28V${height}`).join('')} stroke="var(--grid)" />
      <path
        d={`M${left} 27.5H${toX(reachMm)}${ticks.map((mm, index) => `M${toX(mm)} ${index % 5 === 0 ? 19 : 23}V27`).join('')}`}
        stroke="var(--ink)"
      />
      {wholes.map((mm) => (
        <text key={mm} x={toX(mm) + 2} y={15} className={styles.tick}>
          {mm}
        </text>
      ))}
    </g>
  );
});

/** Splices as dots with their reach over the traces they join; one that is not clear is marked with a word and a shape at its tag. */
export const Splices = memo(function Splices({ splices }: { splices: StripLayout['splices'] }) {
  // a dot is a line of no length with round ends: all of one look are one path, however many there are
  const dots = new Looks();
  for (const [away, stroke] of [
    [1.2, 'var(--paper)'],
    [0, null],
  ] as const)
    for (const { x, y, top, bottom, clear } of splices)
      dots.add(stroke ?? (clear ? 'var(--ink)' : 'var(--action)'), 2 * (bottom - top < 24 ? 2.6 : 3.9) + 2 * away, `M${x} ${y}h0`);
  return (
    <g pointerEvents="none">
      <path d={splices.map(({ x, top, bottom }) => `M${x} ${top}V${bottom}`).join('')} stroke="var(--ink)" strokeWidth={1.6} />
      {[...dots.list()].map(({ stroke, width, d }) => (
        <path key={`${stroke} ${width}`} d={d} stroke={stroke} strokeWidth={width} strokeLinecap="round" />
      ))}
    </g>
  );
});

/** Names of zones, where the layout found room for them. */
export const ZoneNames = memo(function ZoneNames({ zones }: { zones: StripLayout['zones'] }) {
  return zones.map(({ zoneId, words, box }) => (
    <text key={zoneId} x={box.left} y={box.bottom - 4} className={styles.zone}>
      {words}
    </text>
  ));
});
