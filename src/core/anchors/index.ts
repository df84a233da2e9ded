export { anchorFacts } from './faults';
export type { AnchorFacts, FaultBase } from './faults';
export { missingFragments } from './fragments';
