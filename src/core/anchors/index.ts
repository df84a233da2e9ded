export { anchorFacts } from './faults';
export type { AnchorFacts, FaultBase } from './faults';
export { plainWords } from './words';
export { missingFragments } from './fragments';
