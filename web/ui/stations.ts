import type { FindingStation } from 'wattograph-core';

interface Station {
  key: string;
  slug: FindingStation | 'board' | 'sheets';
  name: string;
}

/** The stations that exist, in the order of the work; numbers are those of the keys. */
export const STATIONS = [
  { key: '1', slug: 'brief', name: 'Brief' },
  { key: '2', slug: 'survey', name: 'Survey' },
  { key: '3', slug: 'circuits', name: 'Circuits' },
  { key: '4', slug: 'power', name: 'Power' },
  { key: '5', slug: 'bundle', name: 'Bundle' },
  { key: '6', slug: 'dress', name: 'Dress' },
  { key: '7', slug: 'ends', name: 'Ends' },
  { key: '9', slug: 'board', name: 'Board' },
  { key: '0', slug: 'sheets', name: 'Sheets' },
] as const satisfies readonly Station[];
