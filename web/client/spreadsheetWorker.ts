/** A worker for one spreadsheet. */
export const createSpreadsheetWorker = () => new Worker(new URL('../workers/spreadsheet.worker.ts', import.meta.url), { type: 'module' });
