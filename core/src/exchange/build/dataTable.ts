/** A column of a list with what its cells are. */
export interface DataColumn {
  name: string;
  kind: 'text' | 'number' | 'yes-no';
  /** after the point; of a number */
  digits?: number;
}

export type DataCell = string | number | boolean | null;

/** A list as typed cells; null where nothing is said. */
export interface DataTable {
  name: string;
  columns: DataColumn[];
  rows: DataCell[][];
}

export const words = (...names: string[]): DataColumn[] => names.map((name) => ({ name, kind: 'text' }));
export const number = (name: string, digits = 0): DataColumn => ({ name, kind: 'number', digits });
export const yesNo = (name: string): DataColumn => ({ name, kind: 'yes-no' });
