export { anchorFacts } from './faults';
export { genericIn, isReference, isWayfinding, plainWords } from './words';
export { missingFragments } from './fragments';
export { isLanguageCode } from './languageCodes';
