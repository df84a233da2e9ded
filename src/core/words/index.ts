export { MAX_FILTER_BYTES, mayHaveAny, wordFilter } from './filter';
export { haveCommon, stems } from './stems';
