// apart from the rest, so that only who works with spreadsheets loads the library for them
export { readXlsx } from './readXlsx';
export { writeWorkbook } from './build/writeWorkbook';
export { writeXlsx } from './writeXlsx';
