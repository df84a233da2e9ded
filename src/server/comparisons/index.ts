export { comparedCrawl, earlierCrawls, openComparison, previousCrawl, reportedIn } from './comparisons';
export type { ComparisonCall } from './comparisons';
