import { useSyncExternalStore } from 'react';

const KEY = 'wattograph.author';
const listeners = new Set<() => void>();

/** People of the shop; the name chosen on this device signs edits, releases and ticks. */
export const PEOPLE = ['Imke Dorsey', 'Tobin Ashgrove', 'Saoirse Vell', 'Jun Okafor'] as const;

export function readAuthor(): string {
  return globalThis.localStorage?.getItem(KEY) ?? PEOPLE[0];
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
    () => PEOPLE[0],
  );
}
