'use client';

import { createContext, useContext, useDeferredValue, useState, useSyncExternalStore, type ReactNode } from 'react';
import type { LoomPlan, PlannedBundle, Section } from 'wattograph-core';

/** Where on the loom the planner looks: so far along a segment from its near side, mm. */
export interface Cursor {
  segmentId: string;
  offsetMm: number;
}

/** Where the cursor stands in a plan: where it was as far as that run goes, else in the middle of the first run; null in a loom without runs. */
export function standAt(plan: LoomPlan, at: Cursor | null): Cursor | null {
  const { segments, nodes, datumId } = plan.tree;
  const lengthMm = at && segments[at.segmentId]?.lengthMm;
  if (at && lengthMm !== null && lengthMm !== undefined) return at.offsetMm <= lengthMm ? at : { ...at, offsetMm: lengthMm };
  const first = nodes[datumId]!.childSegmentIds[0];
  return first === undefined ? null : { segmentId: first, offsetMm: segments[first]!.lengthMm / 2 };
}

/** Holds the cursor outside of React, so that moving it draws nothing but what depends on it. */
export class CursorStore {
  private value: Cursor | null = null;
  private lit: string | null = null;
  private listeners = new Set<() => void>();

  get = (): Cursor | null => this.value;

  set = (value: Cursor | null): void => {
    this.value = value;
    this.listeners.forEach((listener) => listener());
  };

  /** Wire that is shown from end to end. */
  getLit = (): string | null => this.lit;

  light = (wireId: string | null): void => {
    this.lit = wireId;
    this.listeners.forEach((listener) => listener());
  };

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
}

const Context = createContext<CursorStore | null>(null);

export function CursorProvider({ children }: { children: ReactNode }) {
  const [store] = useState(() => new CursorStore());
  return <Context value={store}>{children}</Context>;
}

export function useCursorStore(): CursorStore {
  const store = useContext(Context);
  if (!store) throw new Error('useCursorStore: expected a CursorProvider above');
  return store;
}

/** A part of the cursor; the part must be picked, not made. */
export function useCursor<T>(pick: (cursor: Cursor | null) => T): T {
  const store = useCursorStore();
  return useSyncExternalStore(
    store.subscribe,
    () => pick(store.get()),
    () => pick(null),
  );
}

/** The section that the cursor stands in, behind the cursor where there is much to draw; null where no wire runs. */
export function useSection(plan: LoomPlan): { bundle: PlannedBundle; section: Section } | null {
  // as a word: who asks is drawn again only where it becomes another
  const [segmentId, index] = useDeferredValue(
    useCursor((cursor) => {
      const at = standAt(plan, cursor);
      const sections = plan.bundles.find((one) => one.segmentId === at?.segmentId)?.sections ?? [];
      return at ? `${at.segmentId} ${sections.findIndex(({ toMm }) => at.offsetMm <= toMm)}` : '';
    }),
  ).split(' ');
  const bundle = plan.bundles.find((one) => one.segmentId === segmentId);
  const section = bundle?.sections[Number(index)] ?? bundle?.sections[0];
  return bundle && section ? { bundle, section } : null;
}

/** The wire that is shown from end to end. */
export function useLit(): string | null {
  const store = useCursorStore();
  return useSyncExternalStore(store.subscribe, store.getLit, () => null);
}
