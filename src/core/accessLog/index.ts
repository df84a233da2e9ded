export { countCells, crawlerTest, hitCounter } from './hits';
export type { HitCounts, Hits } from './hits';
export { logReader } from './line';
export type { LogHit, LogLine } from './request';
