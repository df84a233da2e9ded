export { earlierCrawls, openComparison, previousCrawl } from './comparisons';
export type { ComparisonCall, OpenComparison } from './comparisons';
