export { fromCavityWords } from './fromCavityWords';
export { fromSpotList, type ListedSpot } from './fromSpotList';
export { fromDonorList, toDonorMapping, type DonorMapping } from './fromDonorList';
export { fromJsonText } from './fromJsonText';
export { fromWireList, listListedEnds, toMapping, type ListedEnd, type WireListMapping, type WireListOptions } from './fromWireList';
export { readCsv, type CsvTable } from './readCsv';
export { toCutListCsv, toWireListCsv } from './toCsv';
export { fromShopTable, toShopTableCsv } from './shopTables';
export { toPinsCsv } from './toPinsCsv';
