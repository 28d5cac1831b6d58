import { useState } from 'react';
import type { CsvTable, Problem } from 'wattograph-core';
import { readTable } from './readTable';

/** A list that is read from a file, CSV or XLSX. onRead: told of each that could be read, with what its file is called without its kind. */
export function useListFile(onRead: (table: CsvTable, name: string) => void) {
  const [read, setRead] = useState<{ fileName: string; table: CsvTable | null; problems: Problem[] }>({
    fileName: '',
    table: null,
    problems: [],
  });
  const choose = async (file: File | null) => {
    if (!file) return;
    const parsed = await readTable(file);
    setRead({ fileName: file.name, table: parsed.ok ? parsed.value : null, problems: parsed.ok ? [] : parsed.problems });
    if (parsed.ok) onRead(parsed.value, file.name.replace(/\.[^.]*$/, '').slice(0, 60));
  };
  return { ...read, choose };
}
