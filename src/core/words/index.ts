export {
  addStemHash,
  addStems,
  draftFilter,
  finishFilter,
  HASH_PRIME,
  HASH_START,
  MAX_FILTER_BYTES,
  mayHaveAny,
} from './filter';
export type { FilterDraft } from './filter';
export { haveCommon, MIN_WORD, STEM, stems } from './stems';
