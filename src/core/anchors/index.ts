export { findLinkFaults, MAX_ANCHOR } from './faults';
export { haveCommon, isGeneric, isPaging, plainWords, stems } from './words';
