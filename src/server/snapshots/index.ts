export { readBase } from './base';
export { findingsOfPage, keepBeside, openBytes, openReport, openSnapshot, openTogether, readFacts } from './open';
export type { Analysed, OpenReport } from './open';
export { openSiteReport } from './siteReport';
export type { SiteReport } from './siteReport';
export { partNames, readParts, storeSnapshot } from './parts';
