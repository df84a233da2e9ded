export { readBase } from './base';
export { findingsOfPage, keepBeside, openReport, openSnapshot, openTogether, readFacts } from './open';
export { openSiteReport } from './siteReport';
export { partNames, readParts, storeSnapshot } from './parts';
export type { Analysed } from './parts';
