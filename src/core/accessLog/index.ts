export { countCells, hitCounter, saysCrawler } from './hits';
export type { Asked, HitCounts, Hits } from './hits';
export { logReader } from './line';
export { noPlainHit } from './plain';
export type { PlainHit } from './plain';
export type { LogHit, LogLine } from './request';
