import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { drawFace, WIRE_HEX, type Colour, type ConnectorFamily } from 'wattograph-core';

const DARK = ['black', 'brown', 'blue', 'violet', 'green', 'red'];
const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** mm: what a pointer or a key moves a cavity by at the least */
const GRID_MM = 0.1;
const snap = (mm: number) => Math.round(mm / GRID_MM) / (1 / GRID_MM);

/** What may be done with the cavities of a face: picked, and moved where their spots are free. */
interface Handles {
  picked: ReadonlySet<string>;
  /** together: to what is picked already */
  onPick: (cavity: string, together: boolean) => void;
  /** null: the spots follow from counts and cannot be moved one by one */
  onMove: ((cavity: string, xMm: number, yMm: number) => void) | null;
}

/** A connector's face as seen from one side, cavities in the colours of their wires. */
export function FacePicture({
  family,
  side,
  colourAt,
  chosen,
  className,
  handles,
}: {
  family: ConnectorFamily;
  side: 'wire' | 'mating';
  colourAt: (cavity: string) => Colour | null;
  chosen?: string | null;
  className?: string;
  handles?: Handles;
}) {
  const face = drawFace(family, side);
  const [w, h] = [face.widthMm, face.heightMm];
  const tip = family.pitchMm * 0.29;
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ cavity: string; from: readonly [number, number]; x: number; y: number } | null>(null);
  const toMm = (event: PointerEvent): readonly [number, number] => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return [0, 0];
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return [x, y];
  };
  const isChosen = (cavity: string) => chosen === cavity || handles?.picked.has(cavity) === true;
  const grips = (cavity: string, x: number, y: number) => {
    if (!handles) return {};
    const { onPick, onMove, picked } = handles;
    return {
      tabIndex: 0,
      role: 'button',
      'aria-label': `cavity ${cavity}`,
      'aria-pressed': picked.has(cavity),
      style: { cursor: onMove ? 'grab' : 'pointer', touchAction: 'none' },
      onPointerDown: (event: PointerEvent<SVGGElement>) => {
        onPick(cavity, event.shiftKey);
        if (!onMove) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ cavity, from: toMm(event), x, y });
      },
      onPointerMove: (event: PointerEvent<SVGGElement>) => {
        if (drag?.cavity !== cavity) return;
        const [toX, toY] = toMm(event);
        setDrag({ ...drag, x: snap(x + toX - drag.from[0]), y: snap(y + toY - drag.from[1]) });
      },
      onPointerUp: () => {
        if (drag?.cavity === cavity && (drag.x !== x || drag.y !== y)) onMove?.(cavity, drag.x, drag.y);
        setDrag(null);
      },
      onPointerCancel: () => setDrag(null),
      onKeyDown: (event: KeyboardEvent<SVGGElement>) => {
        const step = STEPS[event.key];
        if (event.key === 'Enter' || event.key === ' ') onPick(cavity, event.shiftKey);
        else if (event.key === 'Escape') setDrag(null);
        else if (step && onMove) onMove(cavity, snap(x + step[0] * GRID_MM), snap(y + step[1] * GRID_MM));
        else return;
        event.preventDefault();
      },
    };
  };
  return (
    <svg
      ref={svg}
      className={className}
      viewBox={`${-w / 2 - 2} ${-h / 2 - 2.6} ${w + 4} ${h + 4.6}`}
      role={handles ? 'group' : 'img'}
      aria-label={`${family.name}, ${side} side`}
    >
      {face.round ? (
        <circle r={w / 2} fill="var(--paper-2)" stroke="var(--outline)" strokeWidth={0.5} />
      ) : (
        <rect x={-w / 2} y={-h / 2} width={w} height={h} rx={1} fill="var(--paper-2)" stroke="var(--outline)" strokeWidth={0.5} />
      )}
      <path d={`M${-tip} ${-h / 2}h${2 * tip}l${-tip} ${-1.6}Z`} fill="var(--outline)" />
      {face.spots.map(({ cavity, ...spot }) => {
        const { x, y } = drag?.cavity === cavity ? drag : spot;
        const r = face.cavityMm(cavity) / 2;
        const colour = colourAt(cavity);
        const isDark = colour !== null && DARK.includes(colour.base);
        const fontSize = r * (cavity.length > 2 ? 1.8 / cavity.length : 0.9);
        return (
          <g key={cavity} {...grips(cavity, spot.x, spot.y)}>
            <circle
              cx={x}
              cy={y}
              r={r}
              fill={colour ? WIRE_HEX[colour.base] : 'var(--paper)'}
              stroke={isChosen(cavity) ? 'var(--brass)' : 'var(--outline)'}
              strokeWidth={isChosen(cavity) ? Math.min(0.7, r / 3) : Object.hasOwn(family.otherSizes, cavity) ? 0.4 : 0.16}
              strokeDasharray={colour ? undefined : '0.4 0.3'}
            />
            {colour?.stripe && <circle cx={x} cy={y} r={r * 0.82} fill="none" stroke={WIRE_HEX[colour.stripe]} strokeWidth={r * 0.24} />}
            <text
              x={x}
              y={y + fontSize * 0.36}
              textAnchor="middle"
              fontSize={fontSize}
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
