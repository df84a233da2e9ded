/** The numbers of a timeline that are one number a crawl. */
export const trendNumbers = [
  'known',
  'indexable',
  'noRoute',
  'findings',
  'orphans',
  'brokenLinks',
  'medianDepth',
  'topTen',
] as const;
export type TrendNumber = (typeof trendNumbers)[number];
