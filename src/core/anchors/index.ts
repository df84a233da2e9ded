export { findLinkFaults } from './faults';
export { isGeneric, isWayfinding, plainWords } from './words';
