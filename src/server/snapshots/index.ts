export { readBase } from './base';
export { findingsOfPage, openBytes, openReport, openSnapshot } from './open';
export type { Ended, OpenReport } from './open';
export { storeSnapshot } from './parts';
