export { anchorFacts } from './faults';
export { plainWords } from './words';
export { missingFragments } from './fragments';
export { isLanguageCode } from './languageCodes';
