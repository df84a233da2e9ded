export { anchorColumns, missingFragments } from './columns';
export { findLinkFaults } from './faults';
export type { FaultBase } from './faults';
export { isGeneric, isWayfinding, plainWords } from './words';
