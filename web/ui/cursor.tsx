'use client';

import { createContext, useContext, useState, useSyncExternalStore, type ReactNode } from 'react';

/** Where on the loom the planner looks: so far along a segment from its near side, mm. */
export interface Cursor {
  segmentId: string;
  offsetMm: number;
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

/** The wire that is shown from end to end. */
export function useLit(): string | null {
  const store = useCursorStore();
  return useSyncExternalStore(store.subscribe, store.getLit, () => null);
}
