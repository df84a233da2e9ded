export { spikes } from './spikes';
export { trendCounts } from './counts';
export type { TrendCounts } from './counts';
export type { TrendNumber } from './numbers';
