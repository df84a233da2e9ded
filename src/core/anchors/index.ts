export { findLinkFaults, MAX_ANCHOR } from './faults';
export { haveCommon, isGeneric, isWayfinding, plainWords, stems } from './words';
