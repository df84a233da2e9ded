export { countCells, hitCounter, saysCrawler } from './hits';
export type { Asked, HitCounts, Hits } from './hits';
export { logReader } from './line';
export type { LogHit, LogLine } from './request';
