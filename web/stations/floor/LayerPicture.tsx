'use client';

import { listLaidCircles, toThreadWords, WIRE_HEX, type LoomPlan, type PlannedLayup, type StepItem } from 'wattograph-core';
import styles from './Floor.module.css';

/** A bundle cut through where a stretch begins, as far as it is laid: this layer in colour, what lies beneath grey, the next wire marked and named. */
export function LayerPicture({
  plan,
  layup,
  stretch,
  layer,
  next,
}: {
  plan: LoomPlan;
  layup: PlannedLayup;
  stretch: number;
  layer: number;
  next: StepItem | null;
}) {
  const { fromMark, layers } = layup.stretches[stretch]!;
  const { hand, layMm } = layers[layer]!;
  const circles = listLaidCircles(layup, layup.marks[fromMark]!.mm).filter((circle) => circle.layer <= layer);
  const radius = Math.max(...circles.map(({ outerOdMm }) => outerOdMm)) / 2;
  const numbers = new Map(plan.wires.map(({ id, number }) => [id, number]));
  const colours = new Map(plan.wires.map(({ id, colour }) => [id, colour]));
  const place = next === null ? -1 : Number(next.id.replace('at ', ''));
  const slot = layers[layer]!.slots[place];
  const thread = layup.threads.find(({ id }) => id === slot?.threadId);
  const name = next === null ? 'all laid' : thread ? toThreadWords(thread, numbers, Math.max(fromMark, thread.from.mark)) : 'dead wire';
  return (
    <div>
      <b>SEEN FROM THE DATUM</b>
      <p className={styles.nextWire} aria-label="Next to lay">
        {name}
        {slot && ` at ${Math.round(slot.startDeg) % 360}°`}
      </p>
      {hand !== null && (
        <p>
          {hand}-hand {hand === 'right' ? '↻' : '↺'}, lay {layMm!.toFixed(1)} mm: five turns = {Math.ceil(5 * layMm! - 1e-6)} mm
        </p>
      )}
      <svg
        style={{ maxHeight: 300 }}
        viewBox={`${-radius * 1.25} ${-radius * 1.25} ${radius * 2.5} ${radius * 2.4}`}
        role="img"
        aria-label={`Layer being laid, ${hand ?? 'no'} hand`}
      >
        <path d={`M0 ${-radius * 1.05}V${-radius * 1.2}`} stroke="var(--ink)" strokeWidth={radius * 0.04} />
        {circles.map(({ x, y, r, layer: of, slot: at, wireIds }) => {
          const isNext = of === layer && at === place;
          const isHere = of === layer;
          const inner = r / Math.max(1, wireIds.length);
          return (
            <g key={`${of} ${at}`}>
              {wireIds.length === 0 && (
                <circle
                  cx={x}
                  cy={y}
                  r={r * 0.95}
                  fill="none"
                  stroke="var(--ink-2)"
                  strokeWidth={r * 0.08}
                  strokeDasharray={`${r * 0.3} ${r * 0.2}`}
                />
              )}
              {wireIds.map((id, index) => {
                const { base, stripe } = colours.get(id)!;
                const cx = x + (index - (wireIds.length - 1) / 2) * 2 * inner;
                return (
                  <g key={id}>
                    <circle
                      cx={cx}
                      cy={y}
                      r={inner * 0.95}
                      fill={isHere ? WIRE_HEX[base] : 'var(--paper-2)'}
                      stroke="var(--ink-2)"
                      strokeWidth={inner * 0.08}
                    />
                    {isHere && stripe && (
                      <path
                        d={`M${cx - inner * 0.6} ${y - inner * 0.4}L${cx + inner * 0.6} ${y - inner * 0.4}`}
                        stroke={WIRE_HEX[stripe]}
                        strokeWidth={inner * 0.3}
                      />
                    )}
                  </g>
                );
              })}
              {isNext && <circle cx={x} cy={y} r={r * 0.95} fill="none" stroke="var(--brass)" strokeWidth={r * 0.18} />}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
