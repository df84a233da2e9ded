export { addHit, answeredHits, cellOf, crawlerTest, dayOfCell, mergeHits, noHits, statusOfCell } from './hits';
export type { Hits } from './hits';
export { logReader } from './line';
export type { LogHit, LogLine } from './request';
