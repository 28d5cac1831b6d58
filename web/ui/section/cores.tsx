import type { Circle } from 'wattograph-core';

/** A wire of a section where it is drawn. */
export interface Core extends Circle {
  id: string;
}

/** The wires of an element, side by side in its round. */
export const listCores = ({ x, y, r }: Circle, ids: readonly string[]): Core[] =>
  ids.map((id, at) => ({ id, x: x + ((at - (ids.length - 1) / 2) * 2 * r) / ids.length, y, r: r / ids.length }));

/** A round, as part of a path. */
export const disc = (x: number, y: number, r: number) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;

/** The round of wires that are twisted with one another, or lie in one cable. */
export const GroupRing = ({ x, y, r }: Circle) => (
  <circle cx={x} cy={y} r={r} fill="none" stroke="var(--ink-2)" strokeDasharray={`${r * 0.2} ${r * 0.14}`} strokeWidth={r * 0.05} />
);

/** Round the wire that is pointed at, here or in the key. */
export const OverRing = ({ x, y, r }: Circle) => (
  <circle cx={x} cy={y} r={r} fill="none" stroke="var(--brass)" strokeWidth={r * 0.4} pointerEvents="none" />
);
