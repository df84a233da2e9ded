export { readBase } from './base';
export { findingsOfPages, keepBeside, openReport, openSnapshot, openTogether, readFacts } from './open';
export { openSiteReport, reportOfSite } from './siteReport';
export type { SiteReport } from './siteReport';
export type { OpenReport } from './open';
export { partNames, readParts, storeSnapshot } from './parts';
export type { Analysed } from './parts';
