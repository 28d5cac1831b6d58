/** The stations that exist, in the order of the work; numbers are those of the keys. */
export const STATIONS = [
  { key: '5', slug: 'bundle', name: 'Bundle', rules: /^(SC|BU|RO|DR|CI2|MA|BT)/ },
  { key: '7', slug: 'ends', name: 'Ends', rules: /^(EN|CI1|PO)/ },
  { key: '0', slug: 'sheets', name: 'Sheets', rules: null },
] as const;
