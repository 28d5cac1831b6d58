export { fromDonorList, toDonorMapping, type DonorMapping } from './fromDonorList';
export { fromJsonText } from './fromJsonText';
export { fromWireList, toMapping, type WireListMapping, type WireListOptions } from './fromWireList';
export { readCsv, type CsvTable } from './readCsv';
export { toCutListCsv, toWireListCsv } from './toCsv';
export { toPinsCsv } from './toPinsCsv';
