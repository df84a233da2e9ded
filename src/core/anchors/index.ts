export { anchorFacts } from './faults';
export type { AnchorFacts } from './faults';
export type { FaultBase } from './faultBase';
export { plainWords } from './words';
export { missingFragments } from './fragments';
export { isLanguageCode } from './languageCodes';
