export { readBase } from './base';
export { findingsOfPage, openBytes, openReport, openSnapshot } from './open';
export type { Analysed, OpenReport } from './open';
export { storeSnapshot } from './parts';
