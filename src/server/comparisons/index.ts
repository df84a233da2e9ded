export { earlierCrawls, openComparison, previousCrawl, reportedIn } from './comparisons';
export type { ComparisonCall, OpenComparison } from './comparisons';
