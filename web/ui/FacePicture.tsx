import { drawFace, WIRE_HEX, type Colour, type ConnectorFamily } from 'wattograph-core';

const DARK = ['black', 'brown', 'blue', 'violet', 'green', 'red'];

/** A connector's face as seen from one side, cavities in the colours of their wires. */
export function FacePicture({
  family,
  side,
  colourAt,
  chosen,
  className,
}: {
  family: ConnectorFamily;
  side: 'wire' | 'mating';
  colourAt: (cavity: string) => Colour | null;
  chosen?: string | null;
  className?: string;
}) {
  const face = drawFace(family, side);
  const [w, h] = [face.widthMm, face.heightMm];
  const r = face.cavityMm / 2;
  return (
    <svg
      className={className}
      viewBox={`${-w / 2 - 2} ${-h / 2 - 2.6} ${w + 4} ${h + 4.6}`}
      role="img"
      aria-label={`${family.name}, ${side} side`}
    >
      {face.round ? (
        <circle r={w / 2} fill="var(--paper-2)" stroke="var(--outline)" strokeWidth={0.5} />
      ) : (
        <rect x={-w / 2} y={-h / 2} width={w} height={h} rx={1} fill="var(--paper-2)" stroke="var(--outline)" strokeWidth={0.5} />
      )}
      <path d={`M${-r * 0.7} ${-h / 2}h${r * 1.4}l${-r * 0.7} ${-1.6}Z`} fill="var(--outline)" />
      {face.spots.map(({ cavity, x, y }) => {
        const colour = colourAt(cavity);
        const isDark = colour !== null && DARK.includes(colour.base);
        return (
          <g key={cavity}>
            <circle
              cx={x}
              cy={y}
              r={r}
              fill={colour ? WIRE_HEX[colour.base] : 'var(--paper)'}
              stroke={chosen === cavity ? 'var(--brass)' : 'var(--outline)'}
              strokeWidth={chosen === cavity ? 0.7 : 0.16}
              strokeDasharray={colour ? undefined : '0.4 0.3'}
            />
            {colour?.stripe && <circle cx={x} cy={y} r={r * 0.82} fill="none" stroke={WIRE_HEX[colour.stripe]} strokeWidth={r * 0.24} />}
            <text
              x={x}
              y={y + r * 0.32}
              textAnchor="middle"
              fontSize={r * 0.9}
              style={{ fontFamily: 'var(--mono)', fontWeight: 600, fill: colour ? (isDark ? '#fff' : '#14242b') : 'var(--ink)' }}
            >
              {cavity}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
