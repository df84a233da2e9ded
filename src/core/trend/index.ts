export { spikes } from './spikes';
export type { Spike } from './spikes';
export { trendCounts } from './counts';
export type { TrendCounts } from './counts';
export { trendNumbers } from './numbers';
export type { TrendNumber } from './numbers';
