export { caseless } from './caseless';
export { eachWord } from './eachWord';
export { MAX_FILTER_BYTES, mayHaveAny, wordFilter } from './filter';
export { fingerprintDistance } from './fingerprint';
export { readWords } from './readWords';
export { haveCommon, stems } from './stems';
