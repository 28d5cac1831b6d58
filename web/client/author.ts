import { useSyncExternalStore } from 'react';

const KEY = 'wattograph.author';
const listeners = new Set<() => void>();

let people: readonly string[] = [];

/** People of the shop, as a page opens: the name chosen on this device signs edits, releases and ticks; the first of them until one is chosen. */
export function setPeople(names: readonly string[]): void {
  people = names;
}

export function readAuthor(): string {
  return globalThis.localStorage?.getItem(KEY) ?? people[0] ?? 'somebody';
}

export function writeAuthor(name: string): void {
  localStorage.setItem(KEY, name);
  listeners.forEach((listener) => listener());
}

/** The name chosen on this device. */
export function useAuthor(): string {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    readAuthor,
    () => people[0] ?? 'somebody',
  );
}
