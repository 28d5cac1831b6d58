/** The stations that exist, in the order of the work; numbers are those of the keys. */
export const STATIONS = [
  { key: '1', slug: 'brief', name: 'Brief', rules: /^(SC5|SC6|SC7|SC8|CI7|DO|ST|MT)/ },
  { key: '2', slug: 'survey', name: 'Survey', rules: /^(SC1|SC2|SC3|SC4|SC9|SC10)$/ },
  { key: '3', slug: 'circuits', name: 'Circuits', rules: /^(CI1|CI3|CI4|CI5|CI6|CI8|CI9|CI1\d)$/ },
  { key: '4', slug: 'power', name: 'Power', rules: /^PO([2-9]|1\d)$/ },
  { key: '5', slug: 'bundle', name: 'Bundle', rules: /^(BU|RO|DR|CI2|MA|BT)/ },
  { key: '7', slug: 'ends', name: 'Ends', rules: /^(EN|PO1$)/ },
  { key: '0', slug: 'sheets', name: 'Sheets', rules: null },
] as const;
