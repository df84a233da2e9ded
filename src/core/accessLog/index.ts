export { countCells, hitCounter, saysCrawler } from './hits';
export type { HitCounts, Hits } from './hits';
export { logReader } from './line';
export type { LogHit } from './request';
